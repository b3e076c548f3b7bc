// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/session/selectionlight.h"

#include <algorithm>
#include <set>

#include "core/base/overloaded.h"
#include "core/zone/cells.h"
#include "core/zone/pixelmap.h"
#include "engine/program.h"

namespace chispa::desk {
namespace {

using Pixels = std::vector<std::int32_t>;

void addRange(Pixels& pixels, const PixelMap::Range& range) {
  for (int i = 0; i < range.count; ++i) pixels.push_back(range.first + i);
}

void add(Pixels& pixels, const Pixels& more) {
  pixels.insert(pixels.end(), more.begin(), more.end());
}

void addZones(Pixels& pixels, const Show& show, const std::set<ZoneId>& ids) {
  const PixelMap map = mapPixels(show);
  for (const ZoneId id : ids)
    if (const Zone* zone = chispa::find(show.zones, id))
      for (const std::uint32_t pixel : cellsOf(show, map, *zone).pixels)
        pixels.push_back(static_cast<std::int32_t>(pixel));
}

std::set<ZoneId> zonesOf(const Score* score, const ClipIds& ids) {
  std::set<ZoneId> zones;
  for (const auto& clip : score ? score->clips : decltype(Score::clips){})
    if (std::find(ids.begin(), ids.end(), clip->id) != ids.end()) zones.insert(clip->zone);
  return zones;
}

/// What hangs on the selected beads, ports and controllers.
void addWired(Pixels& pixels, const Session& session) {
  const Show& show = session.show();
  const Selection& selection = session.selection;
  const auto beads = selection.all<BeadPlace>();
  const auto ports = selection.all<PortChoice>();
  const auto controllers = selection.all<ControllerId>();
  if (beads.empty() && ports.empty() && controllers.empty()) return;
  const auto ranges = pixelRanges(show);
  const auto controllerOf = [&](ControllerId id) { return chispa::find(show.controllers, id); };
  for (const BeadPlace& place : beads)
    if (const Controller* controller = controllerOf(place.controller))
      add(pixels, engine::wiredPixels(show, ranges, *controller, place.port, place.bead));
  for (const PortChoice& port : ports)
    if (const Controller* controller = controllerOf(port.controller))
      add(pixels, engine::wiredPixels(show, ranges, *controller, port.port));
  for (const ControllerId id : controllers) {
    const Controller* controller = controllerOf(id);
    for (int port = 0; controller && port < std::ssize(controller->ports); ++port)
      add(pixels, engine::wiredPixels(show, ranges, *controller, port));
  }
}

}  // namespace

std::vector<std::int32_t> selectedPixels(const Session& session) {
  const Show& show = session.show();
  Pixels pixels;
  std::visit(
      Overloaded{[&](const FixtureIds& ids) {
                   const auto ranges = pixelRanges(show);
                   const auto one = session.selection.pixel();
                   for (const FixtureId id : ids)
                     if (const auto range = ranges.find(id); range != ranges.end()) {
                       if (one && ids.size() == 1 && *one < range->second.count)
                         pixels.push_back(range->second.first + *one);
                       else
                         addRange(pixels, range->second);
                     }
                 },
                 [&](ZoneId id) { addZones(pixels, show, {id}); },
                 [&](const ZoneIds& ids) {
                   addZones(pixels, show, {ids.begin(), ids.end()});
                 },
                 [&](const ClipIds& ids) { addZones(pixels, show, zonesOf(session.stage.score(), ids)); },
                 [](const auto&) {}},
      session.selection.now());
  addWired(pixels, session);
  return pixels;
}

SelectionLight::SelectionLight(const Session& session, QObject* parent) : QObject(parent), session_(session) {
  connect(&session_.selection, &Selection::changed, this, &SelectionLight::update);
  connect(&session_.document, &Document::showChanged, this, &SelectionLight::update);
  connect(&session_.document, &Document::opened, this, &SelectionLight::update);
  connect(&session_.stage, &Stage::playingChanged, this, &SelectionLight::update);
}

void SelectionLight::setPointing(bool on) {
  isPointing_ = on;
  update();
}

void SelectionLight::setLocating(bool on) {
  isLocating_ = on;
  if (on) isIsolating_ = false;
  update();
}

void SelectionLight::setIsolating(bool on) {
  isIsolating_ = on;
  if (on) isLocating_ = false;
  update();
}

void SelectionLight::update() {
  using Kind = engine::Highlight::Kind;
  const Selection& selection = session_.selection;
  const bool isWired = !selection.all<BeadPlace>().empty() || !selection.all<PortChoice>().empty();
  const bool points = isPointing_ && isWired && !session_.stage.isPlaying();
  engine::Highlight highlight{isLocating_ ? Kind::Blink : isIsolating_ ? Kind::Isolate : Kind::Point, {}};
  if (isLocating_ || isIsolating_ || points) highlight.pixels = selectedPixels(session_);
  session_.stage.setHighlight(std::move(highlight));
  emit changed();
}

}  // namespace chispa::desk
