// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/almanac/sun.h"

#include <array>
#include <cmath>
#include <numbers>

extern "C" {
#include <libnova/dynamical_time.h>
#include <libnova/precession.h>
#include <libnova/sidereal_time.h>
#include <libnova/solar.h>
}

namespace chispa {
namespace {

using namespace std::chrono;

constexpr double kDegree = std::numbers::pi / 180;
constexpr double kHorizon_deg = -0.833;
constexpr double kTwilight_deg = -6;
/// Julian day of 1970-01-01T00:00 UTC.
constexpr double kUnixJulian = 2440587.5;
constexpr double kDay_s = 86'400;

double julian(double unix_s) {
  return kUnixJulian + unix_s / kDay_s;
}

/// The sun's place in the sky over three days about an instant: right ascension and declination change so
/// evenly that a parabola through three of their values is right to a hundredth of a second of arc (Meeus,
/// Astronomical Algorithms, chapter 3).
class SunPath {
 public:
  SunPath(double middle_s, double latitude_deg, double longitude_deg)
      : middle_s_(middle_s), latitude_(latitude_deg * kDegree), longitude_deg_(longitude_deg) {
    for (int i = 0; i < 3; ++i) {
      const double day = julian(middle_s + (i - 1) * kDay_s);
      ln_equ_posn place{};
      ln_get_solar_equ_coords(ln_get_jde(day), &place);
      // libnova gives it at the equinox of J2000; the sidereal time is that of the day.
      ln_equ_posn ofDate{};
      ln_get_equ_prec(&place, day, &ofDate);
      ascension_[static_cast<std::size_t>(i)] = ofDate.ra;
      declination_[static_cast<std::size_t>(i)] = ofDate.dec;
    }
    // It counts from 0 again in March.
    for (std::size_t i = 1; i < 3; ++i)
      if (ascension_[i] < ascension_[i - 1]) ascension_[i] += 360;
    sidereal_deg_ = ln_get_apparent_sidereal_time(julian(middle_s)) * 15;
  }

  /// Degrees past the meridian, −180 … 180.
  double hourAngle(double at_s) const {
    constexpr double kSiderealDay_deg = 360.985647366;
    const double days = (at_s - middle_s_) / kDay_s;
    const double sidereal = sidereal_deg_ + kSiderealDay_deg * days + longitude_deg_;
    return std::remainder(sidereal - between(ascension_, days), 360.0);
  }
  /// Height of its centre above the horizon, without the air's refraction.
  double height_deg(double at_s) const {
    const double declination = between(declination_, (at_s - middle_s_) / kDay_s) * kDegree;
    const double angle = hourAngle(at_s) * kDegree;
    return std::asin(std::sin(latitude_) * std::sin(declination) +
                     std::cos(latitude_) * std::cos(declination) * std::cos(angle)) /
           kDegree;
  }

 private:
  static double between(const std::array<double, 3>& values, double days) {
    const double a = values[1] - values[0];
    const double b = values[2] - values[1];
    return values[1] + days / 2 * (a + b + days * (b - a));
  }

  double middle_s_;
  double latitude_;
  double longitude_deg_;
  std::array<double, 3> ascension_{};
  std::array<double, 3> declination_{};
  double sidereal_deg_ = 0;
};

Instant instantOf(double unix_s) {
  return Instant(std::chrono::seconds(std::llround(unix_s)));
}

/// Where the height passes `wanted` between `low_s`, at which it is below, and `high_s`.
double crossing(const SunPath& path, double wanted_deg, double low_s, double high_s) {
  constexpr int kHalvings = 24;
  for (int i = 0; i < kHalvings; ++i) {
    const double middle = (low_s + high_s) / 2;
    (path.height_deg(middle) < wanted_deg ? low_s : high_s) = middle;
  }
  return (low_s + high_s) / 2;
}

/// When the sun crosses the meridian near `guess_s`, above the pole or below it.
double meridian(const SunPath& path, double guess_s, double angle_deg) {
  constexpr double kDegree_s = kDay_s / 360;
  for (int i = 0; i < 4; ++i)
    guess_s -= std::remainder(path.hourAngle(guess_s) - angle_deg, 360.0) * kDegree_s;
  return guess_s;
}

}  // namespace

SunTimes sunOn(Date date, double latitude_deg, double longitude_deg) {
  // 12:00 of local mean time.
  const double middle_s = static_cast<double>(Instant(date).time_since_epoch().count()) + kDay_s / 2 -
                          longitude_deg / 360 * kDay_s;
  const SunPath path(middle_s, latitude_deg, longitude_deg);
  const double noon = meridian(path, middle_s, 0);
  const double before = meridian(path, noon - kDay_s / 2, 180);
  const double after = meridian(path, noon + kDay_s / 2, 180);
  SunTimes times;
  times.noon = instantOf(noon);
  const double highest = path.height_deg(noon);
  const auto pass = [&](double height_deg, SunDay& day, std::optional<Instant>& rise,
                        std::optional<Instant>& set) {
    const bool risesAbove = highest >= height_deg;
    if (risesAbove && path.height_deg(before) < height_deg)
      rise = instantOf(crossing(path, height_deg, before, noon));
    if (risesAbove && path.height_deg(after) < height_deg)
      set = instantOf(crossing(path, height_deg, after, noon));
    day = !risesAbove ? SunDay::StaysBelow : rise || set ? SunDay::Passes : SunDay::StaysAbove;
  };
  pass(kHorizon_deg, times.horizon, times.sunrise, times.sunset);
  pass(kTwilight_deg, times.twilight, times.dawn, times.dusk);
  return times;
}

}  // namespace chispa
