// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/controllermemory/stepfinder.h"

#include <algorithm>

#include "core/colour/difference.h"

namespace chispa {
namespace {

using Values = std::vector<std::uint8_t>;

class StepFinder {
 public:
  StepFinder(const ValueFrames& frames, const ValueLight& light, const StepRules& rules)
      : frames_(frames), light_(light), rules_(rules) {}

  std::vector<MemoryStep> find(const Progress& progress) {
    const std::size_t count = frames_.frames.size() / frames_.stride;
    if (count == 0) return {};
    steps_.push_back({0, 0, valuesAt(0)});
    std::size_t at = 0;
    while (at + 1 < count) {
      if (progress && !progress(static_cast<double>(at) / static_cast<double>(count))) return {};
      const std::size_t most = count - 1 - at;
      const std::size_t holds = farthest(most, [&](std::size_t ahead) { return canHold(at, ahead); });
      const std::size_t fades =
          rules_.mayFade ? farthest(most, [&](std::size_t ahead) { return canFade(at, ahead); }) : 0;
      if (holds > 0 && holds >= fades) {
        steps_.back().hold_ms += length_ms(holds);
        at += holds;
      } else if (fades > 1) {
        fadeTo(at, fades);
        at += fades;
      } else if (rules_.mayFade && fadesNearer(at)) {
        fadeTo(at, 1);
        ++at;
      } else {
        steps_.back().hold_ms += length_ms(1);
        steps_.push_back({0, 0, valuesAt(++at)});
      }
    }
    steps_.back().hold_ms += length_ms(1);
    return std::move(steps_);
  }

 private:
  /// All lengths are in strides, and so are places.
  std::int64_t length_ms(std::size_t strides) const {
    return static_cast<std::int64_t>(strides * frames_.stride) * frames_.frame_ms;
  }
  const Values& valuesAt(std::size_t place) const { return frames_.frames[place * frames_.stride]; }
  void fadeTo(std::size_t at, std::size_t ahead) {
    steps_.push_back({length_ms(ahead), 0, valuesAt(at + ahead)});
  }

  /// The farthest of 1 … `most` that is reached by doubling, then by halves; 0 if not even 1 is.
  template <class Reaches>
  std::size_t farthest(std::size_t most, Reaches reaches) const {
    std::size_t good = 0, bad = most + 1;
    for (std::size_t next = 1; next <= most; next = 2 * next) {
      if (!reaches(next)) {
        bad = next;
        break;
      }
      good = next;
    }
    while (bad - good > 1) {
      const std::size_t middle = good + (bad - good) / 2;
      (reaches(middle) ? good : bad) = middle;
    }
    return good;
  }

  bool isNear(const Values& shown, const Values& full) const {
    if (shown == full) return true;
    if (rules_.tolerance <= 0) return false;
    for (std::size_t i = 0; i < light_.count(); ++i) {
      if (light_.isSame(shown, full, i)) continue;
      const CieLab one = toCieLab(light_.lightOf(shown, i)), other = toCieLab(light_.lightOf(full, i));
      if (deltaE2000(one, other) > rules_.tolerance) return false;
    }
    return true;
  }
  /// The values `i` instants into a fade of `instants`.
  const Values& mixed(const Values& from, const Values& to, std::size_t i, std::size_t instants) {
    mixed_.resize(from.size());
    for (std::size_t c = 0; c < from.size(); ++c)
      mixed_[c] = static_cast<std::uint8_t>((from[c] * (instants - i) + to[c] * i + instants / 2) / instants);
    return mixed_;
  }
  bool canHold(std::size_t at, std::size_t ahead) const {
    const Values& held = steps_.back().values;
    // What is farthest away differs first.
    for (std::size_t i = ahead * frames_.stride; i > 0; --i)
      if (!isNear(held, frames_.frames[at * frames_.stride + i])) return false;
    return true;
  }
  bool canFade(std::size_t at, std::size_t ahead) {
    const Values& from = steps_.back().values;
    const std::size_t instants = ahead * frames_.stride;
    for (std::size_t i = 1; i < instants; ++i)
      if (!isNear(mixed(from, valuesAt(at + ahead), i, instants), frames_.frames[at * frames_.stride + i]))
        return false;
    return true;
  }
  /// Until the next place: is a fade nearer to the light than what stands?
  bool fadesNearer(std::size_t at) {
    const Values& from = steps_.back().values;
    double standing = 0, fading = 0;
    for (std::size_t i = 1; i < frames_.stride; ++i) {
      const Values& full = frames_.frames[at * frames_.stride + i];
      standing = std::max(standing, errorOf(light_, from, full).most);
      fading = std::max(fading, errorOf(light_, mixed(from, valuesAt(at + 1), i, frames_.stride), full).most);
    }
    return fading < standing;
  }

  const ValueFrames& frames_;
  const ValueLight& light_;
  const StepRules& rules_;
  std::vector<MemoryStep> steps_;
  Values mixed_;
};

}  // namespace

std::vector<MemoryStep> findSteps(const ValueFrames& frames, const ValueLight& light, const StepRules& rules,
                                  const Progress& progress) {
  return StepFinder(frames, light, rules).find(progress);
}

LightError errorOf(const ValueLight& light, std::span<const std::uint8_t> shown,
                   std::span<const std::uint8_t> full) {
  LightError error;
  for (std::size_t i = 0; i < light.count(); ++i) {
    if (light.isSame(shown, full, i)) continue;
    const double off = deltaE2000(toCieLab(light.lightOf(shown, i)), toCieLab(light.lightOf(full, i)));
    error.mean += off;
    error.most = std::max(error.most, off);
  }
  if (light.count() > 0) error.mean /= static_cast<double>(light.count());
  return error;
}

}  // namespace chispa
