// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/render/laying.h"

#include <algorithm>

#include "core/base/multiversion.h"
#include "core/colour/lightness.h"

namespace chispa {
namespace {

/// One channel of light on pixels in a row.
CHISPA_MULTIVERSION void layChannel(const float* light, const float* coverage, std::size_t count,
                                    float* __restrict pixels) noexcept {
  for (std::size_t i = 0; i < count; ++i) {
    const float sum = light[i] + pixels[i] * (1 - coverage[i]);
    pixels[i] = sum < 1 ? sum : 1;
  }
}

CHISPA_MULTIVERSION void putChannel(const float* light, std::size_t count,
                                    float* __restrict pixels) noexcept {
  for (std::size_t i = 0; i < count; ++i) pixels[i] = light[i] < 1 ? light[i] : 1;
}

}  // namespace

void putOnPixels(const LightBuffer& light, const ZoneCells& cells, const CellRange& range,
                 PixelFrame& frame) noexcept {
  const std::size_t pixel = cells.pixels[range.first];
  putChannel(light.r.data(), range.count, &frame.r[pixel]);
  putChannel(light.g.data(), range.count, &frame.g[pixel]);
  putChannel(light.b.data(), range.count, &frame.b[pixel]);
}

void clearPixels(std::size_t first, std::size_t count, PixelFrame& frame) noexcept {
  for (auto* channel : {&frame.r, &frame.g, &frame.b})
    std::fill_n(channel->begin() + static_cast<std::ptrdiff_t>(first), count, 0.f);
}

void layOnPixels(const LightBuffer& light, const ZoneCells& cells, const CellRange& range,
                 PixelFrame& frame) noexcept {
  if (cells.isPlain) {
    const std::size_t pixel = cells.pixels[range.first];
    layChannel(light.r.data(), light.a.data(), range.count, &frame.r[pixel]);
    layChannel(light.g.data(), light.a.data(), range.count, &frame.g[pixel]);
    layChannel(light.b.data(), light.a.data(), range.count, &frame.b[pixel]);
    return;
  }
  for (std::size_t i = 0; i < range.count; ++i) {
    const float clear = 1 - light.a[i];
    const std::size_t cell = range.first + i;
    for (std::uint32_t p = cells.firstPixel[cell]; p < cells.firstPixel[cell + 1]; ++p) {
      const std::uint32_t pixel = cells.pixels[p];
      frame.r[pixel] = std::min(1.f, light.r[i] + frame.r[pixel] * clear);
      frame.g[pixel] = std::min(1.f, light.g[i] + frame.g[pixel] * clear);
      frame.b[pixel] = std::min(1.f, light.b[i] + frame.b[pixel] * clear);
    }
  }
}

void blendOnPixels(const LightBuffer& light, const ZoneCells& cells, const CellRange& range, Blend blend,
                   float strength, PixelFrame& frame) noexcept {
  if (cells.isPlain) {
    const std::size_t pixel = cells.pixels[range.first];
    return blendOntoFrame({&frame.r[pixel], &frame.g[pixel], &frame.b[pixel]}, light, 0, range.count, blend,
                          strength);
  }
  // The pixels of a cell may lie over different light.
  for (std::size_t i = 0; i < range.count; ++i) {
    const std::size_t cell = range.first + i;
    for (std::uint32_t p = cells.firstPixel[cell]; p < cells.firstPixel[cell + 1]; ++p) {
      const std::uint32_t pixel = cells.pixels[p];
      blendOntoFrame({&frame.r[pixel], &frame.g[pixel], &frame.b[pixel]}, light, i, 1, blend, strength);
    }
  }
}

CHISPA_MULTIVERSION void scale(LightBuffer& light, std::size_t count, float share) noexcept {
  for (auto* channel : {&light.r, &light.g, &light.b, &light.a})
    for (std::size_t i = 0; i < count; ++i) (*channel)[i] *= share;
}

namespace {

CHISPA_MULTIVERSION void mixInLight(const float* from, float share, std::size_t count,
                                    float* __restrict to) noexcept {
  for (std::size_t i = 0; i < count; ++i) to[i] = from[i] + (to[i] - from[i]) * share;
}

CHISPA_MULTIVERSION void mixToTheEye(const float* from, float share, std::size_t count,
                                     float* __restrict to) noexcept {
  for (std::size_t i = 0; i < count; ++i) {
    const float old = lightnessOf(from[i]);
    to[i] = lightOfLightness(old + (lightnessOf(to[i]) - old) * share);
  }
}

void mixChannel(const std::vector<float>& from, float share, Evenness evenness, std::size_t count,
                std::vector<float>& to) noexcept {
  if (evenness == Evenness::InLight)
    mixInLight(from.data(), share, count, to.data());
  else
    mixToTheEye(from.data(), share, count, to.data());
}

}  // namespace

void mixFrames(const PixelFrame& from, float share, Evenness evenness, PixelFrame& to) noexcept {
  mixChannel(from.r, share, evenness, to.size(), to.r);
  mixChannel(from.g, share, evenness, to.size(), to.g);
  mixChannel(from.b, share, evenness, to.size(), to.b);
}

void mixLight(const LightBuffer& from, float share, Evenness evenness, std::size_t count,
              LightBuffer& to) noexcept {
  mixChannel(from.r, share, evenness, count, to.r);
  mixChannel(from.g, share, evenness, count, to.g);
  mixChannel(from.b, share, evenness, count, to.b);
  // What is seen through is neither bright nor dark.
  mixInLight(from.a.data(), share, count, to.a.data());
}

}  // namespace chispa
