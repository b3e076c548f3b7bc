// SPDX-License-Identifier: GPL-3.0-or-later
#include "engine/signal.h"

#include <algorithm>
#include <array>
#include <cmath>

#include "core/vision/blinkcode.h"

namespace chispa::engine {
namespace {

Rgb scaled(Rgb colour, float by) noexcept {
  return {colour.r * by, colour.g * by, colour.b * by};
}

/// The level of a signal, in a colour of full strength.
Rgb atLevelOf(const TestSignal& signal, Rgb colour) noexcept {
  return scaled(colour, std::max({signal.colour.r, signal.colour.g, signal.colour.b}));
}

Rgb litIf(const TestSignal& signal, bool isLit) noexcept {
  return isLit ? signal.colour : Rgb{};
}

constexpr std::array<Rgb, 4> kTurns{{{1, 0, 0}, {0, 1, 0}, {0, 0, 1}, {1, 1, 1}}};
constexpr std::array<Rgb, 8> kPorts{
    {{1, 0, 0}, {0, 1, 0}, {0, 0, 1}, {1, 1, 0}, {0, 1, 1}, {1, 0, 1}, {1, 0.3f, 0}, {1, 1, 1}}};

bool isWalkLit(const TestSignal& signal, int place, int count, MonoTime now) noexcept {
  const int at = walkPlace(signal, count, now);
  const int behind = signal.bounces || !signal.loops ? place - at : (place - at + count) % count;
  return behind >= 0 && behind < signal.lit;
}

/// A letter that fills the matrix: an upright at the left, a bar along the top, a shorter one in the middle.
bool isInLetterF(const MatrixPlace& at) noexcept {
  const int stroke = std::max(1, std::min<int>(at.columns, at.rows) / 5);
  const int middle = at.rows / 2 - stroke / 2;
  const bool inBar = at.row >= at.rows - stroke;
  const bool inShortBar =
      at.row >= middle && at.row < middle + stroke && at.column < (at.columns * 3 + 4) / 5;
  return at.column < stroke || inBar || inShortBar;
}

/// Matrices alone show it; all else stays dark.
bool isMatrixLit(const TestSignal& signal, const MatrixPlace& at, MonoTime now) noexcept {
  if (at.columns == 0) return false;
  const std::int64_t step = signal.first + stepsOf(signal, now);
  switch (signal.kind) {
    case TestSignal::Kind::RowSweep:
      return at.row == step % at.rows;
    case TestSignal::Kind::ColumnSweep:
      return at.column == step % at.columns;
    case TestSignal::Kind::Diagonal:
      return (at.column + at.row) % at.columns == step % at.columns;
    default:
      return isInLetterF(at);
  }
}

/// Light of lightness L*, 0–100 (CIE 15:2018, 8.2.1, solved for Y).
float lightOf(double lightness) noexcept {
  const double f = (lightness + 16) / 116;
  return static_cast<float>(lightness > 8 ? f * f * f : lightness / 903.2963);
}

Rgb stepColour(const TestSignal& signal, int place, int count) noexcept {
  constexpr int kSteps = 8;
  const int step = std::min(kSteps - 1, place * kSteps / std::max(1, count));
  return scaled(signal.colour, lightOf(100.0 * (step + 1) / kSteps));
}

Rgb codeColour(const TestSignal& signal, int place, MonoTime now) noexcept {
  if (static_cast<std::size_t>(place) >= signal.codes.size() || signal.codeBits <= 0) return {};
  const std::uint64_t word = signal.codes[static_cast<std::size_t>(place)];
  return litIf(signal, word != TestSignal::kDarkWord &&
                           vision::isBlinkLit(word, signal.codeBits, stepsOf(signal, now)));
}

/// Draws a chain, of which `pixels` are shown, as the signal wants.
void drawChain(const TestSignal& signal, const Program& program, int port,
               std::span<const std::int32_t> pixels, MonoTime now, PixelFrame& frame) noexcept {
  const auto count = static_cast<int>(pixels.size());
  for (int place = 0; place < count; ++place) {
    const std::int32_t pixel = pixels[static_cast<std::size_t>(place)];
    const auto at = static_cast<std::size_t>(pixel);
    if (pixel == PortChain::kSkipped || at >= frame.size()) continue;
    const Rgb colour = signalColour(signal, {port, place, count, program.matrixPlaceOf(at)}, now);
    frame.r[at] = colour.r;
    frame.g[at] = colour.g;
    frame.b[at] = colour.b;
  }
}

std::span<const std::int32_t> placesOf(const PortChain& chain,
                                       const std::optional<PlaceRange>& places) noexcept {
  const std::span<const std::int32_t> all(chain.pixels);
  if (!places) return all;
  const auto first = std::min(static_cast<std::size_t>(std::max(0, places->first)), all.size());
  return all.subspan(first,
                     std::min(static_cast<std::size_t>(std::max(0, places->count)), all.size() - first));
}

/// Walks over the channels of a controller, universe by universe, as far as they are sent.
class ChannelWalk {
 public:
  ChannelWalk(const Program& program, const SignalTarget& target, std::span<std::uint8_t> values) noexcept
      : program_(program),
        controller_(target.controller),
        values_(values),
        universe_(target.channels->universe),
        channel_(target.channels->channel) {
    find();
  }
  /// Begins in the next universe if `bytes` do not fit into this one.
  void keepTogether(int bytes) noexcept {
    if (channel_ + bytes - 1 > used_) toNext();
  }
  void write(std::uint8_t value) noexcept {
    if (channel_ > used_) toNext();
    if (channel_ >= 1 && channel_ <= used_) values_[base_ + static_cast<std::size_t>(channel_ - 1)] = value;
    ++channel_;
  }
  bool isPastEnd() const noexcept { return used_ == 0; }

