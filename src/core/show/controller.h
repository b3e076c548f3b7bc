// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <optional>
#include <string>
#include <vector>

#include "core/colour/rgb.h"
#include "core/show/controllermemory.h"
#include "core/show/protocol.h"
#include "core/show/response.h"
#include "core/show/supply.h"

namespace chispa {

/// How pixels take their values where that differs from their strip type; a bead's go before its port's.
struct WireSettings {
  /// Share of the light, 0–1; a bead's and its port's multiply.
  std::optional<double> brightness;
  /// Channel order, as a strip type has it.
  std::optional<std::string> order;
  std::optional<Response> response;
  /// Pixels that share one value because the controller repeats it.
  std::optional<int> grouping;
  /// The strip turns back after every so many pixels.
  std::optional<int> zigzag;

  bool operator==(const WireSettings&) const = default;
};

/// A start that is kept where a controller is set up already.
struct FixedStart {
  int universe = 1;
  /// From 1.
  int channel = 1;

  bool operator==(const FixedStart&) const = default;
};

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
  WireSettings settings = {};
  std::optional<FixedStart> fixedStart = {};
  /// Where power enters it.
  std::vector<Injection> injections = {};

  bool operator==(const Bead&) const = default;
};

/// Where a port of a screen shows its pixels: as a matrix, row by row from the upper left.
struct ScreenArea {
  /// Pixels of a row.
  int columns = 16;
  /// Dots of the screen that a pixel is wide and high; a full screen is filled instead.
  int dots = 16;
  /// The display, from 0.
  int display = 0;
  /// Upper left corner on the display, in dots.
  int left = 0;
  int top = 0;
  bool isFullScreen = false;

  bool operator==(const ScreenArea&) const = default;
};

/// One data output of a controller and its run: what hangs on it, in data order.
struct Port {
  std::vector<Bead> run;
  WireSettings settings = {};
  std::optional<FixedStart> fixedStart = {};
  /// The colour that the maker marks its lead with; for drawings and the booklet.
  std::optional<Srgb8> mark = {};
  /// Used if the controller is a screen.
  ScreenArea screen = {};

  bool operator==(const Port&) const = default;
};

/// Where the addresses of a port begin.
enum class PortStart { NewUniverse, Continue };

/// To whom data is sent.
enum class Delivery {
  Unicast,    ///< to the controller's own address
  Multicast,  ///< E1.31: to the group of each universe (§9.3.1)
  Broadcast,  ///< Art-Net: to the broadcast address that stands as the controller's
};

/// The box that drives strips.
struct Controller {
  ControllerId id;
  std::string name;
  Protocol protocol = Protocol::E131;
  /// IPv4 address or host name; for serial DMX the path of the adapter ("/dev/ttyUSB0").
  std::string host;
  /// UDP or TCP port; 0 is the protocol's own.
  int udpPort = 0;
  /// TCP port of the controller's set-up interface (docs/node-interface.md); 0 if it has none.
  int setupPort = 0;
  /// Within what its protocol numbers (ProtocolTraits).
  int firstUniverse = 1;
  PortStart portStart = PortStart::NewUniverse;
  /// Channels of a universe that are used: 510 or 512.
  int channelsPerUniverse = 512;
  /// Pixels may be split over two universes, so that no channel is left.
  bool isPacked = false;
  /// The controller inserts skipped pixels itself: they take no channels.
  bool insertsSkipped = false;
  /// Most pixels that a port drives; 0 if that is not known.
  int maxPixelsOfPort = 0;
  Delivery delivery = Delivery::Unicast;
  /// Address of the interface that multicast and broadcast leave by; empty for the system's choice.
  std::string localAddress;
  /// E1.31 priority, 0–200.
  int priority = 100;
  /// A sync packet follows each frame, so that all controllers change at once.
  bool sendsSync = false;
  /// Most frames a second that it takes; 0 for as many as is usual. See framesPerSecondOf().
  double maxFramesPerSecond = 0;
  /// Most packets of a frame that reach it in a row; the others follow a millisecond apart from these, as
  /// many each time. 0 if it takes them as they come.
  int maxPacketsInRow = 0;
  /// Light between two values is shown as now the one, now the other; else as the nearest.
  bool dithers = true;
  /// Light leaves so much later than it is due, so that slow and fast controllers agree, or, below 0, so much
  /// earlier: what lags behind the sound is computed ahead. −500 to 500.
  double delay_ms = 0;
  std::vector<Port> ports;
  /// What it plays by itself.
  ControllerMemory memory = {};

  bool operator==(const Controller&) const = default;
};

/// UDP or TCP port that data for `controller` goes to; 0 where its protocol has none.
int dataPort(const Controller& controller);

}  // namespace chispa
