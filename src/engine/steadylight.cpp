// SPDX-License-Identifier: GPL-3.0-or-later
#include "engine/steadylight.h"

#include <algorithm>
#include <array>
#include <cstring>
#include <utility>

#include "core/base/hash.h"
#include "core/wire/patch.h"

namespace chispa::engine {
namespace {

constexpr std::size_t kChannels = kUniverseChannels;

/// A number that tells these values from others.
std::uint64_t markOf(std::span<const std::uint8_t> values) noexcept {
  constexpr std::size_t kLanes = 4;
  std::array<std::uint64_t, kLanes> lanes{1, 2, 3, 4};
  for (std::size_t at = 0; at < values.size(); at += kLanes * sizeof(std::uint64_t))
    for (std::size_t lane = 0; lane < kLanes; ++lane) {
      std::uint64_t word;
      std::memcpy(&word, values.data() + at + lane * sizeof word, sizeof word);
      lanes[lane] = (lanes[lane] ^ word) * 0x9e3779b97f4a7c15ULL;
      lanes[lane] ^= lanes[lane] >> 29;
    }
  return mixBits(lanes[0] ^ mixBits(lanes[1] ^ mixBits(lanes[2] ^ mixBits(lanes[3]))));
}

/// True if a value differs by more than dithering moves it, or where its step is seen.
bool isSeenToStep(std::span<const std::uint8_t> a, std::span<const std::uint8_t> b) noexcept {
  bool isSeen = false;
  for (std::size_t i = 0; i < a.size(); ++i) {
    const int low = std::min(a[i], b[i]), high = std::max(a[i], b[i]);
    isSeen |= high > low + 1 || (high > low && low < SteadyLight::kSteadyValue);
  }
  return isSeen;
}

}  // namespace

SteadyLight::SteadyLight(std::size_t universes) : universes_(universes), shown_(universes * kChannels) {}

void SteadyLight::settle(std::span<std::uint8_t> values, const ShownFrame& frame) noexcept {
  // Without a period values are the same as long as light is, and the sender sees that.
  if (frame.dither.period < 2) return;
  if (std::exchange(period_, frame.dither.period) != frame.dither.period)
    for (Universe& universe : universes_) universe = {};
  held_ = 0;
  for (std::size_t i = 0; i < universes_.size(); ++i) {
    settleOne(universes_[i], values.subspan(i * kChannels, kChannels),
              std::span(shown_).subspan(i * kChannels, kChannels), frame);
    held_ += universes_[i].isHeld;
  }
}

// What moves is looked at once a period. If it was the same as a period before, a period is noted, and the
// next is compared with it, and with what would be held; if no step of its values is seen, it is.
void SteadyLight::settleOne(Universe& universe, std::span<std::uint8_t> values, std::span<std::uint8_t> shown,
                            const ShownFrame& frame) noexcept {
  const std::uint8_t period = frame.dither.period;
  const bool isWatched = universe.steady > 0 && !universe.isSeen;
  if (!isWatched && frame.dither.number != 0) return;
  const std::uint64_t mark = markOf(values);
  const bool isAsBefore = std::exchange(universe.marks[frame.dither.number], mark) == mark;
  // The first period of those that are watched has nothing before it.
  if (!isAsBefore && (universe.steady == 0 || universe.steady >= period)) {
    universe.steady = 0;
    universe.isHeld = universe.isSeen = false;
    return;
  }
  if (universe.isSeen) return;
  if (universe.isHeld) {
    std::ranges::copy(shown, values.begin());
    return;
  }
  if (universe.steady == period) {
    std::ranges::copy(values, shown.begin());
    universe.heldAt = frame;
  } else if (universe.steady > period) {
    universe.isSeen = isSeenToStep(values, shown);
    universe.isHeld = !universe.isSeen && universe.steady == 2 * period - 1;
    if (universe.isHeld) std::ranges::copy(shown, values.begin());
  }
  ++universe.steady;
}

void SteadyLight::keep(std::span<std::uint8_t> values) const noexcept {
  for (std::size_t i = 0; i < universes_.size(); ++i)
    if (universes_[i].isHeld)
      std::ranges::copy(std::span(shown_).subspan(i * kChannels, kChannels),
                        values.begin() + static_cast<std::ptrdiff_t>(i * kChannels));
}

}  // namespace chispa::engine
