# SPDX-License-Identifier: GPL-3.0-or-later
"""Composes pieces whose beats, bars, chords and sections are known, as MIDI and JSON.

    compose.py FOLDER COUNT SEED learn|measure|bare|invented|harmony

All of it is made up by chance within a style: forms, harmonies, melodies, basses, percussion, timbres, tempo courses.
"bare" makes percussion alone, for learning; "invented" makes pieces for learning whose patterns are nearly all made up;
"harmony" makes pieces whose basses play the chords' roots, to measure chords by (those of the others stand a sixth above them). Pieces for measuring take other patterns (see styles.py) and other seeds than those for learning.
"""

import json
import random as chance
import sys
from pathlib import Path

from midi import DRUMS, Song
from sounds import BASSES, CRASH, INSTRUMENTS, PERCUSSION, SUSTAINED, TOMS
from styles import BARE, STYLES
from timeline import Bar, Timeline, tempo_course

FORMS = ["ABAB", "AABA", "ABABCB", "ABAC", "AABB", "ABACA", "IABABO", "ABCABC", "AABAAB", "IABAB", "ABBA"]
MAJOR, MINOR, DORIAN = [0, 2, 4, 5, 7, 9, 11], [0, 2, 3, 5, 7, 8, 10], [0, 2, 3, 5, 7, 9, 10]
# Degrees of the scale, one a bar.
PROGRESSIONS = [
    [0, 4, 5, 3], [0, 5, 3, 4], [5, 3, 0, 4], [0, 3, 4, 3], [0, 0, 3, 4], [1, 4, 0, 0], [0, 5, 1, 4], [0, 2, 3, 4], [3, 4, 0, 5],
    [0, 3, 0, 4], [0, 6, 5, 4], [0, 0, 5, 5], [3, 0, 4, 0], [0, 4, 3, 3], [5, 4, 3, 4], [0, 2, 5, 3],
    [0, 0, 0, 0, 3, 3, 0, 0, 4, 3, 0, 4], [0, 5, 3, 4, 0, 5, 1, 4], [0, 3, 6, 2, 5, 1, 4, 0],
]


