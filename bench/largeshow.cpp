// SPDX-License-Identifier: GPL-3.0-or-later
#include "largeshow.h"

#include "core/edit/planedits.h"
#include "core/edit/scoreedits.h"
#include "core/edit/wireedits.h"
#include "core/edit/zoneedits.h"

namespace chispa::bench {
namespace {

constexpr int kPixelsOfUniverse = 170;
constexpr int kUniversesOfPort = 4;
constexpr int kPortsOfController = 25;

}  // namespace

Show largeShow(int universes, int layers, int udpPort, Protocol protocol) {
  Show show;
  put(show.stripTypes, StripType{show.newId<StripTypeId>(), "Strip", "GRB", 60, 5, 12, 1});
  const PaletteId palette =
      addPalette(show, "P", {{0, {10, 0, 40}}, {0.5, {255, 80, 0}}, {1, {255, 255, 200}}});
  std::vector<FixtureId> all;
  ControllerId box;
  const int ports = universes / kUniversesOfPort;
  for (int port = 0; port < ports; ++port) {
    if (port % kPortsOfController == 0) {
      box = show.newId<ControllerId>();
      Controller controller;
      controller.id = box;
      controller.name = "Box " + std::to_string(port / kPortsOfController + 1);
      controller.host = "127.0.0.1";
      controller.udpPort = udpPort;
      controller.protocol = protocol;
      controller.firstUniverse = 1 + port * kUniversesOfPort;
      controller.ports.resize(kPortsOfController);
      put(show.controllers, controller);
    }
    const int pixels = kPixelsOfUniverse * kUniversesOfPort;
    const FixtureId line = show.newId<FixtureId>();
    put(show.fixtures, Fixture{line,
                               "Line " + std::to_string(port + 1),
                               show.stripTypes[0]->id,
                               {{0, port * 0.05, 0}, {}},
                               {{"line", LineShape{pixels, 1.0 / 60}, {}}}});
    all.push_back(line);
    hang(show, {line, 0, pixels}, {box, port % kPortsOfController, 0});
  }
  const ZoneId zone = addZone(show, "All", all);
  const ScoreId score = addScore(show, "S", "", Micros(60'000'000));
  const char* effects[] = {"ribbon", "comets", "glints"};
  for (int layer = 0; layer < layers; ++layer)
    addClip(show, score, zone, effects[layer % 3], palette, Micros(0), Micros(60'000'000));
  return show;
}

Show manyPieces(int fixtures, int segments, int pixels) {
  Show show;
  put(show.stripTypes, StripType{show.newId<StripTypeId>(), "Strip", "GRB", 60, 5, 12, 1});
  for (int f = 0; f < fixtures; ++f) {
    const FixtureId id = addFixture(show, LineShape{pixels, 1.0 / 60}, {(f % 20) * 2.0, f / 20 * 0.2, 0});
    changeItem(show.fixtures, id, [&](Fixture& fixture) {
      for (int s = 1; s < segments; ++s)
        fixture.segments.push_back({"line", LineShape{pixels, 1.0 / 60}, {{0, s * 0.05, 0}, {}}});
    });
  }
  return show;
}

}  // namespace chispa::bench
