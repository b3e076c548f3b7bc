// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/wire/valuelight.h"

#include <algorithm>
#include <map>
#include <string>

#include "core/wire/wiresettings.h"

namespace chispa {
namespace {

/// Linear light 0–1 of a chip that is sent `share` of its largest value.
float chipLight(double share, const Response& response, double brightness) {
  return brightness > 0 ? static_cast<float>(response.lightOf(share) / brightness) : 0.f;
}

}  // namespace

ValueLight::ValueLight(const Show& show, const Patch& patch, int controller, Dimming dimming) {
  std::map<int, int> firstOfUniverse;
  for (const PatchUniverse& universe : patch.universes) {
    if (universe.controller != controller) continue;
    firstOfUniverse[universe.universe] = channels_;
    channels_ += universe.channels;
  }
  bool isOpen = false;
  for (const PatchSpan& span : patch.spans) {
    const Fixture* fixture = find(show.fixtures, span.fixture);
    if (span.controller != controller || !fixture) continue;
    const Port& port =
        show.controllers[static_cast<std::size_t>(controller)]->ports[static_cast<std::size_t>(span.port)];
    const StripType& strip = stripTypeOf(show, *fixture);
    const ResolvedWire wire =
        resolveWire(strip, *fixture, port.settings, port.run[static_cast<std::size_t>(span.bead)].settings);
    Kind kind;
    kind.isWide = wire.bits == 16;
    kind.mix = mixOf(strip, wire);
    kind.response = wire.response;
    kind.brightness = dimming == Dimming::Undone ? wire.brightness : 1;
    for (std::size_t value = 0; value < kind.light.size(); ++value)
      kind.light[value] = chipLight(static_cast<double>(value) / 255, wire.response, kind.brightness);
    for (const char letter : wire.order.substr(0, kChips))
      kind.chips.push_back(static_cast<std::uint8_t>(kChipLetters.find(letter)));
    kinds_.push_back(std::move(kind));
    auto at = static_cast<std::uint32_t>(firstOfUniverse.at(span.universe) + span.channel - 1);
    const auto whole = static_cast<std::size_t>(span.channelsPerPixel);
    int left = span.pixels;
    for (int i = 0; i < span.count; ++i) {
      // A value that is split over two universes comes in two spans.
      const int group = std::min(std::max(1, span.pixelsPerValue), std::max(1, left));
      left -= group;
      if (!isOpen)
        pixels_.push_back({kinds_.size() - 1, 0, span.fixture, span.pixelOf(i), group, span.step, {}});
      Pixel& pixel = pixels_.back();
      for (int byte = 0; byte < span.bytes && pixel.bytes < pixel.at.size(); ++byte)
        pixel.at[pixel.bytes++] = at++;
      isOpen = pixel.bytes < whole;
    }
  }
}

Rgb ValueLight::lightOf(std::span<const std::uint8_t> values, std::size_t i) const {
  const Pixel& pixel = pixels_[i];
  const Kind& kind = kinds_[pixel.kind];
  const std::size_t width = kind.isWide ? 2 : 1;
  ChipLight chips{};
  for (std::size_t c = 0; c < kind.chips.size() && (c + 1) * width <= pixel.bytes; ++c) {
    const int coarse = values[pixel.at[c * width]];
    float& chip = chips[kind.chips[c]];
    if (kind.isWide)
      chip = chipLight((coarse << 8 | values[pixel.at[c * width + 1]]) / 65535.0, kind.response,
                       kind.brightness);
    else
      chip = kind.light[static_cast<std::size_t>(coarse)];
  }
  return kind.mix.colourOf(chips);
}

std::uint32_t ValueLight::pixelOf(const PixelMap& map, std::size_t i) const {
  const auto range = map.rangeOf(pixels_[i].fixture);
  return static_cast<std::uint32_t>((range ? range->first : 0) + pixels_[i].pixelOfFixture);
}

bool ValueLight::isSame(std::span<const std::uint8_t> one, std::span<const std::uint8_t> other,
                        std::size_t i) const {
  const Pixel& pixel = pixels_[i];
  return std::all_of(pixel.at.begin(), pixel.at.begin() + static_cast<std::ptrdiff_t>(pixel.bytes),
                     [&](std::uint32_t at) { return one[at] == other[at]; });
}

bool ValueLight::hasWideValues() const {
  return std::any_of(kinds_.begin(), kinds_.end(), [](const Kind& kind) { return kind.isWide; });
}

}  // namespace chispa
