// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <filesystem>
#include <string>

#include "core/base/result.h"
#include "core/colour/palette.h"

namespace chispa {

/// Palettes as other programs keep them: GIMP palettes (.gpl) and gradients (.ggr), GMT colour tables (.cpt),
/// SVG and CSS gradients.
enum class PaletteFormat { Gpl, Ggr, Cpt, Svg, Css };

/// By the file's ending; nothing for others.
std::optional<PaletteFormat> paletteFormatOf(const std::filesystem::path& path);

/// Reads a palette, without an id; at most 1,024 stops. The name is the file's own, or `name` where it has
/// none.
Result<Palette> parsePalette(const std::string& text, PaletteFormat format, const std::string& name);
Result<Palette> readPalette(const std::filesystem::path& path);
std::string paletteText(const Palette& palette, PaletteFormat format);

}  // namespace chispa
