// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/effect/dotdrawing.h"

#include <algorithm>
#include <charconv>

namespace chispa {
namespace {

constexpr std::string_view kLetters = "0123456789abcdefghijklmnopqrstuv";

std::int8_t shadeOf(char letter) {
  const auto at = kLetters.find(letter);
  return at == std::string_view::npos ? DotDrawing::kClear : static_cast<std::int8_t>(at);
}

int sideOf(std::string_view digits) {
  int side = 0;
  std::from_chars(digits.data(), digits.data() + digits.size(), side);
  return std::clamp(side, 1, DotDrawing::kMaxSide);
}

}  // namespace

DotDrawing blankDrawing(int columns, int rows) {
  DotDrawing drawing;
  drawing.columns = std::clamp(columns, 1, DotDrawing::kMaxSide);
  drawing.rows = std::clamp(rows, 1, DotDrawing::kMaxSide);
  drawing.frames.emplace_back(static_cast<std::size_t>(drawing.columns * drawing.rows), DotDrawing::kClear);
  return drawing;
}

DotDrawing parseDrawing(const std::string& text) {
  const auto head = text.find('|');
  const auto by = text.find('x');
  if (head == std::string::npos || by == std::string::npos || by > head) return blankDrawing(16, 16);
  DotDrawing drawing = blankDrawing(sideOf(std::string_view(text).substr(0, by)),
                                    sideOf(std::string_view(text).substr(by + 1, head - by - 1)));
  drawing.frames.clear();
  for (auto from = head; from != std::string::npos && drawing.frames.size() < DotDrawing::kMaxFrames;
       from = text.find('|', from + 1)) {
    std::vector<std::int8_t> frame(static_cast<std::size_t>(drawing.columns * drawing.rows),
                                   DotDrawing::kClear);
    for (std::size_t i = 0; i < frame.size() && from + 1 + i < text.size() && text[from + 1 + i] != '|'; ++i)
      frame[i] = shadeOf(text[from + 1 + i]);
    drawing.frames.push_back(std::move(frame));
  }
  return drawing;
}

std::string drawingText(const DotDrawing& drawing) {
  std::string text = std::to_string(drawing.columns) + 'x' + std::to_string(drawing.rows);
  for (const auto& frame : drawing.frames) {
    text += '|';
    for (const std::int8_t shade : frame)
      text += shade == DotDrawing::kClear ? '.' : kLetters[static_cast<std::size_t>(shade)];
  }
  return text;
}

DotDrawing resized(const DotDrawing& drawing, int columns, int rows) {
  DotDrawing sized = blankDrawing(columns, rows);
  sized.frames.resize(drawing.frames.size(), sized.frames.front());
  for (std::size_t f = 0; f < drawing.frames.size(); ++f)
    for (int row = 0; row < std::min(sized.rows, drawing.rows); ++row)
      for (int column = 0; column < std::min(sized.columns, drawing.columns); ++column)
        sized.frames[f][static_cast<std::size_t>(row * sized.columns + column)] =
            drawing.at(static_cast<int>(f), column, row);
  return sized;
}

std::string exampleDrawing() {
  return "9x12|"
         "....k...."
         "...k.k..."
         "..ggggg.."
         ".g.....g."
         ".g..q..g."
         ".g.quq.g."
         ".gquvuqg."
         ".g.quq.g."
         ".g..q..g."
         "..ggggg.."
         "...kkk..."
         "........."
         "|"
         "....k...."
         "...k.k..."
         "..ggggg.."
         ".g..n..g."
         ".g.nqn.g."
         ".gnquqng."
         ".gquvuqg."
         ".gnquqng."
         ".g.nqn.g."
         "..ggggg.."
         "...kkk..."
         ".........";
}

}  // namespace chispa
