// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/effect/textraster.h"

#include <fontconfig/fontconfig.h>
#include <ft2build.h>
#include FT_FREETYPE_H

#include <algorithm>
#include <cmath>
#include <memory>
#include <mutex>

#include "core/effect/dotfont.h"

namespace chispa {
namespace {

constexpr int kFontRows = 48;
constexpr std::size_t kMaxLetters = 500;

std::vector<char32_t> lettersOf(const std::string& utf8) {
  std::vector<char32_t> letters;
  for (std::size_t i = 0; i < utf8.size() && letters.size() < kMaxLetters;) {
    const auto lead = static_cast<unsigned char>(utf8[i]);
    const std::size_t length = lead < 0x80       ? 1
                               : lead >> 5 == 6  ? 2
                               : lead >> 4 == 14 ? 3
                               : lead >> 3 == 30 ? 4
                                                 : 1;
    char32_t letter = length == 1 ? lead : lead & (0xff >> (length + 1));
    for (std::size_t k = 1; k < length && i + k < utf8.size(); ++k)
      letter = letter << 6 | (static_cast<unsigned char>(utf8[i + k]) & 0x3f);
    letters.push_back(letter);
    i += length;
  }
  return letters;
}

TextRaster drawDots(const std::string& words) {
  TextRaster raster;
  const std::size_t count = std::min(words.size(), kMaxLetters);
  raster.columns = static_cast<int>(count) * dotfont::kAdvance;
  raster.rows = dotfont::kHeight;
  raster.letters.resize(static_cast<std::size_t>(raster.columns * raster.rows));
  for (int row = 0; row < raster.rows; ++row)
    for (int column = 0; column < raster.columns; ++column)
      raster.letters[static_cast<std::size_t>(row * raster.columns + column)] =
          dotfont::isLit(words[static_cast<std::size_t>(column / dotfont::kAdvance)],
                         column % dotfont::kAdvance, row)
              ? 1.f
              : 0.f;
  return raster;
}

/// The file of the font that the system has for a family, and the face in it.
std::pair<std::string, int> fontFile(const std::string& family) {
  // Fontconfig's own tables are shared by the whole process.
  static std::mutex mutex;
  const std::scoped_lock lock(mutex);
  FcPattern* wanted = FcNameParse(reinterpret_cast<const FcChar8*>(family.c_str()));
  if (!wanted) return {};
  FcConfigSubstitute(nullptr, wanted, FcMatchPattern);
  FcDefaultSubstitute(wanted);
  FcResult result = FcResultNoMatch;
  FcPattern* found = FcFontMatch(nullptr, wanted, &result);
  std::pair<std::string, int> file;
  FcChar8* path = nullptr;
  if (found && FcPatternGetString(found, FC_FILE, 0, &path) == FcResultMatch)
    file.first = reinterpret_cast<const char*>(path);
  if (found) FcPatternGetInteger(found, FC_INDEX, 0, &file.second);
  if (found) FcPatternDestroy(found);
  FcPatternDestroy(wanted);
  return file;
}

/// A font at one height.
class Font {
 public:
  explicit Font(const std::string& family) {
    const auto [path, index] = fontFile(family);
    if (path.empty() || FT_Init_FreeType(&library_) != 0) return;
    if (FT_New_Face(library_, path.c_str(), index, &face_) != 0 ||
        FT_Set_Pixel_Sizes(face_, 0, kFontRows) != 0)
      face_ = nullptr;
  }
  ~Font() {
    if (face_) FT_Done_Face(face_);
    if (library_) FT_Done_FreeType(library_);
  }
  Font(const Font&) = delete;
  Font& operator=(const Font&) = delete;

  bool isUsable() const { return face_ != nullptr; }

  TextRaster draw(const std::string& words) {
    const auto letters = lettersOf(words);
    TextRaster raster;
    const auto above = static_cast<int>(std::ceil(static_cast<double>(face_->size->metrics.ascender) / 64));
    const auto below = static_cast<int>(std::ceil(static_cast<double>(-face_->size->metrics.descender) / 64));
    raster.rows = std::max(1, above + below);
    long pen = 0;
    for (const char32_t letter : letters)
      if (FT_Load_Char(face_, letter, FT_LOAD_DEFAULT) == 0) pen += face_->glyph->advance.x;
    raster.columns = static_cast<int>(pen / 64) + 1;
    raster.letters.assign(static_cast<std::size_t>(raster.columns) * static_cast<std::size_t>(raster.rows),
                          0.f);
    pen = 0;
    for (const char32_t letter : letters) {
      if (FT_Load_Char(face_, letter, FT_LOAD_RENDER) != 0) continue;
      put(raster, face_->glyph->bitmap, static_cast<int>(pen / 64) + face_->glyph->bitmap_left,
          below + face_->glyph->bitmap_top);
      pen += face_->glyph->advance.x;
    }
    return raster;
  }

