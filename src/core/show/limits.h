// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <cstddef>
#include <cstdint>

namespace chispa::limits {

/// What a show may hold: enough for any installation, and too little to exhaust a machine.
/// docs/show-format.md states them.
inline constexpr int kMostPixelsOfSegment = 200'000;
/// Of all fixtures together.
inline constexpr std::int64_t kMostPixels = 4'000'000;
/// Pixels that all zones together take; a pixel that is in several counts in each.
inline constexpr std::int64_t kMostZonePixels = 32'000'000;
/// Rows times columns of a zone.
inline constexpr std::int64_t kMostPlacesOfZone = 16'000'000;
/// Pixels that hang on all ports together, skipped ones with them.
inline constexpr std::int64_t kMostWiredPixels = 16'000'000;
/// Clips of all scores together, those of building blocks counted wherever a block stands.
inline constexpr std::int64_t kMostClips = 1'000'000;
/// Bindings of a show.
inline constexpr std::size_t kMostBindings = 512;
/// Lines of all set lists together, and rules of the almanac.
inline constexpr std::int64_t kMostSetListItems = 100'000;
inline constexpr std::size_t kMostRules = 1'000;
/// Scenes in a controller's own memory.
inline constexpr std::size_t kMostMemoryScenes = 200;
/// Elements of any other list, and letters of any text.
inline constexpr std::size_t kMostOfList = 1'000'000;
inline constexpr std::size_t kMostText = 1'000'000;
inline constexpr int kMostPorts = 512;
inline constexpr int kMostSkipped = 10'000;
inline constexpr int kMostGrouped = 1'000;
inline constexpr int kMostUniverse = 63'999;
/// Universes of one row of bytes (DDP, OPC): the 32 MB that 63,999 universes are.
inline constexpr int kMostRowUniverses = 64'000;
inline constexpr double kMostDelay_ms = 500;
inline constexpr double kSlowest = 0.05;
inline constexpr double kFastest = 20;
inline constexpr double kLargest_m = 10'000;
inline constexpr double kMostTurn_deg = 3600;
/// Times lie within a day: 24 hours.
inline constexpr std::int64_t kDay_us = 86'400'000'000;
/// Ids that a file may use. Fresh ones are counted from below kFirstFarId, so that one far number in a file
/// does not use them up.
inline constexpr std::uint32_t kLargestId = 4'000'000'000;
inline constexpr std::uint32_t kFirstFarId = 3'000'000'000;
/// How deep brackets may be nested in a file, and how many values it may hold.
inline constexpr int kDeepest = 64;
inline constexpr std::size_t kMostValues = 20'000'000;

}  // namespace chispa::limits
