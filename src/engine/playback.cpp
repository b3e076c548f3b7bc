// SPDX-License-Identifier: GPL-3.0-or-later
#include "engine/playback.h"

#include <algorithm>

namespace chispa::engine {

using namespace std::chrono_literals;

Playback::Routes Playback::routesIn(const Show& show, const Patch& patch, const RecordingReader& reader) {
  Routes routes;
  for (const RecordedUniverse& recorded : reader.universes()) {
    routes.emplace_back();
    for (const PatchUniverse& used : patch.universes) {
      if (static_cast<std::size_t>(used.controller) >= show.controllers.size()) continue;
      const Controller& controller = *show.controllers[static_cast<std::size_t>(used.controller)];
      if (controller.protocol == recorded.protocol && used.universe == recorded.universe)
        routes.back() = controller.id;
    }
  }
  return routes;
}

Playback::Playback(Output& output, Clock& clock, RecordingReader reader, Routes routes)
    : output_(output),
      clock_(clock),
      reader_(std::move(reader)),
      routes_(std::move(routes)),
      length_(reader_.length()),
      thread_([this] { run(); }) {}

Playback::~Playback() {
  stopping_.store(true);
  thread_.join();
  output_.setOverlay({});
}

void Playback::run() {
  const MonoTime begun = clock_.now();
  for (auto next = begun; !stopping_.load(); next += 25ms) {
    clock_.sleepUntil(next);
    const auto position = std::chrono::duration_cast<Micros>(clock_.now() - begun);
    if (position > length_) break;
    position_us_.store(position.count());
    const auto values = reader_.at(position);
    if (!values) {
      failure_ = values.failure();
      break;
    }
    ValueOverlay overlay;
    for (std::size_t i = 0; i < routes_.size(); ++i) {
      if (!routes_[i]) continue;
      overlay.universes.push_back({*routes_[i], reader_.universes()[i].universe, {}});
      const auto own = values->subspan(i * kUniverseChannels, kUniverseChannels);
      std::copy(own.begin(), own.end(), overlay.universes.back().values.begin());
    }
    output_.setOverlay(std::move(overlay));
  }
  isDone_.store(true);
}

}  // namespace chispa::engine
