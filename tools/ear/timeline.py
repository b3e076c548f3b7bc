# SPDX-License-Identifier: GPL-3.0-or-later
"""Bars, beats and where they fall in time."""

from dataclasses import dataclass, field


@dataclass
class Bar:
    """A bar: how many beats it has, which section it is of, and its number within that section."""

    beats: int
    section: int
    number: int
    is_pickup: bool = False


@dataclass
class Timeline:
    """Bars in order, the seconds of each beat, and the rest behind a beat where the music holds its breath."""

    bars: list = field(default_factory=list)
    lengths: list = field(default_factory=list)
    holds: dict = field(default_factory=dict)
    lead_in: float = 0.3

    def settle(self):
        """Works out when each beat falls; one more marks the end."""
        self.times = [self.lead_in]
        for beat, length in enumerate(self.lengths):
            self.times.append(self.times[-1] + length + self.holds.get(beat, 0.0))
        self.first_beats = []
        beat = 0
        for bar in self.bars:
            self.first_beats.append(beat)
            beat += bar.beats

    def at(self, beat, share=0.0):
        """The second at `share` 0-1 of a beat. A hold lies behind the sounding part of its beat."""
        whole = int(share)
        beat += whole
        share -= whole
        if beat >= len(self.lengths):
            return self.times[-1] + (beat - len(self.lengths) + share) * self.lengths[-1]
        return self.times[beat] + share * self.lengths[beat]


def tempo_course(random, style, timeline, sections):
    """The seconds of each beat: level, with a hand's unrest, or as the style's course says."""
    low, high = style["tempo"]
    # Evenly by ratio, so that slow and fast are as frequent.
    tempo = low * (high / low) ** random.random()
    course = style.get("course", random.choice(["level"] * 6 + ["human"] * 5 + ["ramp"]))
    beats = sum(bar.beats for bar in timeline.bars)
    lengths = []
    drift = 0.0
    by_section = [tempo] * sections
    if course == "jump":
        for n in range(1, sections):
            if random.random() < 0.55:
                by_section[n] = tempo * random.choice([0.67, 0.75, 0.8, 1.2, 1.25, 1.33, 1.5])
    ramp = random.choice([0.72, 0.8, 1.2, 1.3, 1.4]) if course == "ramp" else 1.0
    unrest = {"level": 0.0, "human": 0.006, "ramp": 0.004, "jump": 0.002, "rubato": 0.03, "pauses": 0.004}[course]
    beat = 0
    for number, bar in enumerate(timeline.bars):
        is_last_of_section = number + 1 == len(timeline.bars) or timeline.bars[number + 1].section != bar.section
        for n in range(bar.beats):
            drift = 0.9 * drift + random.gauss(0, unrest)
            here = by_section[bar.section] * (1 + (ramp - 1) * beat / beats) * (1 + drift)
            if course == "rubato":
                # It leans into the phrase and gives way at its end.
                phrase = (bar.number % 4 + n / bar.beats) / 4
                here *= 1.06 - 0.22 * phrase**3
            if is_last_of_section and number + 1 == len(timeline.bars):
                here *= 1 - style.get("last_rit", 0.1) * n / bar.beats
            lengths.append(60 / here)
            beat += 1
        if course == "pauses" and is_last_of_section and number + 1 < len(timeline.bars):
            timeline.holds[beat - 1] = random.uniform(0.3, 2.5) * 60 / tempo
    timeline.lengths = lengths
    timeline.lead_in = random.uniform(0.1, 1.5)
    timeline.settle()
    return tempo
