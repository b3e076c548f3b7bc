// SPDX-License-Identifier: GPL-3.0-or-later
#include <algorithm>

#include "core/effect/all.h"
#include "core/effect/curves.h"
#include "core/effect/dotfont.h"

namespace chispa {
namespace {

enum { Text, Moves, Passes, Size, Width, Colours };

/// Column of dots of the whole text that a column of the zone looks at, when `moved` dots have gone by.
int dotColumn(double column, double columnsPerDot, double textDots, double zoneDots, int moves, double passes) {
  const double at = column / columnsPerDot;
  if (moves == 0) return static_cast<int>(std::floor(at - (zoneDots - textDots + 1) / 2 + 1e-9));
  const double loop = textDots + zoneDots;
  return static_cast<int>(std::floor(at - zoneDots + static_cast<double>(fraction(passes)) * loop + 1e-9));
}

void render(const EffectInput& in, LightBuffer& out) noexcept {
  const std::string& text = in.params.text(Text);
  const double dotRows = std::max(1.0, in.cells.rows * in.params.number(Size));
  const double rowsPerDot = dotRows / (dotfont::kHeight + 1);
  const double columnsPerDot = std::max(0.05, rowsPerDot * in.params.number(Width));
  const double foot = (in.cells.rows - rowsPerDot * dotfont::kHeight) / 2;
  const double textDots = static_cast<double>(text.size()) * dotfont::kAdvance;
  const double zoneDots = in.cells.columns / columnsPerDot;
  const double passes = in.params.number(Passes) * in.bars;
  const bool byHeight = in.params.choice(Colours) == 1;
  const auto count = static_cast<std::size_t>(in.cells.count());
  for (std::size_t i = 0; i < count; ++i) {
    const int dot = dotColumn(in.cells.column[i], columnsPerDot, textDots, zoneDots, in.params.choice(Moves), passes);
    const int row = static_cast<int>(std::floor((in.cells.row[i] - foot) / rowsPerDot + 1e-9));
    const int letter = dot < 0 ? -1 : dot / dotfont::kAdvance;
    const bool inText = letter >= 0 && static_cast<std::size_t>(letter) < text.size();
    const bool lit =
        inText && dotfont::isLit(text[static_cast<std::size_t>(letter)], dot % dotfont::kAdvance, row);
    const float place = byHeight ? in.cells.along(Axis::Rows)[i] : in.cells.along(Axis::Columns)[i];
    out.set(i, in.palette.clamped(place), lit ? 1.f : 0.f);
  }
}

}  // namespace

Effect lettering() {
  ParamSpec words;
  words.key = "text";
  words.label = "Words";
  words.kind = ParamKind::Text;
  words.fallback = std::string("LANTERN FAIR");
  return {"lettering", "Lettering", "Words in dots, standing or passing by.",
          {words, choiceParam("moves", "Words", {{"stand", "stand still"}, {"pass", "pass by"}}),
           numberParam("passes", "Passes a bar", "", -4, 4, 0.25, 0.05),
           numberParam("size", "Height", "of the zone", 0.2, 2, 1, 0.05), numberParam("width", "Width", "×", 0.3, 3, 1, 0.05),
           choiceParam("colours", "Colours run", {{"across", "across"}, {"up", "upward"}})},
          render};
}

}  // namespace chispa
