// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/wire/pack.h"

#include <algorithm>
#include <bit>
#include <cmath>
#include <map>
#include <tuple>

#include "core/base/clones.h"
#include "core/wire/echo.h"
#include "core/wire/wiresettings.h"

namespace chispa {
namespace {

/// Frames of dithering are counted at this step, whatever the output's own rate.
constexpr Micros kDitherStep{25'000};

std::uint8_t channelIndex(char letter) {
  switch (letter) {
    case 'R':
      return 0;
    case 'G':
      return 1;
    case 'B':
      return 2;
    default:
      return 3;
  }
}

/// The threshold that takes the nearest of two values.
constexpr std::uint8_t kNearest = 128;

/// Puts 4 bits in reverse order: 0, 8, 4, 12 …, so that thresholds in a row lie far apart.
constexpr std::uint32_t reversed4(std::uint32_t n) {
  return ((n & 1) << 3) | ((n & 2) << 1) | ((n & 4) >> 1) | ((n & 8) >> 3);
}

std::uint32_t frameOf(Micros t) {
  return static_cast<std::uint32_t>(t / kDitherStep);
}
constexpr std::uint32_t thresholdOf(std::uint32_t frame, std::uint32_t pixel) {
  return reversed4((frame + pixel * 7) & 15) * 16 + 8;
}

/// Pixels packed at a time.
constexpr std::size_t kBlock = 128;
using Row = std::array<float, kBlock>;
using Bytes = std::array<std::uint8_t, kBlock>;

/// One channel of `count` pixels from `first` on, one after the other or backwards, times `level`.
CHISPA_CLONES void takeRow(const std::vector<float>& channel, std::uint32_t first, std::int32_t step,
                           std::size_t count, float level, Row& row) noexcept {
  const float* from = channel.data() + first;
  if (step == 1) {
    for (std::size_t k = 0; k < count; ++k) row[k] = from[k] * level;
  } else {
    for (std::size_t k = 0; k < count; ++k) row[k] = from[static_cast<std::ptrdiff_t>(k) * step] * level;
  }
}

CHISPA_CLONES void ditherRow(std::uint32_t first, std::int32_t step, std::size_t count, Micros t,
                             Bytes& dither) noexcept {
  const std::uint32_t frame = frameOf(t);
  for (std::size_t k = 0; k < count; ++k)
    dither[k] = static_cast<std::uint8_t>(
        thresholdOf(frame, first + static_cast<std::uint32_t>(static_cast<std::int32_t>(k) * step)));
}

/// Chips next to each other, pixel by pixel, in the channel order of the strip.
CHISPA_CLONES void interleave3(const Bytes& a, const Bytes& b, const Bytes& c, std::size_t count,
                               std::uint8_t* __restrict out) noexcept {
  for (std::size_t k = 0; k < count; ++k) {
    out[3 * k] = a[k];
    out[3 * k + 1] = b[k];
    out[3 * k + 2] = c[k];
  }
}

}  // namespace

ResponseTable::ResponseTable(const Response& response)
    : isEven_(response.isEven()),
      digits_(response.points.empty() ? 7 : 11),
      restStep_(1.f / static_cast<float>(1 << (23 - digits_))),
      darkBelow_(static_cast<float>(response.darkBelow())),
      least_(static_cast<float>(response.least)) {
  if (isEven_) return;
  const std::size_t perPower = std::size_t{1} << digits_;
  const auto valueAt = [&](std::size_t i) {
    const double digits = static_cast<double>(i % perPower) / static_cast<double>(perPower);
    return response.bareValueOf(std::ldexp(1 + digits, kSmallest + static_cast<int>(i / perPower)));
  };
  // Full light is an entry of its own.
  const std::size_t entries = perPower * -kSmallest + 1;
  table_.reserve(entries);
  double from = valueAt(0);
  for (std::size_t i = 0; i < entries; ++i) {
    const double to = valueAt(i + 1);
    table_.push_back({static_cast<float>(from), static_cast<float>(to - from)});
    from = to;
  }
}

CHISPA_CLONES void ResponseTable::values(const float* light, const std::uint8_t* dither, std::size_t count,
                                         std::uint8_t* __restrict out) const noexcept {
  const auto written = [](float share, std::uint8_t threshold) {
    return static_cast<std::uint8_t>((static_cast<std::int32_t>(share * k256thsOfFull + 0.5f) + threshold) >>
                                     8);
  };
  if (isEven_) {
    for (std::size_t i = 0; i < count; ++i) out[i] = written(held(light[i]), dither[i]);
    return;
  }
  std::array<float, kBlock> shares;
  for (std::size_t first = 0; first < count; first += kBlock) {
    const std::size_t size = std::min(kBlock, count - first);
    for (std::size_t i = 0; i < size; ++i) shares[i] = fromTable(held(light[first + i]));
    for (std::size_t i = 0; i < size; ++i) out[first + i] = written(shares[i], dither[first + i]);
  }
}

std::uint32_t ditherAt(std::uint32_t pixel, Micros t) {
  return thresholdOf(frameOf(t), pixel);
}

Packer::Packer(const Show& show, const PixelMap& map, const Patch& patch, const PowerBudget& budget) {
  std::vector<Response> known;
  std::map<std::pair<int, int>, std::size_t> universeIndex;
  for (const PatchUniverse& universe : patch.universes) {
    universeIndex[{universe.controller, universe.universe}] = used_.size();
    used_.push_back(universe.channels);
  }
  std::map<std::tuple<int, int, int>, const PatchSpan*> firsts;
  for (const PatchSpan& span : patch.spans) {
    // An echo is sent what the first of the two is.
    const auto [first, isFirst] = firsts.try_emplace({span.controller, span.universe, span.channel}, &span);
    if (!isFirst && isEcho(show, *first->second, span)) continue;
    const auto range = map.rangeOf(span.fixture);
    const Fixture* fixture = find(show.fixtures, span.fixture);
    if (!range || !fixture) continue;
    const Port& port = show.controllers[static_cast<std::size_t>(span.controller)]
                           ->ports[static_cast<std::size_t>(span.port)];
    const ResolvedWire wire = resolveWire(stripTypeOf(show, *fixture), *fixture, port.settings,
                                          port.run[static_cast<std::size_t>(span.bead)].settings);
    const auto response = std::find(known.begin(), known.end(), wire.response);
    const auto responseIndex = static_cast<std::size_t>(response - known.begin());
    if (response == known.end()) {
      known.push_back(wire.response);
      responses_.emplace_back(wire.response);
    }
    Step step{};
    step.firstPixel = static_cast<std::uint32_t>(range->first + span.firstPixel);
    step.step = span.step;
    step.count = static_cast<std::uint32_t>(span.count);
    step.byte =
        static_cast<std::uint32_t>(universeIndex.at({span.controller, span.universe}) * kUniverseChannels) +
        static_cast<std::uint32_t>(span.channel - 1);
    step.channels = static_cast<std::uint8_t>(std::min<std::size_t>(wire.order.size(), 4));
    step.isWide = wire.bits == 16;
    step.response = static_cast<std::uint32_t>(responseIndex);
    step.brightness = static_cast<float>(wire.brightness);
    step.group = static_cast<std::uint32_t>(span.pixelsPerValue);
    step.pixels = static_cast<std::uint32_t>(span.pixels);
    step.firstByte = static_cast<std::uint8_t>(span.firstByte);
    step.bytes = static_cast<std::uint8_t>(span.bytes);
    step.powerGroup = budget.groupOf(span.controller, span.port, span.bead);
    for (std::size_t c = 0; c < step.channels; ++c) step.order[c] = channelIndex(wire.order[c]);
    step.mix = mixOf(stripTypeOf(show, *fixture), wire);
    steps_.push_back(step);
  }
}

void Packer::packPlain(const Step& step, const PixelFrame& frame, Micros t, float master, Dither ditherKind,
                       std::uint8_t* out) const noexcept {
  const ResponseTable& response = responses_[step.response];
  // Red, green, blue and white.
  std::array<Row, 4> light;
  std::array<Bytes, 4> values{};
  Bytes dither;
  dither.fill(kNearest);
  const std::size_t chips = step.mix.hasWhite ? 4 : 3;
  for (std::uint32_t done = 0; done < step.count; done += kBlock) {
    const std::size_t count = std::min<std::size_t>(kBlock, step.count - done);
    const std::uint32_t first = step.firstPixel + done * static_cast<std::uint32_t>(step.step);
    takeRow(frame.r, first, step.step, count, master, light[0]);
    takeRow(frame.g, first, step.step, count, master, light[1]);
    takeRow(frame.b, first, step.step, count, master, light[2]);
    step.mix.share(count, light[0].data(), light[1].data(), light[2].data(), light[3].data());
    if (ditherKind == Dither::OverTime) ditherRow(first, step.step, count, t, dither);
    for (std::size_t chip = 0; chip < chips; ++chip)
      response.values(light[chip].data(), dither.data(), count, values[chip].data());
    if (step.channels == 3) {
      interleave3(values[step.order[0]], values[step.order[1]], values[step.order[2]], count, out);
    } else {
      for (std::size_t k = 0; k < count; ++k)
        for (std::size_t c = 0; c < step.channels; ++c) out[k * step.channels + c] = values[step.order[c]][k];
    }
    out += count * step.channels;
  }
}

void Packer::packValues(const Step& step, const PixelFrame& frame, Micros t, float master, Dither ditherKind,
                        std::uint8_t* out) const noexcept {
  const ResponseTable& response = responses_[step.response];
  std::uint32_t left = step.pixels;
  std::uint32_t pixel = step.firstPixel;
  for (std::uint32_t i = 0; i < step.count; ++i) {
    // A group shows the mean of its pixels.
    const std::uint32_t group = std::min(step.group, left);
    const std::uint32_t first = pixel;
    float r = 0, g = 0, b = 0;
    for (std::uint32_t k = 0; k < group; ++k, pixel += static_cast<std::uint32_t>(step.step)) {
      r += frame.r[pixel];
      g += frame.g[pixel];
      b += frame.b[pixel];
    }
    left -= group;
    const float share = group > 0 ? master / static_cast<float>(group) : 0;
    const auto light = step.mix.light(r * share, g * share, b * share);
    const std::uint32_t threshold = ditherKind == Dither::OverTime ? ditherAt(first, t) : kNearest;
    std::array<std::uint8_t, 8> bytes{};
    std::size_t filled = 0;
    for (std::size_t c = 0; c < step.channels; ++c) {
      if (!step.isWide) {
        bytes[filled++] = response.value(light[step.order[c]], threshold);
        continue;
      }
      const std::uint16_t value = response.wideValue(light[step.order[c]]);
      bytes[filled++] = static_cast<std::uint8_t>(value >> 8);
      bytes[filled++] = static_cast<std::uint8_t>(value & 255);
    }
    out = std::copy_n(bytes.begin() + step.firstByte, step.bytes, out);
  }
}

void Packer::pack(const PixelFrame& frame, Micros t, float master, std::span<std::uint8_t> buffer,
                  std::span<const float> levels, Dither dither) const noexcept {
  for (const Step& step : steps_) {
    const bool isPlain = step.group == 1 && !step.isWide && step.bytes == step.channels;
    std::uint8_t* out = buffer.data() + step.byte;
    const float level = master * step.brightness * (levels.empty() ? 1.f : levels[step.powerGroup]);
    if (isPlain)
      packPlain(step, frame, t, level, dither, out);
    else
      packValues(step, frame, t, level, dither, out);
  }
}

std::array<std::uint8_t, 3> rgbValues(const PixelFrame& frame, std::size_t pixel, Micros t) {
  static const ResponseTable plain;
  const std::uint32_t dither = ditherAt(static_cast<std::uint32_t>(pixel), t);
  return {plain.value(frame.r[pixel], dither), plain.value(frame.g[pixel], dither),
          plain.value(frame.b[pixel], dither)};
}

}  // namespace chispa
