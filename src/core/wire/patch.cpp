// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/wire/patch.h"

#include <algorithm>

#include "core/show/limits.h"
#include "core/wire/wiresettings.h"

namespace chispa {
namespace {

/// The next free channel of a controller while its ports are gone through.
struct Cursor {
  int universe = 0;
  int channel = 1;
};

class Patcher {
 public:
  explicit Patcher(const Show& show) : show_(show) {}

  Patch take() && { return std::move(patch_); }

  void addController(int index) {
    const Controller& controller = *show_.controllers[static_cast<std::size_t>(index)];
    const bool isFlat = isRow(controller.protocol);
    const bool isOne = traitsOf(controller.protocol).numbering == UniverseNumbering::OneUniverse;
    span_.controller = index;
    limit_ = isFlat || isOne ? kUniverseChannels : controller.channelsPerUniverse;
    isPacked_ = isFlat || controller.isPacked;
    takesSkipped_ = !controller.insertsSkipped;
    cursor_ = {isFlat ? 0 : isOne ? 1 : controller.firstUniverse, 1};
    for (std::size_t p = 0; p < controller.ports.size(); ++p) {
      const Port& port = controller.ports[p];
      span_.port = static_cast<int>(p);
      if (port.fixedStart)
        cursor_ = {port.fixedStart->universe, port.fixedStart->channel};
      else if (!port.run.empty() && controller.portStart == PortStart::NewUniverse && !isFlat && !isOne &&
               cursor_.channel != 1)
        cursor_ = {cursor_.universe + 1, 1};
      for (std::size_t b = 0; b < port.run.size(); ++b) {
        span_.bead = static_cast<int>(b);
        addBead(port, port.run[b]);
      }
    }
  }

 private:
  void addBead(const Port& port, const Bead& bead) {
    const Fixture* fixture = find(show_.fixtures, bead.fixture);
    if (!fixture) return;
    const ResolvedWire wire =
        resolveWire(stripTypeOf(show_, *fixture), *fixture, port.settings, bead.settings);
    span_.channelsPerPixel = std::max(1, wire.bytesPerValue());
    span_.pixelsPerValue = wire.grouping;
    if (bead.fixedStart) cursor_ = {bead.fixedStart->universe, bead.fixedStart->channel};
    if (takesSkipped_)
      place({0, (bead.skippedBefore + wire.grouping - 1) / wire.grouping * wire.grouping, 1}, false);
    const int exists = pixelCount(*fixture);
    const int first = std::clamp(bead.first, 0, exists);
    const int count = std::clamp(bead.count, 0, exists - first);
    span_.fixture = bead.fixture;
    if (count > 0)
      for (const WireStretch& stretch : wireStretches(first, count, bead.reversed, wire.zigzag))
        place(stretch, true);
  }

  /// Gives channels to a stretch of pixels; `isLit` is false for those that stay dark.
  void place(WireStretch stretch, bool isLit) {
    const int width = span_.channelsPerPixel;
    const int group = span_.pixelsPerValue;
    span_.step = stretch.step;
    while (stretch.count > 0) {
      if (limit_ - cursor_.channel + 1 < (isPacked_ ? 1 : width)) cursor_ = {cursor_.universe + 1, 1};
      const int values =
          std::min((stretch.count + group - 1) / group, (limit_ - cursor_.channel + 1) / width);
      if (values > 0)
        emit(stretch, values, 0, width, isLit);
      else
        split(stretch, isLit);
      const int pixels = std::min(stretch.count, std::max(1, values) * group);
      stretch.first += pixels * stretch.step;
      stretch.count -= pixels;
    }
  }

  /// A value of which only some channels fit: the rest begins the next universe.
  void split(const WireStretch& stretch, bool isLit) {
    const int here = limit_ - cursor_.channel + 1;
    emit(stretch, 1, 0, here, isLit);
    cursor_ = {cursor_.universe + 1, 1};
    emit(stretch, 1, here, span_.channelsPerPixel - here, isLit);
  }

  void emit(const WireStretch& stretch, int values, int firstByte, int bytes, bool isLit) {
    span_.firstPixel = stretch.first;
    span_.count = values;
    span_.pixels = std::min(stretch.count, values * span_.pixelsPerValue);
    span_.universe = cursor_.universe;
    span_.channel = cursor_.channel;
    span_.firstByte = firstByte;
    span_.bytes = bytes;
    if (isLit) patch_.spans.push_back(span_);
    cursor_.channel += span_.channelCount();
    use();
  }

  /// Universes of a controller are listed once each, in rising order.
  void use() {
    const auto mine =
        std::find_if(patch_.universes.begin(), patch_.universes.end(),
                     [this](const PatchUniverse& u) { return u.controller == span_.controller; });
    const auto at = std::lower_bound(mine, patch_.universes.end(), cursor_.universe,
                                     [](const PatchUniverse& u, int number) { return u.universe < number; });
    if (at != patch_.universes.end() && at->universe == cursor_.universe)
      at->channels = std::max(at->channels, cursor_.channel - 1);
    else
      patch_.universes.insert(at, {span_.controller, cursor_.universe, cursor_.channel - 1});
  }

  const Show& show_;
  Patch patch_;
  PatchSpan span_;
  Cursor cursor_;
  int limit_ = kUniverseChannels;
  bool isPacked_ = false;
  bool takesSkipped_ = true;
};

}  // namespace

UniverseRange universeRange(Protocol protocol) {
  const ProtocolTraits& traits = traitsOf(protocol);
  return {traits.firstUniverse, traits.lastUniverse};
}

Patch derivePatch(const Show& show) {
  Patcher patcher(show);
  for (std::size_t i = 0; i < show.controllers.size(); ++i) patcher.addController(static_cast<int>(i));
  return std::move(patcher).take();
}

std::string addressText(Protocol protocol, int universe, int channel) {
  if (isRow(protocol)) return "byte " + std::to_string(universe * kUniverseChannels + channel);
  return std::to_string(universe) + " : " + std::to_string(channel);
}

}  // namespace chispa
