// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <cstdint>
#include <string>
#include <vector>

#include <nlohmann/json_fwd.hpp>

#include "core/base/result.h"
#include "core/show/controller.h"

namespace chispa {

/// What a controller's memory holds at most, as it says itself (docs/node-interface.md).
struct MemoryLimits {
  int scenes = 0;
  /// Of all scenes together, and of one.
  int steps = 0;
  int stepsOfScene = 0;
  /// Channels of one scene.
  int channels = 0;
  int starts = 0;
  /// Contacts that may start scenes.
  int contacts = 0;
  std::int64_t bytes = 0;
  /// What is taken beside the values of steps.
  int bytesOfScene = 0;
  int bytesOfStep = 0;
  int bytesOfStart = 0;
  /// It can fade from step to step.
  bool fades = true;

  bool operator==(const MemoryLimits&) const = default;
};

/// Channels one behind the other that a scene has values for.
struct MemoryChannels {
  Protocol protocol = Protocol::E131;
  int universe = 1;
  /// From 1.
  int channel = 1;
  int count = 0;

  bool operator==(const MemoryChannels&) const = default;
};

/// Light that is reached in `fade_ms`, in a straight line from what was before, and then stays for `hold_ms`.
struct MemoryStep {
  std::int64_t fade_ms = 0;
  std::int64_t hold_ms = 0;
  /// One a channel, in the order of the scene's channels.
  std::vector<std::uint8_t> values;

  std::int64_t length_ms() const { return fade_ms + hold_ms; }
  bool operator==(const MemoryStep&) const = default;
};

struct SceneContent {
  std::string name;
  std::vector<MemoryChannels> channels;
  std::vector<MemoryStep> steps;
  /// How often it plays; 0 for ever.
  int rounds = 0;
  AfterScene then = AfterScene::Stay;
  /// What begins next, from 1; 0 for the scene behind it, or the first behind the last.
  int next = 0;

  std::int64_t length_ms() const;
  int channelCount() const;
  bool operator==(const SceneContent&) const = default;
};

struct StartContent {
  /// From 1; 0 is dark.
  int scene = 0;
  MemoryStart when;

  bool operator==(const StartContent&) const = default;
};

/// Where the controller stands, for its sun and its clock.
struct MemoryPlace {
  double latitude_deg = 0;
  double longitude_deg = 0;
  /// As POSIX says it (IEEE Std 1003.1, §8.3): "CET-1CEST,M3.5.0,M10.5.0/3".
  std::string timeZone = "UTC0";

  bool operator==(const MemoryPlace&) const = default;
};

/// All that a controller's memory holds.
struct MemoryContent {
  std::string name;
  MemoryPlace place;
  std::vector<SceneContent> scenes;
  std::vector<StartContent> starts;
  /// Plays when it is switched on and its clock says nothing, from 1; 0 for dark.
  int atPowerOn = 0;

  bool operator==(const MemoryContent&) const = default;
};

/// What a controller says of its memory.
struct MemoryState {
  MemoryLimits limits;
  MemoryContent content;
  /// False if writing broke off: then nothing is played.
  bool isWhole = true;
  bool isClockSet = false;
  /// What its clock shows, in UTC; empty if it was never set.
  std::string clock;
  /// The scene that it plays, from 1; 0 if it is dark.
  int playing = 0;
};

nlohmann::ordered_json toJson(const MemoryContent& content);
/// Reads what PUT /memory takes.
Result<MemoryContent> parseMemoryContent(const std::string& text, const std::string& where);
/// Reads what GET /memory answers.
Result<MemoryState> parseMemoryState(const std::string& text, const std::string& where);

/// Bytes that `content` takes in a memory that counts as `limits` says.
std::int64_t bytesOf(const MemoryContent& content, const MemoryLimits& limits);
std::int64_t bytesOf(const SceneContent& scene, const MemoryLimits& limits);

/// What of `content` is more than `limits` allow, one sentence each with both numbers; empty if all fits.
std::vector<std::string> excessesOf(const MemoryContent& content, const MemoryLimits& limits);

/// Values of all channels of `scene` at `t_ms` since it began, rounds and what stays behind them included:
/// what a controller shows.
std::vector<std::uint8_t> valuesAt(const SceneContent& scene, std::int64_t t_ms);

/// One thing that differs between what is there and what is wanted, in words.
struct MemoryDifference {
  std::string what;
  std::string there;
  std::string wanted;
};
std::vector<MemoryDifference> differencesOf(const MemoryContent& there, const MemoryContent& wanted);

}  // namespace chispa
