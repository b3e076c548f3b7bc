// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/edit/deletions.h"

#include <algorithm>
#include <set>

namespace chispa {
namespace {

std::string counted(std::size_t count, const std::string& one, const std::string& many) {
  return count == 1 ? "one " + one : std::to_string(count) + " " + many;
}

/// "12 clips of “The Slow Round”" for each score that has some.
template <class F>
Losses clipsThat(const Show& show, const std::string& what, F matches) {
  Losses losses;
  const auto tell = [&](const auto& clips, const std::string& where) {
    const auto count = static_cast<std::size_t>(
        std::count_if(clips.begin(), clips.end(), [&](const auto& clip) { return matches(*clip); }));
    if (count > 0) losses.push_back(counted(count, "clip", "clips") + " of “" + where + "” " + what + ".");
  };
  for (const auto& score : show.scores) tell(score->clips, score->name);
  for (const auto& block : show.blocks) tell(block->clips, block->name);
  for (const auto& look : show.looks)
    for (const LookStep& step : look->steps) tell(step.layers, look->name);
  return losses;
}

void append(Losses& to, Losses more) {
  to.insert(to.end(), more.begin(), more.end());
}

}  // namespace

Losses lossesOfDeleting(const Show& show, const std::vector<FixtureId>& fixtures) {
  const std::set<FixtureId> gone(fixtures.begin(), fixtures.end());
  Losses losses;
  for (const auto& controller : show.controllers)
    for (std::size_t port = 0; port < controller->ports.size(); ++port) {
      std::size_t pixels = 0;
      for (const Bead& bead : controller->ports[port].run)
        if (gone.contains(bead.fixture)) pixels += static_cast<std::size_t>(std::max(0, bead.count));
      if (pixels > 0)
        losses.push_back("“" + controller->name + "”, port " + std::to_string(port + 1) + ": " +
                         counted(pixels, "pixel comes", "pixels come") + " off.");
    }
  for (const auto& zone : show.zones) {
    const auto lost = std::count_if(zone->parts.begin(), zone->parts.end(),
                                    [&](const ZonePart& part) { return gone.contains(part.fixture); });
    if (lost == 0) continue;
    if (lost < std::ssize(zone->parts)) {
      losses.push_back("Zone “" + zone->name + "” loses " +
                       counted(static_cast<std::size_t>(lost), "part", "parts") + ".");
      continue;
    }
    Losses clips = lossesOfDeleting(show, zone->id);
    if (!clips.empty()) losses.push_back("Zone “" + zone->name + "” goes.");
    append(losses, std::move(clips));
  }
  return losses;
}

Losses lossesOfDeleting(const Show& show, ZoneId zone) {
  const Zone* found = find(show.zones, zone);
  return clipsThat(show, "on zone “" + (found ? found->name : std::string()) + "” go",
                   [zone](const Clip& clip) { return clip.zone == zone; });
}

Losses lossesOfDeleting(const Show& show, PaletteId palette) {
  return clipsThat(show, "lose their colours",
                   [palette](const Clip& clip) { return clip.palette == palette; });
}

namespace {

/// Lines of set lists and rules that play it: they stay, and tell as problems what is gone.
template <class IdType>
void addNights(const Show& show, IdType id, IdType SetListItem::*ofLine, IdType Rule::*ofRule, PieceKind kind,
               Losses& losses) {
  std::size_t lines = 0;
  for (const auto& list : show.setLists)
    lines += static_cast<std::size_t>(
        std::count_if(list->items.begin(), list->items.end(),
                      [&](const SetListItem& line) { return line.kind == kind && line.*ofLine == id; }));
  const auto rules =
      static_cast<std::size_t>(std::count_if(show.rules.begin(), show.rules.end(), [&](const auto& rule) {
        return rule->kind == kind && (*rule).*ofRule == id;
      }));
  if (lines > 0)
    losses.push_back(counted(lines, "line of a set list plays", "lines of set lists play") +
                     " it, and would be left out.");
  if (rules > 0)
    losses.push_back(counted(rules, "rule of the almanac plays", "rules of the almanac play") +
                     " it: those nights would be dark.");
}

}  // namespace

Losses lossesOfDeleting(const Show& show, SetListId list) {
  Losses losses;
  addNights(show, list, &SetListItem::list, &Rule::list, PieceKind::SetList, losses);
  return losses;
}

Losses lossesOfDeleting(const Show& show, LookId look) {
  const auto bound = static_cast<std::size_t>(
      std::count_if(show.bindings.begin(), show.bindings.end(),
                    [look](const auto& binding) { return binding->target.look == look; }));
  Losses losses;
  if (bound > 0) losses.push_back(counted(bound, "binding goes", "bindings go") + " with it.");
  addNights(show, look, &SetListItem::look, &Rule::look, PieceKind::Look, losses);
  return losses;
}

Losses lossesOfDeleting(const Show& show, ControllerId controller) {
  const Controller* found = find(show.controllers, controller);
  std::size_t pixels = 0;
  for (const Port& port : found ? found->ports : std::vector<Port>{})
    for (const Bead& bead : port.run) pixels += static_cast<std::size_t>(std::max(0, bead.count));
  if (pixels == 0) return {};
  return {counted(pixels, "pixel hangs", "pixels hang") + " on it, with pins and settings."};
}

Losses lossesOfDeleting(const Show& show, ScoreId score) {
  const Score* found = find(show.scores, score);
  if (!found) return {};
  std::size_t marks = 0;
  for (const MarkLane& lane : found->lanes) marks += lane.marks.size();
  const auto zones = static_cast<std::size_t>(std::count_if(
      show.zones.begin(), show.zones.end(), [score](const auto& zone) { return zone->score == score; }));
  Losses losses;
  if (!found->clips.empty()) losses.push_back(counted(found->clips.size(), "clip goes", "clips go") + ".");
  if (marks > 0) losses.push_back(counted(marks, "mark goes", "marks go") + ".");
  if (zones > 0)
    losses.push_back(counted(zones, "zone that only it has", "zones that only it has") +
                     " would belong to no score.");
  addNights(show, score, &SetListItem::score, &Rule::score, PieceKind::Score, losses);
  return losses;
}

}  // namespace chispa
