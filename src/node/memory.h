// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <cstdint>
#include <map>
#include <optional>
#include <string>
#include <vector>

#include <nlohmann/json.hpp>

#include "node/calendar.h"

namespace chispa::node {

/// What a node's memory holds at most.
struct MemoryLimits {
  int scenes = 16;
  int steps = 2000;
  int stepsOfScene = 2000;
  int channels = 4096;
  int starts = 32;
  int contacts = 4;
  int bytes = 256 * 1024;
  bool fades = true;

  /// What is counted beside the values of steps.
  static constexpr int kBytesOfScene = 32;
  static constexpr int kBytesOfStep = 8;
  static constexpr int kBytesOfStart = 24;
};

/// Reads "scenes=4,steps=100,bytes=8192,channels=600,starts=8,contacts=2,nofades"; what is missing stays as
/// it is. Nothing, with the reason in `why`, if it makes no sense.
std::optional<MemoryLimits> parseMemoryWords(const std::string& words, std::string& why);

/// Channels one behind the other.
struct Channels {
  std::string protocol;
  int universe = 1;
  int channel = 1;
  int count = 0;
};

struct Step {
  std::int64_t fade_ms = 0;
  std::int64_t hold_ms = 0;
  std::vector<std::uint8_t> values;
};

struct Scene {
  std::string name;
  std::vector<Channels> channels;
  std::vector<Step> steps;
  int rounds = 0;
  /// "stay", "dark" or "next".
  std::string then = "stay";
  /// What begins next, from 1; 0 for the one behind it, or the first behind the last.
  int next = 0;

  std::int64_t length_ms() const;
};

struct Start {
  /// From 1; 0 is dark.
  int scene = 0;
  /// From 1; 0 if time starts it.
  int contact = 0;
  NightlyTime at;
};

/// What PUT /memory brings, read.
struct Content {
  Place place;
  std::vector<Scene> scenes;
  std::vector<Start> starts;
  int atPowerOn = 0;
  /// As it came, for GET /memory.
  nlohmann::ordered_json json;
};

/// Reads content; nothing, with the reason in `why`, if it makes no sense or is more than `limits`.
std::optional<Content> parseContent(const std::string& text, const MemoryLimits& limits, std::string& why);

/// A node's memory and what plays from it, by a clock of its own. No thread of its own: `now_ms` is any
/// steady time, in milliseconds.
class Memory {
 public:
  explicit Memory(MemoryLimits limits) : limits_(limits) {}

  const MemoryLimits& limits() const { return limits_; }
  bool isEmpty() const { return content_.scenes.empty() && isWhole_; }
  /// The whole content, in one go; what is due by its clock plays.
  void fill(Content content, std::int64_t now_ms);
  /// Only the first scenes were written when it lost power: nothing is played until it is filled again.
  void spoil();

  void setClock(UtcMillis utc, std::int64_t now_ms);
  /// So many seconds of its clock in one: 1 as a rule.
  void setSpeed(double speed, std::int64_t now_ms);
  /// The scene by its number from 1, from its beginning; 0 for dark.
  void play(int scene, std::int64_t now_ms);
  /// Starts what the contact starts; false if nothing does.
  bool press(int contact, std::int64_t now_ms);

  /// Goes on to what is due at `now_ms`.
  void advance(std::int64_t now_ms);
  int playing() const { return playing_; }
  std::vector<std::string> sceneNames() const;
  /// The value at a channel as of the last advance().
  int valueAt(const std::string& protocol, int universe, int channel) const;
  /// What GET /memory answers.
  nlohmann::ordered_json toJson(std::int64_t now_ms) const;

 private:
  /// Own milliseconds: UTC once the clock is set.
  std::int64_t ownTime(std::int64_t now_ms) const;
  /// The start that was due last, in (after, until]; nothing if none was.
  std::optional<std::pair<UtcMillis, int>> lastStart(UtcMillis after, UtcMillis until) const;
  void catchUp(std::int64_t now_ms);
  void begin(int scene, std::int64_t own_ms);
  void followRounds(std::int64_t own_ms);
  void computeValues(std::int64_t own_ms);

  MemoryLimits limits_;
  Content content_;
  bool isWhole_ = true;
  bool isClockSet_ = false;
  double speed_ = 1;
  /// Own time when `steady` was `steadyAt_`.
  std::int64_t ownAt_ = 0;
  std::int64_t steadyAt_ = 0;
  UtcMillis seenUntil_ = 0;
  int playing_ = 0;
  std::int64_t begun_ms_ = 0;
  std::map<std::pair<std::string, int>, std::vector<std::uint8_t>> values_;
};

}  // namespace chispa::node
