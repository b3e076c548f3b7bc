// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <string>
#include <vector>

#include "core/base/id.h"

namespace chispa {

/// What a controller is spoken to with.
enum class Protocol { E131, ArtNet };

/// A span of a fixture on a port's thread, with the pixels that are skipped in front of it.
struct Bead {
  FixtureId fixture;
  /// First pixel of the span, from 0.
  int first = 0;
  int count = 0;
  /// True if data enters at the span's last pixel.
  bool reversed = false;
  /// Pixels in the chain before the span that stay dark, but take data.
  int skippedBefore = 0;

  bool operator==(const Bead&) const = default;
};

/// One data output of a controller and its run: what hangs on it, in data order.
struct Port {
  std::vector<Bead> run;

  bool operator==(const Port&) const = default;
};

/// Where the addresses of a port begin.
enum class PortStart { NewUniverse, Continue };

/// The box that drives strips.
struct Controller {
  ControllerId id;
  std::string name;
  Protocol protocol = Protocol::E131;
  /// IPv4 address or host name.
  std::string host;
  /// UDP port; 0 is the protocol's own (E1.31 5568, Art-Net 6454).
  int udpPort = 0;
  /// TCP port of the controller's set-up interface (docs/node-interface.md); 0 if it has none.
  int setupPort = 0;
  /// E1.31 1–63999, Art-Net Port-Address 0–32767.
  int firstUniverse = 1;
  PortStart portStart = PortStart::NewUniverse;
  std::vector<Port> ports;

  bool operator==(const Controller&) const = default;
};

/// UDP port that data for `controller` goes to.
int dataPort(const Controller& controller);

}  // namespace chispa
