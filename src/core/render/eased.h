// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/base/time.h"
#include "core/show/score.h"

namespace chispa {

/// A value on its way from one to another: a function of time.
class Eased {
 public:
  constexpr Eased() = default;
  constexpr explicit Eased(float value) : from_(value), to_(value) {}

  /// Times are those of the live clock. Real-time safe, as all here.
  float at(Micros t) const noexcept;
  float target() const noexcept { return to_; }
  Micros length() const noexcept { return length_; }
  Micros begun() const noexcept { return begun_; }
  bool hasArrived(Micros t) const noexcept { return t >= begun_ + length_; }
  /// From what it is at `t` to `value` within `length`.
  void go(float value, Micros t, Micros length, FadeShape shape = FadeShape::Even) noexcept;
  void set(float value) noexcept { *this = Eased(value); }

  bool operator==(const Eased&) const = default;

 private:
  float from_ = 0;
  float to_ = 0;
  Micros begun_{0};
  Micros length_{0};
  FadeShape shape_ = FadeShape::Even;
};

}  // namespace chispa
