// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/files/portsettings.h"

#include <algorithm>

#include "core/base/boundedjson.h"
#include "core/files/fieldreader.h"
#include "core/show/limits.h"
#include "core/wire/wiresettings.h"

namespace chispa {
namespace {

const PatchSpan* firstSpan(const Patch& patch, int controller, int port, int bead) {
  const auto found = std::find_if(patch.spans.begin(), patch.spans.end(), [&](const PatchSpan& span) {
    return span.controller == controller && span.port == port && span.bead == bead;
  });
  return found == patch.spans.end() ? nullptr : &*found;
}

PortSection readSection(const nlohmann::ordered_json& json, Protocol protocol) {
  const FieldReader in(json);
  const UniverseRange range = universeRange(protocol);
  return {in.whole<int>("pixels", 0, limits::kMaxPixelsOfSegment, 0),
          in.text("order", "RGB"),
          in.whole<int>("skipped_before", 0, limits::kMaxSkipped, 0),
          in.whole<int>("universe", range.low, range.high, std::max(1, range.low)),
          in.whole<int>("channel", 1, kUniverseChannels, 1),
          in.whole<int>("bits", 8, 16, 8),
          in.whole<int>("grouping", 1, limits::kMaxGrouped, 1),
          in.number("brightness", 0, 1, 1),
          in.flag("reversed", false),
          in.whole<int>("zigzag", 0, limits::kMaxPixelsOfSegment, 0)};
}

}  // namespace

std::vector<PortSettings> portSettings(const Show& show, const Patch& patch, int index) {
  const Controller& controller = *show.controllers.at(static_cast<std::size_t>(index));
  std::vector<PortSettings> all;
  for (std::size_t p = 0; p < controller.ports.size(); ++p) {
    const bool isFlat = isRow(controller.protocol);
    PortSettings port{static_cast<int>(p) + 1,
                      controller.protocol,
                      {},
                      isFlat ? kUniverseChannels : controller.channelsPerUniverse,
                      isFlat || controller.isPacked};
    const auto& run = controller.ports[p].run;
    for (std::size_t b = 0; b < run.size(); ++b) {
      const PatchSpan* span = firstSpan(patch, index, static_cast<int>(p), static_cast<int>(b));
      const Fixture* fixture = find(show.fixtures, run[b].fixture);
      if (!span || !fixture) continue;
      const ResolvedWire wire =
          resolveWire(stripTypeOf(show, *fixture), *fixture, controller.ports[p].settings, run[b].settings);
      port.sections.push_back({std::min(run[b].count, pixelCount(*fixture) - run[b].first), wire.order,
                               run[b].skippedBefore, span->universe, span->channel, wire.bits,
                               wire.grouping});
    }
    all.push_back(std::move(port));
  }
  return all;
}

nlohmann::ordered_json toJson(const std::vector<PortSettings>& settings) {
  auto ports = nlohmann::ordered_json::array();
  for (const PortSettings& port : settings) {
    auto sections = nlohmann::ordered_json::array();
    for (const PortSection& section : port.sections)
      sections.push_back({{"pixels", section.pixels},
                          {"order", section.order},
                          {"skipped_before", section.skippedBefore},
                          {"universe", section.universe},
                          {"channel", section.channel},
                          {"bits", section.bits},
                          {"grouping", section.grouping},
                          {"brightness", section.brightness},
                          {"reversed", section.isReversed},
                          {"zigzag", section.zigzag}});
    ports.push_back({{"port", port.port},
                     {"protocol", nameOf(port.protocol)},
                     {"channels_per_universe", port.channelsPerUniverse},
                     {"packed", port.isPacked},
                     {"sections", std::move(sections)}});
  }
  return {{"ports", std::move(ports)}};
}

Result<std::vector<PortSettings>> parsePortSettings(const std::string& text, const std::string& where) {
  constexpr const char* kCure = "Check that a controller with the node interface answers there.";
  const auto root = parseJson(text, "The settings", where, kCure);
  if (!root) return root.failure();
  try {
    std::vector<PortSettings> all;
    std::int64_t pixels = 0;
    FieldReader(*root).each("ports", [&](const auto& element) {
      const FieldReader in(element);
      PortSettings port{in.template whole<int>("port", 1, limits::kMaxPorts, 1),
                        in.word("protocol", Protocol::E131),
                        {},
                        in.template whole<int>("channels_per_universe", 510, 512, 512),
                        in.flag("packed", false)};
      in.each("sections", [&](const auto& section) {
        port.sections.push_back(readSection(section, port.protocol));
        pixels += port.sections.back().pixels;
      });
      if (all.size() >= limits::kMaxPorts) throw FieldError("it has more ports than any controller");
      if (pixels > limits::kMaxPixels) throw FieldError("it has more pixels than a show may hold");
      all.push_back(std::move(port));
    });
    return all;
  } catch (const std::exception& error) {
    return Failure{sentence("The settings make no sense: %1.", error.what()), where, kCure};
  }
}

}  // namespace chispa
