// SPDX-License-Identifier: GPL-3.0-or-later
#include <algorithm>
#include <array>

#include "core/base/curves.h"
#include "core/effect/all.h"
#include "core/formula/run.h"

namespace chispa {
namespace {

enum { Across, Formula, A, B, C, D };

struct Compiled : Prepared {
  explicit Compiled(formula::Program made) : program(std::move(made)) {}
  formula::Program program;
};

std::shared_ptr<const Prepared> prepare(const ParamPack& params, const MediaLibrary&) {
  formula::Mistake mistake;
  auto program = formula::compile(params.text(Formula), mistake);
  return program ? std::make_shared<const Compiled>(*std::move(program)) : nullptr;
}

float meanOf(const std::array<float, kBands>& bands, std::size_t from, std::size_t to) {
  float sum = 0;
  for (std::size_t i = from; i < to; ++i) sum += bands[i];
  return sum / static_cast<float>(to - from);
}

formula::Inputs inputsOf(const EffectInput& in) {
  formula::Inputs inputs;
  inputs.cells = {in.cells.x,
                  in.cells.y,
                  in.place,
                  in.cells.indexes,
                  in.cells.columnNumbers,
                  in.cells.rowNumbers,
                  in.cells.along(Axis::Around),
                  in.cells.along(Axis::Outward)};
  constexpr std::size_t kThird = kBands / 3;
  inputs.moment = {static_cast<float>(in.t_s),
                   static_cast<float>(in.length_s),
                   static_cast<float>(in.beats),
                   static_cast<float>(in.bars),
                   static_cast<float>(in.beatInBar),
                   in.level,
                   meanOf(in.bands, 0, kThird),
                   meanOf(in.bands, kThird, 2 * kThird),
                   meanOf(in.bands, 2 * kThird, kBands),
                   static_cast<float>(in.cells.count()),
                   static_cast<float>(in.cells.columns),
                   static_cast<float>(in.cells.rows),
                   in.params.real(A),
                   in.params.real(B),
                   in.params.real(C),
                   in.params.real(D)};
  inputs.bands = in.bands;
  inputs.seed = in.seed;
  return inputs;
}

/// The colours of a block that the formula gives, or has the palette give.
void colourBlock(const EffectInput& in, const formula::Machine& machine, bool hasColour, std::size_t done,
                 std::size_t count, LightBuffer& out) noexcept {
  std::array<float, formula::kBlock> shades, lights;
  for (std::size_t i = 0; i < count; ++i) lights[i] = machine.light(i);
  if (hasColour) {
    for (std::size_t i = 0; i < count; ++i)
      out.set(done + i, {machine.colour(0, i), machine.colour(1, i), machine.colour(2, i)}, lights[i]);
    return;
  }
  for (std::size_t i = 0; i < count; ++i) shades[i] = machine.shade(i);
  std::copy_n(lights.begin(), count, out.a.begin() + static_cast<std::ptrdiff_t>(done));
  in.palette.clamped(shades.data(), lights.data(), count, out.r.data() + done, out.g.data() + done,
                     out.b.data() + done);
}

void render(const EffectInput& in, LightBuffer& out) noexcept {
  const auto* compiled = static_cast<const Compiled*>(in.prepared);
  if (!compiled) return out.clear(in.range.count);
  const formula::Inputs inputs = inputsOf(in);
  const bool hasColour = compiled->program.colour.has_value();
  formula::Machine machine(compiled->program, inputs);
  for (std::size_t done = 0; done < in.range.count; done += formula::kBlock) {
    const std::size_t count = std::min(formula::kBlock, in.range.count - done);
    machine.run(in.range.first + done, count);
    colourBlock(in, machine, hasColour, done, count, out);
  }
}

}  // namespace

Effect formulaEffect() {
  return cellwise({
      .key = "formula",
      .name = "Formula",
      .summary = "Light from a formula of your own over cell and time.",
      .params =
          across(Axis::Along,
                 {textParam("formula", "Formula", ParamKind::Formula,
                            "light = sway(across * 3 - bar) ^ 2\nshade = saw(radius - beat / 4)"),
                  numberParam("a", "Knob A", "", 0, 1, 0.5), numberParam("b", "Knob B", "", 0, 1, 0.5),
                  numberParam("c", "Knob C", "", 0, 1, 0.5), numberParam("d", "Knob D", "", 0, 1, 0.5)}),
      .render = render,
      .group = EffectGroup::Pictures,
      .prepare = prepare,
  });
}

}  // namespace chispa
