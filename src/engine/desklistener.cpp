// SPDX-License-Identifier: GPL-3.0-or-later
#include "engine/desklistener.h"

namespace chispa::engine {

Result<std::unique_ptr<DeskListener>> DeskListener::open(const Options& options, DeskBoxes boxes,
                                                         std::shared_ptr<Clock> clock) {
  std::unique_ptr<DeskListener> listener(new DeskListener(std::move(boxes), std::move(clock)));
  link::Receiver::Options receive;
  receive.address = options.address;
  receive.e131Port = receive.artNetPort = receive.ddpPort = receive.opcPort = 0;
  for (const auto& [universe, box] : listener->boxes_) {
    if (universe.protocol == Protocol::E131) {
      receive.e131Port = options.e131Port;
      receive.groups.push_back(universe.universe);
    } else {
      receive.artNetPort = options.artNetPort;
    }
  }
  receive.changed = [own = listener.get()](Protocol protocol, int universe,
                                           const std::array<std::uint8_t, 512>* values) {
    own->take(protocol, universe, values);
  };
  auto receiver = link::Receiver::open(std::move(receive));
  if (!receiver) return receiver.failure();
  listener->receiver_ = *std::move(receiver);
  return listener;
}

DeskListener::~DeskListener() {
  receiver_.reset();
  // Nobody hears the desk any more.
  for (const auto& [universe, box] : boxes_) take(universe.protocol, universe.universe, nullptr);
}

void DeskListener::take(Protocol protocol, int universe,
                        const std::array<std::uint8_t, 512>* values) noexcept {
  const auto found = boxes_.find({protocol, universe});
  if (found == boxes_.end()) return;
  DeskBox& box = *found->second;
  DeskBox::Heard& heard = box.box.filling();
  // The box keeps several values in turn: what was heard last is the desk's.
  if (values) box.last = *values;
  if (!values && !box.isHeard) return;
  box.isHeard = true;
  heard = {box.last, true, values == nullptr, clock_->now()};
  box.box.publish();
}

}  // namespace chispa::engine