 private:
  static void put(TextRaster& raster, const FT_Bitmap& glyph, int left, int top) {
    for (int row = 0; row < static_cast<int>(glyph.rows); ++row)
      for (int column = 0; column < static_cast<int>(glyph.width); ++column) {
        const int x = left + column;
        const int y = top - 1 - row;
        if (x < 0 || y < 0 || x >= raster.columns || y >= raster.rows) continue;
        float& dot = raster.letters[static_cast<std::size_t>(y) * static_cast<std::size_t>(raster.columns) +
                                    static_cast<std::size_t>(x)];
        dot = std::max(dot, static_cast<float>(glyph.buffer[row * glyph.pitch + column]) / 255);
      }
  }

  FT_Library library_ = nullptr;
  FT_Face face_ = nullptr;
};

/// The letters grown by `reach` dots in all directions, with room for them around.
void addRim(TextRaster& raster, int reach) {
  TextRaster wide;
  wide.columns = raster.columns + 2 * reach;
  wide.rows = raster.rows + 2 * reach;
  wide.letters.assign(static_cast<std::size_t>(wide.columns) * static_cast<std::size_t>(wide.rows), 0.f);
  wide.rim = wide.letters;
  const auto at = [&](int x, int y) {
    return static_cast<std::size_t>(y) * static_cast<std::size_t>(wide.columns) + static_cast<std::size_t>(x);
  };
  for (int y = 0; y < raster.rows; ++y)
    for (int x = 0; x < raster.columns; ++x) {
      const float dot =
          raster.letters[static_cast<std::size_t>(y) * static_cast<std::size_t>(raster.columns) +
                         static_cast<std::size_t>(x)];
      if (dot <= 0) continue;
      wide.letters[at(x + reach, y + reach)] = dot;
      for (int dy = -reach; dy <= reach; ++dy)
        for (int dx = -reach; dx <= reach; ++dx)
          if (dx * dx + dy * dy <= reach * reach + 1)
            wide.rim[at(x + reach + dx, y + reach + dy)] =
                std::max(wide.rim[at(x + reach + dx, y + reach + dy)], dot);
    }
  raster = std::move(wide);
}

std::vector<double> sumsOf(const std::vector<float>& dots, int columns, int rows) {
  const auto wide = static_cast<std::size_t>(columns) + 1;
  std::vector<double> sums(wide * (static_cast<std::size_t>(rows) + 1), 0.0);
  for (std::size_t y = 0; y < static_cast<std::size_t>(rows); ++y)
    for (std::size_t x = 0; x < static_cast<std::size_t>(columns); ++x)
      sums[(y + 1) * wide + x + 1] = static_cast<double>(dots[y * (wide - 1) + x]) + sums[y * wide + x + 1] +
                                     sums[(y + 1) * wide + x] - sums[y * wide + x];
  return sums;
}

}  // namespace

float TextRaster::mean(const std::vector<double>& sums, double x0, double y0, double x1, double y1) const {
  const auto wide = static_cast<std::size_t>(columns) + 1;
  // Whole dots: letters of dots stay crisp, and those of fonts have dots enough.
  const auto clampTo = [](double v, int most) {
    return static_cast<std::size_t>(std::clamp(std::floor(v + 0.5), 0.0, static_cast<double>(most)));
  };
  const double area = std::max(
      1.0, (std::floor(x1 + 0.5) - std::floor(x0 + 0.5)) * (std::floor(y1 + 0.5) - std::floor(y0 + 0.5)));
  const std::size_t left = clampTo(x0, columns), right = clampTo(x1, columns), low = clampTo(y0, rows),
                    high = clampTo(y1, rows);
  if (right <= left || high <= low) return 0;
  return static_cast<float>((sums[high * wide + right] - sums[low * wide + right] - sums[high * wide + left] +
                             sums[low * wide + left]) /
                            area);
}

TextRaster drawText(const std::string& words, const std::string& font, double rim) {
  TextRaster raster;
  if (font == kDotFont || font.empty()) {
    raster = drawDots(words);
  } else if (Font face(font); face.isUsable()) {
    raster = face.draw(words);
  } else {
    raster = drawDots(words);
  }
  const int reach = rim > 0 ? std::max(1, static_cast<int>(std::lround(rim * raster.rows))) : 0;
  if (reach > 0)
    addRim(raster, reach);
  else
    raster.rim = raster.letters;
  raster.letterSums = sumsOf(raster.letters, raster.columns, raster.rows);
  raster.rimSums = sumsOf(raster.rim, raster.columns, raster.rows);
  return raster;
}

}  // namespace chispa
