// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <string>

#include <nlohmann/json_fwd.hpp>

#include "core/base/result.h"
#include "engine/player.h"

namespace chispa::cli {

/// Figures of the output: frames, packets, bytes, lateness in ms, send errors by controller.
nlohmann::ordered_json statsJson(const Show& show, const engine::Player& player);
Outcome writeStats(const std::string& file, const Show& show, const engine::Player& player);

}  // namespace chispa::cli
