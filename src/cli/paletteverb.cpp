// SPDX-License-Identifier: GPL-3.0-or-later
#include <iostream>

#include <nlohmann/json.hpp>

#include "cli/verbs.h"
#include "core/files/palettefile.h"

namespace chispa::cli {

int palette(const Words& words) {
  const auto read = readPalette(words.file);
  if (!read) return failed(read.failure());
  if (!words.json) {
    std::cout << read->name << "\n";
    for (const ColourStop& stop : read->stops) std::cout << stop.at << "  " << hexText(stop.colour) << "\n";
    return kDone;
  }
  auto stops = nlohmann::ordered_json::array();
  for (const ColourStop& stop : read->stops)
    stops.push_back({{"at", stop.at}, {"rgb", {stop.colour.r, stop.colour.g, stop.colour.b}}});
  std::cout << nlohmann::ordered_json{{"name", read->name}, {"stops", std::move(stops)}}.dump(1) << "\n";
  return kDone;
}

}  // namespace chispa::cli
