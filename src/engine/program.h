// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <map>
#include <memory>
#include <optional>
#include <vector>

#include "core/render/compiled.h"
#include "core/render/crewrenderer.h"
#include "engine/line.h"
#include "engine/liveoutput.h"
#include "engine/powerlive.h"
#include "engine/scorefade.h"
#include "engine/triplebuffer.h"
#include "link/beacon.h"

namespace chispa::engine {

/// The pixels of a port in the order of its data: each one's number in the frame, or kSkipped.
struct PortChain {
  static constexpr std::int32_t kSkipped = -1;

  ControllerId controller;
  int port = 0;
  std::vector<std::int32_t> pixels;
};

/// Where a pixel is in its matrix; `columns` is 0 for one that is in none. Row 0 is the lowest.
struct MatrixPlace {
  std::int16_t column = 0;
  std::int16_t row = 0;
  std::int16_t columns = 0;
  std::int16_t rows = 0;
};

/// What hangs on a port of `controller`, pixel by pixel in data order.
PortChain chainOf(const Show& show, const std::unordered_map<FixtureId, PixelMap::Range>& ranges,
                  const Controller& controller, int port);

/// The pixels of a port, or of one bead of it, in data order; skipped ones are left out. Empty if there is no
/// such port or bead.
std::vector<std::int32_t> wiredPixels(const Show& show,
                                      const std::unordered_map<FixtureId, PixelMap::Range>& ranges,
                                      const Controller& controller, int port, std::optional<int> bead = {});

/// A frame ahead of the others, for controllers whose light is late.
struct Ahead {
  MonoTime lead{0};
  PixelFrame frame;
  /// The instant of the score that it shows.
  Micros position{0};
  std::vector<std::uint8_t> values;
  PowerLimiter power;
  /// A line that has this lead takes the frame.
  bool isTurn = false;
  ScoreFade fade = {};
  PixelFrame fading;
};

/// All that the output thread needs to play one version of the show, made by the compiler with every buffer
/// in place, so that playing it allocates nothing.
struct Program {
  /// Tells programs from each other; never 0.
  std::uint64_t serial = 0;
  std::shared_ptr<const CompiledShow> show;
  CrewRenderer renderer;
  std::vector<std::uint8_t> values;
  /// The time from one step to the next: each line takes frames every so many steps.
  MonoTime tick = kUsualPeriod;
  /// By controller: which of its frames the next is.
  std::vector<DitherFrame> dither;
  /// One a controller that is sent to; those that could not be opened, or are not to be yet, are silent.
  std::vector<Line> lines;
  /// By line: whether it took the frame.
  std::vector<std::uint8_t> wasOffered;
  /// The instants after a frame's own at which late lines leave, and the rest of frames for controllers that
  /// take few packets at once; rising, none twice.
  std::vector<MonoTime> delays;
  PowerLimiter power;
  /// One an interface that multicast leaves by.
  std::vector<link::DiscoveryBeacon> beacons;
  std::vector<PortChain> chains;
  /// By the number of the pixel; empty where the show has no matrix.
  std::vector<MatrixPlace> matrix;
  MatrixPlace matrixPlaceOf(std::size_t pixel) const {
    return pixel < matrix.size() ? matrix[pixel] : MatrixPlace{};
  }
  /// The show's controllers, in its order.
  std::vector<ControllerId> controllers;
  /// What desks say, and where it comes from: one each for the universes that the show listens to.
  std::vector<std::shared_ptr<DeskBox>> deskBoxes;
  std::vector<DeskValues> desk;
  std::shared_ptr<FrameBox> frames;
  /// One for each lead that any line has.
  std::vector<Ahead> aheads;
  /// What leaves, universe by universe.
  std::shared_ptr<ValueBox> leaving;
};

/// The universes of desks that are listened to, across programs.
using DeskBoxes = std::map<DeskUniverse, std::shared_ptr<DeskBox>>;

/// Why a controller cannot be sent to.
struct LineProblem {
  ControllerId controller;
  Failure failure;
};

/// What a program needs to know besides the show.
struct ProgramSetup {
  link::E131Source source = {};
  link::HostLookup lookup = link::resolve;
  /// Where frames go; a new one is made if there is none.
  std::shared_ptr<FrameBox> frames = {};
  /// Without it no name is looked up, and no socket or device opened: all lines are silent.
  bool opensLines = true;
  /// With how many hands frames will be computed.
  std::size_t hands = 1;
  /// Where desks are heard; a universe that is not there yet is added.
  DeskBoxes* desks = nullptr;
};

/// A controller's way out, opened; silent, with a problem added, if it cannot be or is not to be.
std::unique_ptr<link::ControllerSender> openSender(const Show& show, const Controller& controller,
                                                   const std::vector<int>& universes,
                                                   const ProgramSetup& setup,
                                                   std::vector<LineProblem>& problems);

/// Makes a program of `show`. Opens sockets; not for the output thread.
std::unique_ptr<Program> makeProgram(const Show& show, std::shared_ptr<const CompiledShow> compiled,
                                     const ProgramSetup& setup, std::vector<LineProblem>& problems);

}  // namespace chispa::engine
