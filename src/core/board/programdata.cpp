// SPDX-License-Identifier: GPL-3.0-or-later
// What a program reads: palettes, rows of numbers, and which pixels its cells are.
#include <algorithm>
#include <cmath>

#include "core/board/programwriter.h"

namespace chispa::board {

std::size_t ProgramWriter::palette(std::uint32_t number) {
  const BoardPalette& colours = graph_.palettes()[number];
  // Bytes are enough where light and values are in proportion; else dim light needs more.
  const bool isWide = !response_.isEven();
  const std::size_t maxSegments = isWide ? 256 : 128;
  std::size_t segments = 1;
  while (segments < maxSegments && errorOf(colours, segments) > kPaletteError) segments *= 2;
  const int bytesOfChannel = isWide ? 2 : 1;
  Blob::Bytes bytes = {static_cast<std::uint8_t>((colours.goesRound ? 1 : 0) | (isWide ? 2 : 0))};
  putBytes(bytes, segments, 2);
  const std::size_t step = (colours.entries.size() - 1) / segments;
  const float full = isWide ? 65535 : 255;
  for (std::size_t i = 0; i <= segments; ++i)
    for (const float channel : colours.entries[i * step])
      putBytes(bytes, static_cast<std::uint64_t>(std::lround(std::clamp(channel, 0.f, 1.f) * full)),
               bytesOfChannel);
  return blob_.share(bytes);
}

double ProgramWriter::errorOf(const BoardPalette& colours, std::size_t segments) {
  const std::size_t step = (colours.entries.size() - 1) / segments;
  const auto told = [this](double light) { return response_.valueOf(light); };
  double worst = 0;
  for (std::size_t i = 0; i < colours.entries.size(); ++i) {
    const std::size_t low = std::min(i / step, segments - 1) * step;
    const double share = static_cast<double>(i - low) / static_cast<double>(step);
    for (std::size_t c = 0; c < 3; ++c) {
      const auto from = static_cast<double>(colours.entries[low][c]);
      const auto to = static_cast<double>(colours.entries[low + step][c]);
      worst = std::max(worst, std::abs(told(from + (to - from) * share) -
                                       told(static_cast<double>(colours.entries[i][c]))));
    }
  }
  return worst;
}

void ProgramWriter::putInput(int node, Blob::Bytes& to) {
  const std::vector<float>& values = graph_.inputs()[nodeAt(node).word];
  putRegister(registerOf_.at(node), to);
  if (putRow(values, to)) return;
  constexpr double kOne = 65536;
  constexpr double kTolerance = 1.0;
  double most = 0;
  for (const float v : values) most = std::max(most, std::abs(static_cast<double>(v)) * kOne);
  int shift = 0;
  while (most / std::exp2(shift) > 32767.5) ++shift;
  const auto short16 = [shift](float v) {
    const double scaled = std::round(static_cast<double>(v) * kOne / std::exp2(shift));
    return std::clamp(scaled, -32768.0, 32767.0);
  };
  const bool isShort = std::all_of(values.begin(), values.end(), [&](float v) {
    return std::abs(short16(v) * std::exp2(shift) - static_cast<double>(v) * kOne) <= kTolerance;
  });
  Blob::Bytes table;
  for (const float v : values)
    putBytes(table,
             static_cast<std::uint64_t>(static_cast<std::int64_t>(
                 isShort ? short16(v) : static_cast<double>(fixedOf(static_cast<double>(v))))),
             isShort ? 2 : 4);
  to.push_back(isShort ? 1 : 2);
  to.push_back(static_cast<std::uint8_t>(shift));
  putBytes(to, blob_.share(table), 3);
}

double ProgramWriter::eachOf(const std::vector<float>& values) {
  return values.size() > 1 ? (static_cast<double>(values.back()) - static_cast<double>(values.front())) /
                                 static_cast<double>(values.size() - 1)
                           : 0;
}

bool ProgramWriter::putRow(const std::vector<float>& values, Blob::Bytes& to) {
  constexpr double kUnit = 16777216;
  constexpr double kMax = 120;
  const auto first = static_cast<double>(values.front());
  const double each = eachOf(values);
  for (std::size_t i = 0; i < values.size(); ++i) {
    const auto value = static_cast<double>(values[i]);
    if (std::abs(value) > kMax || std::abs(first + each * static_cast<double>(i) - value) > kRowTolerance)
      return false;
  }
  to.push_back(0);
  // Half a step of the board's numbers, so that they are rounded.
  constexpr double kHalf = 128;
  putBytes(to, static_cast<std::uint64_t>(std::llround(first * kUnit + kHalf)), 4);
  putBytes(to, static_cast<std::uint64_t>(std::llround(each * kUnit)), 4);
  return true;
}

std::size_t ProgramWriter::map() {
  Blob::Bytes bytes;
  if (const auto step = rowStep()) {
    bytes.push_back(1);
    putBytes(bytes, pixels_.front().front(), 2);
    putBytes(bytes, static_cast<std::uint64_t>(static_cast<std::int64_t>(*step)), 2);
    return blob_.share(bytes);
  }
  bytes.push_back(0);
  for (const auto& cell : pixels_) {
    bytes.push_back(static_cast<std::uint8_t>(cell.size()));
    for (const std::uint16_t pixel : cell) putBytes(bytes, pixel, 2);
  }
  return blob_.share(bytes);
}

std::optional<int> ProgramWriter::rowStep() const {
  for (const auto& cell : pixels_)
    if (cell.size() != 1) return std::nullopt;
  if (pixels_.size() == 1) return 0;
  const int step = pixels_[1][0] - pixels_[0][0];
  for (std::size_t i = 1; i < pixels_.size(); ++i)
    if (pixels_[i][0] - pixels_[i - 1][0] != step) return std::nullopt;
  return step;
}

Blob::Bytes ProgramWriter::headOfBody() {
  Blob::Bytes body = {static_cast<std::uint8_t>(constants_.size())};
  for (const std::int32_t value : constants_) putBytes(body, static_cast<std::uint32_t>(value), 4);
  putBytes(body, frame_.size(), 2);
  body.insert(body.end(), frame_.begin(), frame_.end());
  putBytes(body, pixels_.size(), 2);
  putBytes(body, map(), 3);
  return body;
}

}  // namespace chispa::board