class Composer:
    def __init__(self, seed, style_name, split, inventive=0.3, lowest=33):
        self.random = chance.Random(seed)
        self.seed = seed
        self.style_name = style_name
        self.style = {**STYLES, **BARE}[style_name]
        self.split = split
        # How likely a piece has patterns of its own.
        self.inventive = inventive
        # What the bass's pitches are counted from.
        self.lowest = lowest
        self.song = Song()
        self.channel = 0
        # Beats at which the whole ensemble rests.
        self.chords = []

    # Choosing

    def pick(self, patterns):
        """One of the patterns of this split."""
        own = patterns[self.split :: 2] or patterns
        return self.random.choice(own)

    def voice(self, names):
        name = self.random.choice(names)
        return name, self.random.choice(INSTRUMENTS[name])

    def take_channel(self, program, volume):
        channel = self.channel
        self.channel += 1
        if self.channel == DRUMS:
            self.channel += 1
        self.song.program(channel, program, volume, self.random.randint(30, 98), self.random.randint(10, 90))
        return channel

    # Time

    def warp(self, share):
        """Where a step at `share` of a beat is played: swung as the piece is."""
        whole = int(share)
        share -= whole
        if self.swing and self.swing_level == 2:
            share = share * 2 * self.swing if share < 0.5 else self.swing + (share - 0.5) * 2 * (1 - self.swing)
        elif self.swing and self.swing_level == 4:
            half, rest = int(share * 2), share * 2 % 1
            rest = rest * 2 * self.swing if rest < 0.5 else self.swing + (rest - 0.5) * 2 * (1 - self.swing)
            share = (half + rest) / 2
        elif self.swing and self.swing_level == 3 and share > 0.5:
            # Of three steps the last one stands where the swung note does.
            share = self.swing + (share - 2 / 3) * (1 - self.swing) * 3
        return whole + share

    def second(self, beat, share, loose=1.0):
        return self.time.at(beat, self.warp(share)) + self.random.gauss(0, self.looseness * loose)

    # Form

    def lay_out(self):
        style, random = self.style, self.random
        form = random.choice(FORMS)
        self.letters = list(form)
        beats_of_bar = style["beats"]
        tempo_middle = (style["tempo"][0] * style["tempo"][1]) ** 0.5
        bar_seconds = beats_of_bar * 60 / tempo_middle
        # Sections of 4, 8 or 16 bars, so that a piece lasts about a minute.
        want = 70 / len(form) / bar_seconds
        length = min((4, 8, 12, 16, 24), key=lambda bars: abs(bars - want))
        self.time = Timeline()
        self.lengths_of = {}
        for letter in set(form):
            self.lengths_of[letter] = max(4, length // 2) if letter in "IO" else length
        has_pickup = random.random() < 0.15
        if has_pickup and beats_of_bar > 2:
            self.time.bars.append(Bar(random.randint(1, beats_of_bar - 1), 0, -1, True))
        for section, letter in enumerate(form):
            for number in range(self.lengths_of[letter]):
                beats = beats_of_bar
                if style.get("mixed"):
                    beats = random.choice([4, 4, 4, 2, 5, 6, 3]) if number % 4 == 3 or random.random() < 0.08 else 4
                self.time.bars.append(Bar(beats, section, number))

    def harmonise(self):
        random = self.random
        self.key = random.randint(0, 11)
        self.scale = random.choice([MAJOR, MAJOR, MINOR, MINOR, DORIAN])
        self.harmony = {}
        last = None
        for letter in sorted(set(self.letters)):
            progression = random.choice([p for p in PROGRESSIONS if p != last])
            last = progression
            stretch = random.choice([1, 1, 1, 2]) if len(progression) <= 4 else 1
            self.harmony[letter] = [degree for degree in progression for _ in range(stretch)]

    def chord_of(self, bar):
        course = self.harmony[self.letters[bar.section]]
        return course[bar.number % len(course)] if bar.number >= 0 else 4

    def pitch(self, degree, octave_base):
        """The pitch of a degree of the scale, which may lie beyond its octave."""
        octave, step = divmod(degree, 7)
        return octave_base + self.key + self.scale[step] + 12 * octave

    def triad(self, degree):
        tones = [degree, degree + 2, degree + 4]
        if self.has_sevenths:
            tones.append(degree + 6)
        return tones

    # Patterns of its own

    def invented(self, kind):
        """A pattern of one or two bars that no style has: now plain, now all off the beat."""
        random, grid = self.random, self.style["grid"]
        steps = self.style["beats"] * grid * random.choice([1, 1, 2])
        off = random.uniform(0.05, 0.9)
        letters = []
        for step in range(steps):
            if step % grid == 0:
                likely = 0.85 - 0.75 * off if step else (0.9 if kind == "bass" else 0.8 - 0.5 * off)
            elif grid == 4 and step % 2:
                likely = 0.28 * off * random.choice([0, 1, 1])
            elif grid == 3 and step % 3 == 1:
                likely = 0.12 * off
            else:
                likely = 0.12 + 0.75 * off
            letters.append(random.random() < likely)
        if not any(letters):
            letters[random.choice(range(0, steps, grid))] = True
        if kind == "bass":
            tones = "RRRRR5538w"
            return "".join((random.choice(tones) if n else "R") if hit else random.choice("---.") for n, hit in enumerate(letters))
        return "".join(random.choice("xxx=X") if hit else "." for hit in letters)

    def invented_drums(self):
        """A beat of its own: low strokes on what is heavy, high ones between, something that runs."""
        random, grid, beats = self.random, self.style["grid"], self.style["beats"]
        steps = beats * grid
        half = grid // 2 if grid != 3 else 2
        kick = [random.random() < (0.95 if n == 0 else 0.45 if n % grid == 0 else 0.22 if n % half == 0 else 0.06) for n in range(steps)]
        if random.random() < 0.6 and beats != 3:
            snare = [n % (2 * grid) == grid for n in range(steps)]
        else:
            snare = [n >= grid and random.random() < (0.45 if n % grid == 0 else 0.15) for n in range(steps)]
        every = random.choice([1, half or 1, half or 1, grid])
        offset = half if every == grid and random.random() < 0.5 else 0
        runs = [n % every == offset % every if every != grid else n % grid == offset for n in range(steps)]
        drums = {"kick": kick, random.choice(["snare", "snare", "clap", "rim", "conga", "tom"]): snare,
                 random.choice(["hat", "hat", "ride", "shaker", "tambourine", "wood"]): runs}
        for voice in list(drums):
            if len(drums) > 1 and random.random() < 0.12:
                drums.pop(voice)
        if random.random() < 0.25:
            drums[random.choice(["conga", "wood", "tom"])] = [random.random() < 0.25 for _ in range(steps)]
        return {voice: "".join("x" if hit else "." for hit in hits) for voice, hits in drums.items()}

    # Arrangement

    def arrange(self):
        """What plays in each section, by letter: patterns return with the music."""
        style, random = self.style, self.random
        self.parts = {}
        has_drums = bool(style["drums"]) and random.random() > (0 if style.get("only_drums") else max(0.2, style.get("no_drums", 0.0)))
        own = random.random() < self.inventive
        drums = (self.invented_drums() if own and random.random() < 0.6 else dict(self.pick(style["drums"]))) if has_drums else None
        bass = self.invented("bass") if own and random.random() < 0.6 else self.pick(style["bass"])
        comp = self.invented("chords") if own and random.random() < 0.7 else self.pick(style["comp"])
        # The whole ensemble may come to a new chord before the bar does.
        self.pushes = random.random() < 0.18
        self.arpeggio_accent = random.choice(["beat", "beat", "cycle", "none"])
        energy_of = {"I": 0.45, "O": 0.45, "A": random.uniform(0.5, 0.75), "B": random.uniform(0.75, 1.0), "C": random.uniform(0.35, 0.9)}
        for letter in sorted(set(self.letters)):
            energy = energy_of[letter]
            self.parts[letter] = dict(
                energy=energy,
                drums=self.mutated(drums if random.random() < 0.7 else dict(self.pick(style["drums"]))) if has_drums and energy > random.uniform(0, 0.55) else None,
                bass=(bass if random.random() < 0.7 else self.pick(style["bass"])) if random.random() < 0.86 else None,
                comp=(comp if random.random() < 0.6 else self.pick(style["comp"])) if random.random() < 0.92 else None,
                arpeggio=random.random() < style.get("arpeggio", 0.12),
                pad=random.random() < 0.25,
                melody=random.random() < (0.85 if letter not in "IO" else 0.3),
            )
            part = self.parts[letter]
            if style.get("only_drums"):
                part.update(drums=self.mutated(drums) if drums else None, bass=None, comp=None, arpeggio=False, pad=False, melody=False)
                continue
            if not (part["bass"] or part["comp"] or part["arpeggio"]):
                part["comp"] = comp
            if has_drums and part["drums"] is None and not part["comp"]:
                part["comp"] = comp
        self.motifs = {letter: self.motif() for letter in sorted(set(self.letters))}

    def mutated(self, drums):
        """The pattern with some hits of its own, so that no two pieces have the same."""
        random = self.random
        drums = {voice: list(pattern) for voice, pattern in drums.items()}
        if len(drums) > 2 and random.random() < 0.15:
            drums.pop(random.choice([v for v in drums if v not in ("kick", "snare")] or list(drums)))
        for voice, pattern in drums.items():
            for step, hit in enumerate(pattern):
                if hit == "." and random.random() < 0.015:
                    pattern[step] = "o"
                elif hit in "xo" and step and random.random() < 0.02:
                    pattern[step] = "."
        return {voice: "".join(pattern) for voice, pattern in drums.items()}

    def motif(self):
        """Rhythm and shape of two bars: a list of (step, length in steps, degree)."""
        random, style = self.random, self.style
        steps = style["beats"] * style["grid"] * 2
        density = style.get("density", 0.75) * random.uniform(0.6, 1.2)
        straight = random.choice([0.0, 0.1, 0.35, 0.6])
        early = random.random() < 0.15
        notes, step = [], 0 if random.random() < 0.6 else random.randint(1, style["grid"] * 2)
        degree = random.randint(0, 7)
        lengths = {4: [1, 2, 2, 2, 3, 4, 4, 6, 8], 3: [1, 1, 2, 3, 3, 6], 2: [1, 1, 2, 2, 2, 3, 4, 4]}[style["grid"]]
        while step < steps:
            length = random.choice(lengths)
            if density < 0.6:
                length *= random.choice([1, 2])
            # Notes that begin on the beat are the commonest, by much or little.
            if step % style["grid"] and random.random() < straight:
                length = style["grid"] - step % style["grid"]
            if random.random() < 0.85:
                notes.append((step, length, degree))
            degree += random.choice([-2, -1, -1, 1, 1, 2, 0, 3, -3])
            degree = max(-3, min(11, degree))
            step += length
        if early:
            # All of it comes before the beat.
            shift = 1 if style["grid"] < 4 else 2
            notes = [((step - shift) % steps, length, degree) for step, length, degree in notes]
        return notes

    # Playing

    def letters_of(self, pattern, bar):
        """The steps of a bar: the pattern, cut or gone on with where the bar has another length."""
        steps = bar.beats * self.style["grid"]
        return [pattern[n % len(pattern)] for n in range(steps)]

    def play_drums(self, bar, first, drums, energy, is_fill):
        random, grid = self.random, self.style["grid"]
        fill_from = (bar.beats - random.choice([1, 1, 2])) * grid if is_fill else 10_000
        if bar.number == 0 and random.random() < 0.5:
            start = self.second(first, 0)
            self.song.note(DRUMS, start, start + 0.5, CRASH, 60 + 50 * energy)
        for voice, pattern in drums.items():
            pitch = self.kit[voice]
            for step, hit in enumerate(self.letters_of(pattern, bar)):
                if hit == "." or (step >= fill_from and voice not in ("kick", "hat")):
                    continue
                level = {"X": 116, "x": 94, "o": 52}[hit] * (0.72 + 0.28 * energy)
                if voice in ("hat", "ride", "shaker", "open", "pedal", "brush"):
                    level *= 0.72 if step % grid == 0 else 0.62
                start = self.second(first, step / grid)
                self.song.note(DRUMS, start, start + 0.08, pitch, level + random.gauss(0, 5))
        if is_fill:
            for step in range(max(0, fill_from), bar.beats * grid):
                if random.random() < 0.75:
                    start = self.second(first, step / grid)
                    self.song.note(DRUMS, start, start + 0.08, random.choice(TOMS + [38, 38]), 80 + 25 * random.random())

    def play_bass(self, bar, first, pattern, energy):
        grid = self.style["grid"]
        root = self.chord_of(bar)
        following = self.following_chord(bar)
        steps = self.letters_of(pattern, bar)
        if self.pushes and self.random.random() < 0.8:
            pushed_from = len(steps) - (2 if grid == 4 else 1)
            steps[pushed_from:] = ["P"] + ["-"] * (len(steps) - pushed_from - 1)
            if bar.number > 0:
                steps[0] = "-"
        step = 0
        while step < len(steps):
            mark = steps[step]
            if mark in ".-":
                step += 1
                continue
            length = 1
            while step + length < len(steps) and steps[step + length] == "-":
                length += 1
            pitch = self.pitch(following if mark == "P" else root + {"R": 0, "5": 4, "3": 2, "8": 7, "w": 0}[mark], self.lowest)
            if mark == "w":
                pitch = self.pitch(following, self.lowest) + self.random.choice([-2, -1, 1, 2])
            if pitch > 50:
                pitch -= 12
            start = self.second(first, step / grid)
            end = self.second(first, (step + length * 0.92) / grid, 0)
            accent = 8 if step == 0 else 0
            self.song.note(self.bass_channel, start, end, pitch, 78 + accent + 22 * energy + self.random.gauss(0, 4))
            step += length

    def following_chord(self, bar):
        index = self.time.bars.index(bar)
        return self.chord_of(self.time.bars[index + 1]) if index + 1 < len(self.time.bars) else 0

    def voicing(self, degree):
        pitches = [self.pitch(tone, 48) for tone in self.triad(degree)]
        return [pitch - 12 if pitch > 67 else pitch for pitch in pitches]

    def play_chords(self, bar, first, pattern, energy):
        grid, channel = self.style["grid"], self.chord_channel
        pitches = self.voicing(self.chord_of(bar))
        coming = self.voicing(self.following_chord(bar))
        steps = self.letters_of(pattern, bar)
        pushed_from = len(steps) - (2 if grid == 4 else 1)
        if self.pushes:
            steps[pushed_from] = "X"
            if bar.number > 0:
                steps[0] = "."
        spread = 0.012 if self.chord_name in ("guitar", "steel", "harp", "koto") else 0.002
        for step, mark in enumerate(steps):
            if mark == ".":
                continue
            length = 1
            if mark == "=":
                while step + length < len(steps) and steps[step + length] == ".":
                    length += 1
            start = self.second(first, step / grid)
            end = self.second(first, (step + (length - 0.08 if mark == "=" else 0.7)) / grid, 0)
            level = {"X": 100, "x": 78, "=": 76}[mark] * (0.75 + 0.25 * energy) + self.random.gauss(0, 5)
            if self.pushes and step >= pushed_from:
                end = self.second(first, len(steps) / grid + 0.4, 0)
            for n, pitch in enumerate(coming if self.pushes and step >= pushed_from else pitches):
                self.song.note(channel, start + n * spread, end, pitch, level)

    def play_arpeggio(self, bar, first, energy):
        grid, order = self.style["grid"], self.arpeggio_order
        pitches = self.voicing(self.chord_of(bar))
        pitches = pitches + [pitches[0] + 12]
        every = self.arpeggio_every
        for n, step in enumerate(range(0, bar.beats * grid, every)):
            start = self.second(first, step / grid)
            end = self.second(first, (step + every) / grid, 0)
            accented = {"beat": step % grid == 0, "cycle": n % len(order) == 0, "none": False}[self.arpeggio_accent]
            accent = 14 if accented else 0
            self.song.note(self.arpeggio_channel, start, end + 0.1, pitches[order[n % len(order)] % len(pitches)],
                           62 + accent + 18 * energy + self.random.gauss(0, 5))

    def play_pad(self, bar, first):
        start, end = self.second(first, 0), self.second(first, bar.beats - 0.05, 0)
        for pitch in self.voicing(self.chord_of(bar)):
            self.song.note(self.pad_channel, start, end, pitch + 12, 58 + self.random.gauss(0, 3))

    def play_melody(self, bar, first, letter, energy):
        grid = self.style["grid"]
        half = bar.number % 2
        per_bar = self.style["beats"] * grid
        # What was played before comes back, a little changed.
        random = chance.Random(f"{self.seed} {letter} {bar.number % 8}")
        shift = random.choice([0, 0, 0, 1, -1, 2])
        for step, length, degree in self.motifs[letter]:
            if step // per_bar != half or step % per_bar >= bar.beats * grid:
                continue
            step %= per_bar
            if random.random() < 0.08:
                continue
            tone = degree + shift
            if step % grid == 0 and random.random() < 0.7:
                tones = self.triad(self.chord_of(bar))
                tone = min((t + 7 * o for t in tones for o in (-1, 0, 1)), key=lambda t: abs(t - tone))
            start = self.second(first, step / grid, 1.5)
            end = self.second(first, (step + length * 0.9) / grid, 0)
            pitch = self.pitch(tone, self.lead_base)
            accent = 8 if step % grid == 0 else 0
            self.song.note(self.lead_channel, start, end, pitch, 82 + accent + 14 * energy + self.random.gauss(0, 6))
            if self.has_vibrato and end - start > 0.4:
                self.song.vibrato(self.lead_channel, start + 0.15, end, 0.35, 5.5)

    def settle_sounds(self):
        style, random = self.style, self.random
        self.looseness = random.choice([0.0, 0.003, 0.006, 0.01, 0.014])
        self.has_sevenths = random.random() < 0.4
        swings = [(4, "sixteenth_swing"), (3, "triplet_swing"), (2, "eighth_swing")]
        self.swing, self.swing_level = None, 0
        for level, key in swings:
            if key in style:
                self.swing, self.swing_level = random.uniform(*style[key]), level
        self.kit = {voice: random.choice(pitches) for voice, pitches in PERCUSSION.items()}
        self.chord_name, program = self.voice(style["chords"])
        self.chord_channel = self.take_channel(program, random.randint(60, 105))
        name, program = self.voice(style["chords"])
        self.arpeggio_channel = self.take_channel(program, random.randint(60, 105))
        _, program = self.voice(HELD_PADS)
        self.pad_channel = self.take_channel(program, random.randint(40, 85))
        name, program = self.voice(style["lead"])
        self.lead_channel = self.take_channel(program, random.randint(60, 110))
        self.lead_base = 48 if name in ("cello", "horn") else 60
        self.has_vibrato = name in SUSTAINED and random.random() < (0.8 if style.get("vibrato") else 0.3)
        kinds = ["tuba", "acoustic"] if style.get("oompah") and random.random() < 0.5 else ["acoustic", "electric", "synth", "electric"]
        if not style["drums"]:
            kinds = ["acoustic", "bow", "acoustic"]
        self.bass_channel = self.take_channel(random.choice(BASSES[random.choice(kinds)]), random.randint(70, 110))
        self.song.program(DRUMS, 0, random.randint(60, 115), 64, random.randint(10, 70))
        self.arpeggio_every = random.choice([1, 2] if style["grid"] == 4 else [1])
        self.arpeggio_order = random.choice([[0, 1, 2, 3], [0, 2, 1, 2], [0, 1, 2, 1], [0, 1, 2, 3, 2, 1], [0, 2, 3, 2], [3, 2, 1, 0], [0, 1, 2], [2, 1, 0], [0, 2, 1], [0, 1, 2, 1, 3]])

    def compose(self):
        self.lay_out()
        self.harmonise()
        self.settle_sounds()
        self.arrange()
        style = dict(self.style)
        if "course_pool" in style and "course" not in style:
            style["course"] = self.random.choice(style["course_pool"])
        self.tempo = tempo_course(self.random, style, self.time, len(self.letters))
        bars = self.time.bars
        for index, bar in enumerate(bars):
            letter = self.letters[bar.section]
            part, first = self.parts[letter], self.time.first_beats[index]
            if bar.is_pickup:
                self.play_pickup(bar, first)
                continue
            energy = part["energy"] * (0.9 + 0.1 * bar.number / self.lengths_of[letter])
            ends = index + 1 == len(bars) or bars[index + 1].section != bar.section
            if part["drums"]:
                self.play_drums(bar, first, part["drums"], energy, ends and self.random.random() < 0.6 or self.random.random() < 0.04)
            if part["bass"]:
                self.play_bass(bar, first, part["bass"], energy)
            if part["comp"]:
                self.play_chords(bar, first, part["comp"], energy)
            if part["arpeggio"]:
                self.play_arpeggio(bar, first, energy)
            if part["pad"]:
                self.play_pad(bar, first)
            if part["melody"]:
                self.play_melody(bar, first, letter, energy)
        self.end_on_the_root()

    def play_pickup(self, bar, first):
        for n in range(bar.beats * 2):
            if self.random.random() < 0.75:
                start = self.second(first, n / 2)
                self.song.note(self.lead_channel, start, self.second(first, n / 2 + 0.45, 0), self.pitch(self.random.randint(0, 6), self.lead_base), 84)

    def end_on_the_root(self):
        """The last bar's chord, on a beat of its own."""
        if self.random.random() > 0.6:
            self.has_last = False
            return
        self.has_last = True
        start = self.time.times[-1]
        for pitch in self.voicing(0):
            self.song.note(self.chord_channel, start, start + 2, pitch, 84)
        self.song.note(self.bass_channel, start, start + 2, self.pitch(0, self.lowest), 88)

    def truth(self):
        beats = []
        for index, bar in enumerate(self.time.bars):
            for n in range(bar.beats):
                place = n + 1 + (self.style["beats"] - bar.beats if bar.is_pickup else 0)
                beats.append([round(self.time.times[self.time.first_beats[index] + n], 4), place])
        if self.has_last:
            beats.append([round(self.time.times[-1], 4), 1])
        sections = []
        for index, bar in enumerate(self.time.bars):
            if bar.number == 0:
                sections.append([round(self.time.times[self.time.first_beats[index]], 4), self.letters[bar.section]])
        chords = []
        for index, bar in enumerate(self.time.bars):
            degree = self.chord_of(bar)
            root, third, fifth = (self.pitch(degree + n, 0) for n in (0, 2, 4))
            kind = {(4, 7): "major", (3, 7): "minor"}.get((third - root, fifth - root), "other")
            chords.append([round(self.time.times[self.time.first_beats[index]], 4), root % 12, kind])
        key = [self.key, "major" if self.scale == MAJOR else "minor"]
        return dict(style=self.style_name, chords=chords, key=key, seed=self.seed, tempo=round(self.tempo, 2), beats=beats, sections=sections,
                    is_swung=bool(self.swing and self.swing > 0.56 and self.swing_level != 4), end=round(self.time.times[-1], 4))


HELD_PADS = ["strings", "pad", "choir", "organ"]


def main():
    folder, count, seed, split = Path(sys.argv[1]), int(sys.argv[2]), int(sys.argv[3]), sys.argv[4]
    folder.mkdir(parents=True, exist_ok=True)
    names = sorted(BARE if split == "bare" else STYLES)
    for n in range(count):
        style = names[n % len(names)]
        composer = Composer(seed * 100_000 + n, style, 1 if split == "measure" else 0, 1 if split == "invented" else 0.3,
                            36 if split == "harmony" else 33)
        composer.compose()
        stem = folder / f"{n:04d}"
        composer.song.save(stem.with_suffix(".mid"))
        stem.with_suffix(".json").write_text(json.dumps(composer.truth()))


if __name__ == "__main__":
    main()
