// SPDX-License-Identifier: GPL-3.0-or-later
#include <algorithm>
#include <optional>

#include "core/base/curves.h"
#include "core/effect/all.h"
#include "core/effect/dotfont.h"
#include "core/effect/roundface.h"
#include "core/effect/textraster.h"

namespace chispa {
namespace {

enum { Text, Moves, Passes, Size, Width, Colours, Face, Rim, Ground, Mirrored, RimIs, Surface, Begins };
enum RimKind { Dim, Full, Black, Alone };

struct Written : Prepared {
  explicit Written(TextRaster drawn) : raster(std::move(drawn)) {}
  TextRaster raster;
};

bool isOutlined(const ParamPack& params) {
  return params.choice(RimIs) == Alone;
}

std::shared_ptr<const Prepared> prepare(const ParamPack& params, const MediaLibrary&) {
  // An outline alone has a rim at least: the thinnest.
  constexpr double kThinnest = 1e-6;
  const double rim = std::max(params.number(Rim), isOutlined(params) ? kThinnest : 0);
  return std::make_shared<const Written>(drawText(params.text(Text), params.text(Face), rim));
}

/// The zone as columns and rows: as it stands, or unrolled about its middle.
class LetterFace {
 public:
  explicit LetterFace(const EffectInput& in)
      : cells_(in.cells),
        isMirrored_(in.params.isOn(Mirrored)),
        columns_(in.cells.columns),
        rows_(in.cells.rows) {
    if (in.params.choice(Surface) == 0) return;
    round_.emplace(in.cells);
    begins_ = in.params.number(Begins) / 360;
    columns_ = static_cast<double>(round_->columns());
    rows_ = static_cast<double>(round_->rows());
  }

  double columns() const { return columns_; }
  double rows() const { return rows_; }
  /// Where cell `i` begins, in columns from the left and in rows from below.
  void find(std::size_t i, double& column, double& row) const {
    column = cells_.column[i];
    row = cells_.row[i];
    if (round_) {
      float around = 0, high = 0;
      round_->find(i, around, high);
      // The words stand about the place where they begin.
      column = static_cast<double>(fraction(static_cast<double>(around) - begins_ + 0.5)) * columns_;
      row = std::max(0.0, static_cast<double>(high) * rows_ - 0.5);
    }
    if (isMirrored_) column = columns_ - 1 - column;
  }

