// SPDX-License-Identifier: GPL-3.0-or-later
// Gradients of SVG drawings and CSS style sheets.
#include <algorithm>
#include <optional>

#include <pugixml.hpp>

#include "core/colour/colourtext.h"
#include "core/files/palettereaders.h"

namespace chispa::palettes {
namespace {

/// The value of a property in a style attribute.
std::string_view propertyOf(std::string_view style, std::string_view name) {
  while (!style.empty()) {
    const auto end = std::min(style.size(), style.find(';'));
    const auto one = style.substr(0, end);
    const auto colon = one.find(':');
    if (colon != std::string_view::npos && trimmed(one.substr(0, colon)) == name)
      return trimmed(one.substr(colon + 1));
    style.remove_prefix(std::min(style.size(), end + 1));
  }
  return {};
}

/// The inside of the bracket that opens at `open`; to the end of the text if it is never closed.
std::string_view insideOf(std::string_view text, std::size_t open) {
  int depth = 0;
  for (std::size_t i = open; i < text.size(); ++i) {
    if (text[i] == '(') ++depth;
    if (text[i] == ')' && --depth == 0) return text.substr(open + 1, i - open - 1);
  }
  return text.substr(open + 1);
}

/// Pieces between commas that stand in no bracket.
std::vector<std::string_view> argumentsOf(std::string_view text) {
  std::vector<std::string_view> pieces;
  int depth = 0;
  std::size_t begin = 0;
  for (std::size_t i = 0; i <= text.size(); ++i) {
    const char c = i < text.size() ? text[i] : ',';
    if (c == '(') ++depth;
    if (c == ')') --depth;
    if (i < text.size() && (c != ',' || depth > 0)) continue;
    pieces.push_back(trimmed(text.substr(begin, i - begin)));
    begin = i + 1;
  }
  return pieces;
}

struct CssStop {
  Srgb8 colour;
  std::optional<double> at;
};

/// A colour and up to two places, in any order of the two kinds; nothing for directions, hints and what is
/// not known.
std::vector<CssStop> stopsOf(std::string_view text) {
  // The colour ends behind its bracket, or at the first blank.
  const auto open = text.find('('), blank = text.find_first_of(" \t\r\n");
  const auto end = open != std::string_view::npos && (blank == std::string_view::npos || open < blank)
                       ? std::min(text.size(), open + insideOf(text, open).size() + 2)
                       : std::min(text.size(), blank);
  const auto colour = parseColour(text.substr(0, end));
  if (!colour) return {};
  std::vector<CssStop> stops;
  for (const auto place : wordsOf(text.substr(end))) {
    const auto number = leadingNumber(place);
    if (!number) continue;
    const double whole = place.ends_with('%')      ? 100
                         : place.ends_with("deg")  ? 360
                         : place.ends_with("turn") ? 1
                                                   : 0;
    if (whole > 0 || *number == 0) stops.push_back({*colour, whole > 0 ? *number / whole : 0});
  }
  if (stops.empty()) stops.push_back({*colour, std::nullopt});
  return stops;
}

/// CSS Images 3 §3.4.3: ends stand at 0 and 1, no stop before the one in front of it, and those without a
/// place evenly between their neighbours.
void placeStops(std::vector<CssStop>& stops) {
  if (!stops.front().at) stops.front().at = 0;
  if (!stops.back().at) stops.back().at = std::max(1.0, *stops.front().at);
  double least = *stops.front().at;
  for (CssStop& stop : stops)
    if (stop.at) least = *(stop.at = std::max(*stop.at, least));
  for (std::size_t i = 0; i + 1 < stops.size();) {
    std::size_t next = i + 1;
    while (!stops[next].at) ++next;
    for (std::size_t k = i + 1; k < next; ++k)
      stops[k].at = *stops[i].at + (*stops[next].at - *stops[i].at) * static_cast<double>(k - i) /
                                       static_cast<double>(next - i);
    i = next;
  }
}

}  // namespace

void readSvg(const std::string& text, Draft& draft) {
  pugi::xml_document document;
  if (!document.load_buffer(text.data(), text.size())) {
    draft.why = "The SVG is damaged.";
    return;
  }
  const auto isGradient = [](const pugi::xml_node& node) {
    const std::string_view name = node.name();
    return (name.ends_with("linearGradient") || name.ends_with("radialGradient")) &&
           std::any_of(node.begin(), node.end(), [](const pugi::xml_node& child) {
             return std::string_view(child.name()).ends_with("stop");
           });
  };
  const pugi::xml_node gradient = document.find_node(isGradient);
  if (const std::string id = gradient.attribute("id").as_string(); !id.empty()) draft.name = id;
  double least = 0;
  for (const pugi::xml_node stop : gradient.children()) {
    if (!std::string_view(stop.name()).ends_with("stop")) continue;
    const std::string_view offset = stop.attribute("offset").as_string("0");
    const auto styled = propertyOf(stop.attribute("style").as_string(), "stop-color");
    const std::string_view attribute = stop.attribute("stop-color").as_string("black");
    const auto colour = parseColour(styled.empty() ? attribute : styled);
    if (!colour) continue;
    least = std::max(least, leadingNumber(offset).value_or(0) / (offset.ends_with('%') ? 100 : 1));
    draft.add(least, *colour);
  }
}

void readCss(const std::string& text, Draft& draft) {
  const auto gradient = text.find("gradient(");
  if (gradient == std::string::npos) return;
  std::vector<CssStop> stops;
  for (const auto argument : argumentsOf(insideOf(text, gradient + 8)))
    for (const CssStop& stop : stopsOf(argument)) stops.push_back(stop);
  if (stops.empty()) return;
  placeStops(stops);
  for (const CssStop& stop : stops) draft.add(*stop.at, stop.colour);
}

}  // namespace chispa::palettes
