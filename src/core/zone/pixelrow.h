// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <cstdint>
#include <string>
#include <variant>
#include <vector>

#include "core/show/show.h"
#include "core/zone/pixelmap.h"

namespace chispa {

/// Pixels in a row: a fixture's in data order, or a zone's in playing order.
using PixelRow = std::variant<FixtureId, ZoneId>;

/// Their numbers in `map`; none if it is gone.
std::vector<std::uint32_t> pixelsOf(const Show& show, const PixelMap& map, const PixelRow& row);
/// The name of the fixture or the zone; empty if it is gone.
std::string nameOf(const Show& show, const PixelRow& row);

}  // namespace chispa
