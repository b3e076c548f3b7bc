// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/statsfile.h"

#include <nlohmann/json.hpp>

#include "core/files/showfile.h"

namespace chispa::cli {

nlohmann::ordered_json statsJson(const Show& show, const engine::Player& player) {
  const engine::OutputStats& stats = player.stats();
  std::uint64_t packets = 0;
  std::uint64_t bytes = 0;
  auto controllers = nlohmann::ordered_json::array();
  for (const engine::LineState& line : player.lines()) {
    packets += line.packets;
    bytes += line.bytes;
    const Controller* controller = find(show.controllers, line.controller);
    controllers.push_back({{"name", controller ? controller->name : ""},
                           {"packets", line.packets},
                           {"send_errors", line.errors},
                           {"trouble", line.trouble}});
  }
  return {{"frames", stats.frames.load()},
          {"skipped", stats.skipped.load()},
          {"packets", packets},
          {"bytes", bytes},
          {"lateness_ms",
           {{"p50", stats.lateness.percentile_ms(0.5)},
            {"p99", stats.lateness.percentile_ms(0.99)},
            {"p99.9", stats.lateness.percentile_ms(0.999)},
            {"max", stats.lateness.most_ms()}}},
          {"controllers", std::move(controllers)}};
}

Outcome writeStats(const std::string& file, const Show& show, const engine::Player& player) {
  return writeFileAtomically(file, statsJson(show, player).dump(2) + "\n");
}

}  // namespace chispa::cli
