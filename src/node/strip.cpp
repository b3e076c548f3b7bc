// SPDX-License-Identifier: GPL-3.0-or-later
#include "node/strip.h"

#include <algorithm>
#include <cmath>

namespace chispa::node {
namespace {

/// Reads values from the universes of a port one after the other.
class ValueReader {
 public:
  using ByteAt = std::function<int(int universe, int channel)>;

  ValueReader(const PortSetup& port, const Section& section, const ByteAt& byteAt)
      : port_(port),
        section_(section),
        byteAt_(byteAt),
        universe_(section.universe),
        channel_(section.channel) {}

  Shown next() {
    const int bytes = section_.bits / 8;
    const int width = static_cast<int>(section_.order.size()) * bytes;
    if (!port_.isPacked && channel_ + width - 1 > port_.channelsPerUniverse) turnPage();
    Shown colour;
    for (const char letter : section_.order) {
      // Of 16 bits the coarse half is what an 8-bit picture can show.
      const int value = byte();
      for (int fine = 1; fine < bytes; ++fine) byte();
      switch (letter) {
        case 'R':
          colour.r += value;
          break;
        case 'G':
          colour.g += value;
          break;
        case 'B':
          colour.b += value;
          break;
        default:
          colour = {colour.r + value, colour.g + value, colour.b + value};
      }
    }
    const auto dimmed = [this](int value) {
      return static_cast<int>(std::lround(std::min(255, value) * section_.brightness));
    };
    return {dimmed(colour.r), dimmed(colour.g), dimmed(colour.b)};
  }

 private:
  void turnPage() {
    ++universe_;
    channel_ = 1;
  }
  int byte() {
    if (channel_ > port_.channelsPerUniverse) turnPage();
    return byteAt_(universe_, channel_++);
  }

  const PortSetup& port_;
  const Section& section_;
  const ByteAt& byteAt_;
  int universe_;
  int channel_;
};

/// Where on the strip the value of each place in data order is shown.
void layOnStrip(const Section& section, std::vector<Shown>& colours) {
  if (section.isReversed) std::reverse(colours.begin(), colours.end());
  for (std::size_t at = static_cast<std::size_t>(section.zigzag); section.zigzag > 0 && at < colours.size();
       at += 2 * static_cast<std::size_t>(section.zigzag)) {
    const auto end = std::min(colours.size(), at + static_cast<std::size_t>(section.zigzag));
    std::reverse(colours.begin() + static_cast<std::ptrdiff_t>(at),
                 colours.begin() + static_cast<std::ptrdiff_t>(end));
  }
}

}  // namespace

std::vector<Shown> showPort(const PortSetup& port, const std::function<int(int, int)>& byteAt,
                            bool isWrongOrder) {
  std::vector<Shown> all;
  for (const Section& section : port.sections) {
    all.insert(all.end(), static_cast<std::size_t>(section.skippedBefore), Shown{});
    ValueReader reader(port, section, byteAt);
    std::vector<Shown> colours;
    Shown value;
    for (int i = 0; i < section.pixels; ++i) {
      if (i % section.grouping == 0) value = reader.next();
      colours.push_back(isWrongOrder ? Shown{value.g, value.r, value.b} : value);
    }
    layOnStrip(section, colours);
    all.insert(all.end(), colours.begin(), colours.end());
  }
  return all;
}

}  // namespace chispa::node
