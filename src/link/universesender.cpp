// SPDX-License-Identifier: GPL-3.0-or-later
#include "link/universesender.h"

#include <algorithm>

#include "link/artnet.h"

namespace chispa::link {

Result<std::unique_ptr<ControllerSender>> UniverseSender::open(const Controller& controller,
                                                               std::vector<int> universes,
                                                               const E131Source& source,
                                                               const HostLookup& lookup) {
  const int port = dataPort(controller);
  const bool isMulticast =
      controller.delivery == Delivery::Multicast && controller.protocol == Protocol::E131;
  const auto endpoint = isMulticast ? Result<Endpoint>(e131Group(0, port)) : lookup(controller.host, port);
  if (!endpoint) return endpoint.failure();
  const Reach reach = isMulticast                                  ? Reach::Groups
                      : controller.delivery == Delivery::Broadcast ? Reach::Broadcast
                                                                   : Reach::One;
  auto socket = UdpSender::open(*endpoint, reach, controller.localAddress);
  if (!socket) return socket.failure();
  return std::unique_ptr<ControllerSender>(
      new UniverseSender(controller, std::move(universes), source, *endpoint, *std::move(socket)));
}

UniverseSender::UniverseSender(const Controller& controller, std::vector<int> universes,
                               const E131Source& source, Endpoint endpoint, UdpSender socket)
    : ControllerSender(controller, std::move(universes)),
      endpoint_(endpoint),
      socket_(std::move(socket)),
      protocol_(controller.protocol),
      packetSize_(controller.protocol == Protocol::E131 ? kE131PacketSize : kArtDmxPacketSize) {
  const std::size_t count = universes_.size();
  packets_.resize(count * packetSize_);
  sequences_.resize(count, 0);
  keepAlive_.resize(count);
  waiting_.resize(count, 0);
  leaving_.resize(count, 0);
  E131Source own = source;
  own.priority = static_cast<std::uint8_t>(std::clamp(controller.priority, 0, 200));
  const bool isE131 = protocol_ == Protocol::E131;
  const bool isMulticast = isE131 && controller.delivery == Delivery::Multicast;
  // Every controller is synchronised on its own first universe.
  const int syncUniverse = controller.sendsSync && !universes_.empty() ? universes_.front() : 0;
  for (std::size_t i = 0; i < count; ++i) {
    if (isE131) {
      writeE131Header(packet(i), own, universes_[i]);
      setE131SyncAddress(packet(i), syncUniverse);
    } else {
      writeArtDmxHeader(packet(i), universes_[i]);
    }
    if (isMulticast) groups_.push_back(e131Group(universes_[i], endpoint_.port));
  }
  if (!controller.sendsSync || universes_.empty()) return;
  syncPacket_.resize(isE131 ? kE131SyncPacketSize : kArtSyncPacketSize);
  if (isE131)
    writeE131Sync(syncPacket_, own, syncUniverse);
  else
    writeArtSync(syncPacket_);
  if (isMulticast) syncGroup_.push_back(e131Group(syncUniverse, endpoint_.port));
}

std::span<std::uint8_t> UniverseSender::packet(std::size_t i) {
  return std::span(packets_).subspan(i * packetSize_, packetSize_);
}

std::span<std::uint8_t> UniverseSender::values(std::size_t i) {
  return protocol_ == Protocol::E131 ? e131Values(packet(i)) : artDmxValues(packet(i));
}

void UniverseSender::number(std::size_t i) noexcept {
  if (protocol_ == Protocol::E131) {
    setE131Sequence(packet(i), sequences_[i]++);
    return;
  }
  sequences_[i] = sequences_[i] == 255 ? std::uint8_t{1} : static_cast<std::uint8_t>(sequences_[i] + 1);
  setArtDmxSequence(packet(i), sequences_[i]);
}

void UniverseSender::send(std::span<const std::uint8_t> all, Instant now, bool everything) noexcept {
  for (std::size_t i = 0; i < universes_.size(); ++i) {
    const auto wanted = all.subspan(i * kChannels, kChannels);
    const auto held = values(i);
    const bool changed = !std::equal(wanted.begin(), wanted.end(), held.begin());
    if (changed) std::copy(wanted.begin(), wanted.end(), held.begin());
    which_[i] = keepAlive_[i].isDue(changed, everything, now);
    if (!which_[i] || std::exchange(waiting_[i], std::uint8_t{1})) continue;
    number(i);
    ++waitingCount_;
  }
  if (waitingCount_ > 0) sendRow(now, false);
}

void UniverseSender::sendMore(Instant now) noexcept {
  if (waitingCount_ > 0) sendRow(now, true);
}

void UniverseSender::sendRow(Instant now, bool isRest) noexcept {
  const std::size_t wanted = std::min(waitingCount_, maxInRow());
  std::ranges::fill(leaving_, std::uint8_t{0});
  for (std::size_t taken = 0; taken < wanted; nextInRow_ = (nextInRow_ + 1) % waiting_.size()) {
    if (!std::exchange(waiting_[nextInRow_], std::uint8_t{0})) continue;
    leaving_[nextInRow_] = 1;
    ++taken;
  }
  waitingCount_ -= wanted;
  const auto sent = socket_.send(packets_, packetSize_, leaving_, groups_);
  count(wanted, sent.packets * packetSize_, sent, now, isRest);
  isSyncDue_ = true;
}

void UniverseSender::sendMarked(Instant now) noexcept {
  // These go at once, whatever waits.
  std::ranges::fill(waiting_, std::uint8_t{0});
  waitingCount_ = 0;
  const auto wanted =
      static_cast<std::size_t>(std::count_if(which_.begin(), which_.end(), [](auto w) { return w != 0; }));
  const auto sent = socket_.send(packets_, packetSize_, which_, groups_);
  count(wanted, sent.packets * packetSize_, sent, now);
  isSyncDue_ = isSyncDue_ || wanted > 0;
}

void UniverseSender::sync(Instant now) noexcept {
  if (syncPacket_.empty() || hasMore() || !std::exchange(isSyncDue_, false)) return;
  if (protocol_ == Protocol::E131) setE131SyncSequence(syncPacket_, syncSequence_++);
  constexpr std::uint8_t kOne[] = {1};
  count(1, syncPacket_.size(), socket_.send(syncPacket_, syncPacket_.size(), kOne, syncGroup_), now);
}

void UniverseSender::terminate(Instant now) noexcept {
  while (hasMore()) sendMore(now);
  if (protocol_ != Protocol::E131) return;
  constexpr int kTimes = 3;
  for (int time = 0; time < kTimes; ++time) {
    for (std::size_t i = 0; i < universes_.size(); ++i) {
      which_[i] = 1;
      setE131Terminated(packet(i), true);
      number(i);
    }
    sendMarked(now);
  }
  for (std::size_t i = 0; i < universes_.size(); ++i) {
    setE131Terminated(packet(i), false);
    keepAlive_[i].restart();
  }
}

void UniverseSender::darkenMarked(Instant now) noexcept {
  for (std::size_t i = 0; i < universes_.size(); ++i) {
    if (!which_[i]) continue;
    std::ranges::fill(values(i), std::uint8_t{0});
    number(i);
  }
  sendMarked(now);
}

void UniverseSender::endInDark(Instant now) noexcept {
  std::ranges::fill(which_, std::uint8_t{1});
  darkenMarked(now);
  terminate(now);
}

void UniverseSender::takeOver(ControllerSender& other, Instant now) noexcept {
  auto* same = dynamic_cast<UniverseSender*>(&other);
  if (!same || protocol_ != same->protocol_ || endpoint_ != same->endpoint_) {
    other.endInDark(now);
    return;
  }
  UniverseSender& before = *same;
  syncSequence_ = before.syncSequence_;
  for (std::size_t old = 0; old < before.universes_.size(); ++old) {
    const auto found = std::find(universes_.begin(), universes_.end(), before.universes_[old]);
    if (found == universes_.end()) continue;
    sequences_[static_cast<std::size_t>(found - universes_.begin())] = before.sequences_[old];
  }
  // Only what is not sent any more is ended.
  for (std::size_t old = 0; old < before.universes_.size(); ++old)
    before.which_[old] =
        std::find(universes_.begin(), universes_.end(), before.universes_[old]) == universes_.end();
  before.darkenMarked(now);
  for (int time = 0; time < 3 && protocol_ == Protocol::E131; ++time) {
    bool any = false;
    for (std::size_t old = 0; old < before.universes_.size(); ++old) {
      if (!before.which_[old]) continue;
      any = true;
      setE131Terminated(before.packet(old), true);
      before.number(old);
    }
    if (any) before.sendMarked(now);
  }
}

}  // namespace chispa::link
