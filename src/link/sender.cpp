// SPDX-License-Identifier: GPL-3.0-or-later
#include "link/sender.h"

#include "link/ddpsender.h"
#include "link/universesender.h"

namespace chispa::link {

ControllerSender::ControllerSender(const Controller& controller, std::vector<int> universes, Endpoint endpoint, UdpSender socket)
    : controller_(controller.id), endpoint_(endpoint), socket_(std::move(socket)), universes_(std::move(universes)), which_(universes_.size(), 0) {}

Result<std::unique_ptr<ControllerSender>> ControllerSender::open(const Controller& controller, std::vector<int> universes, const E131Source& source) {
  if (controller.protocol == Protocol::Ddp) return DdpSender::open(controller, std::move(universes));
  return UniverseSender::open(controller, std::move(universes), source);
}

void ControllerSender::count(std::size_t wanted, std::size_t bytes, const UdpSender::Sent& sent, Instant now) noexcept {
  counters_->packets.fetch_add(sent.packets, std::memory_order_relaxed);
  counters_->bytes.fetch_add(bytes, std::memory_order_relaxed);
  counters_->errors.fetch_add(wanted - sent.packets, std::memory_order_relaxed);
  if (sent.error == 0) return;
  counters_->lastError.store(sent.error, std::memory_order_relaxed);
  counters_->lastErrorAt_ns.store(now.count(), std::memory_order_relaxed);
}

}  // namespace chispa::link
