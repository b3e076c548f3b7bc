// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <cmath>

namespace chispa {

/// A point or direction in space, in metres unless a name says otherwise. x right, y away, z up.
struct Vec3 {
  double x = 0;
  double y = 0;
  double z = 0;

  bool operator==(const Vec3&) const = default;
};

constexpr Vec3 operator+(Vec3 a, Vec3 b) {
  return {a.x + b.x, a.y + b.y, a.z + b.z};
}
constexpr Vec3 operator-(Vec3 a, Vec3 b) {
  return {a.x - b.x, a.y - b.y, a.z - b.z};
}
constexpr Vec3 operator*(Vec3 a, double k) {
  return {a.x * k, a.y * k, a.z * k};
}
constexpr double dot(Vec3 a, Vec3 b) {
  return a.x * b.x + a.y * b.y + a.z * b.z;
}
constexpr Vec3 cross(Vec3 a, Vec3 b) {
  return {a.y * b.z - a.z * b.y, a.z * b.x - a.x * b.z, a.x * b.y - a.y * b.x};
}
inline double length(Vec3 a) {
  return std::sqrt(dot(a, a));
}
/// `a` at length 1; nothing becomes of a vector without a length.
inline Vec3 unit(Vec3 a) {
  return length(a) > 0 ? a * (1 / length(a)) : a;
}

constexpr double kPi = 3.14159265358979323846;
constexpr double radians(double degrees) {
  return degrees * kPi / 180.0;
}
constexpr double degrees(double radians) {
  return radians * 180.0 / kPi;
}

/// A point of a circle about the z axis; 0° lies on +x and angles go counter-clockwise.
inline Vec3 onCircle(double radius_m, double angle_deg, double height_m = 0) {
  return {radius_m * std::cos(radians(angle_deg)), radius_m * std::sin(radians(angle_deg)), height_m};
}

}  // namespace chispa
