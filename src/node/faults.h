// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <chrono>
#include <cstdint>
#include <functional>
#include <optional>
#include <random>
#include <span>
#include <string>
#include <vector>

#include <nlohmann/json.hpp>

namespace chispa::node {

/// What goes wrong on purpose, so that what Chispa does about it can be seen.
struct Faults {
  /// Share of packets that never arrive, and that are overtaken by the next, in per cent.
  int drop_percent = 0;
  int reorder_percent = 0;
  /// How much later packets arrive.
  int delay_ms = 0;
  /// Red and green change places on every strip.
  bool hasWrongOrder = false;
  /// Hears and answers nothing for so long from when it is set.
  double silent_s = 0;
  bool refusesPush = false;
  /// A push writes this many ports and then fails; 0 never.
  int failsAfterPort = 0;
  /// Memory takes this many scenes and then fails, keeping what it had; 0 never.
  int memoryFailsAfterScene = 0;
  /// Power fails when this many scenes are written; 0 never.
  int powerFailsAfterScene = 0;
};

nlohmann::json toJson(const Faults& faults);
/// Reads the JSON form; members that are missing are no fault. Null with the reason in `why` if it makes no
/// sense.
std::optional<Faults> parseFaults(const std::string& text, std::string& why);
/// Reads the words of the command line: "drop=10,delay=50,reorder=5,order,silent=5,refuse,fail-after=3".
std::optional<Faults> parseFaultWords(const std::string& words, std::string& why);

/// A packet that arrived, and from whom.
struct Incoming {
  int door = 0;
  std::vector<std::uint8_t> bytes;
  std::vector<std::uint8_t> sender;
};

/// A bad cable: drops, delays and reorders what goes through it.
class FaultyCable {
 public:
  using Instant = std::chrono::steady_clock::time_point;

  void setFaults(const Faults& faults, Instant now);
  const Faults& faults() const { return faults_; }
  bool isSilent(Instant now) const { return now < silentUntil_; }
  /// Puts a packet in; it comes out, if at all, when it is due.
  void put(Incoming packet, Instant now);
  /// Calls `take` for everything that is due.
  void takeDue(Instant now, const std::function<void(const Incoming&)>& take);
  bool isEmpty() const { return held_.empty(); }

 private:
  struct Held {
    Instant due;
    Incoming packet;
  };
  bool strikes(int percent) { return std::uniform_int_distribution(1, 100)(random_) <= percent; }

  Faults faults_;
  Instant silentUntil_{};
  std::vector<Held> held_;
  std::mt19937 random_{20'261'123};
};

}  // namespace chispa::node
