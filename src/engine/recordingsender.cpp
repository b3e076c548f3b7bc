// SPDX-License-Identifier: GPL-3.0-or-later
#include "engine/recordingsender.h"

#include <algorithm>

namespace chispa::engine {

Result<RecordingSender> RecordingSender::open(const RecordingHead& head, const link::E131Source& source) {
  RecordingSender sender;
  for (const auto& controller : head.rig.controllers) {
    Target target;
    for (std::size_t i = 0; i < head.universes.size(); ++i)
      if (head.universes[i].controller == controller->id) target.places.push_back(i);
    if (target.places.empty()) continue;
    std::sort(target.places.begin(), target.places.end(), [&](std::size_t a, std::size_t b) {
      return head.universes[a].universe < head.universes[b].universe;
    });
    std::vector<int> universes;
    for (const std::size_t i : target.places) universes.push_back(head.universes[i].universe);
    auto opened = link::ControllerSender::open(*controller, universes, source);
    if (!opened) return opened.failure();
    target.sender = *std::move(opened);
    target.values.resize(universes.size() * link::ControllerSender::kChannels);
    sender.targets_.push_back(std::move(target));
  }
  if (sender.targets_.empty())
    return Failure{"the recording does not say to which controllers it goes", head.name,
                   "play it in the Bench's monitor, to the controllers of a show"};
  return sender;
}

void RecordingSender::send(std::span<const std::uint8_t> values, link::ControllerSender::Instant now) {
  constexpr std::size_t kChannels = link::ControllerSender::kChannels;
  for (Target& target : targets_) {
    for (std::size_t i = 0; i < target.places.size(); ++i) {
      const auto own = values.subspan(target.places[i] * kChannels, kChannels);
      std::copy(own.begin(), own.end(), target.values.begin() + static_cast<std::ptrdiff_t>(i * kChannels));
    }
    target.sender->send(target.values, now);
  }
  for (Target& target : targets_) target.sender->sync(now);
}

void RecordingSender::end(link::ControllerSender::Instant now) {
  for (Target& target : targets_) target.sender->endInDark(now);
}

}  // namespace chispa::engine
