// SPDX-License-Identifier: GPL-3.0-or-later
#include <cmath>
#include <iomanip>
#include <iostream>

#include <nlohmann/json.hpp>

#include "cli/opened.h"
#include "cli/table.h"
#include "cli/verbs.h"
#include "core/check/cutlist.h"
#include "core/check/flashes.h"
#include "core/render/renderer.h"
#include "core/wire/power.h"
#include "core/wire/wiresettings.h"

namespace chispa::cli {
namespace {

using Json = nlohmann::ordered_json;

std::string_view severityWord(Severity severity) {
  switch (severity) {
    case Severity::Error:
      return "error";
    case Severity::Warning:
      return "warning";
    case Severity::Note:
      return "note";
  }
  return {};
}

/// Which fixture a pixel of the whole show belongs to, and its number there.
struct PixelOwner {
  const Fixture* fixture;
  int pixel;
};

std::vector<PixelOwner> ownersOf(const Show& show) {
  std::vector<PixelOwner> owners;
  for (const auto& fixture : show.fixtures)
    for (int i = 0; i < pixelCount(*fixture); ++i) owners.push_back({fixture.get(), i});
  return owners;
}

Json countsOf(const OpenedShow& opened) {
  const Show& show = opened.show;
  const auto compiled = compile(show);
  std::size_t segments = 0;
  for (const auto& fixture : show.fixtures) segments += fixture->segments.size();
  int cells = 0;
  for (const auto& zone : show.zones) cells += cellsOf(show, *compiled->map, *zone).count();
  std::size_t ports = 0;
  for (const auto& controller : show.controllers) ports += controller->ports.size();
  int channels = 0;
  for (const auto& span : compiled->patch.spans) channels += span.channelCount();
  Json counts = {{"name", show.name},
                 {"fixtures", show.fixtures.size()},
                 {"segments", segments},
                 {"zones", show.zones.size()},
                 {"cells", cells},
                 {"pixels", compiled->map->count()},
                 {"controllers", show.controllers.size()},
                 {"ports", ports},
                 {"universes", compiled->patch.universes.size()},
                 {"channels", channels}};
  counts["scores"] = Json::array();
  for (const auto& score : show.scores) counts["scores"].push_back(score->name);
  for (const auto& [volts, amps] : fullWhiteAmps(show))
    counts["amps"].push_back({{"volts", volts}, {"full_white", amps}});
  return counts;
}

}  // namespace

int info(const Words& words) {
  const auto opened = OpenedShow::open(words.file);
  if (!opened) return kShowError;
  Json counts = countsOf(*opened);
  counts["problems"] = opened->problems().size();
  if (words.json) {
    std::cout << counts.dump(2) << "\n";
    return kDone;
  }
  for (const auto& [key, value] : counts.items()) {
    std::cout << std::left << std::setw(12) << key << " ";
    if (key == "amps")
      for (const auto& rail : value)
        std::cout << rail["full_white"].get<double>() << " A at " << rail["volts"].get<double>() << " V  ";
    else if (value.is_array())
      for (const auto& one : value) std::cout << one.get<std::string>() << "  ";
    else
      std::cout << (value.is_string() ? value.get<std::string>() : value.dump());
    std::cout << "\n";
  }
  return kDone;
}

int check(const Words& words) {
  const auto opened = OpenedShow::open(words.file);
  if (!opened) return kShowError;
  auto problems = opened->problems();
  for (Problem& problem : flashProblems(opened->show, *opened->compiled()))
    problems.push_back(std::move(problem));
  Json list = Json::array();
  bool anyError = false;
  for (const Problem& p : problems) {
    anyError = anyError || p.severity == Severity::Error;
    const std::string where = p.where.text(), what = p.what.text(), cure = p.cure.text();
    list.push_back(
        {{"severity", severityWord(p.severity)}, {"where", where}, {"what", what}, {"cure", cure}});
    if (!words.json)
      std::cout << severityWord(p.severity) << ": " << where << ": " << what << " " << cure << "\n";
  }
  if (words.json) std::cout << list.dump(2) << "\n";
  return anyError ? kShowError : kDone;
}

int positions(const Words& words) {
  const auto opened = OpenedShow::open(words.file);
  if (!opened) return kShowError;
  Table table({"fixture", "segment", "pixel", "x_m", "y_m", "z_m"}, words.json);
  for (const auto& fixture : opened->show.fixtures) {
    const auto points = chispa::positions(*fixture);
    std::size_t next = 0;
    for (const Segment& segment : fixture->segments)
      for (int i = 0; i < pixelCount(segment.shape); ++i, ++next)
        table.add({fixture->name, segment.name, static_cast<long>(next + 1), Field::of(points[next].x, 5),
                   Field::of(points[next].y, 5), Field::of(points[next].z, 5)});
  }
  return kDone;
}

int zones(const Words& words) {
  const auto opened = OpenedShow::open(words.file);
  if (!opened) return kShowError;
  const Show& show = opened->show;
  if (!words.zone.empty() && !findNamed(show.zones, words.zone)) {
    std::cerr << words.file << ": There is no zone called \"" << words.zone
              << "\".\nWithout --zone all are printed.\n";
    return kShowError;
  }
  const PixelMap map = mapPixels(show);
  const auto owners = ownersOf(show);
  Table table({"zone", "cell", "row", "column", "fixture", "pixel", "along", "x_m", "y_m", "z_m", "angle_deg",
               "radius_m"},
              words.json);
  for (const auto& zone : show.zones) {
    if (!words.zone.empty() && zone->name != words.zone) continue;
    const ZoneCells cells = cellsOf(show, map, *zone);
    for (int cell = 0; cell < cells.count(); ++cell) {
      const auto at = static_cast<std::size_t>(cell);
      const Vec3 p = cells.position_m[at];
      for (const std::uint32_t pixel : cells.pixelsOf(cell))
        table.add({zone->name, cell + 1, cells.row[at] + 1, cells.column[at] + 1, owners[pixel].fixture->name,
                   owners[pixel].pixel + 1, Field::of(static_cast<double>(cells.along(Axis::Along)[at]), 4),
                   Field::of(p.x, 4), Field::of(p.y, 4), Field::of(p.z, 4),
                   Field::of(cells.frame.angle_deg(p), 2), Field::of(cells.frame.radius_m(p), 4)});
    }
  }
  return kDone;
}

int cuts(const Words& words) {
  const auto opened = OpenedShow::open(words.file);
  if (!opened) return kShowError;
  Table table({"strip_type", "length_mm", "pixels", "count", "fixtures", "reel_mm"}, words.json);
  for (const CutPiece& piece : cutList(opened->show)) {
    const StripType* strip = find(opened->show.stripTypes, piece.stripType);
    std::string fixtures;
    for (const std::string& name : piece.fixtures) fixtures += (fixtures.empty() ? "" : "; ") + name;
    table.add({strip ? strip->name : "", std::lround(piece.length_m * 1000), piece.pixels, piece.count,
               fixtures, std::lround(piece.reel_m * 1000)});
  }
  return kDone;
}

int patch(const Words& words) {
  const auto opened = OpenedShow::open(words.file);
  if (!opened) return kShowError;
  const Show& show = opened->show;
  Table table({"controller", "host", "protocol", "port", "fixture", "pixel", "universe", "channel",
               "channels", "order"},
              words.json);
  for (const PatchSpan& span : derivePatch(show).spans) {
    const Controller& controller = *show.controllers[static_cast<std::size_t>(span.controller)];
    const Fixture& fixture = *find(show.fixtures, span.fixture);
    const Port& port = controller.ports[static_cast<std::size_t>(span.port)];
    const ResolvedWire wire = resolveWire(stripTypeOf(show, fixture), fixture, port.settings,
                                          port.run[static_cast<std::size_t>(span.bead)].settings);
    for (int i = 0; i < span.count; ++i)
      table.add({controller.name, controller.host, protocolTitle(controller.protocol), span.port + 1,
                 fixture.name, span.pixelOf(i) + 1, span.universe, span.channelOf(i),
                 span.isWhole() ? span.channelsPerPixel : span.bytes, wire.order});
  }
  return kDone;
}

int frame(const Words& words) {
  const auto opened = OpenedShow::open(words.file);
  const Score* score = opened ? opened->score(words.score) : nullptr;
  if (!score) return kShowError;
  const auto compiled = opened->compiled();
  Renderer renderer;
  renderer.prepare(*compiled);
  PixelFrame light;
  light.resize(static_cast<std::size_t>(compiled->map->count()));
  const Micros at = micros(words.at_s);
  renderer.render(*compiled->scoreOf(score->id), at, light);
  Table table({"fixture", "pixel", "r", "g", "b"}, words.json);
  for (const auto& fixture : opened->show.fixtures) {
    const auto range = *compiled->map->rangeOf(fixture->id);
    for (int i = 0; i < range.count; ++i) {
      const auto [r, g, b] = rgbValues(light, static_cast<std::size_t>(range.first + i));
      table.add({fixture->name, i + 1, int{r}, int{g}, int{b}});
    }
  }
  return kDone;
}

}  // namespace chispa::cli
