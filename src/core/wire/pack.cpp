// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/wire/pack.h"

#include <algorithm>
#include <cmath>
#include <map>

namespace chispa {
namespace {

/// Frames of dithering are counted at this step, whatever the output's own rate.
constexpr Micros kDitherStep{25'000};

std::uint8_t channelIndex(char letter) {
  switch (letter) {
    case 'R': return 0;
    case 'G': return 1;
    case 'B': return 2;
    default: return 3;
  }
}

/// Puts 4 bits in reverse order: 0, 8, 4, 12 …, so that thresholds in a row lie far apart.
constexpr std::uint32_t reversed4(std::uint32_t n) {
  return ((n & 1) << 3) | ((n & 2) << 1) | ((n & 4) >> 1) | ((n & 8) >> 3);
}

}  // namespace

ResponseTable::ResponseTable(double response) {
  for (int i = 0; i <= kSteps; ++i) {
    const double share = std::pow(static_cast<double>(i) / kSteps, 1 / std::max(0.1, response));
    table_[static_cast<std::size_t>(i)] = static_cast<std::uint16_t>(std::lround(share * 255 * 256));
  }
}

std::uint32_t ditherAt(std::uint32_t pixel, Micros t) {
  const auto frame = static_cast<std::uint32_t>(t / kDitherStep);
  return reversed4((frame + pixel * 7) & 15) * 16 + 8;
}

Packer::Packer(const Show& show, const PixelMap& map, const Patch& patch) {
  std::map<double, std::uint8_t> responseIndex;
  std::map<std::pair<int, int>, std::size_t> universeIndex;
  for (const PatchUniverse& universe : patch.universes) {
    universeIndex[{universe.controller, universe.universe}] = used_.size();
    used_.push_back(universe.channels);
  }
  for (const PatchSpan& span : patch.spans) {
    const auto range = map.rangeOf(span.fixture);
    const Fixture* fixture = find(show.fixtures, span.fixture);
    if (!range || !fixture) continue;
    const StripType& strip = stripTypeOf(show, *fixture);
    const auto [response, isNew] =
        responseIndex.try_emplace(strip.response, static_cast<std::uint8_t>(responses_.size()));
    if (isNew) responses_.emplace_back(strip.response);
    Step step{};
    step.firstPixel = static_cast<std::uint32_t>(range->first + span.firstPixel);
    step.step = span.step;
    step.count = static_cast<std::uint32_t>(span.count);
    step.byte = static_cast<std::uint32_t>(universeIndex.at({span.controller, span.universe}) * kUniverseChannels) +
                static_cast<std::uint32_t>(span.channel - 1);
    step.channels = static_cast<std::uint8_t>(std::min(strip.channels(), 4));
    step.isWide = strip.channelBits == 16;
    step.response = response->second;
    for (std::size_t c = 0; c < step.channels; ++c)
      step.order[c] = c < strip.order.size() ? channelIndex(strip.order[c]) : 0;
    step.hasWhite = strip.order.find('W') != std::string::npos;
    steps_.push_back(step);
  }
}

void Packer::packStep(const Step& step, const PixelFrame& frame, Micros t, float master,
                      std::uint8_t* out) const noexcept {
  const ResponseTable& response = responses_[step.response];
  std::uint32_t pixel = step.firstPixel;
  for (std::uint32_t i = 0; i < step.count; ++i, pixel += static_cast<std::uint32_t>(step.step)) {
    std::array<float, 4> light = {frame.r[pixel] * master, frame.g[pixel] * master, frame.b[pixel] * master, 0};
    if (step.hasWhite) {
      // What all three have in common is what the white chip is for.
      light[3] = std::min({light[0], light[1], light[2]});
      for (std::size_t c = 0; c < 3; ++c) light[c] -= light[3];
    }
    if (step.isWide) {
      for (std::size_t c = 0; c < step.channels; ++c, out += 2) {
        const std::uint16_t value = response.wideValue(light[step.order[c]]);
        out[0] = static_cast<std::uint8_t>(value >> 8);
        out[1] = static_cast<std::uint8_t>(value & 255);
      }
      continue;
    }
    const std::uint32_t dither = ditherAt(pixel, t);
    for (std::size_t c = 0; c < step.channels; ++c) *out++ = response.value(light[step.order[c]], dither);
  }
}

void Packer::pack(const PixelFrame& frame, Micros t, float master, std::span<std::uint8_t> buffer) const noexcept {
  for (const Step& step : steps_) packStep(step, frame, t, master, buffer.data() + step.byte);
}

std::array<std::uint8_t, 3> rgbValues(const PixelFrame& frame, std::size_t pixel, Micros t) {
  static const ResponseTable plain;
  const std::uint32_t dither = ditherAt(static_cast<std::uint32_t>(pixel), t);
  return {plain.value(frame.r[pixel], dither), plain.value(frame.g[pixel], dither),
          plain.value(frame.b[pixel], dither)};
}

}  // namespace chispa
