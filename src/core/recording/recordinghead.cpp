// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/recording/recordinghead.h"

#include <nlohmann/json.hpp>

#include "core/base/boundedjson.h"
#include "core/files/fieldreader.h"
#include "core/files/names.h"
#include "core/files/showjson.h"
#include "core/show/limits.h"

namespace chispa {
namespace {

using Json = nlohmann::ordered_json;

constexpr std::size_t kMaxUniverses = limits::kMaxRowUniverses;
constexpr int kMaxNumber = 1 << 30;

Json spanJson(const RecordedSpan& one) {
  const PatchSpan& span = one.span;
  return {{"controller", span.controller},
          {"port", span.port},
          {"bead", span.bead},
          {"fixture", one.fixture},
          {"first_pixel", span.firstPixel},
          {"step", span.step},
          {"pixels", span.pixels},
          {"values", span.count},
          {"pixels_of_value", span.pixelsPerValue},
          {"channels_of_value", span.channelsPerPixel},
          {"universe", span.universe},
          {"channel", span.channel},
          {"first_byte", span.firstByte},
          {"bytes", span.bytes}};
}

RecordedSpan readSpan(const Json& json) {
  const FieldReader in(json);
  const auto number = [&](const char* key, int least = 0) {
    return in.whole<int>(key, least, kMaxNumber, 0);
  };
  RecordedSpan one;
  one.fixture = in.text("fixture");
  PatchSpan& span = one.span;
  span.controller = number("controller");
  span.port = number("port");
  span.bead = number("bead");
  span.firstPixel = number("first_pixel");
  span.step = number("step", -1);
  span.pixels = number("pixels");
  span.count = number("values");
  span.pixelsPerValue = number("pixels_of_value");
  span.channelsPerPixel = number("channels_of_value");
  span.universe = number("universe");
  span.channel = number("channel");
  span.firstByte = number("first_byte");
  span.bytes = number("bytes");
  return one;
}

}  // namespace

std::string headText(const RecordingHead& head) {
  Json universes = Json::array();
  for (const RecordedUniverse& one : head.universes) {
    universes.push_back({{"protocol", nameOf(one.protocol)}, {"universe", one.universe}});
    if (one.controller) universes.back()["controller"] = one.controller.value;
  }
  Json json = {{"name", head.name}, {"universes", std::move(universes)}};
  if (!head.rig.controllers.empty()) json["rig"] = toJson(head.rig);
  for (const RecordedSpan& one : head.patch) json["patch"].push_back(spanJson(one));
  return json.dump();
}

Result<RecordingHead> parseHead(const std::string& text, const std::string& where) {
  const auto damaged = [&](const std::string& why) {
    return Failure{sentence("the recording's header makes no sense: %1", why), where,
                   "record it again, or use a copy"};
  };
  try {
    const auto json = parseJson(text, "The recording's header", where, "record it again, or use a copy");
    if (!json) return json.failure();
    const FieldReader in(*json);
    RecordingHead head;
    head.name = in.text("name");
    in.each("universes", [&](const Json& element) {
      const FieldReader one(element);
      const auto protocol = one.word("protocol", Protocol::E131);
      const UniverseRange range = universeRange(protocol);
      head.universes.push_back(
          {protocol, one.whole<int>("universe", range.low, range.high, range.low),
           ControllerId{one.whole<std::uint32_t>("controller", 0, limits::kLargestId, 0)}});
      if (head.universes.size() > kMaxUniverses) throw FieldError("it has more universes than any show");
    });
    in.each("patch", [&](const Json& element) { head.patch.push_back(readSpan(element)); });
    if (const Json* rig = in.member("rig")) {
      auto read = showOfJson(*rig, where);
      if (!read) return read.failure();
      head.rig = *std::move(read);
    }
    return head;
  } catch (const std::exception& error) {
    return damaged(error.what());
  }
}

}  // namespace chispa
