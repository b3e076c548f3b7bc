// SPDX-License-Identifier: GPL-3.0-or-later
#include <nlohmann/json.hpp>

#include "core/base/boundedjson.h"
#include "core/controllermemory/content.h"
#include "core/files/showreader.h"
#include "core/files/showwriter.h"
#include "core/wire/patch.h"

namespace chispa {
namespace {

using Json = nlohmann::ordered_json;

constexpr int kVersion = 1;
constexpr const char* kCure = "Check that a controller with the node interface answers there.";
constexpr int kMaxChannels = 512 * 1024;
constexpr std::int64_t kMaxStep_ms = 24 * 3'600'000;
/// Bytes of all steps that a memory is believed to hold.
constexpr std::int64_t kMaxBytes = std::int64_t{64} << 20;

std::string hexOf(const std::vector<std::uint8_t>& values) {
  constexpr char kDigits[] = "0123456789abcdef";
  std::string text;
  text.reserve(2 * values.size());
  for (const std::uint8_t value : values) {
    text += kDigits[value >> 4];
    text += kDigits[value & 15];
  }
  return text;
}

int digitOf(char letter) {
  if (letter >= '0' && letter <= '9') return letter - '0';
  if (letter >= 'a' && letter <= 'f') return letter - 'a' + 10;
  if (letter >= 'A' && letter <= 'F') return letter - 'A' + 10;
  throw FieldError("values are not written in hexadecimal");
}

std::vector<std::uint8_t> valuesOf(const std::string& hex, int channels) {
  if (std::ssize(hex) != 2 * channels) throw FieldError("a step has not one value for each channel");
  std::vector<std::uint8_t> values;
  values.reserve(hex.size() / 2);
  for (std::size_t i = 0; i < hex.size(); i += 2)
    values.push_back(static_cast<std::uint8_t>(digitOf(hex[i]) << 4 | digitOf(hex[i + 1])));
  return values;
}

Json sceneJson(const SceneContent& scene) {
  Json channels = Json::array(), steps = Json::array();
  for (const MemoryChannels& block : scene.channels)
    channels.push_back({{"protocol", nameOf(block.protocol)},
                        {"universe", block.universe},
                        {"channel", block.channel},
                        {"count", block.count}});
  for (const MemoryStep& step : scene.steps)
    steps.push_back({{"fade_ms", step.fade_ms}, {"hold_ms", step.hold_ms}, {"values", hexOf(step.values)}});
  return {{"name", scene.name},     {"channels", std::move(channels)},
          {"rounds", scene.rounds}, {"then", nameOf(scene.then)},
          {"next", scene.next},     {"steps", std::move(steps)}};
}

SceneContent readScene(const Json& json) {
  const FieldReader in(json);
  SceneContent scene;
  scene.name = in.text("name");
  in.each("channels", [&](const Json& element) {
    const FieldReader block(element);
    const auto protocol = block.word("protocol", Protocol::E131);
    const UniverseRange range = universeRange(protocol);
    scene.channels.push_back({protocol,
                              block.whole<int>("universe", range.low, range.high, std::max(1, range.low)),
                              block.whole<int>("channel", 1, kUniverseChannels, 1),
                              block.whole<int>("count", 1, kUniverseChannels, 1)});
    if (scene.channelCount() > kMaxChannels)
      throw FieldError("a scene has more channels than any controller");
  });
  scene.rounds = in.whole<int>("rounds", 0, 1'000'000, 0);
  scene.then = in.word("then", AfterScene::Stay);
  scene.next = in.whole<int>("next", 0, static_cast<int>(limits::kMaxMemoryScenes), 0);
  const int channels = scene.channelCount();
  in.each("steps", [&](const Json& element) {
    const FieldReader step(element);
    scene.steps.push_back({step.whole<std::int64_t>("fade_ms", 0, kMaxStep_ms, 0),
                           step.whole<std::int64_t>("hold_ms", 0, kMaxStep_ms, 0),
                           valuesOf(step.text("values"), channels)});
  });
  return scene;
}

Json startJson(const StartContent& start) {
  static const UnreadByList none;
  ShowWriter writer(none);
  fields::describe(writer, start.when);
  Json json = std::move(writer).take();
  json["scene"] = start.scene;
  return json;
}

StartContent readStart(const Json& json, int scenes) {
  StartContent start;
  start.scene = FieldReader(json).whole<int>("scene", 0, scenes, 0);
  std::vector<UnreadPart> unread;
  ShowReader reader(json, unread);
  fields::describe(reader, start.when);
  if (!unread.empty()) throw FieldError("a start " + unread.front().reason);
  return start;
}

MemoryContent readContent(const Json& json) {
  const FieldReader in(json);
  if (in.whole<int>("version", 1, 1'000'000, kVersion) > kVersion)
    throw FieldError("its version is newer than this Chispa");
  MemoryContent content;
  content.name = in.text("name");
  if (const Json* member = in.member("place")) {
    const FieldReader place(*member);
    content.place = {place.number("latitude_deg", -90, 90, 0), place.number("longitude_deg", -180, 180, 0),
                     place.text("time_zone", "UTC0")};
  }
  std::int64_t bytes = 0;
  in.each("scenes", [&](const Json& scene) {
    content.scenes.push_back(readScene(scene));
    bytes += std::ssize(content.scenes.back().steps) * (16 + content.scenes.back().channelCount());
    if (content.scenes.size() > limits::kMaxMemoryScenes || bytes > kMaxBytes)
      throw FieldError("it holds more than any controller");
  });
  const int scenes = static_cast<int>(content.scenes.size());
  in.each("starts", [&](const Json& start) { content.starts.push_back(readStart(start, scenes)); });
  content.atPowerOn = in.whole<int>("at_power_on", 0, scenes, 0);
  return content;
}

MemoryLimits readLimits(const FieldReader& in) {
  constexpr int kMax = 1'000'000'000;
  MemoryLimits limits;
  limits.scenes = in.whole<int>("scenes", 0, kMax, 0);
  limits.steps = in.whole<int>("steps", 0, kMax, 0);
  limits.stepsOfScene = in.whole<int>("steps_of_scene", 0, kMax, limits.steps);
  limits.channels = in.whole<int>("channels", 0, kMax, 0);
  limits.starts = in.whole<int>("starts", 0, kMax, 0);
  limits.contacts = in.whole<int>("contacts", 0, kMax, 0);
  limits.bytes = in.whole<std::int64_t>("bytes", 0, std::int64_t{1} << 50, 0);
  limits.bytesOfScene = in.whole<int>("bytes_of_scene", 0, kMax, 0);
  limits.bytesOfStep = in.whole<int>("bytes_of_step", 0, kMax, 0);
  limits.bytesOfStart = in.whole<int>("bytes_of_start", 0, kMax, 0);
  limits.fades = in.flag("fades", true);
  return limits;
}

template <class Read>
auto parsed(const std::string& text, const std::string& where, Read read)
    -> Result<decltype(read(std::declval<const Json&>()))> {
  const auto root = parseJson(text, "The memory", where, kCure);
  if (!root) return root.failure();
  try {
    return read(*root);
  } catch (const std::exception& error) {
    return Failure{sentence("What the memory holds makes no sense: %1.", error.what()), where, kCure};
  }
}

}  // namespace

nlohmann::ordered_json toJson(const MemoryContent& content) {
  Json scenes = Json::array(), starts = Json::array();
  for (const SceneContent& scene : content.scenes) scenes.push_back(sceneJson(scene));
  for (const StartContent& start : content.starts) starts.push_back(startJson(start));
  return {{"version", kVersion},
          {"name", content.name},
          {"place",
           {{"latitude_deg", content.place.latitude_deg},
            {"longitude_deg", content.place.longitude_deg},
            {"time_zone", content.place.timeZone}}},
          {"scenes", std::move(scenes)},
          {"starts", std::move(starts)},
          {"at_power_on", content.atPowerOn}};
}

Result<MemoryContent> parseMemoryContent(const std::string& text, const std::string& where) {
  return parsed(text, where, readContent);
}

Result<MemoryState> parseMemoryState(const std::string& text, const std::string& where) {
  return parsed(text, where, [](const Json& json) {
    const FieldReader in(json);
    MemoryState state;
    if (const Json* member = in.member("limits")) state.limits = readLimits(FieldReader(*member));
    if (const Json* member = in.member("content")) state.content = readContent(*member);
    state.isWhole = in.flag("whole", true);
    if (const Json* member = in.member("clock")) {
      const FieldReader clock(*member);
      state.isClockSet = clock.flag("set", false);
      state.clock = clock.text("utc");
    }
    state.playing = in.whole<int>("playing", 0, static_cast<int>(state.content.scenes.size()), 0);
    return state;
  });
}

}  // namespace chispa
