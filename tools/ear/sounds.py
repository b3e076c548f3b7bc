# SPDX-License-Identifier: GPL-3.0-or-later
"""General MIDI's instruments and percussion by the names that styles use (MMA, General MIDI 1)."""

INSTRUMENTS = {
    "piano": [0, 1, 2], "epiano": [4, 5], "harpsichord": [6], "clavinet": [7], "bells": [9, 10, 14], "vibes": [11, 12],
    "organ": [16, 17, 18, 19], "accordion": [21, 23], "harmonica": [22], "guitar": [24], "steel": [25], "clean": [26, 27],
    "muted": [28], "drive": [29, 30], "violin": [40], "cello": [42], "pizzicato": [45], "harp": [46], "strings": [48, 49, 50],
    "choir": [52], "voice": [53, 54], "trumpet": [56], "muted trumpet": [59], "horn": [60], "brass": [61, 62], "sax": [64, 65, 66],
    "oboe": [68], "clarinet": [71], "flute": [73, 75], "whistle": [72, 78], "lead": [80, 81, 84, 87], "saw": [81, 90],
    "pad": [88, 89, 91, 94], "koto": [107, 104, 105],
}
BASSES = {"acoustic": [32], "electric": [33, 34, 35], "synth": [38, 39], "tuba": [58], "bow": [43]}

PERCUSSION = {
    "kick": [35, 36], "snare": [38, 40], "rim": [37], "hat": [42], "open": [46], "pedal": [44], "ride": [51, 59], "cymbal": [49, 57],
    "clap": [39], "tambourine": [54], "shaker": [70, 82], "conga": [63, 64], "wood": [76, 77], "tom": [45, 47, 50], "brush": [38],
}
CRASH = 49
TOMS = [50, 48, 47, 45, 43, 41]

# Instruments that sound on as long as a note is held.
SUSTAINED = {"organ", "accordion", "harmonica", "violin", "cello", "strings", "choir", "voice", "trumpet", "muted trumpet", "horn",
             "brass", "sax", "oboe", "clarinet", "flute", "whistle", "lead", "saw", "pad", "drive"}
