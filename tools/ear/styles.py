# SPDX-License-Identifier: GPL-3.0-or-later
"""Styles: tempo, metre, and patterns of a bar by voice.

A pattern has one letter a step, `grid` steps a beat. Percussion: X loud, x plain, o soft, . nothing. Bass: R root, 5 fifth,
8 octave, 3 third, w a step towards the next, - held, . nothing. Chords: x short, X stressed, = held until the next, . nothing.
Of each list the pieces for learning take the even ones, those for measuring the odd ones.
"""

WARM = ["piano", "epiano", "guitar", "organ", "strings"]
BAND = ["piano", "epiano", "guitar", "clean", "organ", "muted"]
PLUCKED = ["guitar", "steel", "harp", "harpsichord", "pizzicato", "koto"]
HELD = ["strings", "choir", "pad", "organ", "brass"]

STYLES = {
    "rock": dict(
        beats=4, grid=4, tempo=(88, 160), chords=BAND + ["drive"], lead=["lead", "drive", "organ", "sax"],
        drums=[
            dict(kick="x.......x.......", snare="....X.......X...", hat="x.x.x.x.x.x.x.x."),
            dict(kick="x.....x.x.......", snare="....X.......X...", hat="x.x.x.x.x.x.x.x."),
            dict(kick="x.....x...x.....", snare="....X.......X..o", hat="xoxoxoxoxoxoxoxo"),
            dict(kick="x..x....x.x.....", snare="....X.......X...", ride="x.x.x.x.x.x.x.x."),
            dict(kick="x.x.....x.x.....", snare="....X.......X...", hat="x...x...x...x..."),
            dict(kick="x.......x..x....", snare="....X..o....X...", open="x...x...x...x..."),
        ],
        bass=["R-R-R-R-R-R-R-R-", "R---R-R-R---R-5-", "R-.R..R-R-.R..5-", "R-------R---5---", "R.RR..R.R.RR..8.", "R---5---R---w---"],
        comp=["x...x...x...x...", "=...............", "x.x.x.x.x.x.x.x.", "=.......=.......", "X..x..x.X..x..x.", "x.xx.xx.x.xx.xx."],
    ),
    "ballad": dict(
        beats=4, grid=4, tempo=(54, 88), chords=WARM, lead=["flute", "oboe", "violin", "voice", "sax"],
        drums=[
            dict(kick="x.......x.......", rim="....x.......x...", hat="x.x.x.x.x.x.x.x."),
            dict(kick="x.....x.x.......", snare="....X.......X...", hat="x.x.x.x.x.x.x.x."),
            dict(kick="x.........x.....", snare="....x.......x...", hat="xoxoxoxoxoxoxoxo"),
            dict(kick="x......xx.......", snare="....X.......X...", shaker="x.x.x.x.x.x.x.x."),
        ],
        bass=["R-------R-------", "R-----R-5-------", "R-----R-R---5-w-", "R---------------"],
        comp=["=.......=.......", "=.x.x.x.=.x.x.x.", "x.x.x.x.x.x.x.x.", "=..............."], arpeggio=0.5, density=0.5,
    ),
    "quiet ballad": dict(
        beats=4, grid=4, tempo=(56, 96), chords=["piano", "guitar", "harp", "epiano"], lead=["flute", "oboe", "violin", "cello", "voice"],
        drums=[], bass=["R-------R-------", "R---------------", "R-----5-8-------", "R---5---8---5---"],
        comp=["=.......=.......", "=...............", "..x.x.x...x.x.x.", "=...=...=...=..."], arpeggio=0.6, density=0.5, course_pool=["human", "level", "rubato"],
    ),
    "four on the floor": dict(
        beats=4, grid=4, tempo=(112, 140), chords=["pad", "saw", "epiano", "organ", "strings"], lead=["lead", "saw", "voice", "bells"],
        drums=[
            dict(kick="x...x...x...x...", clap="....x.......x...", open="..x...x...x...x."),
            dict(kick="x...x...x...x...", hat="xoxoxoxoxoxoxoxo", clap="....x.......x..."),
            dict(kick="x...x...x...x..o", open="..x...x...x...x.", shaker="xoxoxoxoxoxoxoxo"),
            dict(kick="x...x...x...x...", snare="....X.......X.o.", hat="..x...x...x...xo"),
        ],
        bass=["..R-..R-..R-..R-", "R.RRR.RRR.RRR.RR", "R-..R-..R-..R-..", ".RRR.RRR.RRR.RRR"],
        comp=["..x...x...x...x.", "=...............", "x..x..x...x..x..", "X..x..x..x..x..."],
    ),
    "half-time": dict(
        beats=4, grid=4, tempo=(124, 170), chords=["pad", "drive", "piano", "saw", "epiano"], lead=["lead", "saw", "voice"],
        drums=[
            dict(kick="x...........x...", snare="........X.......", hat="x...x...x...x..."),
            dict(kick="x.....x.........", snare="........X.......", hat="x.x.x.x.x.x.x.x."),
            dict(kick="x..x......x.....", snare="........X.......", hat="x.x.xoxox.x.xxxx"),
            dict(kick="x.........x.....", snare="........X......o", ride="x...x...x...x..."),
        ],
        bass=["R---------R-----", "R-R---......R-w-", "R--R--R---------", "R---------------"],
        comp=["=...............", "=.......=.......", "x..x..x.x..x..x.", "x.x.x.x.x.x.x.x."], density=0.5,
    ),
    "break beat": dict(
        beats=4, grid=4, tempo=(158, 182), chords=["pad", "strings", "epiano", "choir"], lead=["lead", "saw", "bells", "voice"],
        drums=[
            dict(kick="x.........x.....", snare="....X.......X...", hat="x.x.x.x.x.x.x.x."),
            dict(kick="x.........x.....", snare="....X..o.o..X...", hat="x.x.x.x.x.x.x.x."),
            dict(kick="x.x.......xx....", snare="....X..o.o..X..o", ride="x.x.x.x.x.x.x.x."),
            dict(kick="x..x......x.....", snare="....X.......X.o.", shaker="xoxoxoxoxoxoxoxo"),
        ],
        bass=["R-----------5---", "R-----R-----R---", "R---------R-----", "R-------8-------"],
        comp=["=...............", "=.......=.......", "x.....x.....x...", "..x.....x......."], density=0.4,
    ),
    "funk": dict(
        beats=4, grid=4, tempo=(88, 120), chords=["clean", "muted", "clavinet", "epiano", "organ"], lead=["sax", "trumpet", "brass", "lead"], sixteenth_swing=(0.5, 0.6),
        drums=[
            dict(kick="x..x..x...x..x..", snare="....X..o.o..X...", hat="xoxoxoxoxoxoxoxo"),
            dict(kick="x.x.......x..x..", snare="....X..o.o.oX..o", hat="x.x.x.x.x.x.x.x."),
            dict(kick="x......x..xx....", snare="....X.o.....X...", hat="xoxoxoxxxoxoxoxo"),
            dict(kick="x..x....x.x.....", snare="....X..o..o.X...", open="......x.......x.", hat="xoxoxo.oxoxoxo.o"),
        ],
        bass=["R..R..8.R..w..R.", "R.R...R..RR.8...", "R.....R8..R...w.", "R..RR...8.R..5.."],
        comp=["..x.x..x..x.x..x", "x..x..x...x..x..", "....x..x....x.x.", ".x..x..x.x..x..x"],
    ),
    "slow beat, swung": dict(
        beats=4, grid=4, tempo=(74, 100), chords=["epiano", "pad", "muted", "strings"], lead=["voice", "lead", "flute", "bells"], sixteenth_swing=(0.56, 0.68),
        drums=[
            dict(kick="x.....x...x.....", snare="....X.......X...", hat="x.x.x.x.x.x.x.x."),
            dict(kick="x..x......x.....", snare="....X.......X..o", hat="xoxoxoxoxoxoxoxo"),
            dict(kick="x.......xx......", snare="....X.......X...", hat="x.xxx.x.x.x.x.xx"),
            dict(kick="x......x..x....x", clap="....X.......X...", hat="x.x.x.xxx.x.x.x."),
        ],
        bass=["R-----R---R-----", "R--R------8-----", "R-------RR--w---", "R-----------5-8-"],
        comp=["=.......=.......", "x.....x.....x...", "=...............", "..x.....x..x...."], density=0.4,
    ),
    "swing": dict(
        beats=4, grid=3, tempo=(96, 250), no_drums=0.3, chords=["piano", "guitar", "epiano", "vibes"], lead=["sax", "trumpet", "clarinet", "vibes", "piano", "muted trumpet"], triplet_swing=(0.6, 0.69),
        drums=[
            dict(ride="x..x.xx..x.x", pedal="...x.....x..", kick="o..o..o..o.."),
            dict(ride="x..x.xx..x.x", pedal="...x.....x.."),
            dict(ride="x..x.xx..x.x", pedal="...x.....x..", snare=".....o.....o", kick="o....o..o..."),
            dict(hat="x..x.xx..x.x", rim="...x.....x..", kick="x.....x....."),
            dict(ride="x..x.xx..x..", pedal="...x.....x..", snare="........o..o"),
            dict(brush="x..X.xx..X.x", pedal="...x.....x.."),
        ],
        bass=["R--w--3--w--", "R--3--5--w--", "R--5--8--w--", "R-----5-----", "R--w--5--w--", "R--5--R--5--"],
        comp=["x....x......", "...x.....x..", ".....x.....x", "x..x..x..x..", "x....=......", "..x.....x..."],
    ),
    "shuffle": dict(
        beats=4, grid=3, tempo=(72, 148), chords=["piano", "organ", "clean", "drive"], lead=["sax", "harmonica", "drive", "organ"], triplet_swing=(0.62, 0.68),
        drums=[
            dict(kick="x.....x.....", snare="...X.....X..", hat="x.xx.xx.xx.x"),
            dict(kick="x....xx.....", snare="...X.....X..", ride="x.xx.xx.xx.x"),
            dict(kick="x..x..x..x..", snare="...X.....X.o", hat="x.xx.xx.xx.x"),
            dict(kick="x.....x..o.x", snare="..oX..o..X..", hat="x.xx.xx.xx.x"),
        ],
        bass=["R-RR-RR-RR-R", "R--3--5--w--", "R-R5-5R-R5-5", "R--R--5--5--"],
        comp=["x.xx.xx.xx.x", "..x..x..x..x", "...x.....x..", "x..x..x..x.."],
    ),
    "slow twelve": dict(
        beats=4, grid=3, tempo=(48, 84), chords=["piano", "organ", "clean", "strings"], lead=["voice", "sax", "guitar"],
        drums=[
            dict(kick="x.....x.....", snare="...X.....X..", hat="xxxxxxxxxxxx"),
            dict(kick="x....xx.....", snare="...X.....X..", hat="xxxxxxxxxxxx"),
            dict(kick="x.....x.x...", rim="...x.....x..", ride="xxxxxxxxxxxx"),
            dict(kick="x.......x...", snare="...X.....X..", hat="xooxooxooxoo"),
        ],
        bass=["R-----R-----", "R----RR----5", "R--R--R--w--", "R-----------"],
        comp=["xxxxxxxxxxxx", "=.....=.....", "x..x..x..x..", "=..........."], arpeggio=0.4, density=0.4,
    ),
    "six eight": dict(
        beats=2, grid=3, tempo=(42, 84), chords=["piano", "guitar", "steel", "harp", "strings"], lead=["voice", "violin", "flute", "oboe"],
        drums=[
            dict(kick="x.....", snare="...X..", hat="xxxxxx"),
            dict(kick="x....x", snare="...X..", hat="xxxxxx"),
            dict(kick="x.x...", rim="...x..", shaker="xooxoo"),
            dict(kick="x.....", snare="...X.o", ride="x.xx.x"),
        ],
        bass=["R-----", "R--5--", "R----5", "R-----"],
        comp=["xxxxxx", "=.....", "=..=..", "x.xx.x"], arpeggio=0.5, no_drums=0.3, density=0.5,
    ),
    "jig": dict(
        beats=2, grid=3, tempo=(96, 140), chords=["guitar", "steel", "accordion", "harp"], lead=["violin", "flute", "accordion", "whistle"],
        drums=[
            dict(kick="x.....", tambourine="x..x.."),
            dict(kick="x..x..", snare="o.oo.o"),
            dict(tom="x..o..", tambourine="xooxoo"),
            dict(kick="x.....", snare="...x.."),
        ],
        bass=["R--5--", "R-----", "R--R--", "R--8--"],
        comp=["x..x..", "x.xx.x", "=.....", "x.x..x"], density=1.0, no_drums=0.4,
    ),
    "waltz": dict(
        beats=3, grid=2, tempo=(80, 200), chords=["piano", "strings", "accordion", "guitar", "pizzicato"], lead=["violin", "accordion", "clarinet", "flute", "oboe"],
        drums=[
            dict(kick="x.....", snare="..x.x."),
            dict(kick="x.....", rim="..o.o.", ride="x.x.x."),
            dict(kick="x.....", hat="..x.x."),
            dict(kick="x....o", snare="..o.x.", cymbal="x....."),
        ],
        bass=["R-....", "R-----", "R-..5-", "R---w-"],
        comp=["..x.x.", "..x.x.", "..=...", "..xxx."], no_drums=0.6, oompah=True,
    ),
    "slow three": dict(
        beats=3, grid=4, tempo=(60, 112), chords=WARM, lead=["voice", "violin", "flute", "cello", "oboe"],
        drums=[
            dict(kick="x...........", snare="........X...", hat="x.x.x.x.x.x."),
            dict(kick="x...........", snare="....X...X...", hat="x.x.x.x.x.x."),
            dict(kick="x.....x.....", rim="....x...x...", hat="x...x...x..."),
            dict(kick="x.........x.", snare="....x.......", ride="x...x.x.x..."),
        ],
        bass=["R-----------", "R-------5---", "R---5---8---", "R-------w---"],
        comp=["=...........", "x.x.x.x.x.x.", "=...x...x...", "....x...x..."], arpeggio=0.5, no_drums=0.45, density=0.6,
    ),
    "five four": dict(
        beats=5, grid=2, tempo=(96, 190), chords=["piano", "epiano", "guitar", "strings"], lead=["sax", "flute", "vibes", "lead", "violin"], eighth_swing=(0.5, 0.66),
        drums=[
            dict(kick="x.....x...", snare="...x....x.", ride="x.xxx.x.x."),
            dict(kick="x.....x...", snare="....X...X.", hat="x.x.x.x.x."),
            dict(kick="x..x..x...", snare="....X...X.", ride="x.x.xxx.x."),
            dict(kick="x.....x.x.", rim="..x.....x.", hat="xxxxxxxxxx"),
        ],
        bass=["R--R..5-5-", "R--R--5-w-", "R-----5---", "R-3-5-8-5-"],
        comp=["x..x..x.x.", "=.....=...", "x..x..=...", "..x.x...x."], no_drums=0.25,
    ),
    "three three two": dict(
        beats=4, grid=2, tempo=(84, 144), chords=["piano", "guitar", "steel", "epiano", "saw"], lead=["trumpet", "voice", "lead", "flute", "accordion"],
        drums=[
            dict(kick="x..x..x.", snare="...x..x.", hat="xxxxxxxx"),
            dict(kick="x.x.x.x.", snare="...x..x.", shaker="xoxoxoxo"),
            dict(kick="x...x...", rim="x..x..x.", conga="..o...oo"),
            dict(kick="x..x..x.", clap="..x...x.", hat="x.x.x.x."),
            dict(kick="x..xx..x", snare="...x..x.", hat="xoxoxoxo"),
            dict(kick="x...x...", wood="x..x..x.", shaker="xxxxxxxx"),
        ],
        bass=["R--R--5-", "R--8--5-", "R-----5-", "R..R..R.", "R--5--8-", "R--R--R-"],
        comp=["x..x..x.", "X..X..X.", "=..=..=.", "x..x..xx", "xx.xx.x.", "=......."], no_drums=0.25,
    ),
    "dotted": dict(
        beats=4, grid=4, tempo=(80, 140), chords=["saw", "piano", "clean", "epiano", "pad"], lead=["lead", "bells", "voice", "saw"],
        drums=[
            dict(kick="x...x...x...x...", clap="....x.......x...", hat="x..x..x..x..x..x"),
            dict(kick="x.......x.......", snare="....X.......X...", hat="x.x.x.x.x.x.x.x."),
            dict(kick="x..x..x...x.....", snare="....X.......X...", hat="x.x.x.x.x.x.x.x."),
            dict(kick="x.....x.....x...", snare="....X.......X...", shaker="xoxoxoxoxoxoxoxo"),
            dict(kick="x..x..x.x..x..x.", snare="....X.......X...", hat="..x...x...x...x."),
            dict(kick="x...x...x...x...", rim="x..x..x..x..x...", open="..x...x...x...x."),
        ],
        bass=["R--R--R-R--R--5-", "R-----R-----8---", "R--R--R--R--R---", "R-------R--R--R-", "R--R--8-........", "R--R--R--R--R-5-"],
        comp=["x..x..x..x..x..x", "X..x..x.X..x..x.", "=..=..=..=..=...", "x..x..x..x..x...", "x..x..x.........", "=.....=.....=..."], no_drums=0.2,
    ),
    "habanera": dict(
        beats=2, grid=4, tempo=(52, 76), chords=["piano", "guitar", "accordion", "strings"], lead=["violin", "accordion", "trumpet", "voice"],
        drums=[dict(kick="x..xx.x.", snare="..o...o."), dict(kick="x..x..x.", rim="x.x.x.x."), dict(kick="x..xx...", tambourine="x.x.x.x."), dict(kick="x...x...", snare="...x..x.")],
        bass=["R--RR-5-", "R--5--8-", "R--R5-5-", "R--5R-5-"],
        comp=["..x...x.", "x..xx.x.", "..xx..x.", "..x.x.x."], no_drums=0.5,
    ),
    "bossa": dict(
        beats=4, grid=2, tempo=(108, 168), chords=["guitar", "epiano", "piano", "vibes"], lead=["flute", "sax", "voice", "guitar"],
        drums=[
            dict(kick="x..xx..x", rim="x..x...x", hat="xxxxxxxx"),
            dict(kick="x..xx..x", rim="x..x..x.", shaker="xoxoxoxo"),
            dict(kick="x..xx..x", rim="..x..x..", hat="xxxxxxxx"),
            dict(kick="x...x...", rim="x..x..x.", shaker="xxxxxxxx"),
        ],
        bass=["R--55--R", "R--5R--5", "R--R5--5", "R---5---"],
        comp=["x..x..x.", "..x.x..x", "x.x..x.x", "=..x..=."], no_drums=0.2,
    ),
    "off-beat": dict(
        beats=4, grid=2, tempo=(132, 220), chords=["clean", "organ", "piano", "accordion", "muted"], lead=["trumpet", "brass", "sax", "clarinet", "accordion"],
        drums=[
            dict(kick="x...x...", snare="..x...x.", hat=".x.x.x.x"),
            dict(kick="x.x.x.x.", snare=".x.x.x.x"),
            dict(kick="....x...", rim="....x...", hat="xxxxxxxx"),
            dict(kick="x.x.x.x.", snare="..X...X.", hat=".x.x.x.x"),
        ],
        bass=["R-3-5-3-", "R-5-R-5-", "R-R-5-5-", "R-3-5-w-"],
        comp=[".x.x.x.x", ".x.x.x.x", ".X.X.X.X", ".x.x.x.x"], no_drums=0.2, oompah=True,
    ),
    "slow off-beat": dict(
        beats=4, grid=4, tempo=(64, 92), chords=["organ", "clean", "piano", "muted"], lead=["voice", "trumpet", "organ", "flute"], sixteenth_swing=(0.5, 0.62),
        drums=[
            dict(kick="........x.......", rim="........x.......", hat="x.x.x.x.x.x.x.x."),
            dict(kick="x...x...x...x...", rim="........x.......", hat="x.x.x.x.x.x.x.x."),
            dict(kick="x.......x.......", snare="........X.......", hat="..x...x...x...x."),
            dict(kick="........x.......", snare="....o...X..o....", hat="x.xxx.xxx.xxx.xx"),
        ],
        bass=["R-R-..5-R---....", "..R-R-5-..R-8---", "R--R--5-........", "R-....R-5-w-...."],
        comp=["..x...x...x...x.", "....x.......x...", "..xx..x...xx..x.", "..x...x...x...x."],
    ),
    "two-beat": dict(
        beats=2, grid=2, tempo=(92, 132), chords=["accordion", "brass", "piano", "clarinet", "guitar"], lead=["clarinet", "trumpet", "accordion", "violin"],
        drums=[
            dict(kick="x.x.", snare=".x.x"),
            dict(kick="x...", snare=".x.x", cymbal="x..."),
            dict(kick="x.x.", hat=".x.x"),
            dict(kick="x...", snare="..x.", hat=".x.x"),
        ],
        bass=["R-5-", "R.5.", "R-5-", "R-8-"],
        comp=[".x.x", ".x.x", ".X.x", ".x.x"], no_drums=0.45, oompah=True,
    ),
    "march": dict(
        beats=4, grid=4, tempo=(100, 132), chords=["brass", "horn", "clarinet", "strings"], lead=["trumpet", "flute", "clarinet", "horn"],
        drums=[
            dict(kick="x.......x.......", snare="x..xx.x.x..xx.xx", cymbal="x.......x......."),
            dict(kick="x...x...x...x...", snare="..x...x...x...xx"),
            dict(kick="x.......x.......", snare="x.xxx.x.x.xxx.x."),
            dict(kick="x...x...x...x...", snare="x.ooX.ooX.ooXooo", cymbal="x......."),
        ],
        bass=["R---5---R---5---", "R...5...R...5...", "R---R---5---5---", "R---5---8---5---"],
        comp=["..x...x...x...x.", "..x...x...x...x.", "x...x...x...x...", "..x..xx...x..xx."], no_drums=0.35, oompah=True,
    ),
    "plucked": dict(
        beats=4, grid=4, tempo=(66, 132), chords=PLUCKED, lead=PLUCKED + ["flute"], drums=[],
        bass=["R---5---8---5---", "R-------5-------", "R-----5-R---5---", "R---------------"],
        comp=["x...x...x...x...", "x.x.x.x.x.x.x.x.", "..x.x.x...x.x.x.", "x..x..x.x..x..x."], arpeggio=0.9, course_pool=["level", "human"],
    ),
    "held": dict(
        beats=4, grid=2, tempo=(60, 120), chords=HELD, lead=["violin", "cello", "horn", "voice", "oboe"], drums=[],
        bass=["R-------", "R---5---", "R-3-5-w-", "R-------"],
        comp=["=.......", "=...=...", "=.=.=.=.", "=......."], vibrato=True, density=0.5, course_pool=["level", "human", "human"],
    ),
    "quartet": dict(
        beats=4, grid=2, tempo=(84, 152), chords=["strings", "pizzicato"], lead=["violin", "violin", "cello"], drums=[],
        bass=["R-R-R-R-", "R---5---", "RRRRRRRR", "R-.-5-.-"],
        comp=["xxxxxxxx", ".x.x.x.x", "x.x.x.x.", "..x...x."], vibrato=True, arpeggio=0.2, course_pool=["level", "human"],
    ),
    "minuet": dict(
        beats=3, grid=2, tempo=(96, 150), chords=["harpsichord", "strings", "guitar", "piano"], lead=["oboe", "flute", "violin", "harpsichord"], drums=[],
        bass=["R-3-5-", "R---5-", "R-----", "R-5-8-"], comp=["x.x.x.", "=.....", "..x.x.", "x....."], arpeggio=0.2, course_pool=["level", "human"],
    ),
    "fast": dict(
        beats=4, grid=2, tempo=(176, 232), chords=["drive", "clean", "piano", "organ"], lead=["drive", "lead", "sax", "violin"],
        drums=[
            dict(kick="x...x...", snare="..X...X.", hat="x.x.x.x."),
            dict(kick="x..xx...", snare="..X...X.", hat="xxxxxxxx"),
            dict(kick="x...xx..", snare="..X...X.", ride="x.x.x.x."),
            dict(kick="x.x.x.x.", snare=".x.x.x.x", hat="x.x.x.x."),
        ],
        bass=["RRRRRRRR", "R-R-R-R-", "R-R-5-5-", "R---R-5-"], comp=["xxxxxxxx", "x.x.x.x.", "=.......", "x...x..x"],
    ),
    "rubato": dict(
        beats=4, grid=2, tempo=(60, 112), chords=["piano", "guitar", "harp"], lead=["piano", "violin", "flute"], drums=[],
        bass=["R---5---", "R-------", "R-5-8-5-", "R---R---"], comp=["=...=...", "..x...x.", "x.x.x.x.", ".xxx.xxx"], arpeggio=0.5, course="rubato",
    ),
}

