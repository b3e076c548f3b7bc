// SPDX-License-Identifier: GPL-3.0-or-later
#include "engine/program.h"

#include <algorithm>
#include <atomic>
#include <map>
#include <numeric>

#include "core/wire/wiresettings.h"
#include "link/silentsender.h"

namespace chispa::engine {
namespace {

/// What the values of a controller are, if all its beads are alike.
link::RowFormat rowFormat(const Show& show, const Controller& controller) {
  std::optional<link::RowFormat> format;
  for (const Port& port : controller.ports)
    for (const Bead& bead : port.run) {
      const Fixture* fixture = find(show.fixtures, bead.fixture);
      if (!fixture) continue;
      const ResolvedWire wire =
          resolveWire(stripTypeOf(show, *fixture), *fixture, port.settings, bead.settings);
      const link::RowFormat own{static_cast<int>(wire.order.size()), wire.bits};
      if (format && (format->channels != own.channels || format->bits != own.bits)) return {};
      format = own;
    }
  return format.value_or(link::RowFormat{});
}

/// What is sent by multicast is announced on the interface that it leaves by.
void addBeacons(const Show& show, const link::E131Source& source, Program& program) {
  std::map<std::pair<std::string, int>, std::vector<int>> byInterface;
  for (const PatchUniverse& used : program.show->patch.universes) {
    const Controller& controller = *show.controllers[static_cast<std::size_t>(used.controller)];
    if (controller.protocol == Protocol::E131 && controller.delivery == Delivery::Multicast)
      byInterface[{controller.localAddress, dataPort(controller)}].push_back(used.universe);
  }
  for (auto& [interface, universes] : byInterface) {
    std::sort(universes.begin(), universes.end());
    universes.erase(std::unique(universes.begin(), universes.end()), universes.end());
    // If it cannot be opened, neither can the controllers' own sockets, which say so.
    if (auto beacon =
            link::DiscoveryBeacon::open(source, std::move(universes), interface.first, interface.second))
      program.beacons.push_back(*std::move(beacon));
  }
}

bool hasMatrix(const Show& show) {
  return std::any_of(show.fixtures.begin(), show.fixtures.end(), [](const auto& fixture) {
    return std::any_of(fixture->segments.begin(), fixture->segments.end(),
                       [](const Segment& segment) { return isMatrix(segment.shape); });
  });
}

std::vector<MatrixPlace> matrixPlaces(const Show& show, int count) {
  std::vector<MatrixPlace> places;
  if (!hasMatrix(show)) return places;
  places.reserve(static_cast<std::size_t>(count));
  for (const auto& fixture : show.fixtures)
    for (const Segment& segment : fixture->segments) {
      const auto cells = matrixCells(segment);
      MatrixPlace size;
      for (const GridCell& cell : cells) {
        size.columns = std::max(size.columns, static_cast<std::int16_t>(cell.column + 1));
        size.rows = std::max(size.rows, static_cast<std::int16_t>(cell.row + 1));
      }
      for (const GridCell& cell : cells)
        places.push_back({static_cast<std::int16_t>(cell.column), static_cast<std::int16_t>(cell.row),
                          size.columns, size.rows});
      if (cells.empty()) places.insert(places.end(), static_cast<std::size_t>(pixelCount(segment)), {});
    }
  places.resize(static_cast<std::size_t>(count));
  return places;
}

void addDesks(const ProgramSetup& setup, Program& program) {
  for (const DeskUniverse& universe : program.show->live->deskUniverses) {
    std::shared_ptr<DeskBox> box;
    if (setup.desks) box = (*setup.desks)[universe];
    if (!box) box = std::make_shared<DeskBox>();
    if (setup.desks) (*setup.desks)[universe] = box;
    program.deskBoxes.push_back(std::move(box));
  }
  program.desk.resize(program.deskBoxes.size());
}

/// Controllers that take few packets at once get the rest of a frame in steps of this.
constexpr MonoTime kPacketGap{1'000'000};

void noteLates(const Show& show, Program& program) {
  const bool hasRows = std::any_of(show.controllers.begin(), show.controllers.end(),
                                   [](const auto& controller) { return controller->maxPacketsInRow > 0; });
  // What has not left by then waits for the next frame.
  for (MonoTime late = kPacketGap; hasRows && late < program.tick * 4 / 5; late += kPacketGap)
    program.delays.push_back(late);
  for (const Line& line : program.lines)
    if (line.late() > MonoTime(0)) program.delays.push_back(line.late());
  std::sort(program.delays.begin(), program.delays.end());
  program.delays.erase(std::unique(program.delays.begin(), program.delays.end()), program.delays.end());
}

}  // namespace

PortChain chainOf(const Show& show, const std::unordered_map<FixtureId, PixelMap::Range>& ranges,
                  const Controller& controller, int port) {
  PortChain chain{controller.id, port, {}};
  for (const Bead& bead : controller.ports[static_cast<std::size_t>(port)].run) {
    chain.pixels.insert(chain.pixels.end(), static_cast<std::size_t>(bead.skippedBefore),
                        PortChain::kSkipped);
    const auto range = ranges.find(bead.fixture);
    if (range == ranges.end()) continue;
    const int count = std::clamp(bead.count, 0, std::max(0, range->second.count - bead.first));
    const Fixture& fixture = *find(show.fixtures, bead.fixture);
    const ResolvedWire wire =
        resolveWire(stripTypeOf(show, fixture), fixture,
                    controller.ports[static_cast<std::size_t>(port)].settings, bead.settings);
    for (const WireStretch& stretch : wireStretches(bead.first, count, bead.reversed, wire.zigzag))
      for (int i = 0; i < stretch.count; ++i)
        chain.pixels.push_back(range->second.first + stretch.first + i * stretch.step);
  }
  return chain;
}

std::vector<std::int32_t> wiredPixels(const Show& show,
                                      const std::unordered_map<FixtureId, PixelMap::Range>& ranges,
                                      const Controller& controller, int port, std::optional<int> bead) {
  if (port < 0 || port >= std::ssize(controller.ports)) return {};
  Controller own = controller;
  auto& run = own.ports[static_cast<std::size_t>(port)].run;
  // The bead alone: its port with nothing else on it.
  if (bead)
    run = *bead >= 0 && *bead < std::ssize(run) ? std::vector{run[static_cast<std::size_t>(*bead)]}
                                                : std::vector<Bead>();
  auto pixels = chainOf(show, ranges, own, port).pixels;
  std::erase(pixels, PortChain::kSkipped);
  return pixels;
}

std::unique_ptr<link::ControllerSender> openSender(const Show& show, const Controller& controller,
                                                   const std::vector<int>& universes,
                                                   const ProgramSetup& setup,
                                                   std::vector<LineProblem>& problems) {
  if (setup.opensLines) {
    auto sender = link::ControllerSender::open(controller, universes, setup.source, setup.lookup,
                                               rowFormat(show, controller));
    if (sender) return *std::move(sender);
    problems.push_back({controller.id, sender.failure()});
  }
  return std::make_unique<link::SilentSender>(controller, universes);
}

namespace {

/// The longest step, in 120ths of a second, that all rates are whole numbers of and that is no longer than
/// the usual: what is seen in the window keeps its pace.
int commonStep(const std::vector<FrameRate>& rates) {
  int step = 0;
  for (const FrameRate& rate : rates) step = std::gcd(step, rate.divisor);
  const int usual = FrameRate().divisor;
  if (step == 0) return usual;
  for (int part = usual; part > 1; --part)
    if (step % part == 0) return part;
  return 1;
}

constexpr MonoTime timeOf(int steps) {
  return MonoTime(std::int64_t{steps} * 1'000'000'000 / kMaxFramesPerSecond);
}

/// A frame for each lead of the lines, with every buffer in place.
void addAheads(Program& program) {
  for (const Line& line : program.lines) {
    const bool isThere = std::any_of(program.aheads.begin(), program.aheads.end(),
                                     [&](const Ahead& ahead) { return ahead.lead == line.lead(); });
    if (line.lead() == MonoTime(0) || isThere) continue;
    Ahead ahead;
    ahead.lead = line.lead();
    ahead.frame.resize(static_cast<std::size_t>(program.show->map->count()));
    ahead.fading.resize(static_cast<std::size_t>(program.show->map->count()));
    ahead.values.resize(program.show->packer->bufferSize());
    ahead.power = PowerLimiter(program.show->budget.get());
    program.aheads.push_back(std::move(ahead));
  }
}

/// What is sent to a controller: its place in the show, and where its universes stand among all.
struct LineOrder {
  std::size_t index;
  std::size_t first;
  std::vector<int> universes;
};

std::vector<LineOrder> lineOrders(const Show& show, const std::vector<PatchUniverse>& universes) {
  std::vector<LineOrder> orders;
  std::size_t next = 0;
  for (std::size_t c = 0; c < show.controllers.size(); ++c) {
    // Universes beyond the protocol's are not sent; they stand at either end, as the numbers rise.
    const UniverseRange range = universeRange(show.controllers[c]->protocol);
    while (next < universes.size() && universes[next].controller == static_cast<int>(c) &&
           universes[next].universe < range.low)
      ++next;
    LineOrder order{c, next, {}};
    for (; next < universes.size() && universes[next].controller == static_cast<int>(c); ++next)
      if (universes[next].universe <= range.high) order.universes.push_back(universes[next].universe);
    // A screen's pixels are drawn by the window.
    if (!order.universes.empty() && show.controllers[c]->protocol != Protocol::Screen)
      orders.push_back(std::move(order));
  }
  return orders;
}

void addLines(const Show& show, const ProgramSetup& setup, Program& program,
              std::vector<LineProblem>& problems) {
  const auto orders = lineOrders(show, program.show->patch.universes);
  std::vector<FrameRate> rates;
  for (const LineOrder& order : orders) rates.push_back(frameRateOf(show, *show.controllers[order.index]));
  // Screens are drawn from what the output computes.
  std::vector<FrameRate> paces = rates;
  for (const auto& controller : show.controllers)
    if (controller->protocol == Protocol::Screen) paces.push_back(frameRateOf(show, *controller));
  const int step = commonStep(paces);
  program.tick = timeOf(step);
  program.dither.assign(show.controllers.size(), {});
  for (std::size_t i = 0; i < orders.size(); ++i) {
    const Controller& controller = *show.controllers[orders[i].index];
    program.lines.emplace_back(openSender(show, controller, orders[i].universes, setup, problems),
                               orders[i].first, orders[i].index, controller,
                               LinePace{program.tick, rates[i].divisor / step, rates[i]});
  }
  program.wasOffered.assign(program.lines.size(), 0);
}

}  // namespace

std::unique_ptr<Program> makeProgram(const Show& show, std::shared_ptr<const CompiledShow> compiled,
                                     const ProgramSetup& setup, std::vector<LineProblem>& problems) {
  static std::atomic<std::uint64_t> serials{0};
  auto program = std::make_unique<Program>();
  program->serial = ++serials;
  program->show = std::move(compiled);
  program->renderer.prepare(*program->show, setup.hands);
  program->values.resize(program->show->packer->bufferSize());
  program->power = PowerLimiter(program->show->budget.get());
  program->frames = setup.frames;
  if (!program->frames) {
    program->frames = std::make_shared<FrameBox>();
    program->frames->resize(static_cast<std::size_t>(program->show->map->count()));
  }
  addDesks(setup, *program);
  program->matrix = matrixPlaces(show, program->show->map->count());
  program->leaving = std::make_shared<ValueBox>();
  program->leaving->resize(program->show->packer->bufferSize());
  for (const auto& controller : show.controllers) {
    program->controllers.push_back(controller->id);
    for (std::size_t p = 0; p < controller->ports.size(); ++p)
      program->chains.push_back(chainOf(show, program->show->map->ranges, *controller, static_cast<int>(p)));
  }
  addLines(show, setup, *program, problems);
  noteLates(show, *program);
  addAheads(*program);
  if (setup.opensLines) addBeacons(show, setup.source, *program);
  return program;
}

}  // namespace chispa::engine
