// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <cmath>
#include <functional>
#include <numbers>
#include <random>
#include <vector>

#include "core/media/audio.h"

namespace chispa::test {

/// A piece that is made up, with beats and bars that are known.
struct MadeUpMusic {
  AudioBuffer clip;
  std::vector<double> beats_s;
  std::vector<double> bars_s;
};

/// What it is made of. The tempo is given by share of the piece, 0–1.
struct Recipe {
  double length_s = 40;
  std::function<double(double)> tempo_bpm = [](double) { return 120.0; };
  int beatsPerBar = 4;
  /// Where the second eighth of a beat falls, as a share of the beat: 0.5 straight, 0.66 swinging; 0 plays
  /// none.
  double offbeat = 0.5;
  /// Chance that a beat has no sound of its own, and that an offbeat does.
  double missing = 0;
  double offbeats = 0.6;
  /// White noise beneath, against a loudest sound of 1.
  double noise = 0.003;
  /// A rest of this many beats in the middle, during which time goes on.
  int rest = 0;
  unsigned seed = 1;
};

class Composer {
 public:
  explicit Composer(const Recipe& recipe) : recipe_(recipe), random_(recipe.seed) {}

  MadeUpMusic compose() {
    MadeUpMusic music;
    music.clip.samples.assign(static_cast<std::size_t>(recipe_.length_s * AudioClip::kRate) * 2, 0.f);
    double t = 0.4;
    for (int beat = 0; t < recipe_.length_s - 1; ++beat) {
      const double length = 60 / recipe_.tempo_bpm(t / recipe_.length_s);
      const int inBar = beat % recipe_.beatsPerBar;
      const bool rests = recipe_.rest > 0 && t > recipe_.length_s / 2 && rested_ < recipe_.rest;
      if (rests) {
        ++rested_;
      } else {
        music.beats_s.push_back(t);
        if (inBar == 0) music.bars_s.push_back(t);
        playBeat(music.clip, t, length, inBar, beat / recipe_.beatsPerBar);
      }
      t += length;
    }
    addNoise(music.clip);
    return music;
  }

 private:
  bool happens(double chance) { return std::uniform_real_distribution<>(0, 1)(random_) < chance; }

  void playBeat(AudioBuffer& clip, double t, double length, int inBar, int bar) {
    constexpr double kRoots[] = {110, 146.8, 123.5, 98};
    const double root = kRoots[bar % 4];
    if (inBar == 0) tone(clip, t, root / 2, 0.5, 0.35), kick(clip, t, 0.9);
    if (!happens(recipe_.missing)) {
      if (inBar != 0) chord(clip, t, root, length * 0.7);
      hat(clip, t, inBar == 0 ? 0.3 : 0.2);
      if (recipe_.beatsPerBar == 4 && inBar % 2 == 1) snare(clip, t, 0.45);
    }
    if (recipe_.offbeat > 0 && happens(recipe_.offbeats)) hat(clip, t + length * recipe_.offbeat, 0.16);
    if (happens(0.5))
      tone(clip, t + (happens(0.4) ? length * recipe_.offbeat : 0), root * 4 * (happens(0.5) ? 1.5 : 1.25),
           length * 0.5, 0.16);
  }
  template <class Wave>
  void add(AudioBuffer& clip, double t, double length, Wave wave) {
    const auto from = static_cast<std::size_t>(t * AudioClip::kRate);
    const auto count = static_cast<std::size_t>(length * AudioClip::kRate);
    for (std::size_t i = 0; i < count && 2 * (from + i) + 1 < clip.samples.size(); ++i) {
      const auto v = static_cast<float>(wave(static_cast<double>(i) / AudioClip::kRate));
      clip.samples[2 * (from + i)] += v;
      clip.samples[2 * (from + i) + 1] += v;
    }
  }
  void tone(AudioBuffer& clip, double t, double hz, double length, double loud) {
    add(clip, t, length, [=](double u) {
      return loud * std::sin(2 * std::numbers::pi * hz * u) * std::min(1.0, u * 200) *
             std::exp(-u * 4 / length);
    });
  }
  void chord(AudioBuffer& clip, double t, double root, double length) {
    for (const double step : {2.0, 2.5, 3.0}) tone(clip, t, root * step, length, 0.1);
  }
  void kick(AudioBuffer& clip, double t, double loud) {
    add(clip, t, 0.25, [=](double u) {
      return loud * std::sin(2 * std::numbers::pi * (45 * u + 12 * (1 - std::exp(-u * 30)) / 3)) *
             std::exp(-u * 14);
    });
  }
  void hat(AudioBuffer& clip, double t, double loud) {
    add(clip, t, 0.06, [&](double u) {
      return loud * std::uniform_real_distribution<>(-1, 1)(random_) * std::exp(-u * 90);
    });
  }
  void snare(AudioBuffer& clip, double t, double loud) {
    add(clip, t, 0.15, [&](double u) {
      return loud *
             (0.6 * std::uniform_real_distribution<>(-1, 1)(random_) +
              0.4 * std::sin(2 * std::numbers::pi * 190 * u)) *
             std::exp(-u * 28);
    });
  }
  void addNoise(AudioBuffer& clip) {
    std::normal_distribution<double> noise(0, recipe_.noise);
    for (float& v : clip.samples) v += static_cast<float>(noise(random_));
  }

  Recipe recipe_;
  std::mt19937 random_;
  int rested_ = 0;
};

/// F-measure of found against true instants that match within 70 ms, each at most once (as in MIREX's beat
/// tracking).
inline double fMeasure(const std::vector<Micros>& found, const std::vector<double>& truth_s) {
  std::size_t hits = 0;
  std::size_t next = 0;
  for (const double truth : truth_s) {
    while (next < found.size() && seconds(found[next]) < truth - 0.07) ++next;
    if (next < found.size() && seconds(found[next]) <= truth + 0.07) ++hits, ++next;
  }
  return found.empty() && truth_s.empty()
             ? 1
             : 2.0 * static_cast<double>(hits) / static_cast<double>(found.size() + truth_s.size());
}

}  // namespace chispa::test
