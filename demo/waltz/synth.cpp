// SPDX-License-Identifier: GPL-3.0-or-later
#include "waltz/synth.h"

#include <algorithm>
#include <cmath>
#include <numbers>

#include "waltz/tune.h"

#include "core/base/hash.h"

namespace chispa::demo {
namespace {

constexpr double kTurn = 2 * std::numbers::pi;

/// The mix: two channels, and what is sent to the room.
struct Mix {
  std::vector<double> left, right, room;

  explicit Mix(std::size_t frames) : left(frames), right(frames), room(frames) {}
  void add(std::size_t at, double value, double pan, double send) {
    if (at >= left.size()) return;
    left[at] += value * std::sqrt(0.5 * (1 - pan));
    right[at] += value * std::sqrt(0.5 * (1 + pan));
    room[at] += value * send;
  }
};

double pitch_hz(int midi) {
  return 440.0 * std::exp2((midi - 69) / 12.0);
}
std::size_t frameAt(double beat) {
  return static_cast<std::size_t>((kLeadIn_s + beat * kBeat_s) * kRate);
}

/// A sounding tone: `voice(t, phase)` gives its sample at t seconds after its start.
template <class F>
void sound(Mix& mix, double beat, double length_s, double pan, double send, F voice) {
  const std::size_t from = frameAt(beat);
  const auto count = static_cast<std::size_t>(length_s * kRate);
  for (std::size_t i = 0; i < count; ++i) mix.add(from + i, voice(static_cast<double>(i) / kRate), pan, send);
}

double attackRelease(double t, double attack, double length, double release) {
  const double in = std::min(1.0, t / attack);
  const double out = std::clamp((length - t) / release, 0.0, 1.0);
  return in * out;
}

void organNote(Mix& mix, const Note& note, double gain) {
  const double hz = pitch_hz(note.pitch);
  const double held = note.beats * kBeat_s * 0.94;
  sound(mix, note.beat, held + 0.09, -0.15, 0.5, [=](double t) {
    const double wave = t + 0.0011 * std::sin(kTurn * 5.6 * t) * std::min(1.0, t * 2);
    const double a = kTurn * hz * wave;
    // Pipes of 8, 4 and 2⅔ feet, and a puff of air at the attack.
    const double tone = std::sin(a) + 0.45 * std::sin(2 * a) + 0.22 * std::sin(3 * a) +
                        0.10 * std::sin(4 * a) + 0.05 * std::sin(6 * a);
    const double puff = 0.5 * std::exp(-t * 60) * std::sin(kTurn * hz * 5.02 * t);
    return gain * (tone + puff) * attackRelease(t, 0.012, held + 0.08, 0.08);
  });
}

void bellNote(Mix& mix, const Note& note, double gain, double pan) {
  const double hz = pitch_hz(note.pitch);
  sound(mix, note.beat, 1.6, pan, 0.8, [=](double t) {
    const double ring = std::sin(kTurn * hz * t) * std::exp(-t * 3.2) +
                        0.5 * std::sin(kTurn * hz * 2.76 * t) * std::exp(-t * 6) +
                        0.25 * std::sin(kTurn * hz * 5.4 * t) * std::exp(-t * 11);
    return gain * ring * std::min(1.0, t / 0.002);
  });
}

void bassNote(Mix& mix, double beat, int pitch, double gain) {
  const double hz = pitch_hz(pitch);
  sound(mix, beat, 0.62, 0, 0.12, [=](double t) {
    const double a = kTurn * hz * t;
    return gain *
           (std::sin(a) + 0.4 * std::sin(2 * a) * std::exp(-t * 6) +
            0.2 * std::sin(3 * a) * std::exp(-t * 9)) *
           std::exp(-t * 3.5) * attackRelease(t, 0.006, 0.62, 0.1);
  });
}

void chordStroke(Mix& mix, double beat, const std::vector<int>& chord, double gain) {
  for (std::size_t n = 1; n < chord.size(); ++n) {
    const double hz = pitch_hz(chord[n]);
    sound(mix, beat, 0.34, 0.25, 0.35, [=](double t) {
      const double a = kTurn * hz * t;
      return gain * (std::sin(a) + 0.5 * std::sin(2 * a) + 0.3 * std::sin(4 * a)) * std::exp(-t * 9) *
             std::min(1.0, t / 0.004);
    });
  }
}

double hiss(std::uint64_t i) {
  return 2.0 * static_cast<double>(chance(77, i)) - 1.0;
}

void drum(Mix& mix, double beat, double gain) {
  sound(mix, beat, 0.3, 0, 0.15, [=](double t) {
    const double fall = 48 * t + 60 * (1 - std::exp(-t * 28)) / 28;
    return gain * std::sin(kTurn * fall) * std::exp(-t * 11) + 0.25 * gain * std::exp(-t * 300);
  });
}

void brush(Mix& mix, double beat, double gain) {
  const auto seed = static_cast<std::uint64_t>(beat * 1000);
  double before = 0;
  sound(mix, beat, 0.16, 0.1, 0.25, [=](double t) mutable {
    const double now = hiss(seed * 100'000 + static_cast<std::uint64_t>(t * kRate));
    const double high = now - before;
    before = now;
    return gain * high * std::exp(-t * 34) * std::min(1.0, t / 0.001);
  });
}

void band(Mix& mix) {
  const auto harmony = chords();
  for (int bar = 0; bar < kBars; ++bar) {
    const double beat = bar * kBeatsPerBar;
    const auto& chord = harmony[static_cast<std::size_t>(bar)];
    const bool last = bar == kBars - 1;
    bassNote(mix, beat, chord[0], 0.34);
    drum(mix, beat, 0.42);
    for (int off = 1; off < kBeatsPerBar && !last; ++off) {
      chordStroke(mix, beat + off, chord, 0.055);
      brush(mix, beat + off, off == 1 ? 0.085 : 0.065);
    }
    if (last) chordStroke(mix, beat, chord, 0.12);
  }
}

/// A small hall: parallel combs and two all-passes (M. Schroeder, 1962).
std::vector<double> hall(const std::vector<double>& in) {
  std::vector<double> out(in.size());
  constexpr std::size_t kCombs[] = {1687, 1931, 2053, 2251, 2399};
  for (const std::size_t delay : kCombs) {
    std::vector<double> loop(in.size());
    for (std::size_t i = 0; i < in.size(); ++i) {
      loop[i] = in[i] + (i >= delay ? 0.80 * loop[i - delay] : 0);
      out[i] += loop[i] / std::size(kCombs);
    }
  }
  for (const std::size_t delay : {std::size_t{347}, std::size_t{113}}) {
    std::vector<double> pass(in.size());
    for (std::size_t i = 0; i < in.size(); ++i) {
      const double back = i >= delay ? pass[i - delay] : 0;
      const double late = i >= delay ? out[i - delay] : 0;
      pass[i] = -0.6 * out[i] + late + 0.6 * back;
    }
    out = std::move(pass);
  }
  return out;
}

}  // namespace

std::vector<float> playTune() {
  const auto frames = static_cast<std::size_t>(kLength_s * kRate);
  Mix mix(frames);
  for (const Note& note : melody()) organNote(mix, note, 0.13);
  for (const Note& note : melody())
    if (note.beat < 4 * kBeatsPerBar) bellNote(mix, {note.beat, note.beats, note.pitch + 12}, 0.12, 0.4);
  for (const Note& note : bells()) bellNote(mix, note, 0.11, 0.5);
  band(mix);
  const auto room = hall(mix.room);
  // The right ear hears the room a little later than the left.
  constexpr std::size_t kAcross = 480;
  std::vector<float> out(frames * 2);
  for (std::size_t i = 0; i < frames; ++i) {
    out[2 * i] = static_cast<float>(std::tanh(0.95 * (mix.left[i] + 0.3 * room[i])));
    out[2 * i + 1] =
        static_cast<float>(std::tanh(0.95 * (mix.right[i] + 0.3 * (i >= kAcross ? room[i - kAcross] : 0))));
  }
  return out;
}

}  // namespace chispa::demo
