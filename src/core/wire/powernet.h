// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <cstdint>
#include <span>
#include <vector>

#include "core/base/frame.h"
#include "core/show/show.h"

namespace chispa {

/// What each LED pixel of a bead draws.
struct PixelLoad {
  int bead = 0;
  /// Amps for each channel at full, as dimmed by its wire settings.
  double channel_a = 0;
  /// Channels' worth with every chip at full.
  double fullChannels = 3;
  ChipMix mix = {};
};

/// One LED pixel of a chain, and the copper between it and the one before. Small: a show has a million.
struct PowerNode {
  /// Number in PixelMap; kDark for a skipped one.
  std::int32_t pixel = kDark;
  /// Place of what it draws among the chain's loads.
  std::uint32_t load = 0;
  double ohmsBefore = 0;

  static constexpr std::int32_t kDark = -1;
};

/// A supply's wire to a node.
struct PowerFeed {
  std::size_t node = 0;
  /// Place in the show's list of supplies.
  int supply = 0;
  double volts = 5;
  /// Of the wire there and back, and its joints.
  double ohms = 0;
  double fuse_a = 0;
  double wire_mm2 = 0;
  /// The pin: the bead, and its place among the bead's injections.
  int bead = 0;
  int index = 0;
};

/// Strips of one voltage that hang one behind the other on a port, so that current flows through all of them.
struct PowerChain {
  int controller = 0;
  int port = 0;
  double volts = 5;
  /// The voltage below which colours fade.
  double least_v = 4;
  std::vector<PowerNode> nodes;
  /// One a bead.
  std::vector<PixelLoad> loads;
  std::vector<PowerFeed> feeds;

  const PixelLoad& loadOf(const PowerNode& node) const { return loads[node.load]; }
};

/// All chains of a show, from what hangs where and the pins on it.
std::vector<PowerChain> powerChains(const Show& show);

/// Voltages and currents of a chain.
struct ChainState {
  /// At each node; empty if nothing feeds the chain.
  std::vector<double> volts;
  /// From each feed, in the order of the chain's.
  std::vector<double> feed_a;
};

/// Amps of each node with every channel at full.
std::vector<double> fullWhite_a(const PowerChain& chain);
/// Amps of each node as `frame` lights it at `master` 0–1.
std::vector<double> frame_a(const PowerChain& chain, const PixelFrame& frame, double master);
/// Solves the resistor ladder for nodes that draw `node_a` whatever their voltage, as constant-current
/// drivers do (nodal analysis; the tridiagonal system by Thomas's algorithm).
ChainState solve(const PowerChain& chain, std::span<const double> node_a);
/// For each node, the share of its current that `supply` gives: linear in the currents, so worked out once.
/// Sums to 1 over all supplies of a chain.
std::vector<double> shareOf(const PowerChain& chain, int supply);

/// All chains at one load.
struct PowerReading {
  /// In the order of the chains.
  std::vector<ChainState> states;
  /// Of each supply in the show's order.
  std::vector<double> supply_a;
};
PowerReading readFullWhite(std::span<const PowerChain> chains, std::size_t supplies);
PowerReading readFrame(std::span<const PowerChain> chains, std::size_t supplies, const PixelFrame& frame,
                       double master);

/// The copper from one pixel to the next, in metres of the strip's own, for each segment: as the reel has it,
/// or as far as they lie apart where that is more (wire between) or there is no reel.
std::vector<double> copperPitches_m(const StripType& strip, const Fixture& fixture);

}  // namespace chispa
