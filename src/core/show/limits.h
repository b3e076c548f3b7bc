// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <cstddef>
#include <cstdint>

namespace chispa::limits {

/// What a show may hold: enough for any installation, and too little to exhaust a machine.
/// docs/show-format.md states them.
inline constexpr int kMaxPixelsOfSegment = 200'000;
/// Of all fixtures together.
inline constexpr std::int64_t kMaxPixels = 4'000'000;
/// Pixels that all zones together take; a pixel that is in several counts in each.
inline constexpr std::int64_t kMaxZonePixels = 32'000'000;
/// Rows times columns of a zone.
inline constexpr std::int64_t kMaxPlacesOfZone = 16'000'000;
/// Pixels that hang on all ports together, skipped ones with them.
inline constexpr std::int64_t kMaxWiredPixels = 16'000'000;
/// Clips of all scores together, those of building blocks counted wherever a block stands.
inline constexpr std::int64_t kMaxClips = 1'000'000;
/// Bindings of a show.
inline constexpr std::size_t kMaxBindings = 512;
/// Lines of all set lists together, and rules of the almanac.
inline constexpr std::int64_t kMaxSetListItems = 100'000;
inline constexpr std::size_t kMaxRules = 1'000;
/// Scenes in a controller's own memory.
inline constexpr std::size_t kMaxMemoryScenes = 200;
/// Elements of any other list, and letters of any text.
inline constexpr std::size_t kMaxOfList = 1'000'000;
inline constexpr std::size_t kMaxText = 1'000'000;
inline constexpr int kMaxPorts = 512;
inline constexpr int kMaxSkipped = 10'000;
inline constexpr int kMaxGrouped = 1'000;
inline constexpr int kMaxUniverse = 63'999;
/// Universes of one row of bytes (DDP, OPC): the 32 MB that 63,999 universes are.
inline constexpr int kMaxRowUniverses = 64'000;
inline constexpr double kMaxDelay_ms = 500;
inline constexpr double kSlowest = 0.05;
inline constexpr double kFastest = 20;
inline constexpr double kLargest_m = 10'000;
inline constexpr double kMaxTurn_deg = 3600;
/// Times lie within a day: 24 hours.
inline constexpr std::int64_t kDay_us = 86'400'000'000;
/// Ids that a file may use. Fresh ones are counted from below kFirstFarId, so that one far number in a file
/// does not use them up.
inline constexpr std::uint32_t kLargestId = 4'000'000'000;
inline constexpr std::uint32_t kFirstFarId = 3'000'000'000;

}  // namespace chispa::limits
