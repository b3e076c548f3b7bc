// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <cstdint>
#include <string>
#include <vector>

namespace chispa {

/// A drawing of dots in frames, as a clip keeps it: each dot is clear, or one of 32 places in the clip's
/// palette, so that it takes the colours of any palette. Its text is "WxH", and after each "|" a frame of W ×
/// H letters, rows from the top:
/// '.' clear, '0'–'9' and 'a'–'v' from the palette's beginning to its end.
struct DotDrawing {
  static constexpr int kMaxSide = 96;
  static constexpr int kMaxFrames = 64;
  static constexpr int kShades = 32;
  static constexpr std::int8_t kClear = -1;

  int columns = 16;
  int rows = 16;
  /// [frame][row from the top × columns + column]: kClear, or 0 up to kShades − 1. At least one frame.
  std::vector<std::vector<std::int8_t>> frames;

  std::int8_t at(int frame, int column, int row) const {
    return frames[static_cast<std::size_t>(frame)][static_cast<std::size_t>(row * columns + column)];
  }
  bool operator==(const DotDrawing&) const = default;
};

/// An empty drawing of one frame.
DotDrawing blankDrawing(int columns, int rows);
/// Reads a drawing's text; what it does not understand is clear, and a text of nonsense is a blank drawing.
DotDrawing parseDrawing(const std::string& text);
std::string drawingText(const DotDrawing& drawing);
/// The drawing with another size; what fits of it stays, from the top left.
DotDrawing resized(const DotDrawing& drawing, int columns, int rows);
/// A lantern, as an example.
std::string exampleDrawing();

}  // namespace chispa