 private:
  const ZoneCells& cells_;
  bool isMirrored_;
  double columns_;
  double rows_;
  std::optional<RoundFace> round_;
  double begins_ = 0;
};

/// How the words lie on the zone, in dots of the words for a cell of the zone.
struct Layout {
  double dotsPerColumn;
  double dotsPerRow;
  double left;
  double foot;
};

Layout layoutOf(const EffectInput& in, const LetterFace& face, const TextRaster& text) {
  // Letters of dots leave a row free, so that they stand whole on a zone of eight rows.
  const bool isDots = in.params.text(Face) == kDotFont;
  const double rowsShown = std::max(1.0, face.rows() * in.params.number(Size));
  const double cellsPerDot = rowsShown / (text.rows + (isDots ? 1 : 0));
  const double columnsPerDot = std::max(0.02, cellsPerDot * in.params.number(Width));
  const double zoneDots = face.columns() / columnsPerDot;
  Layout layout{1 / columnsPerDot, 1 / cellsPerDot, 0,
                -(face.rows() - cellsPerDot * text.rows) / 2 / cellsPerDot};
  if (in.params.choice(Moves) == 0)
    layout.left = -std::floor((zoneDots - text.columns + 1) / 2 + 1e-9);
  else
    layout.left = -zoneDots + static_cast<double>(fraction(in.params.number(Passes) * in.bars)) *
                                  (text.columns + zoneDots);
  if (isDots) layout.left = std::floor(layout.left + 1e-9);
  return layout;
}

/// How bright the rim is of its colour.
float rimLightOf(const ParamPack& params) {
  constexpr float kDim = 0.3f;
  const int kind = params.choice(RimIs);
  return kind == Dim ? kDim : kind == Black ? 0 : 1;
}

void render(const EffectInput& in, LightBuffer& out) noexcept {
  const auto count = static_cast<std::size_t>(in.cells.count());
  const auto* written = static_cast<const Written*>(in.prepared);
  if (!written || written->raster.columns == 0) return out.clear(count);
  const TextRaster& text = written->raster;
  const LetterFace face(in);
  const Layout layout = layoutOf(in, face, text);
  const bool byHeight = in.params.choice(Colours) == 1;
  const float ground = in.params.real(Ground);
  const bool outlined = isOutlined(in.params);
  const bool hasRim = outlined || in.params.number(Rim) > 0;
  const float rimLight = rimLightOf(in.params);
  for (std::size_t i = 0; i < count; ++i) {
    double column = 0, row = 0;
    face.find(i, column, row);
    const double x = column * layout.dotsPerColumn + layout.left;
    const double y = row * layout.dotsPerRow + layout.foot;
    // At least a whole dot is looked at, the one that the cell's corner lies in.
    const double x0 = layout.dotsPerColumn < 1 ? std::floor(x + 1e-6) : x;
    const double y0 = layout.dotsPerRow < 1 ? std::floor(y + 1e-6) : y;
    const double x1 = x0 + std::max(1.0, layout.dotsPerColumn);
    const double y1 = y0 + std::max(1.0, layout.dotsPerRow);
    const float lit = text.mean(text.letterSums, x0, y0, x1, y1);
    const float rim = hasRim ? std::max(lit, text.mean(text.rimSums, x0, y0, x1, y1)) : lit;
    const Rgb front =
        in.palette.clamped(byHeight ? in.cells.along(Axis::Rows)[i] : in.cells.along(Axis::Columns)[i]);
    const Rgb edge = outlined ? front : in.palette.clamped(0);
    const Rgb back = in.palette.clamped(0.15f);
    // From behind: the ground, the rim, the letters.
    const float shown = ground * (1 - rim);
    const float rimOnly = rim - lit;
    // What lies below is seen through letters that are an outline only.
    const float filled = outlined ? 0 : lit;
    out.r[i] = front.r * filled + edge.r * rimOnly * rimLight + back.r * shown;
    out.g[i] = front.g * filled + edge.g * rimOnly * rimLight + back.g * shown;
    out.b[i] = front.b * filled + edge.b * rimOnly * rimLight + back.b * shown;
    out.a[i] = lower(1.f, filled + rimOnly + shown);
  }
}

}  // namespace

Effect lettering() {
  return {
      .key = "lettering",
      .name = "Lettering",
      .summary =
          "Words in dots or in any font, standing or passing by, with a rim and a ground of their own.",
      .params = withSurface({textParam("text", "Words", ParamKind::Text, "LANTERN FAIR"),
                             choiceParam("moves", "Words", {{"stand", "stand still"}, {"pass", "pass by"}}),
                             numberParam("passes", "Passes per bar", "", -4, 4, 0.25, 0.05),
                             numberParam("size", "Height", "of the zone", 0.2, 2, 1, 0.05),
                             numberParam("width", "Width", "×", 0.3, 3, 1, 0.05),
                             choiceParam("colours", "Colours run", {{"across", "across"}, {"up", "upward"}}),
                             textParam("font", "Font", ParamKind::Font, kDotFont),
                             numberParam("rim", "Rim", "of the height", 0, 0.3, 0),
                             numberParam("ground", "Ground", "", 0, 1, 0),
                             switchParam("mirrored", "Mirrored", false),
                             choiceParam("rim_is", "Rim is",
                                         {{"dim", "dim"},
                                          {"full", "as bright as the letters"},
                                          {"black", "black"},
                                          {"alone", "all there is: an outline"}})}),
      .render = render,
      .group = EffectGroup::Pictures,
      .prepare = prepare,
      .wantsRows = true,
  };
}

}  // namespace chispa
