// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/wire/pack.h"

#include <algorithm>
#include <bit>
#include <cmath>
#include <map>
#include <tuple>

#include "core/base/multiversion.h"
#include "core/wire/echo.h"
#include "core/wire/wiresettings.h"

namespace chispa {
namespace {

/// The threshold that takes the nearest of two values.
constexpr std::uint8_t kNearest = 128;

/// Pixels packed at a time.
constexpr std::size_t kBlock = DitherTables::kRepeated;
using Row = std::array<float, kBlock>;
using Bytes = std::array<std::uint8_t, kBlock>;

/// One channel of `count` pixels from `first` on, one after the other or backwards, times `level`.
CHISPA_MULTIVERSION void takeRow(const std::vector<float>& channel, std::uint32_t first, std::int32_t step,
                                 std::size_t count, float level, Row& row) noexcept {
  const float* from = channel.data() + first;
  if (step == 1) {
    for (std::size_t k = 0; k < count; ++k) row[k] = from[k] * level;
  } else {
    for (std::size_t k = 0; k < count; ++k) row[k] = from[static_cast<std::ptrdiff_t>(k) * step] * level;
  }
}

/// Chips next to each other, pixel by pixel, in the channel order of the strip.
CHISPA_MULTIVERSION void interleave3(const Bytes& a, const Bytes& b, const Bytes& c, std::size_t count,
                                     std::uint8_t* __restrict out) noexcept {
  for (std::size_t k = 0; k < count; ++k) {
    out[3 * k] = a[k];
    out[3 * k + 1] = b[k];
    out[3 * k + 2] = c[k];
  }
}

}  // namespace

namespace {

/// The value, as a share of the largest, whose light is `light`: as it is, or between two of 8 bits by how
/// far `light` is from the light of one to that of the other.
double shownValue(const Response& response, int bits, double light) {
  const double value = response.bareValueOf(light);
  if (bits != 8) return value;
  const double below = std::min(254.0, std::floor(value * 255));
  const double from = response.bareLightOf(below / 255);
  const double to = response.bareLightOf((below + 1) / 255);
  return (below + (to > from ? std::clamp((light - from) / (to - from), 0.0, 1.0) : 1)) / 255;
}

/// The smallest value that lights, among those that there are.
double leastValue(const Response& response, int bits) {
  const double most = bits == 8 ? 255 : 65535;
  return std::ceil(response.least * most - 1e-9) / most;
}

}  // namespace

ResponseTable::ResponseTable(const Response& response, int bits)
    : isEven_(response.isEven()),
      digits_(response.points.empty() ? 7 : 11),
      restStep_(1.f / static_cast<float>(1 << (23 - digits_))),
      darkBelow_(static_cast<float>(shownValue(response, bits, response.bareLightOf(response.darkBelow())))),
      least_(static_cast<float>(leastValue(response, bits))) {
  if (isEven_) return;
  const std::size_t perPower = std::size_t{1} << digits_;
  const auto valueAt = [&](std::size_t i) {
    const double digits = static_cast<double>(i % perPower) / static_cast<double>(perPower);
    return shownValue(response, bits, std::ldexp(1 + digits, kSmallest + static_cast<int>(i / perPower)));
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

CHISPA_MULTIVERSION void ResponseTable::values(const float* light, const std::uint8_t* thresholds,
                                               std::size_t count,
                                               std::uint8_t* __restrict out) const noexcept {
  const auto written = [](float share, std::uint8_t threshold) {
    return static_cast<std::uint8_t>((static_cast<std::int32_t>(share * k256thsOfFull + 0.5f) + threshold) >>
                                     8);
  };
  if (isEven_) {
    for (std::size_t i = 0; i < count; ++i) out[i] = written(held(light[i]), thresholds[i]);
    return;
  }
  std::array<float, kBlock> shares;
  for (std::size_t first = 0; first < count; first += kBlock) {
    const std::size_t size = std::min(kBlock, count - first);
    for (std::size_t i = 0; i < size; ++i) shares[i] = fromTable(held(light[first + i]));
    for (std::size_t i = 0; i < size; ++i) out[first + i] = written(shares[i], thresholds[first + i]);
  }
}

Packer::Packer(const Show& show, const PixelMap& map, const Patch& patch, const PowerBudget& budget)
    : places_(ditherPlaces(show, map)) {
  std::vector<std::pair<Response, int>> known;
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
    const Controller& controller = *show.controllers[static_cast<std::size_t>(span.controller)];
    const Port& port = controller.ports[static_cast<std::size_t>(span.port)];
    const ResolvedWire wire = resolveWire(stripTypeOf(show, *fixture), *fixture, port.settings,
                                          port.run[static_cast<std::size_t>(span.bead)].settings);
    const std::pair asked(wire.response, wire.bits);
    const auto response = std::find(known.begin(), known.end(), asked);
    const auto responseIndex = static_cast<std::size_t>(response - known.begin());
    if (response == known.end()) {
      known.push_back(asked);
      responses_.emplace_back(wire.response, wire.bits);
    }
    Step step{};
    step.firstPixel = static_cast<std::uint32_t>(range->first + span.firstPixel);
    step.step = span.step;
    step.count = static_cast<std::uint32_t>(span.count);
    step.byte =
        static_cast<std::uint32_t>(universeIndex.at({span.controller, span.universe}) * kUniverseChannels) +
        static_cast<std::uint32_t>(span.channel - 1);
    step.channels = static_cast<std::uint8_t>(std::min(wire.order.size(), kChips));
    step.isWide = wire.bits == 16;
    step.response = static_cast<std::uint32_t>(responseIndex);
    step.brightness = static_cast<float>(wire.brightness);
    step.group = static_cast<std::uint32_t>(span.pixelsPerValue);
    step.pixels = static_cast<std::uint32_t>(span.pixels);
    step.firstByte = static_cast<std::uint8_t>(span.firstByte);
    step.bytes = static_cast<std::uint8_t>(span.bytes);
    step.powerGroup = budget.groupOf(span.controller, span.port, span.bead);
    for (std::size_t c = 0; c < step.channels; ++c)
      step.order[c] = static_cast<std::uint8_t>(kChipLetters.find(wire.order[c]));
    step.mix = mixOf(stripTypeOf(show, *fixture), wire);
    step.controller = static_cast<std::uint32_t>(span.controller);
    step.dithers = controller.dithers;
    step.isLine = step.step == 1 && isLine(step.firstPixel, step.count);
    steps_.push_back(step);
  }
}

bool Packer::isLine(std::size_t first, std::size_t count) const {
  for (std::size_t i = first + 1; i < std::min(first + count, places_.size()); ++i)
    if (!DitherTables::isNext(places_[i - 1], places_[i])) return false;
  return true;
}

/// Thresholds of `count` pixels in a row, no more than kBlock: in the tables themselves, or gathered in
/// `room`.
const std::uint8_t* Packer::thresholds(const Step& step, std::uint32_t first, std::size_t count,
                                       DitherFrame dither, int channel,
                                       std::span<std::uint8_t> room) const noexcept {
  const DitherTables::Plane& plane = tables_.plane(dither, channel);
  if (step.isLine) return &plane[places_[first]];
  for (std::size_t k = 0; k < count; ++k)
    room[k] = plane[places_[first + static_cast<std::uint32_t>(static_cast<std::int32_t>(k) * step.step)]];
  return room.data();
}

void Packer::packPlain(const Step& step, const PixelFrame& frame, DitherFrame dither, float master,
                       std::uint8_t* out) const noexcept {
  const ResponseTable& response = responses_[step.response];
  std::array<Row, kChips> light;
  std::array<Bytes, kChips> values{};
  Bytes room;
  room.fill(kNearest);
  const std::size_t chips = step.mix.chipCount();
  for (std::uint32_t done = 0; done < step.count; done += kBlock) {
    const std::size_t count = std::min<std::size_t>(kBlock, step.count - done);
    const std::uint32_t first = step.firstPixel + done * static_cast<std::uint32_t>(step.step);
    takeRow(frame.r, first, step.step, count, master, light[0]);
    takeRow(frame.g, first, step.step, count, master, light[1]);
    takeRow(frame.b, first, step.step, count, master, light[2]);
    step.mix.share(count, light[0].data(), light[1].data(), light[2].data(), light[3].data(),
                   light[4].data());
    for (std::size_t chip = 0; chip < chips; ++chip) {
      const std::uint8_t* threshold =
          dither.period == 0 ? room.data()
                             : thresholds(step, first, count, dither, static_cast<int>(chip), room);
      response.values(light[chip].data(), threshold, count, values[chip].data());
    }
    if (step.channels == 3) {
      interleave3(values[step.order[0]], values[step.order[1]], values[step.order[2]], count, out);
    } else {
      for (std::size_t k = 0; k < count; ++k)
        for (std::size_t c = 0; c < step.channels; ++c) out[k * step.channels + c] = values[step.order[c]][k];
    }
    out += count * step.channels;
  }
}

void Packer::packValues(const Step& step, const PixelFrame& frame, DitherFrame dither, float master,
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
    std::array<std::uint8_t, 2 * kChips> bytes{};
    std::size_t filled = 0;
    for (std::size_t c = 0; c < step.channels; ++c) {
      const std::size_t chip = step.order[c];
      if (!step.isWide) {
        const std::uint32_t threshold =
            dither.period == 0 ? kNearest : tables_.plane(dither, static_cast<int>(chip))[places_[first]];
        bytes[filled++] = response.value(light[chip], threshold);
        continue;
      }
      const std::uint16_t value = response.wideValue(light[chip]);
      bytes[filled++] = static_cast<std::uint8_t>(value >> 8);
      bytes[filled++] = static_cast<std::uint8_t>(value & 255);
    }
    out = std::copy_n(bytes.begin() + step.firstByte, step.bytes, out);
  }
}

void Packer::packStep(const Step& step, const PixelFrame& frame, DitherFrame dither, float master,
                      std::span<std::uint8_t> buffer, std::span<const float> levels) const noexcept {
  if (!step.dithers) dither = {};
  const bool isPlain = step.group == 1 && !step.isWide && step.bytes == step.channels;
  std::uint8_t* out = buffer.data() + step.byte;
  const float level = master * step.brightness * (levels.empty() ? 1.f : levels[step.powerGroup]);
  if (isPlain)
    packPlain(step, frame, dither, level, out);
  else
    packValues(step, frame, dither, level, out);
}

void Packer::pack(const PixelFrame& frame, std::span<const DitherFrame> dither, float master,
                  std::span<std::uint8_t> buffer, std::span<const float> levels) const noexcept {
  packSteps(0, steps_.size(), frame, dither, master, buffer, levels);
}

void Packer::packSteps(std::size_t first, std::size_t count, const PixelFrame& frame,
                       std::span<const DitherFrame> dither, float master, std::span<std::uint8_t> buffer,
                       std::span<const float> levels) const noexcept {
  for (const Step& step : std::span(steps_).subspan(first, count))
    packStep(step, frame, dither[step.controller], master, buffer, levels);
}

void Packer::pack(const PixelFrame& frame, DitherFrame dither, float master, std::span<std::uint8_t> buffer,
                  std::span<const float> levels) const noexcept {
  for (const Step& step : steps_) packStep(step, frame, dither, master, buffer, levels);
}

std::array<std::uint8_t, 3> rgbValues(const PixelFrame& frame, std::size_t pixel) {
  static const ResponseTable plain;
  return {plain.value(frame.r[pixel], kNearest), plain.value(frame.g[pixel], kNearest),
          plain.value(frame.b[pixel], kNearest)};
}

}  // namespace chispa
