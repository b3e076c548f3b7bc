// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <cstdint>
#include <optional>
#include <string>
#include <string_view>

namespace chispa {

/// A colour in linear light: twice the number is twice the photons. 0–1 a channel, primaries of sRGB.
struct Rgb {
  float r = 0;
  float g = 0;
  float b = 0;

  bool operator==(const Rgb&) const = default;
};

/// A colour as screens and users write it: sRGB (IEC 61966-2-1), 0–255 a channel.
struct Srgb8 {
  std::uint8_t r = 0;
  std::uint8_t g = 0;
  std::uint8_t b = 0;

  bool operator==(const Srgb8&) const = default;
};

/// The transfer function of IEC 61966-2-1, both ways, for one channel 0–1.
float linearFromSrgb(float encoded);
float srgbFromLinear(float linear);

Rgb toLinear(Srgb8 colour);
Srgb8 toSrgb8(Rgb colour);

/// "#rrggbb", and back; nothing if the text is not of that form.
std::string hexText(Srgb8 colour);
std::optional<Srgb8> parseHex(std::string_view text);

/// OKLab (B. Ottosson, 2020): lightness 0–1 and two opponent axes; equal steps look equal.
struct OkLab {
  float lightness = 0;
  float a = 0;
  float b = 0;
};

OkLab toOkLab(Rgb colour);
/// The linear colour of an OKLab value; channels outside 0–1 are clipped.
Rgb fromOkLab(OkLab lab);

}  // namespace chispa
