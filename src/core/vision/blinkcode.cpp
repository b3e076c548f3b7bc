// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/vision/blinkcode.h"

#include <algorithm>
#include <bit>
#include <vector>

namespace chispa::vision {
namespace {

/// Generators of the cyclic codes, highest power first, and their degrees.
struct Cyclic {
  std::uint64_t generator;
  int degree;
};
constexpr Cyclic kGolay{0xC75, 11};
constexpr Cyclic kBch{0x8FAF, 15};
constexpr int kMaxGolay = 4094;

std::uint64_t encode(std::uint64_t data, const Cyclic& code) {
  const std::uint64_t shifted = data << code.degree;
  std::uint64_t rest = shifted;
  for (int bit = 63; bit >= code.degree; --bit)
    if ((rest >> bit) & 1) rest ^= code.generator << (bit - code.degree);
  const std::uint64_t word = shifted | rest;
  return word << 1 | static_cast<std::uint64_t>(std::popcount(word) & 1);
}

}  // namespace

BlinkCode::BlinkCode(int leds) : leds_(std::clamp(leds, 1, kMaxLeds)), isGolay_(leds_ <= kMaxGolay) {
  // Number 0 is left out: its word never blinks the other way round, as a lamp of the room might.
  const auto dataBits = static_cast<int>(std::bit_width(static_cast<unsigned>(leds_)));
  bits_ = dataBits + (isGolay_ ? kGolay : kBch).degree + 1;
  for (int led = 0; led < leds_; ++led) ledByWord_[word(led)] = led;
}

std::uint64_t BlinkCode::word(int led) const {
  return encode(static_cast<std::uint64_t>(led) + 1, isGolay_ ? kGolay : kBch);
}

std::optional<int> BlinkCode::ledOf(std::uint64_t word) const {
  const auto found = ledByWord_.find(word);
  return found == ledByWord_.end() ? std::nullopt : std::optional(found->second);
}

std::optional<int> BlinkCode::ledOf(std::uint64_t word, std::uint64_t unread) const {
  constexpr int kMaxUnread = 4;
  std::vector<std::uint64_t> places;
  for (std::uint64_t left = unread; left != 0; left &= left - 1) places.push_back(left & (~left + 1));
  if (places.size() > kMaxUnread) return std::nullopt;
  std::optional<int> found;
  for (unsigned fill = 0; fill < 1u << places.size(); ++fill) {
    std::uint64_t tried = word & ~unread;
    for (std::size_t i = 0; i < places.size(); ++i)
      if ((fill >> i) & 1) tried |= places[i];
    if (const auto led = ledOf(tried)) {
      if (found) return std::nullopt;
      found = led;
    }
  }
  return found;
}

bool BlinkCode::isLikeSome(std::uint64_t word, std::uint64_t unread) const {
  // Of as many random words as there are LEDs, one in sixteen agrees in this many places.
  constexpr int kNoChance = 4;
  const std::uint64_t places = ((std::uint64_t{1} << bits_) - 1) & ~unread;
  if (std::popcount(places) < static_cast<int>(std::bit_width(static_cast<unsigned>(leds_))) + kNoChance)
    return false;
  return std::any_of(ledByWord_.begin(), ledByWord_.end(),
                     [&](const auto& one) { return ((one.first ^ word) & places) == 0; });
}

}  // namespace chispa::vision
