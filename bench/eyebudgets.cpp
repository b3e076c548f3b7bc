// SPDX-License-Identifier: GPL-3.0-or-later
#include "eyebudgets.h"

#include <algorithm>
#include <chrono>
#include <cmath>
#include <cstdio>
#include <span>

#include "core/vision/simulatedcamera.h"
#include "core/vision/spotter.h"
#include "core/vision/stereo.h"

namespace chispa::bench {
namespace {

using vision::Severity;

constexpr unsigned kSeeds[] = {20'261'123, 20'261'124};
constexpr int kLeds[] = {50, 300, 2000};
constexpr double kLeastFound[] = {0.995, 0.98, 0.90};
constexpr const char* kNames[] = {"clean", "medium", "hard"};

/// Strings up that side of a bulging column which faces the camera from both places: none is behind another.
std::vector<Vec3> scene(int leds) {
  std::vector<Vec3> points;
  const int rows = std::max(1, static_cast<int>(std::sqrt(leds * 0.55)));
  const int columns = (leds + rows - 1) / rows;
  for (int i = 0; i < leds; ++i) {
    const double angle = (i % columns + 0.5) / columns * 1.5 - 0.75;
    const double height = (i / columns + 0.5) / rows;
    const double radius = 1.4 + 0.25 * std::sin(height * kPi);
    points.push_back({radius * std::sin(angle), -radius * std::cos(angle), 1.6 * height});
  }
  return points;
}

struct Capture {
  std::vector<std::optional<vision::Spot>> spots;
  vision::Rightness right;
};

Capture capture(const std::vector<Vec3>& points, Severity severity, unsigned seed, double azimuth_deg) {
  const vision::Lens lens;
  vision::SimulatedCamera camera(points, vision::viewOfAll(points, lens, azimuth_deg, 9),
                                 vision::defectsOf(severity), seed);
  vision::Spotter spotter(static_cast<int>(points.size()), {});
  vision::simulateCapture(camera, spotter.code(), 3, 0.15, 0.3,
                          [&](vision::Frame frame) { spotter.add(std::move(frame)); });
  spotter.finish();
  const vision::Sightings seen = spotter.sightings();
  return {seen.sureSpots(static_cast<int>(points.size())), vision::rightnessOf(camera, seen)};
}

/// The median error of distances between LEDs, as a share of the size.
double spaceError(const std::vector<Vec3>& points, const std::vector<std::optional<Vec3>>& found,
                  double size) {
  std::vector<double> off;
  const std::size_t apart = points.size() / 3 + 1;
  for (std::size_t i = 0; i + apart < points.size(); ++i)
    if (found[i] && found[i + apart])
      off.push_back(std::abs(length(*found[i + apart] - *found[i]) - length(points[i + apart] - points[i])));
  std::sort(off.begin(), off.end());
  return off.empty() ? 1 : off[off.size() / 2] / size;
}

}  // namespace

int eyeAccuracy() {
  int missed = 0;
  std::printf("%-8s %6s %12s %12s %12s %8s %14s %9s\n", "severity", "LEDs", "of in sight", "of all",
              "median px", "wrong", "space, of size", "seconds");
  for (const Severity severity : {Severity::Clean, Severity::Medium, Severity::Hard})
    for (const int leds : kLeds) {
      const auto points = scene(leds);
      double found = 1, foundOfAll = 1, median_px = 0, space = 0;
      int wrong = 0;
      const auto begun = std::chrono::steady_clock::now();
      // The large ones take minutes: one seed says enough.
      for (const unsigned seed : std::span(kSeeds).first(leds < 1000 ? 2 : 1)) {
        const Capture a = capture(points, severity, seed, -15);
        const Capture b = capture(points, severity, seed + 50, 16);
        found = std::min({found, a.right.found, b.right.found});
        foundOfAll = std::min({foundOfAll, a.right.foundOfAll, b.right.foundOfAll});
        median_px = std::max({median_px, a.right.median_px, b.right.median_px});
        wrong += a.right.wrong + b.right.wrong;
        int from = -1, to = -1;
        for (int i = 0; i < leds; ++i)
          if (a.spots[static_cast<std::size_t>(i)] && b.spots[static_cast<std::size_t>(i)]) {
            if (from < 0) from = i;
            to = i;
          }
        if (from < 0 || from == to) continue;
        const double known =
            length(points[static_cast<std::size_t>(to)] - points[static_cast<std::size_t>(from)]);
        const auto places = vision::placesInSpace(a.spots, b.spots, vision::Lens{}, {from, to, known});
        space = std::max(space, places ? spaceError(points, places->points, 3.5) : 1.0);
      }
      const double took = std::chrono::duration<double>(std::chrono::steady_clock::now() - begun).count();
      const auto s = static_cast<std::size_t>(severity);
      const bool isGood = found >= kLeastFound[s] && wrong == 0 && space <= 0.01 &&
                          (severity != Severity::Clean || median_px <= 0.5);
      missed += isGood ? 0 : 1;
      std::printf("%-8s %6d %10.2f %% %10.2f %% %12.3f %8d %12.2f %% %9.1f%s\n", kNames[s], leds, 100 * found,
                  100 * foundOfAll, median_px, wrong, 100 * space, took, isGood ? "" : "   missed");
      std::fflush(stdout);
    }
  return missed > 0 ? 1 : 0;
}

}  // namespace chispa::bench
