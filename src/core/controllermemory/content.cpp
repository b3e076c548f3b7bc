// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/controllermemory/content.h"

#include <algorithm>
#include <numeric>

#include "core/almanac/nightwords.h"

namespace chispa {

std::int64_t SceneContent::length_ms() const {
  return std::accumulate(steps.begin(), steps.end(), std::int64_t{0},
                         [](std::int64_t sum, const MemoryStep& step) { return sum + step.length_ms(); });
}

int SceneContent::channelCount() const {
  return std::accumulate(channels.begin(), channels.end(), 0,
                         [](int sum, const MemoryChannels& block) { return sum + block.count; });
}

std::int64_t bytesOf(const SceneContent& scene, const MemoryLimits& limits) {
  const std::int64_t step = limits.bytesOfStep + scene.channelCount();
  return limits.bytesOfScene + step * std::ssize(scene.steps);
}

std::int64_t bytesOf(const MemoryContent& content, const MemoryLimits& limits) {
  std::int64_t bytes = limits.bytesOfStart * std::ssize(content.starts);
  for (const SceneContent& scene : content.scenes) bytes += bytesOf(scene, limits);
  return bytes;
}

std::vector<std::string> excessesOf(const MemoryContent& content, const MemoryLimits& limits) {
  std::vector<std::string> found;
  const auto check = [&](std::int64_t wanted, std::int64_t most, const std::string& of) {
    if (wanted > most) found.push_back(std::to_string(wanted) + " " + of + ", of " + std::to_string(most));
  };
  check(std::ssize(content.scenes), limits.scenes, "scenes");
  std::int64_t steps = 0;
  for (const SceneContent& scene : content.scenes) {
    steps += std::ssize(scene.steps);
    check(std::ssize(scene.steps), limits.stepsOfScene, "steps in “" + scene.name + "”");
    check(scene.channelCount(), limits.channels, "channels in “" + scene.name + "”");
    const bool hasFades = std::any_of(scene.steps.begin(), scene.steps.end(),
                                      [](const MemoryStep& step) { return step.fade_ms > 0; });
    if (hasFades && !limits.fades) found.push_back("fades in “" + scene.name + "”, of none");
  }
  check(steps, limits.steps, "steps in all");
  check(std::ssize(content.starts), limits.starts, "starts");
  int contact = 0;
  for (const StartContent& start : content.starts) contact = std::max(contact, start.when.contact);
  if (contact > limits.contacts)
    found.push_back("contact " + std::to_string(contact) + ", of " + std::to_string(limits.contacts));
  check(bytesOf(content, limits), limits.bytes, "bytes");
  return found;
}

std::vector<std::uint8_t> valuesAt(const SceneContent& scene, std::int64_t t_ms) {
  std::vector<std::uint8_t> dark(static_cast<std::size_t>(scene.channelCount()), 0);
  const std::int64_t round_ms = scene.length_ms();
  if (scene.steps.empty() || t_ms < 0) return dark;
  if (round_ms <= 0) return scene.steps.back().values;
  const std::int64_t round = t_ms / round_ms;
  if (scene.rounds > 0 && round >= scene.rounds)
    return scene.then == AfterScene::Dark ? dark : scene.steps.back().values;
  std::int64_t at = t_ms % round_ms;
  // The first step of the first round comes out of the dark, later ones out of the last step.
  const std::vector<std::uint8_t>* from = round == 0 ? &dark : &scene.steps.back().values;
  for (const MemoryStep& step : scene.steps) {
    if (at >= step.length_ms()) {
      at -= step.length_ms();
      from = &step.values;
      continue;
    }
    if (at >= step.fade_ms) return step.values;
    std::vector<std::uint8_t> mixed(step.values.size());
    for (std::size_t i = 0; i < mixed.size(); ++i)
      mixed[i] = static_cast<std::uint8_t>(
          ((*from)[i] * (step.fade_ms - at) + step.values[i] * at + step.fade_ms / 2) / step.fade_ms);
    return mixed;
  }
  return scene.steps.back().values;
}

namespace {

std::string counted(std::int64_t count, const char* one, const char* many) {
  return std::to_string(count) + " " + (count == 1 ? one : many);
}

std::string sceneText(const SceneContent& scene) {
  const std::int64_t tenths = (scene.length_ms() + 50) / 100;
  std::string text = "“" + scene.name + "” · " + counted(std::ssize(scene.steps), "step", "steps") + " · " +
                     std::to_string(tenths / 10) + "." + std::to_string(tenths % 10) + " s · " +
                     counted(scene.channelCount(), "channel", "channels");
  if (scene.rounds > 0) text += " · " + counted(scene.rounds, "round", "rounds");
  if (scene.rounds > 0 && scene.then == AfterScene::Next)
    text += scene.next > 0 ? ", then scene " + std::to_string(scene.next) : ", then the next";
  return text;
}

std::string startsText(const MemoryContent& content, int scene) {
  std::string text;
  for (const StartContent& start : content.starts)
    if (start.scene == scene) text += (text.empty() ? "" : "; ") + describeStart(start.when);
  return text.empty() ? "never" : text;
}

}  // namespace

std::vector<MemoryDifference> differencesOf(const MemoryContent& there, const MemoryContent& wanted) {
  std::vector<MemoryDifference> found;
  const auto note = [&](const std::string& what, const std::string& one, const std::string& other) {
    found.push_back({what, one, other});
  };
  const std::size_t scenes = std::max(there.scenes.size(), wanted.scenes.size());
  for (std::size_t i = 0; i < scenes; ++i) {
    const SceneContent* has = i < there.scenes.size() ? &there.scenes[i] : nullptr;
    const SceneContent* wants = i < wanted.scenes.size() ? &wanted.scenes[i] : nullptr;
    const std::string what = "scene " + std::to_string(i + 1);
    if (!has || !wants || *has != *wants) {
      std::string before = has ? sceneText(*has) : "nothing", after = wants ? sceneText(*wants) : "nothing";
      if (before == after) after += ", with other light";
      note(what, before, after);
    }
    const int number = static_cast<int>(i) + 1;
    const std::string starts = startsText(there, number), asked = startsText(wanted, number);
    if (starts != asked) note(what + " begins", starts, asked);
  }
  if (startsText(there, 0) != startsText(wanted, 0))
    note("dark", startsText(there, 0), startsText(wanted, 0));
  if (there.atPowerOn != wanted.atPowerOn) {
    const auto scene = [](int number) {
      return number == 0 ? std::string("dark") : "scene " + std::to_string(number);
    };
    note("when switched on", scene(there.atPowerOn), scene(wanted.atPowerOn));
  }
  if (!(there.place == wanted.place)) {
    const auto place = [](const MemoryPlace& p) {
      char text[64];
      std::snprintf(text, sizeof text, "%.2f°, %.2f°, ", p.latitude_deg, p.longitude_deg);
      return text + p.timeZone;
    };
    note("place", place(there.place), place(wanted.place));
  }
  return found;
}

}  // namespace chispa
