// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/board/strip.h"

#include <algorithm>
#include <cmath>

namespace chispa::board {
namespace {

/// What decides about bytes.
bool areAlike(const StripType& a, const StripType& b) {
  return a.order == b.order && a.response == b.response && a.mix() == b.mix() &&
         a.channelBits == b.channelBits;
}

std::size_t chipOf(char letter) {
  return kChipLetters.find(letter);
}

}  // namespace

void BoardStrip::takePixels(const Show& show, const PixelMap& map, const std::vector<BoardRun>& runs) {
  std::vector<bool> isTaken(static_cast<std::size_t>(map.count()), false);
  for (const BoardRun& run : runs)
    for (const std::uint32_t pixel : pixelsOf(show, map, run)) {
      if (!isTaken[pixel]) pixels_.push_back(pixel);
      isTaken[pixel] = true;
    }
}

Result<BoardStrip> BoardStrip::of(const Show& show, const PixelMap& map, const std::vector<BoardRun>& runs,
                                  int pixelsPerValue) {
  BoardStrip strip;
  strip.perValue_ = std::max(1, pixelsPerValue);
  strip.valueOf_.assign(static_cast<std::size_t>(map.count()), -1);
  strip.takePixels(show, map, runs);
  const Fixture* first = nullptr;
  for (const auto& fixture : show.fixtures) {
    const PixelMap::Range range = map.rangeOf(fixture->id).value_or(PixelMap::Range{});
    const bool isOn = std::any_of(strip.pixels_.begin(), strip.pixels_.end(), [&](std::uint32_t pixel) {
      return static_cast<int>(pixel) >= range.first && static_cast<int>(pixel) < range.first + range.count;
    });
    if (!isOn) continue;
    if (!first) first = fixture.get();
    if (!areAlike(stripTypeOf(show, *first), stripTypeOf(show, *fixture)))
      return Failure{sentence("“%1” and “%2” are of different strips, and a board tells all of its data line "
                              "in one order of colours.",
                              first->name, fixture->name),
                     {},
                     "Write one board for each kind of strip: choose the fixtures or zones of one."};
  }
  if (!first)
    return Failure{"There is nothing on the board: no fixture or zone with pixels is chosen.",
                   {},
                   "Choose what hangs on it."};
  const StripType& type = stripTypeOf(show, *first);
  if (type.mix().hasAmber)
    return Failure{
        sentence("“%1” has a chip besides red, green, blue and white, which a board cannot mix.", type.name),
        {},
        "Choose fixtures of another strip, or send it from a controller."};
  if (type.channelBits != 8)
    return Failure{sentence("“%1” takes 16 bits per channel; a board sends 8.", type.name),
                   {},
                   "Choose fixtures of another strip."};
  strip.order_ = type.order;
  strip.response_ = type.response;
  // The board's player knows the white point, not the colours of chips.
  strip.mix_ = type.mix();
  strip.mix_.colours.reset();
  strip.channel_ma_ = type.channel_ma;
  strip.volts_ = type.volts;
  if (strip.byteCount() > kMaxBytes)
    return Failure{sentence("The strip takes %1 bytes per frame; a board counts up to %2.", strip.byteCount(),
                            kMaxBytes),
                   {},
                   "Choose less."};
  for (std::size_t i = 0; i < strip.pixels_.size(); ++i)
    strip.valueOf_[strip.pixels_[i]] = static_cast<int>(i) / strip.perValue_;
  return strip;
}

std::uint32_t BoardStrip::middleOf(int value) const {
  const auto first = static_cast<std::size_t>(value * perValue_);
  const std::size_t count = std::min(static_cast<std::size_t>(perValue_), pixels_.size() - first);
  return pixels_[first + count / 2];
}

std::optional<std::uint16_t> BoardStrip::valueOf(std::uint32_t pixel) const {
  const int value = pixel < valueOf_.size() ? valueOf_[pixel] : -1;
  return value < 0 ? std::nullopt : std::optional(static_cast<std::uint16_t>(value));
}

std::uint8_t BoardStrip::byteOf(float light) const {
  return static_cast<std::uint8_t>(std::lround(response_.valueOf(static_cast<double>(light)) * 255));
}

std::vector<std::uint8_t> BoardStrip::bytesOf(const PixelFrame& frame) const {
  std::vector<std::uint8_t> bytes;
  bytes.reserve(static_cast<std::size_t>(valueCount() * channels()));
  const auto per = static_cast<std::size_t>(perValue_);
  for (std::size_t first = 0; first < pixels_.size(); first += per) {
    const std::size_t end = std::min(first + per, pixels_.size());
    float r = 0, g = 0, b = 0;
    for (std::size_t i = first; i < end; ++i) {
      r += frame.r[pixels_[i]];
      g += frame.g[pixels_[i]];
      b += frame.b[pixels_[i]];
    }
    const float share = 1 / static_cast<float>(end - first);
    putBytes({r * share, g * share, b * share}, bytes);
  }
  return bytes;
}

std::vector<std::uint8_t> BoardStrip::middleBytesOf(const PixelFrame& frame) const {
  std::vector<std::uint8_t> bytes;
  for (int value = 0; value < valueCount(); ++value) {
    const std::uint32_t pixel = middleOf(value);
    putBytes({frame.r[pixel], frame.g[pixel], frame.b[pixel]}, bytes);
  }
  return bytes;
}

void BoardStrip::putBytes(Rgb light, std::vector<std::uint8_t>& bytes) const {
  const auto chips = mix_.light(light.r, light.g, light.b);
  for (const char letter : order_) bytes.push_back(byteOf(chips[chipOf(letter)]));
}

std::vector<std::uint8_t> BoardStrip::colourOfChannel() const {
  std::vector<std::uint8_t> colours;
  for (const char letter : order_) colours.push_back(static_cast<std::uint8_t>(chipOf(letter)));
  return colours;
}

Rgb BoardStrip::lightOf(const std::uint8_t* bytes) const {
  ChipLight chips{};
  for (std::size_t i = 0; i < order_.size(); ++i)
    chips[chipOf(order_[i])] = static_cast<float>(response_.lightOf(static_cast<double>(bytes[i]) / 255));
  return mix_.colourOf(chips);
}

std::vector<std::uint16_t> BoardStrip::thresholds() const {
  std::vector<std::uint16_t> all;
  if (response_.isEven()) return all;
  for (int value = 1; value <= 255; ++value) {
    const double share = value / 255.0 < response_.least ? response_.darkBelow() : (value - 0.5) / 255;
    all.push_back(static_cast<std::uint16_t>(
        std::clamp(std::ceil(response_.bareLightOf(share) * 65536), 1.0, 65535.0)));
  }
  return all;
}

}  // namespace chispa::board
