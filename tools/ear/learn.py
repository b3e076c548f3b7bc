# SPDX-License-Identifier: GPL-3.0-or-later
"""Learns the beat finder's network from a folder of pieces, and writes it as a table of the source.

    learn.py FOLDER[,FOLDER ...] TABLE.inc [EPOCHS [BEFORE.pt [CHANNELS]]]
    learn.py mean ONE.pt OTHER.pt TABLE.inc

With BEFORE.pt it goes on from what was learnt before; with CHANNELS the network is made as wide first.
The folders hold what `compose.py`, `render.py` and `chispa-ear inputs` wrote. Needs Debian's python3-torch. The network is a
temporal convolutional one (M. Davies and S. Böck, EUSIPCO 2019): its shape stands in src/core/music/beatnetwork.h.
"""

import json
import os
import random
import sys
from pathlib import Path

import numpy
import torch
from torch import nn

RATE = 50
NUMBERS = 40
SCALE = 170
CHANNELS = 20  # At first; see widened().
DILATIONS = [1, 2, 4, 8, 16, 32, 64, 128, 256]
KERNEL = 5


class Block(nn.Module):
    def __init__(self, channels, dilation):
        super().__init__()
        self.wide = nn.Conv1d(channels, channels, KERNEL, padding=dilation * (KERNEL // 2), dilation=dilation)
        self.mix = nn.Conv1d(channels, channels, 1)
        self.drop = nn.Dropout(0.08)

    def forward(self, x):
        return x + self.mix(self.drop(nn.functional.elu(self.wide(x))))


class Network(nn.Module):
    def __init__(self, channels=CHANNELS):
        super().__init__()
        self.channels = channels
        self.take = nn.Conv1d(NUMBERS, channels, 3, padding=1)
        self.blocks = nn.ModuleList([Block(channels, dilation) for dilation in DILATIONS])
        self.give = nn.Conv1d(channels, 2, 1)

    def forward(self, x):
        x = nn.functional.elu(self.take(x))
        for block in self.blocks:
            x = block(x)
        return self.give(x)


def widened(network, channels):
    """A network of more channels that answers as `network` does until it learns on: what is known takes nothing from the new channels
    (T. Chen, I. Goodfellow, J. Shlens: Net2Net, ICLR 2016, in its simplest form)."""
    wide = Network(channels)
    with torch.no_grad():
        for known, layer in zip(layers(network), layers(wide)):
            outputs, inputs, _ = known.weight.shape
            layer.weight[:outputs, inputs:] = 0
            layer.weight[:outputs, :inputs] = known.weight
            layer.bias[:outputs] = known.bias
    return wide


def load(folders):
    pieces = []
    for path in [path for folder in folders.split(",") for path in sorted(Path(folder).glob("*.hear"))]:
        truth = json.loads(path.with_suffix(".json").read_text())
        heard = numpy.frombuffer(path.read_bytes(), numpy.uint8).reshape(-1, NUMBERS)
        targets = numpy.zeros((2, len(heard)), numpy.float32)
        for second, place in truth["beats"]:
            for kind in [0, 1] if place == 1 else [0]:
                for offset, value in ((-2, 0.15), (-1, 0.55), (0, 1.0), (1, 0.55), (2, 0.15)):
                    frame = round(second * RATE) + offset
                    if 0 <= frame < len(heard):
                        targets[kind, frame] = max(targets[kind, frame], value)
        pieces.append((heard, targets))
    return pieces


def crop(piece, length, rng):
    """A stretch of a piece, a little faster or slower, louder or duller than it is."""
    heard, targets = piece
    stretch = rng.uniform(0.92, 1.09) if rng.random() < 0.6 else 1.0
    want = int(length * stretch)
    start = rng.randint(0, max(0, len(heard) - want))
    heard = heard[start : start + want].astype(numpy.float32).T / SCALE
    targets = targets[:, start : start + want]
    heard, targets = torch.from_numpy(heard), torch.from_numpy(targets)
    if stretch != 1.0:
        size = max(8, int(heard.shape[1] / stretch))
        heard = nn.functional.interpolate(heard[None], size=size, mode="linear")[0]
        targets = nn.functional.interpolate(targets[None], size=size, mode="linear")[0]
    if heard.shape[1] < length:
        missing = length - heard.shape[1]
        heard, targets = nn.functional.pad(heard, (0, missing)), nn.functional.pad(targets, (0, missing))
    heard, targets = heard[:, :length].clone(), targets[:, :length]
    if rng.random() < 0.4:
        heard[:36] *= rng.uniform(0.7, 1.25)
    if rng.random() < 0.3:
        low = rng.randint(0, 20)
        high = low + rng.randint(1, 6)
        heard[low:high] *= rng.uniform(0, 0.5)
        heard[24 + low // 2 : 24 + high // 2] *= rng.uniform(0.3, 0.8)
    if rng.random() < 0.4:
        heard = heard + torch.randn_like(heard) * rng.uniform(0, 0.04)
    return heard, targets


def train(pieces, epochs, network=None):
    fastest = 2.5e-3 if network else 6e-3
    rng = random.Random(1)
    torch.manual_seed(1)
    network = network or Network()
    optimiser = torch.optim.AdamW(network.parameters(), lr=4e-3, weight_decay=1e-4)
    length, batch = 40 * RATE, 8
    steps = epochs * (len(pieces) // batch)
    schedule = torch.optim.lr_scheduler.OneCycleLR(optimiser, fastest, total_steps=steps, pct_start=0.15)
    weight = torch.tensor([1.0, 1.6])[None, :, None]
    for epoch in range(epochs):
        network.train()
        order = list(range(len(pieces)))
        rng.shuffle(order)
        total, count = 0.0, 0
        for first in range(0, len(order) - batch + 1, batch):
            crops = [crop(pieces[n], length, rng) for n in order[first : first + batch]]
            heard = torch.stack([c[0] for c in crops])
            targets = torch.stack([c[1] for c in crops])
            loss = (nn.functional.binary_cross_entropy_with_logits(network(heard), targets, reduction="none") * weight).mean()
            optimiser.zero_grad()
            loss.backward()
            nn.utils.clip_grad_norm_(network.parameters(), 1.0)
            optimiser.step()
            schedule.step()
            total += loss.item()
            count += 1
        print(f"epoch {epoch + 1} of {epochs}: loss {total / count:.5f}", flush=True)
    return network


def layers(network):
    yield network.take
    for block in network.blocks:
        yield block.wide
        yield block.mix
    yield network.give


def write(network, path):
    """Weights of eight bits, a scale for each output of a layer: [output][tap][input]; then the offsets."""
    lines = ["// SPDX-License-Identifier: GPL-3.0-or-later", "// Made by tools/ear/learn.py; see docs/ear.md.", ""]
    scales, offsets, weights = [], [], []
    for layer in layers(network):
        matrix = layer.weight.detach().permute(0, 2, 1).reshape(layer.weight.shape[0], -1)
        for row in matrix:
            scale = float(row.abs().max()) / 127 or 1e-9
            scales.append(scale)
            weights += [int(round(float(v) / scale)) for v in row]
        offsets += [float(v) for v in layer.bias.detach()]

    def table(kind, name, values, form):
        lines.append(f"constexpr {kind} {name}[] = {{")
        line = "   "
        for value in values:
            word = " " + form(value) + ","
            if len(line) + len(word) > 108:
                lines.append(line)
                line = "   "
            line += word
        lines.extend([line, "};"])

    table("float", "kScales", scales, lambda v: f"{v:.6g}f" if "." in f"{v:.6g}" or "e" in f"{v:.6g}" else f"{v:.6g}.f")
    table("float", "kOffsets", offsets, lambda v: f"{v:.6g}f" if "." in f"{v:.6g}" or "e" in f"{v:.6g}" else f"{v:.6g}.f")
    table("signed char", "kWeights", weights, str)
    Path(path).write_text("\n".join(lines) + "\n")


def read(path):
    known = torch.load(path)
    network = Network(known["take.weight"].shape[0])
    network.load_state_dict(known)
    return network


def write_mean(one, other, table):
    """The mean of the ends of two courses, which hears new pieces better than either (P. Izmailov and others, UAI 2018)."""
    mean, second = read(one), read(other).state_dict()
    mean.load_state_dict({name: (values + second[name]) / 2 for name, values in mean.state_dict().items()})
    write(mean.eval(), table)


def main():
    if sys.argv[1] == "mean":
        write_mean(*sys.argv[2:5])
        return
    torch.set_num_threads(int(os.environ.get("OMP_NUM_THREADS", "2")))
    pieces = load(sys.argv[1])
    epochs = int(sys.argv[3]) if len(sys.argv) > 3 else 60
    print(f"{len(pieces)} pieces, {sum(len(p[0]) for p in pieces) / RATE / 3600:.1f} hours")
    network = None
    if len(sys.argv) > 4:
        # Goes on from what was learnt before.
        network = read(sys.argv[4])
        torch.manual_seed(3)
        if len(sys.argv) > 5:
            network = widened(network, int(sys.argv[5]))
    network = train(pieces, epochs, network)
    torch.save(network.state_dict(), Path(sys.argv[2]).with_suffix(".pt"))
    write(network.eval(), sys.argv[2])


if __name__ == "__main__":
    main()
