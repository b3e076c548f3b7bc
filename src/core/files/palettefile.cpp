// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/files/palettefile.h"

#include <algorithm>
#include <cmath>
#include <cstdio>

#include "core/base/utf8.h"
#include "core/colour/oklch.h"
#include "core/files/palettereaders.h"
#include "core/files/showfile.h"

namespace chispa {
namespace {

constexpr std::size_t kMaxStops = 1024;
constexpr std::size_t kMaxFileBytes = 4u << 20;

/// Of more stops than a palette has, evenly many, the first and the last among them.
void thinOut(std::vector<ColourStop>& stops) {
  if (stops.size() <= kMaxStops) return;
  std::vector<ColourStop> kept;
  for (std::size_t i = 0; i < kMaxStops; ++i) kept.push_back(stops[i * (stops.size() - 1) / (kMaxStops - 1)]);
  stops = std::move(kept);
}

/// Stops at equal distances, or as they say, from 0 to 1.
Result<Palette> finished(palettes::Draft draft) {
  Palette palette{PaletteId{}, asUtf8(draft.name), std::move(draft.stops)};
  if (palette.stops.empty())
    return Failure{draft.why.empty() ? Sentence("There is no palette in it.") : Sentence(draft.why),
                   draft.name, "Choose a .gpl, .ggr, .cpt, .svg or .css file with colours in it."};
  thinOut(palette.stops);
  const double count = static_cast<double>(palette.stops.size()) - 1;
  if (draft.isEven)
    for (std::size_t i = 0; i < palette.stops.size(); ++i)
      palette.stops[i].at = count > 0 ? static_cast<double>(i) / count : 0;
  for (ColourStop& stop : palette.stops) stop.at = std::isfinite(stop.at) ? std::clamp(stop.at, 0.0, 1.0) : 0;
  std::stable_sort(palette.stops.begin(), palette.stops.end(),
                   [](const ColourStop& a, const ColourStop& b) { return a.at < b.at; });
  return palette;
}

std::string line(const char* format, auto... values) {
  char text[256];
  std::snprintf(text, sizeof text, format, values...);
  return text;
}

}  // namespace

std::optional<PaletteFormat> paletteFormatOf(const std::filesystem::path& path) {
  const auto ending = path.extension();
  if (ending == ".gpl") return PaletteFormat::Gpl;
  if (ending == ".ggr") return PaletteFormat::Ggr;
  if (ending == ".cpt") return PaletteFormat::Cpt;
  if (ending == ".svg") return PaletteFormat::Svg;
  if (ending == ".css") return PaletteFormat::Css;
  return std::nullopt;
}

Result<Palette> parsePalette(const std::string& text, PaletteFormat format, const std::string& name) {
  palettes::Draft draft;
  draft.name = name;
  switch (format) {
    case PaletteFormat::Gpl:
      palettes::readGpl(text, draft);
      break;
    case PaletteFormat::Ggr:
      palettes::readGgr(text, draft);
      break;
    case PaletteFormat::Cpt:
      palettes::readCpt(text, draft);
      break;
    case PaletteFormat::Svg:
      palettes::readSvg(text, draft);
      break;
    case PaletteFormat::Css:
      palettes::readCss(text, draft);
      break;
  }
  return finished(std::move(draft));
}

Result<Palette> readPalette(const std::filesystem::path& path) {
  const auto format = paletteFormatOf(path);
  if (!format)
    return Failure{"The palette cannot be read.", path.string(),
                   "Choose a .gpl, .ggr, .cpt, .svg or .css file."};
  const auto text = readFile(path, kMaxFileBytes);
  if (!text) return text.failure();
  auto palette = parsePalette(*text, *format, path.stem().string());
  if (palette) return palette;
  Failure failure = palette.failure();
  failure.where = path.string();
  return failure;
}

std::string paletteText(const Palette& palette, PaletteFormat format) {
  std::string out;
  const auto stops = straightened(palette).stops;
  const auto eachPair = [&](auto write) {
    for (std::size_t i = 0; i + 1 < stops.size(); ++i) write(stops[i], stops[i + 1]);
    if (stops.size() == 1) write(ColourStop{0, stops[0].colour}, ColourStop{1, stops[0].colour});
  };
  switch (format) {
    case PaletteFormat::Gpl:
      out = "GIMP Palette\nName: " + palette.name + "\n#\n";
      for (const ColourStop& s : stops) out += line("%3d %3d %3d\n", s.colour.r, s.colour.g, s.colour.b);
      break;
    case PaletteFormat::Ggr:
      out = "GIMP Gradient\nName: " + palette.name + "\n" +
            std::to_string(std::max<std::size_t>(1, stops.size() - 1)) + "\n";
      eachPair([&](const ColourStop& a, const ColourStop& b) {
        out += line("%.6f %.6f %.6f %.6f %.6f %.6f 1 %.6f %.6f %.6f 1 0 0\n", a.at, (a.at + b.at) / 2, b.at,
                    a.colour.r / 255.0, a.colour.g / 255.0, a.colour.b / 255.0, b.colour.r / 255.0,
                    b.colour.g / 255.0, b.colour.b / 255.0);
      });
      break;
    case PaletteFormat::Cpt:
      eachPair([&](const ColourStop& a, const ColourStop& b) {
        out += line("%.6f %d/%d/%d %.6f %d/%d/%d\n", a.at, a.colour.r, a.colour.g, a.colour.b, b.at,
                    b.colour.r, b.colour.g, b.colour.b);
      });
      break;
    case PaletteFormat::Svg:
      out =
          "<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"512\" height=\"32\"><defs><linearGradient "
          "id=\"palette\">\n";
      for (const ColourStop& s : stops)
        out += line("<stop offset=\"%.6f\" stop-color=\"%s\"/>\n", s.at, hexText(s.colour).c_str());
      out += "</linearGradient></defs><rect width=\"512\" height=\"32\" fill=\"url(#palette)\"/></svg>\n";
      break;
    case PaletteFormat::Css:
      out = "background: linear-gradient(to right";
      for (const ColourStop& s : stops) out += line(", %s %.4f%%", hexText(s.colour).c_str(), s.at * 100);
      out += ");\n";
      break;
  }
  return out;
}

}  // namespace chispa
