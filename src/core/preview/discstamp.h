// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <array>
#include <cstddef>

namespace chispa {

/// How much of each pixel a small disc covers, worked out once for all places that its middle may have within
/// a pixel, in steps of an eighth: most LEDs of a large installation are drawn with the same one. Any thread,
/// one at a time.
class DiscStamp {
 public:
  /// Pixels that it reaches to either side of the one that its middle lies in.
  static constexpr int kReach = 2;
  static constexpr int kSide = 2 * kReach + 1;
  /// Discs of that radius fit.
  static constexpr float kMaxRadius = 1.5f;

  /// For discs of `radius`, up to kMaxRadius; nothing is done if it is that already.
  void prepare(float radius);
  float radius() const { return radius_; }
  /// Shares 0–1, row by row, of the pixels about the one that (x, y) lies in; both are at least 0.
  const float* at(float x, float y) const {
    const auto step = [](float place) {
      return static_cast<std::size_t>((place - static_cast<float>(static_cast<int>(place))) * kSteps);
    };
    return shares_[step(y) * kSteps + step(x)].data();
  }

 private:
  static constexpr int kSteps = 8;
  float radius_ = 0;
  std::array<std::array<float, std::size_t{kSide} * kSide>, std::size_t{kSteps} * kSteps> shares_{};
};

/// The share of a pixel that a disc covers whose middle is `away` from the pixel's.
float discShare(float radius, float away);

}  // namespace chispa
