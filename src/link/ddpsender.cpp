// SPDX-License-Identifier: GPL-3.0-or-later
#include "link/ddpsender.h"

#include <algorithm>

#include "link/ddp.h"

namespace chispa::link {
namespace {

constexpr std::size_t kPacketSize = kDdpHeaderSize + kDdpMostData;

}  // namespace

Result<std::unique_ptr<ControllerSender>> DdpSender::open(const Controller& controller,
                                                          std::vector<int> universes,
                                                          const HostLookup& lookup, RowFormat format) {
  const auto endpoint = lookup(controller.host, dataPort(controller));
  if (!endpoint) return endpoint.failure();
  auto socket = UdpSender::open(*endpoint);
  if (!socket) return socket.failure();
  return std::unique_ptr<ControllerSender>(
      new DdpSender(controller, std::move(universes), *endpoint, *std::move(socket), format));
}

DdpSender::DdpSender(const Controller& controller, std::vector<int> universes, Endpoint endpoint,
                     UdpSender socket, RowFormat format)
    : ControllerSender(controller, std::move(universes)),
      endpoint_(endpoint),
      socket_(std::move(socket)),
      dataType_(ddpDataType(format)) {
  length_ = universes_.empty() ? 0 : (static_cast<std::size_t>(universes_.back()) + 1) * kChannels;
  const std::size_t count = (length_ + kDdpMostData - 1) / kDdpMostData;
  packets_.resize(count * kPacketSize);
  packetWhich_.resize(count, 0);
  next_ = count;
}

void DdpSender::send(std::span<const std::uint8_t> values, Instant now, bool all) noexcept {
  sendingAt_ = now;
  bool changed = false;
  for (std::size_t i = 0; i < universes_.size(); ++i)
    changed |=
        put(static_cast<std::size_t>(universes_[i]) * kChannels, values.subspan(i * kChannels, kChannels));
  const bool isDue = keepAlive_.isDue(changed, all, now);
  std::fill(which_.begin(), which_.end(), isDue ? std::uint8_t{1} : std::uint8_t{0});
  if (isDue) sendFrame(now);
}

bool DdpSender::put(std::size_t offset, std::span<const std::uint8_t> values) noexcept {
  bool changed = false;
  while (!values.empty()) {
    const std::size_t within = offset % kDdpMostData;
    const auto piece = values.first(std::min(values.size(), kDdpMostData - within));
    const auto held = packets_.begin() + static_cast<std::ptrdiff_t>(offset / kDdpMostData * kPacketSize +
                                                                     kDdpHeaderSize + within);
    if (!std::equal(piece.begin(), piece.end(), held)) {
      // What is of a frame that has not wholly left goes with it.
      while (hasMore()) sendMore(sendingAt_);
      std::copy(piece.begin(), piece.end(), held);
      changed = true;
    }
    offset += piece.size();
    values = values.subspan(piece.size());
  }
  return changed;
}

std::size_t DdpSender::lengthOf(std::size_t packet) const noexcept {
  return std::min(kDdpMostData, length_ - packet * kDdpMostData);
}

void DdpSender::sendFrame(Instant now) noexcept {
  // A frame that was not ended is shown only with its end.
  while (hasMore()) sendMore(now);
  const std::size_t count = packetWhich_.size();
  for (std::size_t i = 0; i < count; ++i) {
    const std::size_t offset = i * kDdpMostData;
    const auto packet = std::span(packets_).subspan(i * kPacketSize, kPacketSize);
    sequence_ = static_cast<std::uint8_t>(sequence_ % 15 + 1);
    writeDdpHeader(packet, {sequence_, i + 1 == count, static_cast<std::uint32_t>(offset),
                            static_cast<std::uint16_t>(lengthOf(i)), dataType_});
  }
  next_ = 0;
  sendRow(now, false);
}

// All but the last have one size; the last is sent by itself, and ends the frame.
void DdpSender::sendRow(Instant now, bool isRest) noexcept {
  if (!hasMore()) return;
  const std::size_t count = packetWhich_.size();
  const std::size_t end = next_ + std::min(maxInRow(), count - next_);
  std::size_t bytes = (end - next_) * kDdpHeaderSize;
  for (std::size_t i = 0; i < count; ++i) {
    const bool isOfRow = i >= next_ && i < end;
    packetWhich_[i] = isOfRow && i + 1 < count;
    if (isOfRow) bytes += lengthOf(i);
  }
  auto sent = socket_.send(packets_, kPacketSize, packetWhich_);
  if (end == count) {
    constexpr std::uint8_t kOne[] = {1};
    const auto last = socket_.send(std::span(packets_).subspan((count - 1) * kPacketSize),
                                   kDdpHeaderSize + lengthOf(count - 1), kOne);
    sent.packets += last.packets;
    if (last.error != 0) sent.error = last.error;
  }
  ControllerSender::count(end - next_, bytes, sent, now, isRest);
  next_ = end;
}

void DdpSender::endInDark(Instant now) noexcept {
  while (hasMore()) sendMore(now);
  for (std::size_t i = 0; i < packetWhich_.size(); ++i)
    std::ranges::fill(std::span(packets_).subspan(i * kPacketSize + kDdpHeaderSize, kDdpMostData),
                      std::uint8_t{0});
  sendFrame(now);
  while (hasMore()) sendMore(now);
}

void DdpSender::takeOver(ControllerSender& before, Instant now) noexcept {
  const auto* same = dynamic_cast<const DdpSender*>(&before);
  // A frame says all there is; only bytes beyond this row's end would stay lit.
  if (!same || endpoint_ != same->endpoint_ || same->length_ > length_) before.endInDark(now);
  if (same) sequence_ = same->sequence_;
}

}  // namespace chispa::link
