// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/shape/polyline.h"

#include <algorithm>
#include <cstdlib>

#include "core/base/overloaded.h"

namespace chispa {
namespace {

/// A point of the curve between b and c, u from 0 to 1 (Barry and Goldman's pyramid, 1988).
Vec3 curvePoint(Vec3 a, Vec3 b, Vec3 c, Vec3 d, double u) {
  const auto gap = [](Vec3 p, Vec3 q) { return std::max(1e-6, std::sqrt(length(q - p))); };
  const double t1 = gap(a, b);
  const double t2 = t1 + gap(b, c);
  const double t3 = t2 + gap(c, d);
  const double t = t1 + (t2 - t1) * u;
  const auto mix = [t](Vec3 p, double tp, Vec3 q, double tq) {
    return p * ((tq - t) / (tq - tp)) + q * ((t - tp) / (tq - tp));
  };
  const Vec3 ab = mix(a, 0, b, t1);
  const Vec3 bc = mix(b, t1, c, t2);
  const Vec3 cd = mix(c, t2, d, t3);
  return mix(mix(ab, 0, bc, t2), t1, mix(bc, t1, cd, t3), t2);
}

}  // namespace

double polylineLength_m(const std::vector<Vec3>& corners) {
  double sum = 0;
  for (std::size_t i = 1; i < corners.size(); ++i) sum += length(corners[i] - corners[i - 1]);
  return sum;
}

std::vector<Vec3> spreadAlong(const std::vector<Vec3>& corners, int count) {
  std::vector<Vec3> points(static_cast<std::size_t>(std::max(0, count)));
  if (corners.empty()) return points;
  const double whole = polylineLength_m(corners);
  std::size_t leg = 1;
  double passed = 0;
  for (std::size_t i = 0; i < points.size(); ++i) {
    const double wanted = whole * (static_cast<double>(i) + 0.5) / count;
    while (leg + 1 < corners.size() && passed + length(corners[leg] - corners[leg - 1]) < wanted) {
      passed += length(corners[leg] - corners[leg - 1]);
      ++leg;
    }
    if (leg >= corners.size()) {
      points[i] = corners.back();
      continue;
    }
    const double gap = length(corners[leg] - corners[leg - 1]);
    points[i] =
        corners[leg - 1] + (corners[leg] - corners[leg - 1]) * (gap > 0 ? (wanted - passed) / gap : 0);
  }
  return points;
}

std::pair<std::vector<Vec3>, std::vector<Vec3>> splitPolyline(const std::vector<Vec3>& corners, double at_m) {
  std::vector<Vec3> before;
  double passed = 0;
  for (std::size_t i = 0; i + 1 < corners.size(); ++i) {
    before.push_back(corners[i]);
    const double leg = length(corners[i + 1] - corners[i]);
    if (passed + leg <= at_m) {
      passed += leg;
      continue;
    }
    const Vec3 cut = corners[i] + (corners[i + 1] - corners[i]) * std::max(0.0, (at_m - passed) / leg);
    std::vector<Vec3> after{cut};
    after.insert(after.end(), corners.begin() + static_cast<std::ptrdiff_t>(i) + 1, corners.end());
    before.push_back(cut);
    return {before, after};
  }
  return {corners, {}};
}

std::vector<Vec3> polylineOf(const PathShape& path) {
  const auto& p = path.corners;
  if (!path.smooth || p.size() < 3) return p;
  constexpr int kSteps = 32;
  const bool isClosed = p.front() == p.back();
  std::vector<Vec3> way;
  for (std::size_t i = 0; i + 1 < p.size(); ++i) {
    // Open ends are continued straight, so that the curve begins and ends at its outer corners.
    const Vec3 before = i > 0 ? p[i - 1] : isClosed ? p[p.size() - 2] : p[0] * 2 - p[1];
    const Vec3 after = i + 2 < p.size() ? p[i + 2] : isClosed ? p[1] : p[i + 1] * 2 - p[i];
    for (int step = 0; step < kSteps; ++step)
      way.push_back(curvePoint(before, p[i], p[i + 1], after, static_cast<double>(step) / kSteps));
  }
  way.push_back(p.back());
  return way;
}

std::vector<Vec3> polylineOf(const SpiralShape& s) {
  constexpr int kStepsPerTurn = 256;
  const int steps = std::max(2, static_cast<int>(std::abs(s.turns) * kStepsPerTurn));
  std::vector<Vec3> way;
  for (int i = 0; i <= steps; ++i) {
    const double u = static_cast<double>(i) / steps;
    way.push_back(
        onCircle(s.startRadius_m + (s.endRadius_m - s.startRadius_m) * u, 360 * s.turns * u, s.rise_m * u));
  }
  return way;
}

std::vector<Vec3> jointsOf(const Shape& shape) {
  return std::visit(Overloaded{[](const LineShape& s) {
                                 return std::vector<Vec3>{{}, {s.count * s.pitch_m, 0, 0}};
                               },
                               [](const ArcShape& s) {
                                 return std::vector<Vec3>{onCircle(s.radius_m, s.start_deg),
                                                          onCircle(s.radius_m, s.start_deg + s.sweep_deg),
                                                          {}};
                               },
                               [](const PathShape& s) { return s.corners; },
                               [](const SpiralShape& s) {
                                 return std::vector<Vec3>{polylineOf(s).front(), polylineOf(s).back(), {}};
                               },
                               [](const auto& s) {
                                 const auto points = localPositions(s);
                                 return points.empty() ? std::vector<Vec3>{}
                                                       : std::vector<Vec3>{points.front(), points.back(), {}};
                               }},
                    shape);
}

double ringRadius_m(const RingsShape& rings, std::size_t i) {
  if (rings.counts.size() < 2) return rings.outerRadius_m;
  return rings.innerRadius_m + (rings.outerRadius_m - rings.innerRadius_m) * static_cast<double>(i) /
                                   static_cast<double>(rings.counts.size() - 1);
}

}  // namespace chispa
