// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <string>
#include <vector>

#include "core/show/almanac.h"

namespace chispa {

/// What a controller does when a scene of its memory has played all its rounds.
enum class AfterScene {
  Stay,  ///< its last light stays
  Dark,
  Next,  ///< another scene begins
};

/// When a controller begins something by itself: at a time of its own clock, or by a contact.
struct MemoryStart {
  /// A contact of the controller, from 1; 0 if time starts it, and `at` and `days` count.
  int contact = 0;
  NightTime at{NightTimeKind::Sunset, 0};
  RuleDays days;

  bool operator==(const MemoryStart&) const = default;
};

/// A score or a look as a controller keeps it: steps that it plays by itself.
struct MemoryScene {
  /// Score or Look.
  PieceKind kind = PieceKind::Look;
  ScoreId score = {};
  LookId look = {};
  /// How much of a look is kept: then it comes again. A score has its own length.
  Micros length{20'000'000};
  /// How often it plays before what follows; 0 for ever.
  int rounds = 0;
  AfterScene then = AfterScene::Stay;
  /// The scene that begins next, from 1; 0 for the one behind it, or the first behind the last.
  int next = 0;
  std::vector<MemoryStart> starts;

  bool operator==(const MemoryScene&) const = default;
};

/// What shall play from a controller's own memory while Chispa is away.
struct ControllerMemory {
  std::vector<MemoryScene> scenes;
  /// When it goes dark.
  std::vector<MemoryStart> darkens;
  /// The scene that plays when it is switched on and its clock says nothing, from 1; 0 for dark.
  int atPowerOn = 0;
  /// Instants of the full light that steps are made of.
  double framesPerSecond = 20;
  /// Steps may differ by so much from the full light (ΔE₀₀ of a pixel at any instant).
  double tolerance = 1;
  /// When it was written last, in UTC (ISO 8601: "2026-11-29T17:20:00Z"); empty if never.
  std::string written;

  bool operator==(const ControllerMemory&) const = default;
};

}  // namespace chispa
