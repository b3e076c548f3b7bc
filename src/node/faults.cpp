// SPDX-License-Identifier: GPL-3.0-or-later
#include "node/faults.h"

#include <algorithm>
#include <map>
#include <sstream>

#include "node/wholenumber.h"

namespace chispa::node {
nlohmann::json toJson(const Faults& f) {
  return {{"drop_percent", f.drop_percent},
          {"reorder_percent", f.reorder_percent},
          {"delay_ms", f.delay_ms},
          {"wrong_order", f.hasWrongOrder},
          {"silent_s", f.silent_s},
          {"refuse_push", f.refusesPush},
          {"fail_after_port", f.failsAfterPort},
          {"memory_fails_after_scene", f.memoryFailsAfterScene},
          {"power_fails_after_scene", f.powerFailsAfterScene}};
}

std::optional<Faults> parseFaults(const std::string& text, std::string& why) {
  try {
    const auto json = nlohmann::json::parse(text);
    if (!json.is_object()) throw std::runtime_error("faults are an object");
    const double silent_s = json.value("silent_s", 0.0);
    if (!(silent_s >= 0 && silent_s <= 3600)) throw std::runtime_error("silent_s is out of range");
    return Faults{wholeNumber(json, "drop_percent", 0, 100, 0),
                  wholeNumber(json, "reorder_percent", 0, 100, 0),
                  wholeNumber(json, "delay_ms", 0, 10'000, 0),
                  json.value("wrong_order", false),
                  silent_s,
                  json.value("refuse_push", false),
                  wholeNumber(json, "fail_after_port", 0, 64, 0),
                  wholeNumber(json, "memory_fails_after_scene", 0, 1000, 0),
                  wholeNumber(json, "power_fails_after_scene", 0, 1000, 0)};
  } catch (const std::exception& error) {
    why = error.what();
    return std::nullopt;
  }
}

std::optional<Faults> parseFaultWords(const std::string& words, std::string& why) {
  /// Words that take a number, and those that stand alone, by the member that they mean.
  static const std::map<std::string, const char*> kNumbers{{"drop", "drop_percent"},
                                                           {"reorder", "reorder_percent"},
                                                           {"delay", "delay_ms"},
                                                           {"silent", "silent_s"},
                                                           {"fail-after", "fail_after_port"},
                                                           {"memory-fails", "memory_fails_after_scene"},
                                                           {"power-fails", "power_fails_after_scene"}};
  static const std::map<std::string, const char*> kSwitches{{"order", "wrong_order"},
                                                            {"refuse", "refuse_push"}};
  auto json = nlohmann::json::object();
  std::istringstream in(words);
  std::string word;
  try {
    while (std::getline(in, word, ',')) {
      const auto equals = word.find('=');
      const std::string name = word.substr(0, equals);
      if (const auto number = kNumbers.find(name); number != kNumbers.end())
        json[number->second] = equals == std::string::npos ? 0 : std::stoi(word.substr(equals + 1));
      else if (const auto on = kSwitches.find(name); on != kSwitches.end())
        json[on->second] = true;
      else
        throw std::runtime_error("\"" + name +
                                 "\" is no fault; there are drop=%, reorder=%, delay=ms, order, silent=s, "
                                 "refuse, fail-after=port, memory-fails=scene and power-fails=scene");
    }
    return parseFaults(json.dump(), why);
  } catch (const std::exception& error) {
    why = error.what();
    return std::nullopt;
  }
}

void FaultyCable::setFaults(const Faults& faults, Instant now) {
  faults_ = faults;
  silentUntil_ = faults.silent_s > 0
                     ? now + std::chrono::milliseconds(static_cast<int>(faults.silent_s * 1000))
                     : Instant{};
}

void FaultyCable::put(Incoming packet, Instant now) {
  constexpr std::size_t kMaxHeld = 20'000;
  if (isSilent(now) || strikes(faults_.drop_percent) || held_.size() >= kMaxHeld) return;
  held_.push_back({now + std::chrono::milliseconds(faults_.delay_ms), std::move(packet)});
  const bool overtakes = held_.size() > 1 && strikes(faults_.reorder_percent);
  if (overtakes) std::swap(held_.back().packet, held_[held_.size() - 2].packet);
}

void FaultyCable::takeDue(Instant now, const std::function<void(const Incoming&)>& take) {
  // While packets are reordered, the last waits for one that may overtake it.
  const std::size_t keeps = faults_.reorder_percent > 0 ? 1 : 0;
  const auto end =
      std::find_if(held_.begin(), held_.end() - static_cast<std::ptrdiff_t>(std::min(keeps, held_.size())),
                   [now](const Held& h) { return h.due > now; });
  std::vector<Held> due(std::make_move_iterator(held_.begin()), std::make_move_iterator(end));
  held_.erase(held_.begin(), end);
  for (const Held& one : due) take(one.packet);
}

}  // namespace chispa::node
