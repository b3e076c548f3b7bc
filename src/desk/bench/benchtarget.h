// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <optional>
#include <vector>

#include "core/edit/benchrig.h"
#include "desk/session/session.h"
#include "engine/signal.h"

namespace chispa::desk {

/// What the Bench drives.
struct BenchTarget {
  enum class Kind { Controller, Port, Bead, Channels, Address };
  Kind kind = Kind::Port;
  /// Of an address by hand, the rig's.
  ControllerId controller;
  int port = 0;
  int bead = 0;

  bool operator==(const BenchTarget&) const = default;
  PortChoice portChoice() const { return {controller, port}; }
};

/// The place of a port's chain where a bead begins, its skipped pixels behind.
int beadStart(const Port& port, int bead);

/// What a signal for the target goes to; `channels` for one that takes channels as they are.
engine::SignalTarget signalTarget(const Show& show, const BenchTarget& target,
                                  const engine::ChannelRange& channels);

/// "Post box, port 3, Post 2".
QString targetName(const Show& show, const BenchTarget& target);

/// A port's chain: which places are skipped pixels.
std::vector<bool> skippedPlaces(const Show& show, const PortChoice& port);

/// What a place of a port's chain is: the fixture, its pixel, and the address.
struct LitPixel {
  QString name;
  int universe = 0;
  int channel = 0;
};
std::optional<LitPixel> pixelAt(const Show& show, const Patch& patch, const PortChoice& port, int place);

}  // namespace chispa::desk
