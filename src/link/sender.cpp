// SPDX-License-Identifier: GPL-3.0-or-later
#include "link/sender.h"

#include "link/ddpsender.h"
#include "link/opcsender.h"
#include "link/serialdmx.h"
#include "link/universesender.h"

namespace chispa::link {

ControllerSender::ControllerSender(const Controller& controller, std::vector<int> universes)
    : controller_(controller.id), universes_(std::move(universes)), which_(universes_.size(), 0) {}

Result<std::unique_ptr<ControllerSender>> ControllerSender::open(const Controller& controller, std::vector<int> universes, const E131Source& source, const HostLookup& lookup, RowFormat format) {
  switch (controller.protocol) {
    case Protocol::E131:
    case Protocol::ArtNet: return UniverseSender::open(controller, std::move(universes), source, lookup);
    case Protocol::Ddp: return DdpSender::open(controller, std::move(universes), lookup, format);
    case Protocol::Opc: return OpcSender::open(controller, std::move(universes), lookup, format);
    case Protocol::SerialDmx: return SerialDmxSender::open(controller, std::move(universes));
    case Protocol::Screen: break;
  }
  return Failure{"A screen is not sent to.", controller.name, "Its ports are windows."};
}

void ControllerSender::count(std::size_t wanted, std::size_t bytes, const UdpSender::Sent& sent, Instant now) noexcept {
  counters_->packets.fetch_add(sent.packets, std::memory_order_relaxed);
  counters_->bytes.fetch_add(bytes, std::memory_order_relaxed);
  counters_->errors.fetch_add(wanted - sent.packets, std::memory_order_relaxed);
  if (sent.packets > 0) counters_->frames.fetch_add(1, std::memory_order_relaxed);
  if (sent.error != 0) noteTrouble(*counters_, sent.error, now);
}

void ControllerSender::noteTrouble(SendCounters& counters, int error, Instant now) noexcept {
  const Instant last(counters.lastErrorAt_ns.load(std::memory_order_relaxed));
  if (counters.lastError.load(std::memory_order_relaxed) == 0 || now - last > kTroubleLasts) counters.troubleSince_ns.store(now.count(), std::memory_order_relaxed);
  counters.lastError.store(error, std::memory_order_relaxed);
  counters.lastErrorAt_ns.store(now.count(), std::memory_order_relaxed);
}

}  // namespace chispa::link
