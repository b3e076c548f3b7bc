// SPDX-License-Identifier: GPL-3.0-or-later
#include "engine/signal.h"

#include <algorithm>
#include <array>

namespace chispa::engine {
namespace {

/// How many steps have passed since the signal began.
std::int64_t stepsOf(const TestSignal& signal, MonoTime now) noexcept {
  // Whole nanoseconds: a frame on the very edge of a step belongs to the new one.
  const auto step = static_cast<std::int64_t>(signal.seconds * 1e9 + 0.5);
  const std::int64_t passed = std::max<std::int64_t>(0, (now - signal.since).count());
  return step > 0 ? passed / step : 0;
}

Rgb scaled(Rgb colour, float by) noexcept { return {colour.r * by, colour.g * by, colour.b * by}; }

/// The level of a signal, in a colour of full strength.
Rgb atLevelOf(const TestSignal& signal, Rgb colour) noexcept { return scaled(colour, std::max({signal.colour.r, signal.colour.g, signal.colour.b})); }

constexpr std::array<Rgb, 4> kTurns{{{1, 0, 0}, {0, 1, 0}, {0, 0, 1}, {1, 1, 1}}};
constexpr std::array<Rgb, 8> kPorts{{{1, 0, 0}, {0, 1, 0}, {0, 0, 1}, {1, 1, 0}, {0, 1, 1}, {1, 0, 1}, {1, 0.3f, 0}, {1, 1, 1}}};

Rgb walkColour(const TestSignal& signal, int place, int count, MonoTime now) noexcept {
  const int at = walkPlace(signal, count, now);
  const int behind = signal.bounces ? place - at : (place - at + count) % count;
  return behind >= 0 && behind < signal.lit ? signal.colour : Rgb{};
}

}  // namespace

int walkPlace(const TestSignal& signal, int count, MonoTime now) noexcept {
  if (count <= 0) return -1;
  const std::int64_t at = signal.first + stepsOf(signal, now);
  const int room = std::max(1, count - signal.lit + 1);
  if (!signal.bounces || room < 2) return static_cast<int>(at % count);
  const auto there = static_cast<int>(at % (2 * room - 2));
  return there < room ? there : 2 * room - 2 - there;
}

Rgb signalColour(const TestSignal& signal, int port, int place, int count, MonoTime now) noexcept {
  switch (signal.kind) {
    case TestSignal::Kind::Walk: return walkColour(signal, place, count, now);
    case TestSignal::Kind::Solid: return signal.colour;
    case TestSignal::Kind::Cycle: return atLevelOf(signal, kTurns[static_cast<std::size_t>(stepsOf(signal, now)) % kTurns.size()]);
    case TestSignal::Kind::EveryNth: return place % std::max(1, signal.nth) != 0 ? Rgb{} : place == 0 ? atLevelOf(signal, {1, 0, 0}) : signal.colour;
    case TestSignal::Kind::Gradient: return scaled(signal.colour, count > 1 ? static_cast<float>(place) / static_cast<float>(count - 1) : 1.f);
    case TestSignal::Kind::Alternate: return (place + stepsOf(signal, now)) % 2 == 0 ? signal.colour : Rgb{};
    case TestSignal::Kind::Ends: return place == 0 ? atLevelOf(signal, {0, 1, 0}) : place == count - 1 ? atLevelOf(signal, {1, 0, 0}) : Rgb{};
    case TestSignal::Kind::PortColours: return atLevelOf(signal, kPorts[static_cast<std::size_t>(port) % kPorts.size()]);
  }
  return {};
}

void drawSignal(const TestSignal& signal, const Program& program, MonoTime now, PixelFrame& frame) noexcept {
  if (!signal.restPlays) frame.clear();
  for (const PortChain& chain : program.chains) {
    if (chain.controller != signal.controller || (signal.port && chain.port != *signal.port)) continue;
    const auto count = static_cast<int>(chain.pixels.size());
    for (int place = 0; place < count; ++place) {
      const std::int32_t pixel = chain.pixels[static_cast<std::size_t>(place)];
      if (pixel == PortChain::kSkipped) continue;
      const Rgb colour = signalColour(signal, chain.port, place, count, now);
      const auto at = static_cast<std::size_t>(pixel);
      frame.r[at] = colour.r;
      frame.g[at] = colour.g;
      frame.b[at] = colour.b;
    }
  }
}

}  // namespace chispa::engine
