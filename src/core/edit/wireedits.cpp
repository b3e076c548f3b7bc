// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/edit/wireedits.h"

#include <algorithm>
#include <limits>
#include <set>
#include <tuple>

#include "core/edit/planedits.h"
#include "core/show/limits.h"
#include "core/wire/patch.h"

namespace chispa {
namespace {

/// Calls `change(run)` with the run of a port, if there is such a port.
template <class F>
void changeRun(Show& show, ControllerId controller, int port, F change) {
  changeItem(show.controllers, controller, [&](Controller& c) {
    if (port >= 0 && port < std::ssize(c.ports)) change(c.ports[static_cast<std::size_t>(port)].run);
  });
}

/// Calls `change(run, bead)` with an iterator to the bead, if there is one.
template <class F>
void changeBead(Show& show, const ChainPlace& place, F change) {
  changeRun(show, place.controller, place.port, [&](std::vector<Bead>& run) {
    if (place.bead >= 0 && place.bead < std::ssize(run)) change(run, run.begin() + place.bead);
  });
}

/// The universe after all that are used; where there is none, the first that nobody uses.
int nextFreeUniverse(const Show& show) {
  std::set<int> used{0};
  for (const PatchUniverse& one : derivePatch(show).universes) used.insert(one.universe);
  if (*used.rbegin() < limits::kMaxUniverse) return *used.rbegin() + 1;
  int free = 1;
  while (used.contains(free)) ++free;
  return std::min(free, limits::kMaxUniverse);
}

}  // namespace

ControllerId addController(Show& show, int ports) {
  Controller controller;
  controller.firstUniverse = nextFreeUniverse(show);
  controller.id = show.newId<ControllerId>();
  controller.name = freeName(show.controllers, "Controller");
  controller.host = "127.0.0.1";
  controller.ports.resize(static_cast<std::size_t>(ports));
  put(show.controllers, controller);
  return controller.id;
}

void deleteController(Show& show, ControllerId id) {
  remove(show.controllers, id);
}

const Bead* beadAt(const Show& show, const ChainPlace& place) {
  const Controller* controller = find(show.controllers, place.controller);
  if (!controller || place.port < 0 || place.port >= std::ssize(controller->ports)) return nullptr;
  const auto& run = controller->ports[static_cast<std::size_t>(place.port)].run;
  return place.bead >= 0 && place.bead < std::ssize(run) ? &run[static_cast<std::size_t>(place.bead)]
                                                         : nullptr;
}

void hang(Show& show, const UnwiredPiece& piece, const ChainPlace& place) {
  changeRun(show, place.controller, place.port, [&](std::vector<Bead>& run) {
    const auto at = std::clamp<std::ptrdiff_t>(place.bead, 0, std::ssize(run));
    run.insert(run.begin() + at, Bead{piece.fixture, piece.first, piece.count, false, 0});
  });
}

void unhang(Show& show, const ChainPlace& place) {
  changeBead(show, place, [](std::vector<Bead>& run, auto bead) { run.erase(bead); });
}

void unhang(Show& show, std::vector<ChainPlace> places) {
  // From the end of each chain on, so that the others stay where they are.
  std::sort(places.begin(), places.end(), [](const ChainPlace& a, const ChainPlace& b) {
    return std::tuple(a.controller.value, a.port, b.bead) < std::tuple(b.controller.value, b.port, a.bead);
  });
  places.erase(std::unique(places.begin(), places.end()), places.end());
  for (const ChainPlace& place : places) unhang(show, place);
}

int hangInTurn(Show& show, const std::vector<UnwiredPiece>& pieces, const ChainPlace& place) {
  constexpr int kAtEnd = std::numeric_limits<int>::max();
  ChainPlace next = place;
  int hung = 0;
  auto controller = std::find_if(show.controllers.begin(), show.controllers.end(),
                                 [&](const auto& c) { return c->id == place.controller; });
  for (const UnwiredPiece& piece : pieces) {
    while (controller != show.controllers.end() && next.port >= std::ssize((*controller)->ports)) {
      ++controller;
      next.port = 0;
    }
    if (controller == show.controllers.end()) break;
    next.controller = (*controller)->id;
    const auto index = controller - show.controllers.begin();
    hang(show, piece, next);
    // The list may be another one now.
    controller = show.controllers.begin() + index;
    ++hung;
    ++next.port;
    next.bead = kAtEnd;
  }
  return hung;
}

void moveBead(Show& show, const ChainPlace& from, const ChainPlace& to) {
  const Bead* found = beadAt(show, from);
  if (!found) return;
  const Bead bead = *found;
  const bool sameChain = from.controller == to.controller && from.port == to.port;
  const int place = sameChain && to.bead > from.bead ? to.bead - 1 : to.bead;
  unhang(show, from);
  changeRun(show, to.controller, to.port, [&](std::vector<Bead>& run) {
    run.insert(run.begin() + std::clamp<std::ptrdiff_t>(place, 0, std::ssize(run)), bead);
  });
}

void cutBead(Show& show, const ChainPlace& place, int pixels) {
  changeBead(show, place, [&](std::vector<Bead>& run, auto bead) {
    if (pixels <= 0 || pixels >= bead->count) return;
    Bead head = *bead;
    Bead tail = *bead;
    tail.skippedBefore = 0;
    head.count = pixels;
    tail.count = bead->count - pixels;
    // A reversed bead's data begins at its high end.
    (bead->reversed ? head.first : tail.first) = bead->first + (bead->reversed ? tail.count : pixels);
    // Injection points stay where they are on the strip; one at the cut feeds the head.
    std::erase_if(head.injections, [pixels](const Injection& i) { return i.pixel > pixels; });
    std::erase_if(tail.injections, [pixels](const Injection& i) { return i.pixel <= pixels; });
    for (Injection& injection : tail.injections) injection.pixel -= pixels;
    *bead = head;
    run.insert(bead + 1, tail);
  });
}

void cutToNextPort(Show& show, const ChainPlace& place, int pixels) {
  cutBead(show, place, pixels);
  const Controller* controller = find(show.controllers, place.controller);
  if (!controller || place.port + 1 >= std::ssize(controller->ports)) return;
  const auto behind = place.bead + 1;
  const auto count = std::ssize(controller->ports[static_cast<std::size_t>(place.port)].run) - behind;
  for (std::ptrdiff_t i = 0; i < count; ++i)
    moveBead(show, {place.controller, place.port, behind},
             {place.controller, place.port + 1, static_cast<int>(i)});
}

void turnBead(Show& show, const ChainPlace& place) {
  changeBead(show, place, [](std::vector<Bead>&, auto bead) {
    bead->reversed = !bead->reversed;
    for (Injection& injection : bead->injections)
      injection.pixel = std::max(0, bead->count - injection.pixel);
  });
}

void setSkipped(Show& show, const ChainPlace& place, int skipped) {
  changeBead(show, place,
             [skipped](std::vector<Bead>&, auto bead) { bead->skippedBefore = std::max(0, skipped); });
}

namespace {

/// Pixels of each string of a segment; all of it if it has none.
std::vector<int> stringsOf(const Segment& segment) {
  if (const auto* cone = std::get_if<ConeShape>(&segment.shape))
    return std::vector<int>(static_cast<std::size_t>(cone->strings), cone->perString);
  if (const auto* spokes = std::get_if<SpokesShape>(&segment.shape))
    return std::vector<int>(static_cast<std::size_t>(spokes->spokes), spokes->perSpoke);
  const auto* grid = std::get_if<GridShape>(&segment.shape);
  if (!grid) return {pixelCount(segment)};
  std::vector<int> strips;
  int last = -1;
  for (const GridCell& cell : matrixCells(segment)) {
    const int strip = grid->runs == GridRuns::AlongRows ? cell.row : cell.column;
    if (strip != last) strips.push_back(0);
    last = strip;
    ++strips.back();
  }
  return strips;
}

}  // namespace

void changePort(Show& show, ControllerId id, int port, const std::function<void(Port&)>& change) {
  changeItem(show.controllers, id, [&](Controller& c) {
    if (port >= 0 && port < std::ssize(c.ports)) change(c.ports[static_cast<std::size_t>(port)]);
  });
}

void changeBeadSettings(Show& show, const ChainPlace& place,
                        const std::function<void(WireSettings&)>& change) {
  changeBead(show, place, [&](std::vector<Bead>&, auto bead) { change(bead->settings); });
}

void changePortSettings(Show& show, ControllerId id, int port,
                        const std::function<void(WireSettings&)>& change) {
  changePort(show, id, port, [&](Port& p) { change(p.settings); });
}

void fixBeadStart(Show& show, const ChainPlace& place, std::optional<FixedStart> fixedStart) {
  changeBead(show, place, [&](std::vector<Bead>&, auto bead) { bead->fixedStart = fixedStart; });
}

void fixPortStart(Show& show, ControllerId id, int port, std::optional<FixedStart> fixedStart) {
  changePort(show, id, port, [&](Port& p) { p.fixedStart = fixedStart; });
}

namespace {

std::vector<int> stringsOf(const Fixture& fixture) {
  std::vector<int> strings;
  for (const Segment& segment : fixture.segments)
    for (const int count : stringsOf(segment)) strings.push_back(count);
  return strings;
}

}  // namespace

int stringCount(const Fixture& fixture) {
  return static_cast<int>(stringsOf(fixture).size());
}

SupplyId addSupply(Show& show, double volts) {
  Supply supply{show.newId<SupplyId>(), freeName(show.supplies, "Supply"), volts, 0};
  put(show.supplies, supply);
  return supply.id;
}

void deleteSupply(Show& show, SupplyId id) {
  remove(show.supplies, id);
  for (const auto& controller : Items<Controller>(show.controllers))
    changeItem(show.controllers, controller->id, [id](Controller& c) {
      for (Port& port : c.ports)
        for (Bead& bead : port.run)
          std::erase_if(bead.injections, [id](const Injection& i) { return i.supply == id; });
    });
}

void inject(Show& show, const ChainPlace& place, int pixel) {
  const Bead* bead = beadAt(show, place);
  const Fixture* fixture = bead ? find(show.fixtures, bead->fixture) : nullptr;
  if (!fixture) return;
  const double volts = stripTypeOf(show, *fixture).volts;
  const auto fits = std::find_if(show.supplies.begin(), show.supplies.end(),
                                 [volts](const auto& s) { return s->volts == volts; });
  const SupplyId supply = fits == show.supplies.end() ? addSupply(show, volts) : (*fits)->id;
  changeBead(show, place, [&](std::vector<Bead>&, auto b) {
    b->injections.push_back({supply, std::clamp(pixel, 0, b->count)});
    std::stable_sort(b->injections.begin(), b->injections.end(),
                     [](const Injection& x, const Injection& y) { return x.pixel < y.pixel; });
  });
}

void changeInjection(Show& show, const ChainPlace& place, int index,
                     const std::function<void(Injection&)>& change) {
  changeBead(show, place, [&](std::vector<Bead>&, auto bead) {
    if (index < 0 || index >= std::ssize(bead->injections)) return;
    Injection& injection = bead->injections[static_cast<std::size_t>(index)];
    change(injection);
    injection.pixel = std::clamp(injection.pixel, 0, bead->count);
  });
}

void removeInjection(Show& show, const ChainPlace& place, int index) {
  changeBead(show, place, [&](std::vector<Bead>&, auto bead) {
    if (index >= 0 && index < std::ssize(bead->injections))
      bead->injections.erase(bead->injections.begin() + index);
  });
}

void echoBead(Show& show, const ChainPlace& from, const ChainPlace& to) {
  const Bead* found = beadAt(show, from);
  if (!found) return;
  Bead echo = *found;
  // The copy is another strip: it starts where it hangs, and has its own supply wires.
  echo.fixedStart.reset();
  echo.injections.clear();
  changeRun(show, to.controller, to.port, [&](std::vector<Bead>& run) {
    run.insert(run.begin() + std::clamp<std::ptrdiff_t>(to.bead, 0, std::ssize(run)), echo);
  });
}

int spreadOverPorts(Show& show, FixtureId fixtureId, ControllerId id, int port) {
  const Fixture* fixture = find(show.fixtures, fixtureId);
  const Controller* controller = find(show.controllers, id);
  if (!fixture || !controller) return 0;
  const std::vector<int> strings = stringsOf(*fixture);
  if (port < 0 || port + std::ssize(strings) > std::ssize(controller->ports)) return 0;
  int first = 0;
  for (std::size_t i = 0; i < strings.size(); ++i) {
    hang(show, {fixtureId, first, strings[i]}, {id, port + static_cast<int>(i), 1'000'000});
    first += strings[i];
  }
  return static_cast<int>(strings.size());
}

void setPortCount(Show& show, ControllerId id, int ports) {
  changeItem(show.controllers, id,
             [ports](Controller& c) { c.ports.resize(static_cast<std::size_t>(std::max(1, ports))); });
}

}  // namespace chispa