 private:
  void toNext() noexcept {
    ++universe_;
    channel_ = 1;
    find();
  }
  void find() noexcept {
    used_ = 0;
    const auto& all = program_.show->patch.universes;
    for (std::size_t i = 0; i < all.size(); ++i) {
      if (all[i].universe != universe_ ||
          program_.controllers[static_cast<std::size_t>(all[i].controller)] != controller_)
        continue;
      used_ = program_.show->packer->channelsOf(i);
      base_ = i * kUniverseChannels;
    }
  }

  const Program& program_;
  ControllerId controller_;
  std::span<std::uint8_t> values_;
  int universe_;
  int channel_;
  /// Channels of the universe that are sent; 0 if it is not.
  int used_ = 0;
  std::size_t base_ = 0;
};

float partOf(Rgb colour, char letter) noexcept {
  switch (letter) {
    case 'R':
      return colour.r;
    case 'G':
      return colour.g;
    case 'B':
      return colour.b;
    default:
      return std::min({colour.r, colour.g, colour.b});
  }
}

}  // namespace

std::int64_t stepsOf(const TestSignal& signal, MonoTime now) noexcept {
  // Whole nanoseconds: a frame on the very edge of a step belongs to the new one.
  const auto step = static_cast<std::int64_t>(signal.seconds * 1e9 + 0.5);
  const std::int64_t passed = std::max<std::int64_t>(0, (now - signal.since).count());
  return step > 0 ? passed / step : 0;
}

int walkPlace(const TestSignal& signal, int count, MonoTime now) noexcept {
  if (count <= 0) return -1;
  const std::int64_t at = signal.first + stepsOf(signal, now);
  const int room = std::max(1, count - signal.lit + 1);
  if (signal.bounces && room > 1) {
    const auto there = static_cast<int>(at % (2 * room - 2));
    return there < room ? there : 2 * room - 2 - there;
  }
  return static_cast<int>(signal.loops ? at % count : std::min<std::int64_t>(at, room - 1));
}

Rgb signalColour(const TestSignal& signal, const SignalPixel& pixel, MonoTime now) noexcept {
  const int place = pixel.place;
  switch (signal.kind) {
    case TestSignal::Kind::Walk:
      return litIf(signal, isWalkLit(signal, place, pixel.count, now));
    case TestSignal::Kind::Faders:
    case TestSignal::Kind::Solid:
      return signal.colour;
    case TestSignal::Kind::Cycle:
      return atLevelOf(signal, kTurns[static_cast<std::size_t>(stepsOf(signal, now)) % kTurns.size()]);
    case TestSignal::Kind::EveryNth:
      return place % std::max(1, signal.nth) != 0 ? Rgb{}
             : place == 0                         ? atLevelOf(signal, {1, 0, 0})
                                                  : signal.colour;
    case TestSignal::Kind::Gradient:
      return scaled(signal.colour,
                    pixel.count > 1 ? static_cast<float>(place) / static_cast<float>(pixel.count - 1) : 1.f);
    case TestSignal::Kind::Alternate:
      return litIf(signal, (place + stepsOf(signal, now)) % 2 == 0);
    case TestSignal::Kind::Ends:
      return place == 0                 ? atLevelOf(signal, {0, 1, 0})
             : place == pixel.count - 1 ? atLevelOf(signal, {1, 0, 0})
                                        : Rgb{};
    case TestSignal::Kind::PortColours:
      return atLevelOf(signal, kPorts[static_cast<std::size_t>(pixel.port) % kPorts.size()]);
    case TestSignal::Kind::RowSweep:
    case TestSignal::Kind::ColumnSweep:
    case TestSignal::Kind::Diagonal:
    case TestSignal::Kind::LetterF:
      return litIf(signal, isMatrixLit(signal, pixel.matrix, now));
    case TestSignal::Kind::Steps:
      return stepColour(signal, place, pixel.count);
    case TestSignal::Kind::Flash:
      return litIf(signal, stepsOf(signal, now) % std::max(1, signal.nth) == 0);
    case TestSignal::Kind::Code:
      return codeColour(signal, place, now);
  }
  return {};
}

void drawSignal(const TestSignal& signal, const Program& program, MonoTime now, PixelFrame& frame) noexcept {
  if (!signal.restPlays) frame.clear();
  const SignalTarget& target = signal.target;
  if (!target.pixels.empty()) return drawChain(signal, program, 0, target.pixels, now, frame);
  if (target.channels) return;
  for (const PortChain& chain : program.chains)
    if (chain.controller == target.controller && (!target.port || chain.port == *target.port))
      drawChain(signal, program, chain.port, placesOf(chain, target.places), now, frame);
}

void drawChannels(const TestSignal& signal, const Program& program, float level, MonoTime now,
                  std::span<std::uint8_t> values) noexcept {
  const auto& channels = signal.target.channels;
  if (!channels || !signal.target.pixels.empty()) return;
  ChannelWalk walk(program, signal.target, values);
  const auto valueOf = [level](float light) {
    return static_cast<std::uint8_t>(std::clamp(light * level, 0.f, 1.f) * 255 + 0.5f);
  };
  if (signal.kind == TestSignal::Kind::Faders) {
    for (const std::uint8_t value : signal.levels) walk.write(valueOf(static_cast<float>(value) / 255));
    return;
  }
  for (int i = 0; i < channels->pixels && !walk.isPastEnd(); ++i) {
    const Rgb colour = signalColour(signal, {0, i, channels->pixels, {}}, now);
    walk.keepTogether(static_cast<int>(channels->order.size()));
    for (const char letter : channels->order) walk.write(valueOf(partOf(colour, letter)));
  }
}

}  // namespace chispa::engine
