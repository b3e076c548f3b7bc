// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/curves.h"
#include "core/effect/all.h"
#include "core/effect/tint.h"

namespace chispa {
namespace {

enum { Source, Delay, Mirrored, Level, Tint, Which };

/// The cell of `from` that lies where a cell of the effect's own zone does.
std::size_t counterpart(const EffectInput& in, std::size_t cell, bool mirrored) {
  const ZoneCells& from = *in.other.cells;
  const auto count = static_cast<std::size_t>(from.count());
  float u = in.cells.along(Axis::Columns)[cell];
  if (mirrored) u = 1 - u;
  if (from.rows <= 1) {
    const float along = mirrored ? 1 - in.cells.along(Axis::Along)[cell] : in.cells.along(Axis::Along)[cell];
    return std::min(static_cast<std::size_t>(along * static_cast<float>(count)), count - 1);
  }
  // Of a matrix the nearest cell in its own order, which is the same for every row and column that is whole.
  const auto column = std::min(static_cast<int>(u * static_cast<float>(from.columns)), from.columns - 1);
  const auto row = std::min(
      static_cast<int>(in.cells.along(Axis::Rows)[cell] * static_cast<float>(from.rows)), from.rows - 1);
  return from.cellAt(column, row);
}

void render(const EffectInput& in, LightBuffer& out) noexcept {
  const auto count = static_cast<std::size_t>(in.cells.count());
  const bool mirrored = in.params.isOn(Mirrored);
  const float level = in.params.real(Level);
  const float tint = in.params.real(Tint);
  if (!in.other.cells || in.other.cells->count() == 0) return out.clear(count);
  const LightBuffer& light = *in.other.light;
  const auto which = static_cast<std::size_t>(in.params.number(Which));
  const auto last = static_cast<std::size_t>(in.other.cells->count()) - 1;
  for (std::size_t i = 0; i < count; ++i) {
    const std::size_t from = which > 0 ? std::min(which - 1, last) : counterpart(in, i, mirrored);
    const float bright = higher(light.r[from], higher(light.g[from], light.b[from]));
    setTinted(out, i, {light.r[from], light.g[from], light.b[from]}, light.a[from],
              in.palette.clamped(bright), tint, level);
  }
}

}  // namespace

Effect echo() {
  ParamSpec source = numberParam("source", "Light of", "", 0, 4e9, 0, 1);
  source.kind = ParamKind::Zone;
  return {
      .key = "echo",
      .name = "Echo",
      .summary = "The light of another zone, later, mirrored or in other colours.",
      .params = {source, numberParam("delay", "Later by", "s", 0, 10, 0.25, 0.01),
                 switchParam("mirrored", "Mirrored", false), numberParam("level", "Level", "", 0, 1, 1),
                 numberParam("tint", "In own colours", "", 0, 1, 0),
                 fixedParam("which", "Of one cell", "0: the like one", 0, 1'000'000, 0)},
      .render = render,
      .group = EffectGroup::Pictures,
  };
}

}  // namespace chispa
