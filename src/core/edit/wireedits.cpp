// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/edit/wireedits.h"

#include <algorithm>

#include "core/edit/planedits.h"
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
void changeBead(Show& show, const ThreadPlace& place, F change) {
  changeRun(show, place.controller, place.port, [&](std::vector<Bead>& run) {
    if (place.bead >= 0 && place.bead < std::ssize(run)) change(run, run.begin() + place.bead);
  });
}

int nextFreeUniverse(const Show& show) {
  int next = 1;
  for (const PatchUniverse& used : derivePatch(show).universes) next = std::max(next, used.universe + 1);
  return next;
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

void deleteController(Show& show, ControllerId id) { remove(show.controllers, id); }

std::vector<LoosePiece> loosePieces(const Show& show) {
  std::vector<LoosePiece> loose;
  for (const auto& fixture : show.fixtures) {
    std::vector<bool> hung(static_cast<std::size_t>(pixelCount(*fixture)), false);
    for (const auto& controller : show.controllers)
      for (const Port& port : controller->ports)
        for (const Bead& bead : port.run)
          for (int i = bead.first; bead.fixture == fixture->id && i < std::min(bead.first + bead.count, static_cast<int>(hung.size())); ++i)
            hung[static_cast<std::size_t>(i)] = true;
    for (int i = 0; i < std::ssize(hung); ++i) {
      if (hung[static_cast<std::size_t>(i)]) continue;
      const bool continues = !loose.empty() && loose.back().fixture == fixture->id && loose.back().first + loose.back().count == i;
      if (continues)
        ++loose.back().count;
      else
        loose.push_back({fixture->id, i, 1});
    }
  }
  return loose;
}

const Bead* beadAt(const Show& show, const ThreadPlace& place) {
  const Controller* controller = find(show.controllers, place.controller);
  if (!controller || place.port < 0 || place.port >= std::ssize(controller->ports)) return nullptr;
  const auto& run = controller->ports[static_cast<std::size_t>(place.port)].run;
  return place.bead >= 0 && place.bead < std::ssize(run) ? &run[static_cast<std::size_t>(place.bead)] : nullptr;
}

void hang(Show& show, const LoosePiece& piece, const ThreadPlace& place) {
  changeRun(show, place.controller, place.port, [&](std::vector<Bead>& run) {
    const auto at = std::clamp<std::ptrdiff_t>(place.bead, 0, std::ssize(run));
    run.insert(run.begin() + at, Bead{piece.fixture, piece.first, piece.count, false, 0});
  });
}

void unhang(Show& show, const ThreadPlace& place) {
  changeBead(show, place, [](std::vector<Bead>& run, auto bead) { run.erase(bead); });
}

void moveBead(Show& show, const ThreadPlace& from, const ThreadPlace& to) {
  const Bead* found = beadAt(show, from);
  if (!found) return;
  const Bead bead = *found;
  const bool sameThread = from.controller == to.controller && from.port == to.port;
  const int place = sameThread && to.bead > from.bead ? to.bead - 1 : to.bead;
  unhang(show, from);
  changeRun(show, to.controller, to.port, [&](std::vector<Bead>& run) {
    run.insert(run.begin() + std::clamp<std::ptrdiff_t>(place, 0, std::ssize(run)), bead);
  });
}

void cutBead(Show& show, const ThreadPlace& place, int pixels) {
  changeBead(show, place, [&](std::vector<Bead>& run, auto bead) {
    if (pixels <= 0 || pixels >= bead->count) return;
    Bead head = *bead;
    Bead tail = *bead;
    tail.skippedBefore = 0;
    head.count = pixels;
    tail.count = bead->count - pixels;
    // A reversed bead's data begins at its high end.
    (bead->reversed ? head.first : tail.first) = bead->first + (bead->reversed ? tail.count : pixels);
    *bead = head;
    run.insert(bead + 1, tail);
  });
}

void turnBead(Show& show, const ThreadPlace& place) {
  changeBead(show, place, [](std::vector<Bead>&, auto bead) { bead->reversed = !bead->reversed; });
}

void setSkipped(Show& show, const ThreadPlace& place, int skipped) {
  changeBead(show, place, [skipped](std::vector<Bead>&, auto bead) { bead->skippedBefore = std::max(0, skipped); });
}

namespace {

template <class F>
void changePort(Show& show, ControllerId id, int port, F change) {
  changeItem(show.controllers, id, [&](Controller& c) {
    if (port >= 0 && port < std::ssize(c.ports)) change(c.ports[static_cast<std::size_t>(port)]);
  });
}

/// Pixels of each string of a segment; all of it if it has none.
std::vector<int> stringsOf(const Segment& segment) {
  if (const auto* cone = std::get_if<ConeShape>(&segment.shape)) return std::vector<int>(static_cast<std::size_t>(cone->strings), cone->perString);
  if (const auto* spokes = std::get_if<SpokesShape>(&segment.shape)) return std::vector<int>(static_cast<std::size_t>(spokes->spokes), spokes->perSpoke);
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

void changeBeadSettings(Show& show, const ThreadPlace& place, const std::function<void(WireSettings&)>& change) {
  changeBead(show, place, [&](std::vector<Bead>&, auto bead) { change(bead->settings); });
}

void changePortSettings(Show& show, ControllerId id, int port, const std::function<void(WireSettings&)>& change) {
  changePort(show, id, port, [&](Port& p) { change(p.settings); });
}

void pinBead(Show& show, const ThreadPlace& place, std::optional<Pin> pin) {
  changeBead(show, place, [&](std::vector<Bead>&, auto bead) { bead->pin = pin; });
}

void pinPort(Show& show, ControllerId id, int port, std::optional<Pin> pin) {
  changePort(show, id, port, [&](Port& p) { p.pin = pin; });
}

int spreadOverPorts(Show& show, FixtureId fixtureId, ControllerId id, int port) {
  const Fixture* fixture = find(show.fixtures, fixtureId);
  const Controller* controller = find(show.controllers, id);
  if (!fixture || !controller) return 0;
  std::vector<int> strings;
  for (const Segment& segment : fixture->segments)
    for (const int count : stringsOf(segment)) strings.push_back(count);
  if (port < 0 || port + std::ssize(strings) > std::ssize(controller->ports)) return 0;
  int first = 0;
  for (std::size_t i = 0; i < strings.size(); ++i) {
    hang(show, {fixtureId, first, strings[i]}, {id, port + static_cast<int>(i), 1'000'000});
    first += strings[i];
  }
  return static_cast<int>(strings.size());
}

void setPortCount(Show& show, ControllerId id, int ports) {
  changeItem(show.controllers, id, [ports](Controller& c) { c.ports.resize(static_cast<std::size_t>(std::max(1, ports))); });
}

}  // namespace chispa
