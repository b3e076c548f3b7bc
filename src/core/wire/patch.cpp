// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/wire/patch.h"

#include <algorithm>

namespace chispa {
namespace {

/// The next free channel of a controller while its ports are gone through.
struct Cursor {
  int universe = 0;
  int channel = 1;

  bool fresh() const { return channel == 1; }
  /// How many whole pixels of `width` channels fit before the universe ends; moves on if none does.
  int room(int width) {
    if (kUniverseChannels - channel + 1 < width) {
      ++universe;
      channel = 1;
    }
    return (kUniverseChannels - channel + 1) / width;
  }
};

class Patcher {
 public:
  explicit Patcher(const Show& show) : show_(show) {}

  Patch take() && { return std::move(patch_); }

  void addController(int index) {
    const Controller& controller = *show_.controllers[static_cast<std::size_t>(index)];
    span_.controller = index;
    cursor_ = {controller.firstUniverse, 1};
    for (std::size_t p = 0; p < controller.ports.size(); ++p) {
      span_.port = static_cast<int>(p);
      const auto& run = controller.ports[p].run;
      if (!run.empty() && controller.portStart == PortStart::NewUniverse && !cursor_.fresh())
        cursor_ = {cursor_.universe + 1, 1};
      for (std::size_t b = 0; b < run.size(); ++b) {
        span_.bead = static_cast<int>(b);
        addBead(run[b]);
      }
    }
  }

 private:
  void addBead(const Bead& bead) {
    const Fixture* fixture = find(show_.fixtures, bead.fixture);
    if (!fixture) return;
    span_.channelsPerPixel = std::max(1, stripTypeOf(show_, *fixture).bytesPerPixel());
    advance(bead.skippedBefore);
    const int exists = pixelCount(*fixture);
    const int first = std::clamp(bead.first, 0, exists);
    const int count = std::clamp(bead.count, 0, exists - first);
    span_.fixture = bead.fixture;
    span_.step = bead.reversed ? -1 : 1;
    int next = bead.reversed ? first + count - 1 : first;
    for (int left = count; left > 0;) {
      const int here = std::min(left, cursor_.room(span_.channelsPerPixel));
      span_.firstPixel = next;
      span_.count = here;
      span_.universe = cursor_.universe;
      span_.channel = cursor_.channel;
      patch_.spans.push_back(span_);
      use(here);
      next += here * span_.step;
      left -= here;
    }
  }

  /// Passes over channels of pixels that stay dark.
  void advance(int pixels) {
    while (pixels > 0) {
      const int here = std::min(pixels, cursor_.room(span_.channelsPerPixel));
      use(here);
      pixels -= here;
    }
  }

  void use(int pixels) {
    cursor_.channel += pixels * span_.channelsPerPixel;
    const auto last = patch_.universes.rbegin();
    if (last == patch_.universes.rend() || last->controller != span_.controller || last->universe != cursor_.universe)
      patch_.universes.push_back({span_.controller, cursor_.universe, 0});
    patch_.universes.back().channels = cursor_.channel - 1;
  }

  const Show& show_;
  Patch patch_;
  PatchSpan span_;
  Cursor cursor_;
};

}  // namespace

Patch derivePatch(const Show& show) {
  Patcher patcher(show);
  for (std::size_t i = 0; i < show.controllers.size(); ++i) patcher.addController(static_cast<int>(i));
  return std::move(patcher).take();
}

std::string addressText(int universe, int channel) {
  return std::to_string(universe) + " : " + std::to_string(channel);
}

}  // namespace chispa
