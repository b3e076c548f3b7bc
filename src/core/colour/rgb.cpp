// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/colour/rgb.h"

#include <algorithm>
#include <charconv>
#include <cmath>
#include <cstdio>

namespace chispa {

float linearFromSrgb(float encoded) {
  return encoded <= 0.04045f ? encoded / 12.92f : std::pow((encoded + 0.055f) / 1.055f, 2.4f);
}

float srgbFromLinear(float linear) {
  return linear <= 0.0031308f ? linear * 12.92f : 1.055f * std::pow(linear, 1 / 2.4f) - 0.055f;
}

Rgb toLinear(Srgb8 c) {
  return {linearFromSrgb(static_cast<float>(c.r) / 255.f), linearFromSrgb(static_cast<float>(c.g) / 255.f),
          linearFromSrgb(static_cast<float>(c.b) / 255.f)};
}

Srgb8 toSrgb8(Rgb c) {
  const auto byte = [](float v) {
    return static_cast<std::uint8_t>(std::lround(255.f * srgbFromLinear(std::clamp(v, 0.f, 1.f))));
  };
  return {byte(c.r), byte(c.g), byte(c.b)};
}

std::string hexText(Srgb8 c) {
  char text[8];
  std::snprintf(text, sizeof text, "#%02x%02x%02x", c.r, c.g, c.b);
  return text;
}

std::optional<Srgb8> parseHex(std::string_view text) {
  if (text.size() != 7 || text[0] != '#') return std::nullopt;
  unsigned value = 0;
  const auto [end, error] = std::from_chars(text.data() + 1, text.data() + 7, value, 16);
  if (error != std::errc() || end != text.data() + 7) return std::nullopt;
  return Srgb8{static_cast<std::uint8_t>(value >> 16), static_cast<std::uint8_t>(value >> 8 & 255),
               static_cast<std::uint8_t>(value & 255)};
}

// The two matrices and the cube root are those of Ottosson's definition.
OkLab toOkLab(Rgb c) {
  const float l = std::cbrt(0.4122214708f * c.r + 0.5363325363f * c.g + 0.0514459929f * c.b);
  const float m = std::cbrt(0.2119034982f * c.r + 0.6806995451f * c.g + 0.1073969566f * c.b);
  const float s = std::cbrt(0.0883024619f * c.r + 0.2817188376f * c.g + 0.6299787005f * c.b);
  return {0.2104542553f * l + 0.7936177850f * m - 0.0040720468f * s,
          1.9779984951f * l - 2.4285922050f * m + 0.4505937099f * s,
          0.0259040371f * l + 0.7827717662f * m - 0.8086757660f * s};
}

Rgb fromOkLab(OkLab lab) {
  const auto cube = [](float v) { return v * v * v; };
  const float l = cube(lab.lightness + 0.3963377774f * lab.a + 0.2158037573f * lab.b);
  const float m = cube(lab.lightness - 0.1055613458f * lab.a - 0.0638541728f * lab.b);
  const float s = cube(lab.lightness - 0.0894841775f * lab.a - 1.2914855480f * lab.b);
  const auto clip = [](float v) { return std::clamp(v, 0.f, 1.f); };
  return {clip(4.0767416621f * l - 3.3077115913f * m + 0.2309699292f * s),
          clip(-1.2684380046f * l + 2.6097574011f * m - 0.3413193965f * s),
          clip(-0.0041960863f * l - 0.7034186147f * m + 1.7076147010f * s)};
}

}  // namespace chispa
