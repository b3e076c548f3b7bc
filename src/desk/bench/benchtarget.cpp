// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/bench/benchtarget.h"

#include <QCoreApplication>

#include "core/edit/wireedits.h"
#include "desk/parts/format.h"

namespace chispa::desk {
namespace {

QString tr(const char* words) {
  return QCoreApplication::translate("BenchTarget", words);
}

const Port* portOf(const Show& show, const PortChoice& choice) {
  const Controller* controller = chispa::find(show.controllers, choice.controller);
  return controller && choice.port < std::ssize(controller->ports)
             ? &controller->ports[static_cast<std::size_t>(choice.port)]
             : nullptr;
}

}  // namespace

int beadStart(const Port& port, int bead) {
  int start = 0;
  for (int i = 0; i <= bead && i < std::ssize(port.run); ++i) {
    const Bead& own = port.run[static_cast<std::size_t>(i)];
    start += own.skippedBefore + (i < bead ? own.count : 0);
  }
  return start;
}

engine::SignalTarget signalTarget(const Show& show, const BenchTarget& target,
                                  const engine::ChannelRange& channels) {
  engine::SignalTarget to;
  to.controller = target.controller;
  if (target.kind == BenchTarget::Kind::Channels) to.channels = channels;
  if (target.kind == BenchTarget::Kind::Port || target.kind == BenchTarget::Kind::Bead ||
      target.kind == BenchTarget::Kind::Address)
    to.port = target.port;
  const Port* port = portOf(show, target.portChoice());
  const Bead* bead = beadAt(show, {target.controller, target.port, target.bead});
  if (target.kind == BenchTarget::Kind::Bead && port && bead)
    to.places = engine::PlaceRange{beadStart(*port, target.bead), bead->count};
  return to;
}

QString targetName(const Show& show, const BenchTarget& target) {
  const Controller* controller = chispa::find(show.controllers, target.controller);
  const QString name = controller ? text(controller->name) : QString();
  switch (target.kind) {
    case BenchTarget::Kind::Controller:
      return name;
    case BenchTarget::Kind::Port:
      return tr("%1, port %2").arg(name).arg(target.port + 1);
    case BenchTarget::Kind::Bead: {
      const Bead* bead = beadAt(show, {target.controller, target.port, target.bead});
      const Fixture* fixture = bead ? chispa::find(show.fixtures, bead->fixture) : nullptr;
      return tr("%1, port %2, %3")
          .arg(name)
          .arg(target.port + 1)
          .arg(fixture ? text(fixture->name) : QString());
    }
    case BenchTarget::Kind::Channels:
      return tr("channels of %1").arg(name);
    case BenchTarget::Kind::Address:
      return controller ? tr("%1 by hand").arg(text(controller->host)) : name;
  }
  return name;
}

std::vector<bool> skippedPlaces(const Show& show, const PortChoice& choice) {
  std::vector<bool> skipped;
  const Port* port = portOf(show, choice);
  if (!port) return skipped;
  for (const Bead& bead : port->run) {
    skipped.insert(skipped.end(), static_cast<std::size_t>(bead.skippedBefore), true);
    skipped.insert(skipped.end(), static_cast<std::size_t>(bead.count), false);
  }
  return skipped;
}

std::optional<LitPixel> pixelAt(const Show& show, const Patch& patch, const PortChoice& choice, int place) {
  int passed = 0;
  const Port* port = portOf(show, choice);
  if (!port) return std::nullopt;
  for (const PatchSpan& span : patch.spans) {
    if (static_cast<std::size_t>(span.controller) >= show.controllers.size()) return std::nullopt;
    if (show.controllers[static_cast<std::size_t>(span.controller)]->id != choice.controller ||
        span.port != choice.port)
      continue;
    if (static_cast<std::size_t>(span.bead) >= port->run.size()) return std::nullopt;
    const Bead& bead = port->run[static_cast<std::size_t>(span.bead)];
    const bool opensBead = span.firstPixel == (bead.reversed ? bead.first + bead.count - 1 : bead.first);
    // The second half of a value that is split tells nothing new.
    if (span.firstByte > 0) continue;
    if (opensBead) passed += bead.skippedBefore;
    if (place >= passed && place < passed + span.pixels) {
      const int i = (place - passed) / span.pixelsPerValue;
      const Fixture* fixture = chispa::find(show.fixtures, span.fixture);
      return LitPixel{
          tr("%1, pixel %2").arg(fixture ? text(fixture->name) : QString()).arg(span.pixelOf(i) + 1),
          span.universe, span.channelOf(i)};
    }
    passed += span.pixels;
  }
  return std::nullopt;
}

}  // namespace chispa::desk
