// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/colour/palettefile.h"

#include <algorithm>
#include <cmath>
#include <cstdio>
#include <pugixml.hpp>
#include <regex>
#include <sstream>

#include "core/files/showfile.h"

namespace chispa {
namespace {

constexpr std::size_t kMostStops = 256;
constexpr std::size_t kMostBytes = 4u << 20;

std::uint8_t byteOf(double v) { return std::isfinite(v) ? static_cast<std::uint8_t>(std::lround(std::clamp(v, 0.0, 255.0))) : std::uint8_t{0}; }
Srgb8 colourOf(double r, double g, double b) { return {byteOf(r), byteOf(g), byteOf(b)}; }

std::vector<double> numbersOf(const std::string& text) {
  std::istringstream in(text);
  in.imbue(std::locale::classic());
  std::vector<double> numbers;
  for (double v; in >> v;) numbers.push_back(v);
  return numbers;
}

/// Stops at equal distances, or as they say, from 0 to 1.
Result<Palette> finished(Palette palette, bool isEven) {
  if (palette.stops.empty()) return Failure{"There is no palette in it.", palette.name, "Choose a .gpl, .ggr, .cpt, .svg or .css file with colours in it."};
  if (palette.stops.size() > kMostStops) palette.stops.resize(kMostStops);
  const double count = static_cast<double>(palette.stops.size()) - 1;
  if (isEven)
    for (std::size_t i = 0; i < palette.stops.size(); ++i) palette.stops[i].at = count > 0 ? static_cast<double>(i) / count : 0;
  for (ColourStop& stop : palette.stops) stop.at = std::isfinite(stop.at) ? std::clamp(stop.at, 0.0, 1.0) : 0;
  std::stable_sort(palette.stops.begin(), palette.stops.end(), [](const ColourStop& a, const ColourStop& b) { return a.at < b.at; });
  return palette;
}

Result<Palette> parseGpl(std::istringstream& in, Palette palette) {
  for (std::string line; std::getline(in, line);) {
    if (line.starts_with("Name:")) palette.name = std::regex_replace(line.substr(5), std::regex("^\\s+|\\s+$"), "");
    const auto numbers = numbersOf(line);
    if (numbers.size() >= 3) palette.stops.push_back({0, colourOf(numbers[0], numbers[1], numbers[2])});
  }
  return finished(std::move(palette), true);
}

/// Each segment: left, middle, right; four numbers 0–1 of the left colour, four of the right one, and how they are mixed.
Result<Palette> parseGgr(std::istringstream& in, Palette palette) {
  for (std::string line; std::getline(in, line);) {
    if (line.starts_with("Name:")) palette.name = std::regex_replace(line.substr(5), std::regex("^\\s+|\\s+$"), "");
    const auto n = numbersOf(line);
    if (n.size() < 11) continue;
    const Srgb8 left = colourOf(n[3] * 255, n[4] * 255, n[5] * 255);
    const Srgb8 right = colourOf(n[7] * 255, n[8] * 255, n[9] * 255);
    if (palette.stops.empty() || !(palette.stops.back() == ColourStop{n[0], left})) palette.stops.push_back({n[0], left});
    palette.stops.push_back({n[2], right});
  }
  return finished(std::move(palette), false);
}

/// Each line: a value and its colour, twice. Values may have any range.
Result<Palette> parseCpt(std::istringstream& in, Palette palette) {
  for (std::string line; std::getline(in, line);) {
    if (line.empty() || line[0] == '#' || std::isalpha(static_cast<unsigned char>(line[0]))) continue;
    std::replace(line.begin(), line.end(), '/', ' ');
    const auto n = numbersOf(line);
    if (n.size() < 8) continue;
    const ColourStop from{n[0], colourOf(n[1], n[2], n[3])};
    if (palette.stops.empty() || !(palette.stops.back() == from)) palette.stops.push_back(from);
    palette.stops.push_back({n[4], colourOf(n[5], n[6], n[7])});
  }
  if (palette.stops.size() > 1) {
    const double low = palette.stops.front().at;
    const double range = palette.stops.back().at - low;
    for (ColourStop& stop : palette.stops) stop.at = range != 0 ? (stop.at - low) / range : 0;
  }
  return finished(std::move(palette), false);
}

/// "#rgb", "#rrggbb" or "rgb(…)".
std::optional<Srgb8> cssColour(const std::string& text) {
  static const std::regex shortHex("#([0-9a-fA-F])([0-9a-fA-F])([0-9a-fA-F])(?![0-9a-fA-F])");
  static const std::regex longHex("#[0-9a-fA-F]{6}");
  static const std::regex rgb("rgba?\\(\\s*([0-9.]+)[\\s,]+([0-9.]+)[\\s,]+([0-9.]+)");
  std::smatch found;
  if (std::regex_search(text, found, longHex)) return parseHex(found.str());
  if (std::regex_search(text, found, shortHex)) return parseHex("#" + found.str(1) + found.str(1) + found.str(2) + found.str(2) + found.str(3) + found.str(3));
  if (std::regex_search(text, found, rgb)) return colourOf(std::atof(found.str(1).c_str()), std::atof(found.str(2).c_str()), std::atof(found.str(3).c_str()));
  return std::nullopt;
}

Result<Palette> parseSvg(const std::string& text, Palette palette) {
  pugi::xml_document document;
  if (!document.load_buffer(text.data(), text.size())) return Failure{"The SVG is damaged.", palette.name, "Export it anew."};
  const auto gradient = document.select_node("//*[local-name()='linearGradient' or local-name()='radialGradient'][*[local-name()='stop']]").node();
  if (const std::string id = gradient.attribute("id").as_string(); !id.empty()) palette.name = id;
  for (const pugi::xml_node stop : gradient.children()) {
    const std::string offset = stop.attribute("offset").as_string("0");
    const std::string colour = std::string(stop.attribute("stop-color").as_string()) + " " + stop.attribute("style").as_string();
    if (const auto found = cssColour(colour)) palette.stops.push_back({std::atof(offset.c_str()) / (offset.ends_with("%") ? 100 : 1), *found});
  }
  return finished(std::move(palette), false);
}

Result<Palette> parseCss(const std::string& text, Palette palette) {
  const auto from = text.find("gradient(");
  if (from == std::string::npos) return finished(std::move(palette), true);
  static const std::regex stop("(#[0-9a-fA-F]{3,8}|rgba?\\([^)]*\\))\\s*([0-9.]+%)?");
  bool isEven = true;
  const std::string body = text.substr(from, text.find(';', from) - from);
  for (auto at = std::sregex_iterator(body.begin(), body.end(), stop); at != std::sregex_iterator() && palette.stops.size() < kMostStops; ++at) {
    const auto colour = cssColour(at->str(1));
    if (!colour) continue;
    if ((*at)[2].matched) isEven = false;
    palette.stops.push_back({(*at)[2].matched ? std::atof(at->str(2).c_str()) / 100 : palette.stops.empty() ? 0 : 1, *colour});
  }
  return finished(std::move(palette), isEven);
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
  Palette palette;
  palette.name = name;
  std::istringstream in(text);
  switch (format) {
    case PaletteFormat::Gpl: return parseGpl(in, std::move(palette));
    case PaletteFormat::Ggr: return parseGgr(in, std::move(palette));
    case PaletteFormat::Cpt: return parseCpt(in, std::move(palette));
    case PaletteFormat::Svg: return parseSvg(text, std::move(palette));
    case PaletteFormat::Css: break;
  }
  return parseCss(text, std::move(palette));
}

Result<Palette> readPalette(const std::filesystem::path& path) {
  const auto format = paletteFormatOf(path);
  if (!format) return Failure{"The palette cannot be read.", path.string(), "Choose a .gpl, .ggr, .cpt, .svg or .css file."};
  const auto text = readFile(path, kMostBytes);
  if (!text) return text.failure();
  return parsePalette(*text, *format, path.stem().string());
}

std::string paletteText(const Palette& palette, PaletteFormat format) {
  std::string out;
  const auto& stops = palette.stops;
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
      out = "GIMP Gradient\nName: " + palette.name + "\n" + std::to_string(std::max<std::size_t>(1, stops.size() - 1)) + "\n";
      eachPair([&](const ColourStop& a, const ColourStop& b) {
        out += line("%.6f %.6f %.6f %.6f %.6f %.6f 1 %.6f %.6f %.6f 1 0 0\n", a.at, (a.at + b.at) / 2, b.at, a.colour.r / 255.0, a.colour.g / 255.0, a.colour.b / 255.0, b.colour.r / 255.0, b.colour.g / 255.0, b.colour.b / 255.0);
      });
      break;
    case PaletteFormat::Cpt:
      eachPair([&](const ColourStop& a, const ColourStop& b) { out += line("%.6f %d/%d/%d %.6f %d/%d/%d\n", a.at, a.colour.r, a.colour.g, a.colour.b, b.at, b.colour.r, b.colour.g, b.colour.b); });
      break;
    case PaletteFormat::Svg:
      out = "<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"512\" height=\"32\"><defs><linearGradient id=\"palette\">\n";
      for (const ColourStop& s : stops) out += line("<stop offset=\"%.6f\" stop-color=\"%s\"/>\n", s.at, hexText(s.colour).c_str());
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