# Percussion alone, which only learning needs.
BARE = {
    "clicks": dict(
        beats=4, grid=2, tempo=(60, 200), chords=["piano"], lead=["piano"], bass=["R-------"], comp=["x......."], no_drums=0, only_drums=True,
        drums=[
            dict(wood="X.x.x.x."), dict(rim="X.x.x.x.", kick="x......."), dict(wood="x.x.x.x.", kick="x......."), dict(kick="x.......", rim="..x.x.x."),
            dict(wood="X.xox.x."), dict(kick="x...x...", wood="xoxoxoxo"), dict(rim="X.x.x.xo", kick="x..o...."), dict(kick="X.o.x.o.", wood="..x...x."),
        ],
    ),
    "percussion": dict(
        beats=4, grid=4, tempo=(66, 176), chords=["piano"], lead=["piano"], bass=["R---------------"], comp=["x..............."], no_drums=0, only_drums=True,
        drums=[
            dict(kick="x.......x.......", snare="....X.......X...", hat="x.x.x.x.x.x.x.x."), dict(conga="x..xx.x.x..xx.x.", shaker="xoxoxoxoxoxoxoxo", kick="x...............") ,
            dict(tom="x..x..x.x...x...", tambourine="x...x...x...x..."), dict(kick="x...x...x...x...", conga="..x..xx...x..xx."),
        ],
    ),
}
BARE["clicks in three"] = {**BARE["clicks"], "beats": 3, "drums": [dict(wood="X.x.x."), dict(kick="x.....", rim="..x.x."), dict(rim="X.xox."), dict(kick="x.....", wood="xoxoxo")],
                           "bass": ["R-----"], "comp": ["x....."]}

# Styles that are others with another course of time.
def _with(name, **changes):
    return {**STYLES[name], **changes}


STYLES["pauses"] = _with("ballad", tempo=(70, 140), course="pauses", no_drums=0.5)
STYLES["ramps"] = _with("rock", tempo=(80, 140), course="ramp")
STYLES["jumps"] = _with("rock", tempo=(84, 140), course="jump")
STYLES["jumps, quiet"] = _with("plucked", course="jump")
STYLES["mixed bars"] = _with("rock", tempo=(96, 160), mixed=True)
STYLES["mixed bars, quiet"] = _with("plucked", tempo=(90, 150), mixed=True)
