// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

namespace chispa::limits {

/// What a file or a field may ask for; enough for any installation, and too little to exhaust a machine.
inline constexpr int kMostPixelsOfSegment = 200'000;
inline constexpr int kMostPorts = 512;
inline constexpr int kMostSkipped = 10'000;
inline constexpr int kMostGrouped = 1'000;
inline constexpr double kMostDelay_ms = 500;
inline constexpr double kSlowest = 0.05;
inline constexpr double kFastest = 20;
inline constexpr double kLargest_m = 10'000;

}  // namespace chispa::limits
