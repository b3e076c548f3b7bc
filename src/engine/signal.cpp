// SPDX-License-Identifier: GPL-3.0-or-later
#include "engine/signal.h"

#include <algorithm>

namespace chispa::engine {

int walkPlace(const WalkSignal& signal, const PortChain& chain, MonoTime now) noexcept {
  if (chain.pixels.empty()) return -1;
  // Whole nanoseconds: a frame on the very edge of a step belongs to the new one.
  const auto step = static_cast<std::int64_t>(signal.secondsPerPixel * 1e9 + 0.5);
  const std::int64_t passed = std::max<std::int64_t>(0, (now - signal.since).count());
  const std::int64_t steps = step > 0 ? passed / step : 0;
  return static_cast<int>((signal.first + steps) % std::ssize(chain.pixels));
}

void drawWalk(const WalkSignal& signal, const Program& program, MonoTime now, PixelFrame& frame) noexcept {
  frame.clear();
  const auto chain = std::find_if(program.chains.begin(), program.chains.end(), [&](const PortChain& c) {
    return c.controller == signal.controller && c.port == signal.port;
  });
  if (chain == program.chains.end()) return;
  const int place = walkPlace(signal, *chain, now);
  if (place < 0) return;
  const std::int32_t pixel = chain->pixels[static_cast<std::size_t>(place)];
  if (pixel == PortChain::kSkipped) return;
  const auto at = static_cast<std::size_t>(pixel);
  frame.r[at] = signal.colour.r;
  frame.g[at] = signal.colour.g;
  frame.b[at] = signal.colour.b;
}

}  // namespace chispa::engine
