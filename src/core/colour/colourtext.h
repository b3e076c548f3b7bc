// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <cstdint>
#include <optional>
#include <string_view>
#include <vector>

#include "core/colour/rgb.h"

namespace chispa {

/// A colour as CSS Color Level 4 writes it: a name (§6.1), #rgb, #rgba, #rrggbb, #rrggbbaa (§5.2), rgb(),
/// rgba() (§5.1), hsl(), hsla() (§7). Also X11's grey0 … grey100. How clear it is is not told. Nothing if it
/// is none of these.
std::optional<Srgb8> parseColour(std::string_view text);

/// A share of full light as a byte, rounded: below 0 or no number is 0, above 1 is 255.
std::uint8_t byteOf(double share);

/// Hue in degrees (any), saturation and value 0–1, as a colour.
Srgb8 fromHsv(double hue_deg, double saturation, double value);

/// The numbers of a text that are parted by blanks, commas or slashes, up to the first word that is none.
std::vector<double> leadingNumbers(std::string_view text);
/// The number at the beginning of a text; nothing if there is none, or no finite one.
std::optional<double> leadingNumber(std::string_view text);
/// Without blanks at both ends.
std::string_view trimmed(std::string_view text);
/// Pieces between blanks.
std::vector<std::string_view> wordsOf(std::string_view text);

}  // namespace chispa
