// SPDX-License-Identifier: GPL-3.0-or-later
#include "node/memory.h"

#include <algorithm>
#include <cmath>

namespace chispa::node {

std::int64_t Scene::length_ms() const {
  std::int64_t sum = 0;
  for (const Step& step : steps) sum += step.fade_ms + step.hold_ms;
  return sum;
}

std::int64_t Memory::ownTime(std::int64_t now_ms) const {
  return ownAt_ + static_cast<std::int64_t>(std::llround(static_cast<double>(now_ms - steadyAt_) * speed_));
}

void Memory::fill(Content content, std::int64_t now_ms) {
  content_ = std::move(content);
  isWhole_ = true;
  catchUp(now_ms);
}

std::vector<std::string> Memory::sceneNames() const {
  std::vector<std::string> names;
  for (const Scene& scene : content_.scenes) names.push_back(scene.name);
  return names;
}

void Memory::spoil() {
  content_ = {};
  isWhole_ = false;
  begin(0, 0);
}

void Memory::setClock(UtcMillis utc, std::int64_t now_ms) {
  ownAt_ = utc;
  steadyAt_ = now_ms;
  isClockSet_ = true;
  catchUp(now_ms);
}

void Memory::setSpeed(double speed, std::int64_t now_ms) {
  ownAt_ = ownTime(now_ms);
  steadyAt_ = now_ms;
  speed_ = speed;
}

void Memory::catchUp(std::int64_t now_ms) {
  const std::int64_t own = ownTime(now_ms);
  seenUntil_ = own;
  const auto last = isClockSet_ ? lastStart(0, own) : std::nullopt;
  if (last)
    begin(last->second, last->first);
  else
    begin(content_.atPowerOn, own);
}

std::optional<std::pair<UtcMillis, int>> Memory::lastStart(UtcMillis after, UtcMillis until) const {
  std::optional<std::pair<UtcMillis, int>> last;
  for (const Start& start : content_.starts) {
    if (start.contact > 0) continue;
    const auto at = lastOf(start.at, content_.place, until);
    // Of two at one instant, the one that stands first.
    if (at && *at > after && (!last || *at > last->first)) last = {*at, start.scene};
  }
  return last;
}

void Memory::begin(int scene, std::int64_t own_ms) {
  playing_ = scene;
  begun_ms_ = own_ms;
}

void Memory::play(int scene, std::int64_t now_ms) {
  begin(std::clamp(scene, 0, static_cast<int>(content_.scenes.size())), ownTime(now_ms));
}

bool Memory::press(int contact, std::int64_t now_ms) {
  const auto found = std::find_if(content_.starts.begin(), content_.starts.end(),
                                  [contact](const Start& start) { return start.contact == contact; });
  if (contact < 1 || found == content_.starts.end()) return false;
  play(found->scene, now_ms);
  return true;
}

void Memory::advance(std::int64_t now_ms) {
  const std::int64_t own = ownTime(now_ms);
  if (isClockSet_ && own > seenUntil_) {
    // Starts are told by the second: that is often enough.
    if (own / 1000 != seenUntil_ / 1000) {
      if (const auto due = lastStart(seenUntil_, own)) begin(due->second, due->first);
      seenUntil_ = own;
    }
  }
  followRounds(own);
  computeValues(own);
}

void Memory::followRounds(std::int64_t own_ms) {
  // Each scene is passed at most once between two looks at the clock.
  for (std::size_t passed = 0; passed <= content_.scenes.size(); ++passed) {
    if (playing_ < 1) return;
    const Scene& scene = content_.scenes[static_cast<std::size_t>(playing_ - 1)];
    const std::int64_t all_ms = scene.length_ms() * scene.rounds;
    if (scene.rounds == 0 || scene.then == "stay" || own_ms - begun_ms_ < all_ms) return;
    if (scene.then == "dark") return begin(0, begun_ms_ + all_ms);
    const int behind = playing_ % static_cast<int>(content_.scenes.size()) + 1;
    const bool isNamed = scene.next > 0 && scene.next <= static_cast<int>(content_.scenes.size());
    begin(isNamed ? scene.next : behind, begun_ms_ + all_ms);
  }
}

namespace {

/// Values of a scene `at_ms` after it began.
std::vector<std::uint8_t> sceneValues(const Scene& scene, std::int64_t at_ms) {
  const std::int64_t round_ms = scene.length_ms();
  if (scene.steps.empty()) return {};
  if (round_ms <= 0 || (scene.rounds > 0 && at_ms >= round_ms * scene.rounds))
    return scene.steps.back().values;
  const std::int64_t round = at_ms / round_ms;
  std::int64_t left = at_ms - round * round_ms;
  const std::vector<std::uint8_t> dark(scene.steps.front().values.size(), 0);
  const std::vector<std::uint8_t>* before = round == 0 ? &dark : &scene.steps.back().values;
  for (const Step& step : scene.steps) {
    if (left < step.fade_ms) {
      std::vector<std::uint8_t> faded(step.values.size());
      for (std::size_t i = 0; i < faded.size(); ++i) {
        const std::int64_t from = (*before)[i], to = step.values[i];
        faded[i] = static_cast<std::uint8_t>((from * (step.fade_ms - left) + to * left + step.fade_ms / 2) /
                                             step.fade_ms);
      }
      return faded;
    }
    left -= step.fade_ms;
    if (left < step.hold_ms) return step.values;
    left -= step.hold_ms;
    before = &step.values;
  }
  return scene.steps.back().values;
}

}  // namespace

void Memory::computeValues(std::int64_t own_ms) {
  values_.clear();
  if (playing_ < 1) return;
  const Scene& scene = content_.scenes[static_cast<std::size_t>(playing_ - 1)];
  const auto values = sceneValues(scene, std::max<std::int64_t>(0, own_ms - begun_ms_));
  std::size_t taken = 0;
  for (const Channels& block : scene.channels)
    for (int i = 0; i < block.count && taken < values.size(); ++i) {
      // A block may reach into the next universe.
      const int channel = block.channel - 1 + i;
      auto& universe = values_[{block.protocol, block.universe + channel / 512}];
      universe.resize(512, 0);
      universe[static_cast<std::size_t>(channel % 512)] = values[taken++];
    }
}

int Memory::valueAt(const std::string& protocol, int universe, int channel) const {
  const auto found = values_.find({protocol, universe});
  return found == values_.end() ? 0 : found->second[static_cast<std::size_t>(channel - 1)];
}

nlohmann::ordered_json Memory::toJson(std::int64_t now_ms) const {
  nlohmann::ordered_json clock = {{"set", isClockSet_}};
  if (isClockSet_) clock["utc"] = utcText(ownTime(now_ms));
  nlohmann::ordered_json content = content_.json;
  if (content.is_null()) content = {{"version", 1}, {"scenes", nlohmann::ordered_json::array()}};
  return {{"limits",
           {{"scenes", limits_.scenes},
            {"steps", limits_.steps},
            {"steps_of_scene", limits_.stepsOfScene},
            {"channels", limits_.channels},
            {"starts", limits_.starts},
            {"contacts", limits_.contacts},
            {"bytes", limits_.bytes},
            {"bytes_of_scene", MemoryLimits::kBytesOfScene},
            {"bytes_of_step", MemoryLimits::kBytesOfStep},
            {"bytes_of_start", MemoryLimits::kBytesOfStart},
            {"fades", limits_.fades}}},
          {"whole", isWhole_},
          {"clock", std::move(clock)},
          {"playing", playing_},
          {"content", std::move(content)}};
}

}  // namespace chispa::node
