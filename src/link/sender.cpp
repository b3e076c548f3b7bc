// SPDX-License-Identifier: GPL-3.0-or-later
#include "link/sender.h"

#include <algorithm>
#include <cstring>

#include "link/artnet.h"

namespace chispa::link {
namespace {

constexpr std::size_t kChannels = 512;
constexpr int kRepeats = 3;
constexpr std::chrono::milliseconds kKeepAlive{800};

}  // namespace

Result<std::unique_ptr<ControllerSender>> ControllerSender::open(const Controller& controller,
                                                                 std::vector<int> universes, const E131Source& source) {
  const auto endpoint = resolve(controller.host, dataPort(controller));
  if (!endpoint) return endpoint.failure();
  auto socket = UdpSender::open(*endpoint);
  if (!socket) return socket.failure();
  std::unique_ptr<ControllerSender> sender(new ControllerSender);
  sender->controller_ = controller.id;
  sender->protocol_ = controller.protocol;
  sender->endpoint_ = *endpoint;
  sender->socket_ = *std::move(socket);
  sender->packetSize_ = controller.protocol == Protocol::E131 ? kE131PacketSize : kArtDmxPacketSize;
  sender->universes_ = std::move(universes);
  const std::size_t count = sender->universes_.size();
  sender->packets_.resize(count * sender->packetSize_);
  sender->sequences_.resize(count, 0);
  sender->which_.resize(count, 0);
  sender->repeats_.resize(count, 0);
  sender->sentAt_.resize(count, Instant{-1'000'000'000'000});
  for (std::size_t i = 0; i < count; ++i) {
    if (controller.protocol == Protocol::E131)
      writeE131Header(sender->packet(i), source, sender->universes_[i]);
    else
      writeArtDmxHeader(sender->packet(i), sender->universes_[i]);
  }
  return sender;
}

std::span<std::uint8_t> ControllerSender::packet(std::size_t i) {
  return std::span(packets_).subspan(i * packetSize_, packetSize_);
}

std::span<std::uint8_t> ControllerSender::values(std::size_t i) {
  return protocol_ == Protocol::E131 ? e131Values(packet(i)) : artDmxValues(packet(i));
}

void ControllerSender::number(std::size_t i) noexcept {
  if (protocol_ == Protocol::E131) {
    setE131Sequence(packet(i), sequences_[i]++);
    return;
  }
  sequences_[i] = sequences_[i] == 255 ? std::uint8_t{1} : static_cast<std::uint8_t>(sequences_[i] + 1);
  setArtDmxSequence(packet(i), sequences_[i]);
}

void ControllerSender::send(std::span<const std::uint8_t> all, Instant now, bool everything) noexcept {
  for (std::size_t i = 0; i < universes_.size(); ++i) {
    const auto wanted = all.subspan(i * kChannels, kChannels);
    const auto held = values(i);
    const bool changed = !std::equal(wanted.begin(), wanted.end(), held.begin());
    if (changed) std::copy(wanted.begin(), wanted.end(), held.begin());
    repeats_[i] = changed ? 0 : std::min(repeats_[i] + 1, kRepeats + 1);
    which_[i] = everything || repeats_[i] <= kRepeats || now - sentAt_[i] >= kKeepAlive;
    if (!which_[i]) continue;
    sentAt_[i] = now;
    number(i);
  }
  sendMarked(now);
}

void ControllerSender::sendMarked(Instant now) noexcept {
  const auto wanted = static_cast<std::uint64_t>(std::count_if(which_.begin(), which_.end(), [](auto w) { return w != 0; }));
  const auto sent = socket_.send(packets_, packetSize_, which_);
  counters_->packets.fetch_add(sent.packets, std::memory_order_relaxed);
  counters_->bytes.fetch_add(sent.packets * packetSize_, std::memory_order_relaxed);
  counters_->errors.fetch_add(wanted - sent.packets, std::memory_order_relaxed);
  if (sent.error != 0) {
    counters_->lastError.store(sent.error, std::memory_order_relaxed);
    counters_->lastErrorAt_ns.store(now.count(), std::memory_order_relaxed);
  }
}

void ControllerSender::terminate() noexcept {
  if (protocol_ != Protocol::E131) return;
  constexpr int kTimes = 3;
  for (int time = 0; time < kTimes; ++time) {
    for (std::size_t i = 0; i < universes_.size(); ++i) {
      which_[i] = 1;
      setE131Terminated(packet(i), true);
      number(i);
    }
    sendMarked(Instant{});
  }
  for (std::size_t i = 0; i < universes_.size(); ++i) {
    setE131Terminated(packet(i), false);
    repeats_[i] = 0;
  }
}

void ControllerSender::darkenMarked() noexcept {
  for (std::size_t i = 0; i < universes_.size(); ++i) {
    if (!which_[i]) continue;
    std::ranges::fill(values(i), std::uint8_t{0});
    number(i);
  }
  sendMarked(Instant{});
}

void ControllerSender::endInDark() noexcept {
  std::ranges::fill(which_, std::uint8_t{1});
  darkenMarked();
  terminate();
}

void ControllerSender::takeOver(ControllerSender& before) noexcept {
  if (protocol_ != before.protocol_ || endpoint_ != before.endpoint_) {
    before.endInDark();
    return;
  }
  for (std::size_t old = 0; old < before.universes_.size(); ++old) {
    const auto same = std::find(universes_.begin(), universes_.end(), before.universes_[old]);
    if (same == universes_.end()) continue;
    sequences_[static_cast<std::size_t>(same - universes_.begin())] = before.sequences_[old];
  }
  // Only what is not sent any more is ended.
  for (std::size_t old = 0; old < before.universes_.size(); ++old)
    before.which_[old] = std::find(universes_.begin(), universes_.end(), before.universes_[old]) == universes_.end();
  before.darkenMarked();
  for (int time = 0; time < 3 && protocol_ == Protocol::E131; ++time) {
    bool any = false;
    for (std::size_t old = 0; old < before.universes_.size(); ++old) {
      if (!before.which_[old]) continue;
      any = true;
      setE131Terminated(before.packet(old), true);
      before.number(old);
    }
    if (any) before.sendMarked(Instant{});
  }
}

}  // namespace chispa::link
