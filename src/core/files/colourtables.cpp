// SPDX-License-Identifier: GPL-3.0-or-later
// Colour tables of GMT (.cpt).
#include <algorithm>
#include <array>
#include <optional>
#include <sstream>

#include "core/colour/colourtext.h"
#include "core/files/palettereaders.h"

namespace chispa::palettes {
namespace {

constexpr int kPointsOfHueSlice = 8;

enum class Model { Rgb, Hsv, Cmyk };

/// A colour of a slice. Hues are kept, as a slice of HSV runs along them.
struct TableColour {
  Srgb8 colour;
  std::optional<std::array<double, 3>> hsv;
};

TableColour ofHsv(double h, double s, double v) {
  return {fromHsv(h, s, v), std::array{h, s, v}};
}
TableColour ofCmyk(double c, double m, double y, double k) {
  const auto channel = [&](double ink) { return byteOf((1 - ink / 100) * (1 - k / 100)); };
  return {{channel(c), channel(m), channel(y)}, {}};
}
TableColour ofRgb(double r, double g, double b) {
  return {{byteOf(r / 255), byteOf(g / 255), byteOf(b / 255)}, {}};
}

class TableReader {
 public:
  explicit TableReader(Draft& draft) : draft_(draft) {}

  void readLine(std::string_view line) {
    if (line.empty()) return;
    if (line[0] == '#') return readRemark(line);
    // What stands behind a semicolon is the slice's name.
    auto words = wordsOf(line.substr(0, line.find(';')));
    // L, U and B say where the slice is annotated.
    if (words.size() > 1 && (words.back() == "L" || words.back() == "U" || words.back() == "B"))
      words.pop_back();
    if (words.empty() || isForOutside(words[0])) return;
    if (!readSlice(words)) readCategory(words);
  }

  void finish() {
    if (isCategorical_) {
      draft_.isEven = true;
      return;
    }
    if (draft_.stops.size() < 2) return;
    const auto [low, high] =
        std::minmax_element(draft_.stops.begin(), draft_.stops.end(),
                            [](const ColourStop& a, const ColourStop& b) { return a.at < b.at; });
    const double from = low->at, range = high->at - low->at;
    for (ColourStop& stop : draft_.stops) stop.at = range > 0 ? (stop.at - from) / range : 0;
  }

 private:
  /// Colours below, above and beside the table are no part of it.
  static bool isForOutside(std::string_view word) { return word == "B" || word == "F" || word == "N"; }

  void readRemark(std::string_view line) {
    const auto at = line.find("COLOR_MODEL");
    const auto equals = at == std::string_view::npos ? at : line.find('=', at);
    if (equals == std::string_view::npos) return;
    std::string word(trimmed(line.substr(equals + 1)));
    std::transform(word.begin(), word.end(), word.begin(),
                   [](char c) { return c >= 'a' && c <= 'z' ? static_cast<char>(c - 'a' + 'A') : c; });
    if (word.find("HSV") != std::string::npos) model_ = Model::Hsv;
    if (word.find("CMYK") != std::string::npos) model_ = Model::Cmyk;
  }

  /// One word: a grey, r/g/b, h-s-v, c/m/y/k, a name or #rrggbb; how clear it is, behind an @, does not
  /// count.
  std::optional<TableColour> colourOf(std::string_view word) const {
    word = word.substr(0, word.find('@'));
    if (word.empty()) return std::nullopt;
    if (word.find('/') != std::string_view::npos) {
      const auto n = leadingNumbers(word);
      if (n.size() == 4) return ofCmyk(n[0], n[1], n[2], n[3]);
      if (n.size() != 3) return std::nullopt;
      return model_ == Model::Hsv ? ofHsv(n[0], n[1], n[2]) : ofRgb(n[0], n[1], n[2]);
    }
    if (const auto dash = word.find('-'); dash != std::string_view::npos && dash > 0) {
      std::string spread(word);
      std::replace(spread.begin(), spread.end(), '-', ' ');
      const auto n = leadingNumbers(spread);
      return n.size() == 3 ? std::optional(ofHsv(n[0], n[1], n[2])) : std::nullopt;
    }
    if (const auto grey = leadingNumber(word)) return ofRgb(*grey, *grey, *grey);
    if (const auto named = parseColour(word)) return TableColour{*named, {}};
    return std::nullopt;
  }

  /// Columns of numbers, in the table's model.
  std::optional<TableColour> colourOf(const std::vector<std::string_view>& words, std::size_t first,
                                      std::size_t count) const {
    if (count == 1) return colourOf(words[first]);
    std::vector<double> n;
    for (std::size_t i = 0; i < count; ++i) {
      const auto number = leadingNumber(words[first + i]);
      if (!number) return std::nullopt;
      n.push_back(*number);
    }
    if (count == 4) return ofCmyk(n[0], n[1], n[2], n[3]);
    return model_ == Model::Hsv ? ofHsv(n[0], n[1], n[2]) : ofRgb(n[0], n[1], n[2]);
  }

  /// A value and its colour, twice.
  bool readSlice(const std::vector<std::string_view>& words) {
    const std::size_t width = words.size() / 2;
    if (words.size() != 4 && words.size() != 8 && words.size() != 10) return false;
    const auto from = leadingNumber(words[0]), to = leadingNumber(words[width]);
    const auto begins = colourOf(words, 1, width - 1), ends = colourOf(words, width + 1, width - 1);
    if (!from || !to || !begins || !ends) return false;
    draft_.add(*from, begins->colour);
    if (begins->hsv && ends->hsv)
      for (int i = 1; i < kPointsOfHueSlice; ++i) {
        const double k = static_cast<double>(i) / kPointsOfHueSlice;
        const auto between = [&](std::size_t c) {
          return (*begins->hsv)[c] + ((*ends->hsv)[c] - (*begins->hsv)[c]) * k;
        };
        draft_.add(*from + (*to - *from) * k, fromHsv(between(0), between(1), between(2)));
      }
    draft_.add(*to, ends->colour);
    return true;
  }

  /// A key, a number or a word, and its colour.
  void readCategory(const std::vector<std::string_view>& words) {
    if (words.size() != 2 && words.size() != 4 && words.size() != 5) return;
    const auto colour = colourOf(words, 1, words.size() - 1);
    if (!colour) return;
    isCategorical_ = true;
    draft_.stops.push_back({0, colour->colour});
  }

  Draft& draft_;
  Model model_ = Model::Rgb;
  bool isCategorical_ = false;
};

}  // namespace

void readCpt(const std::string& text, Draft& draft) {
  std::istringstream in(text);
  TableReader reader(draft);
  for (std::string line; std::getline(in, line);) reader.readLine(line);
  reader.finish();
}

}  // namespace chispa::palettes
