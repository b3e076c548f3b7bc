// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/colour/colourtext.h"

#include <algorithm>
#include <charconv>
#include <cmath>
#include <string>

extern "C" {
#include <libavutil/parseutils.h>
}

namespace chispa {
namespace {

constexpr std::string_view kBlanks = " \t\r\n\f\v";
constexpr std::size_t kLongestColour = 100;

bool isHexDigit(char c) {
  return (c >= '0' && c <= '9') || (c >= 'a' && c <= 'f') || (c >= 'A' && c <= 'F');
}

std::optional<Srgb8> hexColour(std::string_view digits) {
  if (!std::all_of(digits.begin(), digits.end(), isHexDigit)) return std::nullopt;
  if (digits.size() == 3 || digits.size() == 4) {
    std::string wide = "#";
    for (const char c : digits.substr(0, 3)) wide.append(2, c);
    return parseHex(wide);
  }
  if (digits.size() == 6 || digits.size() == 8) return parseHex("#" + std::string(digits.substr(0, 6)));
  return std::nullopt;
}

/// An argument of rgb() or hsl(): a number, as a share of `whole`, or a percentage.
std::optional<double> shareOf(std::string_view text, double whole) {
  const auto number = leadingNumber(text);
  if (!number) return std::nullopt;
  return *number / (text.ends_with('%') ? 100 : whole);
}

/// CSS Color Level 4 §7.1.
Srgb8 fromHsl(double hue_deg, double saturation, double lightness) {
  const double s = std::clamp(saturation, 0.0, 1.0), l = std::clamp(lightness, 0.0, 1.0);
  const auto channel = [&](double n) {
    const double k = std::fmod(std::fmod(n + hue_deg / 30, 12) + 12, 12);
    return byteOf(l - s * std::min(l, 1 - l) * std::max(-1.0, std::min({k - 3, 9 - k, 1.0})));
  };
  return {channel(0), channel(8), channel(4)};
}

std::optional<Srgb8> functionColour(std::string_view name, std::string_view inside) {
  std::vector<std::string> arguments;
  std::string spread(inside);
  std::replace_if(
      spread.begin(), spread.end(), [](char c) { return c == ',' || c == '/'; }, ' ');
  for (const auto word : wordsOf(spread)) arguments.emplace_back(word);
  if (arguments.size() < 3 || arguments.size() > 4) return std::nullopt;
  if (name == "rgb" || name == "rgba") {
    const auto r = shareOf(arguments[0], 255), g = shareOf(arguments[1], 255), b = shareOf(arguments[2], 255);
    return r && g && b ? std::optional(Srgb8{byteOf(*r), byteOf(*g), byteOf(*b)}) : std::nullopt;
  }
  if (name != "hsl" && name != "hsla") return std::nullopt;
  const auto hue = leadingNumber(arguments[0]);
  const auto s = shareOf(arguments[1], 100), l = shareOf(arguments[2], 100);
  const double turn = arguments[0].ends_with("turn")   ? 360
                      : arguments[0].ends_with("grad") ? 0.9
                      : arguments[0].ends_with("rad")  ? 180 / 3.14159265358979
                                                       : 1;
  return hue && s && l ? std::optional(fromHsl(*hue * turn, *s, *l)) : std::nullopt;
}

std::optional<Srgb8> namedColour(std::string name) {
  for (const char* grey : {"gray", "grey"})
    if (name.starts_with(grey) && name.size() > 4) {
      const auto level = leadingNumber(std::string_view(name).substr(4));
      if (level && *level >= 0 && *level <= 100 && std::isdigit(static_cast<unsigned char>(name[4])))
        return Srgb8{byteOf(*level / 100), byteOf(*level / 100), byteOf(*level / 100)};
      name[2] = 'a';
    }
  if (name == "grey") name = "gray";
  if (name == "rebeccapurple") return Srgb8{102, 51, 153};
  // FFmpeg knows the names, and two more that are none.
  const bool isName =
      !name.empty() && std::all_of(name.begin(), name.end(), [](char c) { return c >= 'a' && c <= 'z'; });
  std::uint8_t rgba[4];
  if (!isName || name == "random" || name == "bikeshed" ||
      av_parse_color(rgba, name.c_str(), -1, nullptr) < 0)
    return std::nullopt;
  return Srgb8{rgba[0], rgba[1], rgba[2]};
}

}  // namespace

std::uint8_t byteOf(double share) {
  return static_cast<std::uint8_t>(
      std::lround(std::clamp(std::isfinite(share) ? share : 0.0, 0.0, 1.0) * 255));
}

std::string_view trimmed(std::string_view text) {
  const auto from = text.find_first_not_of(kBlanks);
  if (from == std::string_view::npos) return {};
  return text.substr(from, text.find_last_not_of(kBlanks) - from + 1);
}

std::vector<std::string_view> wordsOf(std::string_view text) {
  std::vector<std::string_view> words;
  for (std::size_t at = text.find_first_not_of(kBlanks); at != std::string_view::npos;
       at = text.find_first_not_of(kBlanks, at)) {
    const auto end = std::min(text.size(), text.find_first_of(kBlanks, at));
    words.push_back(text.substr(at, end - at));
    at = end;
  }
  return words;
}

std::optional<double> leadingNumber(std::string_view text) {
  if (text.starts_with('+')) text.remove_prefix(1);
  double value = 0;
  const auto [end, error] = std::from_chars(text.data(), text.data() + text.size(), value);
  if (error != std::errc() || !std::isfinite(value)) return std::nullopt;
  return value;
}

std::vector<double> leadingNumbers(std::string_view text) {
  std::vector<double> numbers;
  std::string spread(text);
  std::replace_if(
      spread.begin(), spread.end(), [](char c) { return c == ',' || c == '/'; }, ' ');
  for (const auto word : wordsOf(spread)) {
    const auto number = leadingNumber(word);
    if (!number) break;
    numbers.push_back(*number);
  }
  return numbers;
}

Srgb8 fromHsv(double hue_deg, double saturation, double value) {
  const double s = std::clamp(saturation, 0.0, 1.0), v = std::clamp(value, 0.0, 1.0);
  const auto channel = [&](double n) {
    const double k = std::fmod(std::fmod(n + hue_deg / 60, 6) + 6, 6);
    return byteOf(v - v * s * std::max(0.0, std::min({k, 4 - k, 1.0})));
  };
  return {channel(5), channel(3), channel(1)};
}

std::optional<Srgb8> parseColour(std::string_view text) {
  text = trimmed(text);
  if (text.empty() || text.size() > kLongestColour) return std::nullopt;
  if (text[0] == '#') return hexColour(text.substr(1));
  std::string lower(text);
  std::transform(lower.begin(), lower.end(), lower.begin(),
                 [](char c) { return c >= 'A' && c <= 'Z' ? static_cast<char>(c - 'A' + 'a') : c; });
  const auto open = lower.find('(');
  if (open != std::string::npos && lower.ends_with(')'))
    return functionColour(trimmed(std::string_view(lower).substr(0, open)),
                          std::string_view(lower).substr(open + 1, lower.size() - open - 2));
  return namedColour(lower);
}

}  // namespace chispa
