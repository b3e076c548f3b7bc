# SPDX-License-Identifier: GPL-3.0-or-later
"""Renders the pieces of a folder with FluidSynth, as recordings come: with noise, rooms, few bits.

    render.py FOLDER [SOUNDFONT ...]      (two at a time)
"""

import random as chance
import subprocess
import sys
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path

FONTS = ["/usr/share/sounds/sf2/TimGM6mb.sf2"]


def spoil(random):
    """A chain of FFmpeg's audio filters, and the encoding: most pieces are clean."""
    filters = []
    if random.random() < 0.25:
        filters.append(f"aecho=0.8:0.7:{random.randint(18, 90)}|{random.randint(91, 230)}:{random.uniform(0.1, 0.35):.2f}|{random.uniform(0.05, 0.2):.2f}")
    if random.random() < 0.15:
        filters.append(f"lowpass=f={random.randint(3000, 9000)}")
    if random.random() < 0.12:
        filters.append(f"highpass=f={random.randint(60, 220)}")
    if random.random() < 0.3:
        filters.append("acompressor=threshold=-18dB:ratio=4:attack=5:release=120:makeup=6dB")
    filters.append(f"volume={random.uniform(-14, 2):.1f}dB")
    noise = random.uniform(-62, -34) if random.random() < 0.3 else None
    codec = random.choice([("flac", []), ("ogg", ["-q:a", "3"]), ("mp3", ["-b:a", "128k"]), ("mp3", ["-b:a", "48k", "-ac", "1"])])
    return filters, noise, codec


def render(mid, fonts):
    random = chance.Random(mid.read_bytes()[:4000])
    wave = mid.with_suffix(".wav")
    subprocess.run(["fluidsynth", "-ni", "-q", "-g", "0.5", "-r", "44100", "-F", wave, random.choice(fonts), mid],
                   check=True, stdout=subprocess.DEVNULL, stderr=subprocess.DEVNULL)
    filters, noise, (ending, options) = spoil(random)
    chain = "[0]" + ",".join(filters) + "[a]"
    inputs = ["-i", wave]
    if noise is not None:
        inputs += ["-f", "lavfi", "-i", f"anoisesrc=color=pink:amplitude={10 ** (noise / 20):.5f}:seed={random.randint(1, 9999)}"]
        chain = "[0]" + ",".join(filters) + "[m];[m][1]amix=inputs=2:duration=first:normalize=0[a]"
    subprocess.run(["ffmpeg", "-nostdin", "-loglevel", "error", "-y", *inputs, "-filter_complex", chain, "-map", "[a]", *options,
                    mid.with_suffix("." + ending)], check=True)
    wave.unlink()


def main():
    folder, fonts = Path(sys.argv[1]), sys.argv[2:] or FONTS
    with ThreadPoolExecutor(2) as pool:
        for _ in pool.map(lambda mid: render(mid, fonts), sorted(folder.glob("*.mid"))):
            pass


if __name__ == "__main__":
    main()
