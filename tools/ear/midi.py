# SPDX-License-Identifier: GPL-3.0-or-later
"""Standard MIDI files, format 1, of notes whose time is told in seconds (MMA, Standard MIDI Files 1.0)."""

import struct

TICKS_PER_SECOND = 1920
DRUMS = 9


def _varying(value):
    out = [value & 0x7F]
    value >>= 7
    while value:
        out.append(0x80 | (value & 0x7F))
        value >>= 7
    return bytes(reversed(out))


class Song:
    """Notes by channel; channel 9 is percussion."""

    def __init__(self):
        self._events = {}

    def program(self, channel, number, volume=100, pan=64, reverb=40):
        events = self._events.setdefault(channel, [])
        if channel != DRUMS:
            events.append((0, 0, bytes([0xC0 | channel, number])))
        for control, value in ((7, volume), (10, pan), (91, reverb)):
            events.append((0, 0, bytes([0xB0 | channel, control, value])))

    def note(self, channel, start, end, pitch, velocity):
        start = max(0, round(start * TICKS_PER_SECOND))
        end = max(start + 20, round(end * TICKS_PER_SECOND))
        pitch = min(127, max(0, int(pitch)))
        velocity = min(127, max(1, int(velocity)))
        events = self._events.setdefault(channel, [])
        events.append((start, 2, bytes([0x90 | channel, pitch, velocity])))
        events.append((end, 1, bytes([0x80 | channel, pitch, 0])))

    def vibrato(self, channel, start, end, depth, rate):
        """Bends the pitch to and fro between two instants."""
        import math

        events = self._events.setdefault(channel, [])
        time = start
        while time < end:
            bend = 8192 + int(8191 * depth / 2 * math.sin(2 * math.pi * rate * (time - start)))
            events.append((round(time * TICKS_PER_SECOND), 1, bytes([0xE0 | channel, bend & 0x7F, bend >> 7])))
            time += 0.02
        events.append((round(end * TICKS_PER_SECOND), 1, bytes([0xE0 | channel, 0, 64])))

    def save(self, path):
        tracks = [bytes([0, 0xFF, 0x51, 3]) + (500_000).to_bytes(3, "big") + bytes([0, 0xFF, 0x2F, 0])]
        for channel in sorted(self._events):
            data, now = b"", 0
            for tick, _, message in sorted(self._events[channel], key=lambda event: event[:2]):
                data += _varying(tick - now) + message
                now = tick
            tracks.append(data + bytes([0, 0xFF, 0x2F, 0]))
        with open(path, "wb") as file:
            file.write(b"MThd" + struct.pack(">IHHH", 6, 1, len(tracks), TICKS_PER_SECOND // 2))
            for track in tracks:
                file.write(b"MTrk" + struct.pack(">I", len(track)) + track)
