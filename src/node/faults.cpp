// SPDX-License-Identifier: GPL-3.0-or-later
#include "node/faults.h"

#include <algorithm>
#include <sstream>

#include "node/wholenumber.h"

namespace chispa::node {
namespace {

constexpr int kMostDelay_ms = 10'000;
constexpr int kMostPorts = 64;

int within(int value, int low, int high, const char* what) {
  if (value < low || value > high) throw std::runtime_error(std::string(what) + " is out of range");
  return value;
}

Faults checked(Faults faults) {
  within(faults.drop_percent, 0, 100, "drop_percent");
  within(faults.reorder_percent, 0, 100, "reorder_percent");
  within(faults.delay_ms, 0, kMostDelay_ms, "delay_ms");
  within(faults.failsAfterPort, 0, kMostPorts, "fail_after_port");
  if (!(faults.silent_s >= 0 && faults.silent_s <= 3600)) throw std::runtime_error("silent_s is out of range");
  return faults;
}

}  // namespace

nlohmann::json toJson(const Faults& f) {
  return {{"drop_percent", f.drop_percent}, {"reorder_percent", f.reorder_percent}, {"delay_ms", f.delay_ms},         {"wrong_order", f.hasWrongOrder},
          {"silent_s", f.silent_s},         {"refuse_push", f.refusesPush},         {"fail_after_port", f.failsAfterPort}};
}

std::optional<Faults> parseFaults(const std::string& text, std::string& why) {
  try {
    const auto json = nlohmann::json::parse(text);
    if (!json.is_object()) throw std::runtime_error("faults are an object");
    return checked({wholeNumber(json, "drop_percent", 0, 100, 0), wholeNumber(json, "reorder_percent", 0, 100, 0), wholeNumber(json, "delay_ms", 0, kMostDelay_ms, 0), json.value("wrong_order", false),
                    json.value("silent_s", 0.0), json.value("refuse_push", false), wholeNumber(json, "fail_after_port", 0, kMostPorts, 0)});
  } catch (const std::exception& error) {
    why = error.what();
    return std::nullopt;
  }
}

std::optional<Faults> parseFaultWords(const std::string& words, std::string& why) {
  Faults faults;
  std::istringstream in(words);
  std::string word;
  try {
    while (std::getline(in, word, ',')) {
      const auto equals = word.find('=');
      const std::string name = word.substr(0, equals);
      const int value = equals == std::string::npos ? 0 : std::stoi(word.substr(equals + 1));
      if (name == "drop") faults.drop_percent = value;
      else if (name == "reorder") faults.reorder_percent = value;
      else if (name == "delay") faults.delay_ms = value;
      else if (name == "order") faults.hasWrongOrder = true;
      else if (name == "silent") faults.silent_s = value;
      else if (name == "refuse") faults.refusesPush = true;
      else if (name == "fail-after") faults.failsAfterPort = value;
      else throw std::runtime_error("\"" + name + "\" is no fault; there are drop=%, reorder=%, delay=ms, order, silent=s, refuse and fail-after=port");
    }
    return checked(faults);
  } catch (const std::exception& error) {
    why = error.what();
    return std::nullopt;
  }
}

void FaultyCable::setFaults(const Faults& faults, Instant now) {
  faults_ = faults;
  silentUntil_ = faults.silent_s > 0 ? now + std::chrono::milliseconds(static_cast<int>(faults.silent_s * 1000)) : Instant{};
}

void FaultyCable::put(Incoming packet, Instant now) {
  constexpr std::size_t kMostHeld = 20'000;
  if (isSilent(now) || strikes(faults_.drop_percent) || held_.size() >= kMostHeld) return;
  held_.push_back({now + std::chrono::milliseconds(faults_.delay_ms), std::move(packet)});
  const bool overtakes = held_.size() > 1 && strikes(faults_.reorder_percent);
  if (overtakes) std::swap(held_.back().packet, held_[held_.size() - 2].packet);
}

void FaultyCable::takeDue(Instant now, const std::function<void(const Incoming&)>& take) {
  // While packets are reordered, the last waits for one that may overtake it.
  const std::size_t keeps = faults_.reorder_percent > 0 ? 1 : 0;
  const auto end = std::find_if(held_.begin(), held_.end() - static_cast<std::ptrdiff_t>(std::min(keeps, held_.size())), [now](const Held& h) { return h.due > now; });
  std::vector<Held> due(std::make_move_iterator(held_.begin()), std::make_move_iterator(end));
  held_.erase(held_.begin(), end);
  for (const Held& one : due) take(one.packet);
}

}  // namespace chispa::node
