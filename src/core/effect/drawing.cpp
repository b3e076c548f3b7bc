// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/effect/all.h"
#include "core/effect/curves.h"
#include "core/effect/dotdrawing.h"
#include "core/effect/sampling.h"

namespace chispa {
namespace {

enum { Dots, Pictures, Fits, Passes, Repeats, Turned };

struct Drawn : Prepared {
  explicit Drawn(DotDrawing read) : drawing(std::move(read)) {}
  DotDrawing drawing;
};

std::shared_ptr<const Prepared> prepare(const ParamPack& params, const MediaLibrary&) { return std::make_shared<const Drawn>(parseDrawing(params.text(Dots))); }

void render(const EffectInput& in, LightBuffer& out) noexcept {
  const auto count = static_cast<std::size_t>(in.cells.count());
  const auto* drawn = static_cast<const Drawn*>(in.prepared);
  if (!drawn) return out.clear(count);
  const DotDrawing& drawing = drawn->drawing;
  const auto frames = static_cast<double>(drawing.frames.size());
  const auto frame = static_cast<int>(static_cast<double>(fraction(in.beats * in.params.number(Pictures) / frames)) * frames);
  const FaceToPicture face(in.cells, drawing.columns, drawing.rows, static_cast<Fit>(in.params.choice(Fits)));
  const float moved = fraction(in.params.number(Passes) * in.bars);
  const bool repeats = in.params.isOn(Repeats);
  const float turn = in.params.real(Turned) * static_cast<float>(kPi / 180);
  for (std::size_t i = 0; i < count; ++i) {
    const float x = in.cells.x[i] * std::cos(turn) + in.cells.y[i] * std::sin(turn);
    const float y = in.cells.y[i] * std::cos(turn) - in.cells.x[i] * std::sin(turn);
    float u = face.u(x) + (moved > 0 ? moved : 0);
    float v = face.v(y);
    if (repeats || moved > 0) u = fraction(static_cast<double>(u));
    if (repeats) v = fraction(static_cast<double>(v));
    const bool isInside = u >= 0 && u < 1 && v >= 0 && v < 1;
    const int shade = isInside ? drawing.at(frame, static_cast<int>(u * static_cast<float>(drawing.columns)), static_cast<int>(v * static_cast<float>(drawing.rows))) : DotDrawing::kClear;
    if (shade == DotDrawing::kClear)
      out.set(i, {}, 0);
    else
      out.set(i, in.palette.clamped(static_cast<float>(shade) / (DotDrawing::kShades - 1)), 1);
  }
}

}  // namespace

Effect drawing() {
  return {"drawing", "Drawing", "What you draw dot by dot, in frames, in the palette's colours.",
          {textParam("dots", "Drawing", ParamKind::Drawing, exampleDrawing()), numberParam("pictures", "Frames", "a beat", 0, 16, 1, 0.25), fitParam(), numberParam("passes", "Passes a bar", "", -8, 8, 0, 0.05),
           switchParam("repeats", "Repeats", false), numberParam("turned", "Turned", "°", -180, 180, 0, 5)},
          render, EffectGroup::Pictures, prepare, false, true};
}

}  // namespace chispa
