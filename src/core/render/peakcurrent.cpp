// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/render/peakcurrent.h"

#include "core/render/renderer.h"
#include "core/wire/power.h"

namespace chispa {

PeakCurrentMoment peakCurrentMoment(const CompiledShow& show, ScoreId id,
                                    const std::atomic<bool>& cancelled) {
  constexpr Micros kStep{100'000};
  PeakCurrentMoment brightest;
  const CompiledScore* score = show.scoreOf(id);
  if (!score) return brightest;
  Renderer renderer;
  renderer.prepare(show);
  PixelFrame frame;
  frame.resize(static_cast<std::size_t>(show.map->count()));
  for (Micros at{0}; at < score->length; at += kStep) {
    if (cancelled) return {};
    renderer.render(*score, at, frame);
    double amps = 0;
    for (const auto& [volts, a] : frameAmps(*show.power, frame, 1)) amps += a;
    if (amps <= brightest.amps) continue;
    brightest = {at, amps, frame};
  }
  return brightest;
}

}  // namespace chispa
