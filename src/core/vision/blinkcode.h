// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <cstdint>
#include <optional>
#include <unordered_map>

namespace chispa::vision {

/// Words by which LEDs are told apart when they blink. Any two differ in at least eight places, so that up to
/// four unread ones are filled in without doubt and seven wrong ones never make another LED of it. Up to
/// 4,094 LEDs take a shortened extended Golay code (24, 12, 8), more a shortened extended BCH code (32, 16,
/// 8) (F. J. MacWilliams and N. J. A. Sloane, The Theory of Error-Correcting Codes, ch. 2 §6 and ch. 7 §6).
class BlinkCode {
 public:
  static constexpr int kMaxLeds = 65'534;

  /// For LEDs 0 … leds − 1, at most kMaxLeds.
  explicit BlinkCode(int leds);

  int leds() const { return leds_; }
  /// Places of a word: the binary digits of the highest number, and 12 or 16 more.
  int bits() const { return bits_; }
  std::uint64_t word(int led) const;
  /// The LED of that very word.
  std::optional<int> ledOf(std::uint64_t word) const;
  /// The LED whose word agrees in all places but those of `unread`; nothing if there is none, more than one,
  /// or more than four unread places.
  std::optional<int> ledOf(std::uint64_t word, std::uint64_t unread) const;
  /// True if some LED's word agrees in all places but those of `unread`, and enough of them were read that
  /// this is no chance. Takes time in proportion to the LEDs.
  bool isLikeSome(std::uint64_t word, std::uint64_t unread) const;

 private:
  int leds_;
  int bits_ = 0;
  bool isGolay_;
  std::unordered_map<std::uint64_t, int> ledByWord_;
};

// What is shown, step by step, again and again: dark; all lit for three steps; dark; then, for each place of
// the words, the LEDs whose place is 1, and after them those whose place is 0. Every LED is lit in half of
// the steps, so that its light is told from the room's.

inline constexpr int kMarkSteps = 5;
inline constexpr int kLitMarkSteps = 3;

/// Steps of a round for words of `bits` places.
constexpr int roundSteps(int bits) {
  return kMarkSteps + 2 * bits;
}

/// True if an LED with this word is lit at step `step` 0 … of all rounds.
constexpr bool isBlinkLit(std::uint64_t word, int bits, std::int64_t step) {
  const auto at = static_cast<int>(step % roundSteps(bits));
  if (at < kMarkSteps) return at >= 1 && at <= kLitMarkSteps;
  const int place = (at - kMarkSteps) / 2;
  const bool isOne = ((word >> place) & 1) != 0;
  return isOne == ((at - kMarkSteps) % 2 == 0);
}

}  // namespace chispa::vision
