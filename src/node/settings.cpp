// SPDX-License-Identifier: GPL-3.0-or-later
#include "node/settings.h"

#include <stdexcept>

#include "node/wholenumber.h"

namespace chispa::node {
namespace {

constexpr int kMaxPixelsOfPort = 8192;
constexpr std::size_t kMaxSections = 256;
constexpr long kMaxPixels = 500'000;

int wholeIn(const nlohmann::json& json, const char* key, int low, int high) {
  return wholeNumber(json.at(key), low, high, key);
}

Section readSection(const nlohmann::json& json) {
  Section s{wholeIn(json, "pixels", 0, kMaxPixelsOfPort),
            json.at("order").get<std::string>(),
            wholeIn(json, "skipped_before", 0, kMaxPixelsOfPort),
            wholeIn(json, "universe", 0, 63999),
            wholeIn(json, "channel", 1, 512),
            wholeNumber(json, "bits", 8, 16, 8),
            wholeNumber(json, "grouping", 1, kMaxPixelsOfPort, 1),
            json.value("brightness", 1.0),
            json.value("reversed", false),
            wholeNumber(json, "zigzag", 0, kMaxPixelsOfPort, 0)};
  if (s.order.empty() || s.order.size() > 5 || s.order.find_first_not_of("RGBWA") != std::string::npos)
    throw std::runtime_error("order is not made of R, G, B, W and A");
  if (s.bits != 8 && s.bits != 16) throw std::runtime_error("bits is neither 8 nor 16");
  if (!(s.brightness >= 0 && s.brightness <= 1))
    throw std::runtime_error("brightness is not between 0 and 1");
  return s;
}

}  // namespace

nlohmann::json toJson(const std::vector<PortSetup>& ports) {
  auto list = nlohmann::json::array();
  for (const PortSetup& port : ports) {
    auto sections = nlohmann::json::array();
    for (const Section& s : port.sections)
      sections.push_back({{"pixels", s.pixels},
                          {"order", s.order},
                          {"skipped_before", s.skippedBefore},
                          {"universe", s.universe},
                          {"channel", s.channel},
                          {"bits", s.bits},
                          {"grouping", s.grouping},
                          {"brightness", s.brightness},
                          {"reversed", s.isReversed},
                          {"zigzag", s.zigzag}});
    list.push_back({{"port", port.port},
                    {"protocol", port.protocol},
                    {"channels_per_universe", port.channelsPerUniverse},
                    {"packed", port.isPacked},
                    {"sections", std::move(sections)}});
  }
  return {{"ports", std::move(list)}};
}

std::optional<std::vector<PortSetup>> parseSettings(const std::string& text, int maxPorts, std::string& why) {
  try {
    std::vector<PortSetup> ports;
    long pixels = 0;
    const auto root = nlohmann::json::parse(text);
    for (const auto& json : root.at("ports")) {
      PortSetup port{wholeIn(json, "port", 1, maxPorts),
                     json.at("protocol").get<std::string>(),
                     {},
                     wholeNumber(json, "channels_per_universe", 510, 512, 512),
                     json.value("packed", false)};
      if (port.channelsPerUniverse != 510 && port.channelsPerUniverse != 512)
        throw std::runtime_error("channels_per_universe is neither 510 nor 512");
      if (port.protocol != "e131" && port.protocol != "artnet" && port.protocol != "ddp" &&
          port.protocol != "opc")
        throw std::runtime_error("protocol is unknown");
      for (const auto& section : json.at("sections")) {
        port.sections.push_back(readSection(section));
        pixels += port.sections.back().pixels + port.sections.back().skippedBefore;
        if (port.sections.size() > kMaxSections)
          throw std::runtime_error("a port has more sections than " + std::to_string(kMaxSections));
        if (pixels > kMaxPixels)
          throw std::runtime_error("there are more pixels than " + std::to_string(kMaxPixels));
      }
      if (ports.size() >= static_cast<std::size_t>(maxPorts))
        throw std::runtime_error("there are more ports than " + std::to_string(maxPorts));
      ports.push_back(std::move(port));
    }
    return ports;
  } catch (const std::exception& error) {
    why = error.what();
    return std::nullopt;
  }
}

}  // namespace chispa::node
