// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/edit/benchrig.h"

#include <algorithm>

#include "core/edit/planedits.h"
#include "core/edit/wireedits.h"
#include "core/edit/zoneedits.h"

namespace chispa {
namespace {

/// Beyond what a file may hold (files/fieldreader.h reads ids below the largest number).
constexpr std::uint32_t kRigId = 0xFFFFFFFF;

Bead& beadOf(BenchRig& rig) {
  return rig.controller.ports.front().run.front();
}

}  // namespace

BenchRig makeBenchRig() {
  BenchRig rig;
  rig.strip.id = StripTypeId{kRigId};
  rig.strip.name = "By hand";
  rig.fixture.id = FixtureId{kRigId};
  rig.fixture.stripType = rig.strip.id;
  rig.fixture.segments = {{"line", LineShape{}, {}}};
  rig.fixture.name = "LEDs by hand";
  rig.controller.id = ControllerId{kRigId};
  rig.controller.name = "By hand";
  rig.controller.host = "127.0.0.1";
  rig.controller.ports.resize(1);
  rig.controller.ports[0].run = {Bead{rig.fixture.id}};
  setRigPixels(rig, 50, 0);
  setRigStart(rig, 1, 1);
  return rig;
}

void setRigPixels(BenchRig& rig, int pixels, int columns) {
  const double pitch = 1 / rig.strip.pixelsPerMetre;
  Shape shape = LineShape{pixels, pitch};
  if (columns > 0) shape = GridShape{columns, std::max(1, pixels / columns), pitch, pitch};
  rig.fixture.segments.front().shape = shape;
  beadOf(rig).count = pixelCount(shape);
}

int rigColumns(const BenchRig& rig) {
  const auto* grid = std::get_if<GridShape>(&rig.fixture.segments.front().shape);
  return grid ? grid->columns : 0;
}

void setRigStart(BenchRig& rig, int universe, int channel) {
  rig.controller.firstUniverse = universe;
  rig.controller.ports.front().fixedStart = FixedStart{universe, channel};
}

FixedStart rigStart(const BenchRig& rig) {
  return rig.controller.ports.front().fixedStart.value_or(FixedStart{rig.controller.firstUniverse, 1});
}

Show withRig(const Show& show, const BenchRig& rig) {
  Show both = show;
  for (const auto& controller : show.controllers) {
    if (controller->protocol != rig.controller.protocol || controller->host != rig.controller.host) continue;
    changeItem(both.controllers, controller->id, [](Controller& c) {
      for (Port& port : c.ports) port.run.clear();
    });
  }
  put(both.stripTypes, rig.strip);
  put(both.fixtures, rig.fixture);
  put(both.controllers, rig.controller);
  return both;
}

void takeRig(BenchRig& rig, const Show& show) {
  if (const auto* strip = find(show.stripTypes, rig.strip.id)) rig.strip = *strip;
  if (const auto* fixture = find(show.fixtures, rig.fixture.id)) rig.fixture = *fixture;
  if (const auto* controller = find(show.controllers, rig.controller.id)) rig.controller = *controller;
}

ControllerId keepRig(Show& show, const BenchRig& rig) {
  BenchRig kept = rig;
  kept.strip.id = show.newId<StripTypeId>();
  kept.strip.name = freeName(show.stripTypes, kept.strip.name);
  kept.fixture.id = show.newId<FixtureId>();
  kept.fixture.name = freeName(show.fixtures, kept.fixture.name);
  kept.fixture.stripType = kept.strip.id;
  kept.controller.id = show.newId<ControllerId>();
  kept.controller.name = freeName(show.controllers, kept.controller.host);
  for (Bead& bead : kept.controller.ports.front().run) bead.fixture = kept.fixture.id;
  put(show.stripTypes, kept.strip);
  put(show.fixtures, kept.fixture);
  put(show.controllers, kept.controller);
  addZone(show, kept.fixture.name, {kept.fixture.id});
  return kept.controller.id;
}

}  // namespace chispa
