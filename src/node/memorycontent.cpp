// SPDX-License-Identifier: GPL-3.0-or-later
#include <algorithm>
#include <map>
#include <set>
#include <sstream>
#include <stdexcept>

#include "node/memory.h"
#include "node/wholenumber.h"

namespace chispa::node {
namespace {

constexpr int kLongest_ms = 24 * 3'600'000;

std::vector<std::uint8_t> valuesOf(const std::string& hex, int channels) {
  if (hex.size() != 2 * static_cast<std::size_t>(channels))
    throw std::runtime_error("a step has not one value for each channel");
  if (hex.find_first_not_of("0123456789abcdefABCDEF") != std::string::npos)
    throw std::runtime_error("values are not written in hexadecimal");
  std::vector<std::uint8_t> values;
  for (std::size_t i = 0; i < hex.size(); i += 2)
    values.push_back(static_cast<std::uint8_t>(std::stoi(hex.substr(i, 2), nullptr, 16)));
  return values;
}

void limit(std::int64_t wanted, std::int64_t most, const char* of) {
  if (wanted > most)
    throw std::runtime_error(std::to_string(wanted) + " " + of + " are more than the " +
                             std::to_string(most) + " that it holds");
}

Scene readScene(const nlohmann::json& json, const MemoryLimits& limits) {
  Scene scene;
  scene.name = json.value("name", std::string());
  int channels = 0;
  for (const auto& block : json.at("channels")) {
    scene.channels.push_back({block.at("protocol").get<std::string>(),
                              wholeNumber(block.at("universe"), 0, 63'999, "universe"),
                              wholeNumber(block.at("channel"), 1, 512, "channel"),
                              wholeNumber(block.at("count"), 1, 512, "count")});
    channels += scene.channels.back().count;
    limit(channels, limits.channels, "channels of a scene");
  }
  scene.rounds = wholeNumber(json, "rounds", 0, 1'000'000, 0);
  scene.then = json.value("then", std::string("stay"));
  if (scene.then != "stay" && scene.then != "dark" && scene.then != "next")
    throw std::runtime_error("then is neither stay, dark nor next");
  scene.next = wholeNumber(json, "next", 0, limits.scenes, 0);
  for (const auto& step : json.at("steps")) {
    scene.steps.push_back({wholeNumber(step, "fade_ms", 0, kLongest_ms, 0),
                           wholeNumber(step, "hold_ms", 0, kLongest_ms, 0),
                           valuesOf(step.at("values").get<std::string>(), channels)});
    if (scene.steps.back().fade_ms > 0 && !limits.fades) throw std::runtime_error("it cannot fade");
    limit(static_cast<std::int64_t>(scene.steps.size()), limits.stepsOfScene, "steps of a scene");
  }
  return scene;
}

NightlyTime readTime(const nlohmann::json& json) {
  static const std::set<std::string> kKinds{"clock", "sunset", "dusk", "dawn", "sunrise"};
  NightlyTime time;
  if (const auto at = json.find("at"); at != json.end()) {
    time.kind = at->at("kind").get<std::string>();
    if (!kKinds.contains(time.kind)) throw std::runtime_error("\"" + time.kind + "\" is no time");
    time.minutes = wholeNumber(at->at("minutes"), time.kind == "clock" ? 0 : -1439, 1439, "minutes");
  } else {
    time.kind = "sunset";
  }
  const auto onDays = json.find("days");
  if (onDays == json.end()) return time;
  time.weekdays = wholeNumber(*onDays, "weekdays", 1, 127, 127);
  time.first = onDays->value("first", std::string());
  time.last = onDays->value("last", std::string());
  time.only = onDays->value("only", std::vector<std::string>());
  time.except = onDays->value("except", std::vector<std::string>());
  return time;
}

Start readStart(const nlohmann::json& json, int scenes, const MemoryLimits& limits) {
  Start start;
  start.scene = wholeNumber(json.at("scene"), 0, scenes, "scene");
  start.contact = wholeNumber(json, "contact", 0, limits.contacts, 0);
  start.at = readTime(json);
  return start;
}

std::int64_t bytesOf(const Content& content) {
  auto bytes = static_cast<std::int64_t>(content.starts.size()) * MemoryLimits::kBytesOfStart;
  for (const Scene& scene : content.scenes) {
    bytes += MemoryLimits::kBytesOfScene;
    for (const Step& step : scene.steps)
      bytes += MemoryLimits::kBytesOfStep + static_cast<std::int64_t>(step.values.size());
  }
  return bytes;
}

}  // namespace

std::optional<Content> parseContent(const std::string& text, const MemoryLimits& limits, std::string& why) {
  try {
    Content content;
    content.json = nlohmann::ordered_json::parse(text);
    const nlohmann::json json = content.json;
    if (wholeNumber(json, "version", 1, 1'000'000, 1) != 1) throw std::runtime_error("its version is not 1");
    if (const auto place = json.find("place"); place != json.end()) {
      content.place = {place->value("latitude_deg", 0.0), place->value("longitude_deg", 0.0),
                       place->value("time_zone", std::string("UTC0"))};
      if (!(std::abs(content.place.latitude_deg) <= 90 && std::abs(content.place.longitude_deg) <= 180))
        throw std::runtime_error("the place is none on earth");
      if (!isPosixZone(content.place.timeZone))
        throw std::runtime_error("\"" + content.place.timeZone + "\" is no time zone of POSIX");
    }
    std::int64_t steps = 0;
    for (const auto& scene : json.at("scenes")) {
      content.scenes.push_back(readScene(scene, limits));
      steps += static_cast<std::int64_t>(content.scenes.back().steps.size());
      limit(static_cast<std::int64_t>(content.scenes.size()), limits.scenes, "scenes");
      limit(steps, limits.steps, "steps");
    }
    const int scenes = static_cast<int>(content.scenes.size());
    if (const auto starts = json.find("starts"); starts != json.end())
      for (const auto& start : *starts) {
        content.starts.push_back(readStart(start, scenes, limits));
        limit(static_cast<std::int64_t>(content.starts.size()), limits.starts, "starts");
      }
    content.atPowerOn = wholeNumber(json, "at_power_on", 0, scenes, 0);
    limit(bytesOf(content), limits.bytes, "bytes");
    return content;
  } catch (const std::exception& error) {
    why = error.what();
    return std::nullopt;
  }
}

std::optional<MemoryLimits> parseMemoryWords(const std::string& words, std::string& why) {
  MemoryLimits limits;
  const std::map<std::string, int*> kNumbers{{"scenes", &limits.scenes},     {"steps", &limits.steps},
                                             {"channels", &limits.channels}, {"bytes", &limits.bytes},
                                             {"contacts", &limits.contacts}, {"starts", &limits.starts}};
  std::istringstream in(words);
  std::string word;
  try {
    while (std::getline(in, word, ',')) {
      const auto equals = word.find('=');
      const auto number = kNumbers.find(word.substr(0, equals));
      if (word == "nofades")
        limits.fades = false;
      else if (number != kNumbers.end() && equals != std::string::npos)
        *number->second = std::stoi(word.substr(equals + 1));
      else
        throw std::runtime_error("\"" + word +
                                 "\" is no limit; there are scenes=, steps=, channels=, bytes=, contacts=, "
                                 "starts= and nofades");
      if (number != kNumbers.end() && (*number->second < 0 || *number->second > (64 << 20)))
        throw std::runtime_error(word + " is out of range");
    }
  } catch (const std::exception& error) {
    why = error.what();
    return std::nullopt;
  }
  limits.stepsOfScene = limits.steps;
  return limits;
}

}  // namespace chispa::node
