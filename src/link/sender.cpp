// SPDX-License-Identifier: GPL-3.0-or-later
#include "link/sender.h"

#include <limits>

#include "core/wire/patch.h"
#include "link/ddpsender.h"
#include "link/opcsender.h"
#include "link/serialdmx.h"
#include "link/universesender.h"

namespace chispa::link {

ControllerSender::ControllerSender(const Controller& controller, std::vector<int> universes)
    : controller_(controller.id),
      universes_(std::move(universes)),
      which_(universes_.size(), 0),
      maxInRow_(controller.maxPacketsInRow > 0 ? static_cast<std::size_t>(controller.maxPacketsInRow)
                                               : std::numeric_limits<std::size_t>::max()) {}

namespace {

/// Whatever the caller was told by a file or a controller: memory is laid out by these numbers.
Outcome soundUniverses(const Controller& controller, const std::vector<int>& universes) {
  const UniverseRange range = universeRange(controller.protocol);
  for (std::size_t i = 0; i < universes.size(); ++i) {
    if (!range.holds(universes[i]))
      return Failure{
          sentence("Universe %1 does not exist in %2.", universes[i], protocolTitle(controller.protocol)),
          controller.name, sentence("Use universes from %1 to %2.", range.low, range.high)};
    if (i > 0 && universes[i] <= universes[i - 1])
      return Failure{sentence("Universe %1 stands behind universe %2.", universes[i], universes[i - 1]),
                     controller.name, "List each universe once, in rising order."};
  }
  return Done{};
}

}  // namespace

Result<std::unique_ptr<ControllerSender>> ControllerSender::open(const Controller& controller,
                                                                 std::vector<int> universes,
                                                                 const E131Source& source,
                                                                 const HostLookup& lookup, RowFormat format) {
  if (const Outcome sound = soundUniverses(controller, universes); !sound) return sound.failure();
  switch (controller.protocol) {
    case Protocol::E131:
    case Protocol::ArtNet:
      return UniverseSender::open(controller, std::move(universes), source, lookup);
    case Protocol::Ddp:
      return DdpSender::open(controller, std::move(universes), lookup, format);
    case Protocol::Opc:
      return OpcSender::open(controller, std::move(universes), lookup, format);
    case Protocol::SerialDmx:
      return SerialDmxSender::open(controller, std::move(universes));
    case Protocol::Screen:
      break;
  }
  return Failure{"A screen is not sent to.", controller.name, "Its ports are windows."};
}

void ControllerSender::count(std::size_t wanted, std::size_t bytes, const UdpSender::Sent& sent, Instant now,
                             bool isRest) noexcept {
  counters_->packets.fetch_add(sent.packets, std::memory_order_relaxed);
  counters_->bytes.fetch_add(bytes, std::memory_order_relaxed);
  counters_->errors.fetch_add(wanted - sent.packets, std::memory_order_relaxed);
  if (sent.packets > 0 && !isRest) counters_->frames.fetch_add(1, std::memory_order_relaxed);
  if (sent.error != 0) noteTrouble(*counters_, sent.error, now);
}

void ControllerSender::noteTrouble(SendCounters& counters, int error, Instant now) noexcept {
  const Instant last(counters.lastErrorAt_ns.load(std::memory_order_relaxed));
  if (counters.lastError.load(std::memory_order_relaxed) == 0 || now - last > kTroubleLasts)
    counters.troubleSince_ns.store(now.count(), std::memory_order_relaxed);
  counters.lastError.store(error, std::memory_order_relaxed);
  counters.lastErrorAt_ns.store(now.count(), std::memory_order_relaxed);
}

}  // namespace chispa::link
