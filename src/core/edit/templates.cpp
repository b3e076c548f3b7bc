// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/edit/templates.h"

#include <cmath>

#include "core/edit/lookedits.h"
#include "core/edit/planedits.h"
#include "core/edit/wireedits.h"
#include "core/show/unwired.h"

namespace chispa {
namespace {

Show emptyShow() {
  Show show;
  show.name = "New show";
  put(show.stripTypes, StripType{show.newId<StripTypeId>(), "Plain strip 60/m", "GRB", 60, 5, 12, 1});
  put(show.stripTypes, StripType{show.newId<StripTypeId>(), "Panel", "RGB", 60, 5, 8, 1});
  put(show.palettes,
      Palette{show.newId<PaletteId>(),
              "Hearth",
              {{0, {26, 2, 5}}, {0.4, {200, 40, 8}}, {0.75, {255, 160, 40}}, {1, {255, 240, 200}}}});
  put(show.palettes, Palette{show.newId<PaletteId>(),
                             "Harbour",
                             {{0, {2, 19, 43}}, {0.5, {10, 120, 140}}, {1, {157, 242, 216}}}});
  return show;
}

void addNamed(Show& show, const std::string& name, const Shape& shape, Vec3 position_m,
              Vec3 rotation_deg = {}) {
  const FixtureId id = addFixture(show, shape, position_m, rotation_deg);
  changeItem(show.fixtures, id, [&](Fixture& fixture) { fixture.name = name; });
  const ZoneId zone = show.zones.back()->id;
  changeItem(show.zones, zone, [&](Zone& one) { one.name = name; });
}

constexpr double kPitch_m = 1.0 / 60;

/// A gable eight metres wide on walls of three, with a door; drawn in the plane of the front.
void addHouseFront(Show& show) {
  const auto path = [&](const std::string& name, std::vector<Vec3> corners, int pixels) {
    PathShape shape;
    shape.corners = std::move(corners);
    shape.count = pixels;
    addNamed(show, name, shape, {});
  };
  const int slope = static_cast<int>(std::lround(std::hypot(4, 2.5) / kPitch_m));
  path("Eaves left", {{-4, 0, 3}, {0, 0, 5.5}}, slope);
  path("Eaves right", {{0, 0, 5.5}, {4, 0, 3}}, slope);
  path("Wall left", {{-4, 0, 0}, {-4, 0, 3}}, 180);
  path("Wall right", {{4, 0, 3}, {4, 0, 0}}, 180);
  path("Door", {{-0.5, 0, 0}, {-0.5, 0, 2.1}, {0.5, 0, 2.1}, {0.5, 0, 0}}, 312);
}

void addTemplate(Show& show, ShowTemplate kind) {
  switch (kind) {
    case ShowTemplate::Empty:
      return;
    case ShowTemplate::Strip:
      return addNamed(show, "Strip", LineShape{300, kPitch_m}, {-2.5, 0, 0});
    case ShowTemplate::Matrix:
      // It stands upright and is seen from its front.
      return addNamed(show, "Matrix", GridShape{16, 16, 0.033, 0.033}, {0, 0, 1}, {90, 0, 0});
    case ShowTemplate::Ring:
      return addNamed(show, "Ring", ArcShape{60, 0.16, 0, 360}, {0, 0, 1}, {90, 0, 0});
    case ShowTemplate::HouseFront:
      return addHouseFront(show);
    case ShowTemplate::Tree: {
      constexpr int kStrings = 16;
      constexpr int kPerString = 50;
      return addNamed(show, "Tree", ConeShape{kStrings, kPerString, 1.2, 0.05, 3, 0, 360, StringWay::Forth},
                      {});
    }
  }
}

}  // namespace

Show newShow(ShowTemplate kind) {
  Show show = emptyShow();
  addTemplate(show, kind);
  if (show.fixtures.empty()) return show;
  const ControllerId controller = addController(show, 8);
  hangInTurn(show, unwiredPieces(show), {controller, 0, 0});
  std::vector<ZoneId> zones;
  for (const auto& zone : show.zones) zones.push_back(zone->id);
  addLook(show, "Warm", zones, "ribbon", show.palettes[0]->id);
  addLook(show, "Cool", zones, "glints", show.palettes[1]->id);
  return show;
}

}  // namespace chispa
