// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/curves.h"
#include "core/effect/all.h"
#include "core/effect/dotdrawing.h"
#include "core/effect/sampling.h"

namespace chispa {
namespace {

enum { Dots, Pictures, Passes, Repeats, Lay };

struct Drawn : Prepared {
  explicit Drawn(DotDrawing read) : drawing(std::move(read)) {}
  DotDrawing drawing;
};

std::shared_ptr<const Prepared> prepare(const ParamPack& params, const MediaLibrary&) {
  return std::make_shared<const Drawn>(parseDrawing(params.text(Dots)));
}

void render(const EffectInput& in, LightBuffer& out) noexcept {
  const auto count = static_cast<std::size_t>(in.cells.count());
  const auto* drawn = static_cast<const Drawn*>(in.prepared);
  if (!drawn) return out.clear(count);
  const DotDrawing& drawing = drawn->drawing;
  const auto frames = static_cast<double>(drawing.frames.size());
  const auto frame = static_cast<int>(
      static_cast<double>(fraction(in.beats * in.params.number(Pictures) / frames)) * frames);
  const PictureOnFace face(in.cells, drawing.columns, drawing.rows, layOf(in.params, Lay),
                           fraction(in.params.number(Passes) * in.bars), in.params.isOn(Repeats));
  int column = 0, row = 0;
  for (std::size_t i = 0; i < count; ++i) {
    const int shade = face.find(i, column, row) ? drawing.at(frame, column, row) : DotDrawing::kClear;
    if (shade == DotDrawing::kClear)
      out.set(i, {}, 0);
    else
      out.set(i, in.palette.clamped(static_cast<float>(shade) / (DotDrawing::kShades - 1)), 1);
  }
}

}  // namespace

Effect drawing() {
  return {
      .key = "drawing",
      .name = "Drawing",
      .summary = "What you draw dot by dot, in frames, in the palette's colours.",
      .params = withLay({textParam("dots", "Drawing", ParamKind::Drawing, exampleDrawing()),
                         numberParam("pictures", "Frames", "a beat", 0, 16, 1, 0.25),
                         numberParam("passes", "Passes per bar", "", -8, 8, 0, 0.05),
                         switchParam("repeats", "Repeats", false)}),
      .render = render,
      .group = EffectGroup::Pictures,
      .prepare = prepare,
      .wantsRows = true,
  };
}

}  // namespace chispa
