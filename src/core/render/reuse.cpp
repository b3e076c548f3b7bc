// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/render/reuse.h"

#include <algorithm>

#include "core/render/compiledlive.h"
#include "core/zone/movedcells.h"

namespace chispa {
namespace {

/// True if nothing but where it stands and what it is called differs: its wires do not notice.
bool isWiredAlike(const std::shared_ptr<const Fixture>& now, const std::shared_ptr<const Fixture>& then) {
  if (now == then) return true;
  return now->id == then->id && now->stripType == then->stripType && now->segments == then->segments &&
         now->response == then->response;
}

}  // namespace

Reuse::Reuse(const Show& show, const MediaLibrary& media, const CompiledShow* before)
    : show_(show), before_(before) {
  if (!before) return;
  isLitAlike_ = before->media == media && before->light == show.light;
  if (show.fixtures != before->source.fixtures) {
    std::unordered_map<FixtureId, std::shared_ptr<const Fixture>> then;
    for (const auto& fixture : before->source.fixtures) then.try_emplace(fixture->id, fixture);
    for (const auto& fixture : show.fixtures) {
      const auto found = then.find(fixture->id);
      if (found != then.end() && found->second == fixture) continue;
      changed_.insert(fixture->id);
      if (found == then.end() || !isWiredAlike(fixture, found->second)) reshaped_.insert(fixture->id);
    }
  }
  // Each zone has a level that can be told, in the show's order.
  const auto& zones = before->source.zones;
  const auto& levels = before->live->levels;
  for (std::size_t i = 0; i < std::min(zones.size(), levels.size()); ++i)
    cells_.try_emplace(zones[i].get(), levels[i].cells);
}

std::shared_ptr<const PixelMap> Reuse::map() const {
  return before_ ? remapPixels(show_, before_->source, before_->map) : nullptr;
}

bool Reuse::keepsWiring() const {
  if (!before_) return false;
  const Show& then = before_->source;
  return show_.stripTypes == then.stripTypes && show_.controllers == then.controllers &&
         show_.supplies == then.supplies &&
         std::equal(show_.fixtures.begin(), show_.fixtures.end(), then.fixtures.begin(), then.fixtures.end(),
                    isWiredAlike);
}

std::shared_ptr<const ZoneCells> Reuse::cells(const Zone& zone, const PixelMap& map) const {
  const auto found = cells_.find(&zone);
  if (found == cells_.end()) return nullptr;
  const auto all = [&](const auto& is) { return std::all_of(zone.parts.begin(), zone.parts.end(), is); };
  if (!all([&](const ZonePart& part) {
        return map.rangeOf(part.fixture) == before_->map->rangeOf(part.fixture);
      }))
    return nullptr;
  if (all([&](const ZonePart& part) { return !changed_.contains(part.fixture); })) return found->second;
  if (!all([&](const ZonePart& part) { return !reshaped_.contains(part.fixture); })) return nullptr;
  return movedCells(show_, map, zone, *before_->map, *found->second);
}

std::shared_ptr<const PaletteTable> Reuse::palette(PaletteId id) const {
  if (!before_ || find(show_.palettes, id) != find(before_->source.palettes, id)) return nullptr;
  const auto found = before_->palettes.find(id);
  return found == before_->palettes.end() ? nullptr : found->second;
}

std::shared_ptr<const CompiledClips> Reuse::clips(const CompiledScore& score, ZoneId zone,
                                                  const std::vector<const Clip*>& madeOf) const {
  const CompiledScore* then = before_ && isLitAlike_ ? before_->scoreOf(score.id) : nullptr;
  if (!then || madeOf.empty() || !(then->grid == score.grid)) return nullptr;
  const auto found = std::find_if(then->staves.begin(), then->staves.end(), [&](const CompiledStave& stave) {
    return stave.zone == zone && stave.madeOf == madeOf;
  });
  return found == then->staves.end() ? nullptr : found->shared;
}

const CompiledScore* Reuse::lanesOf(const CompiledScore& score) const {
  const CompiledScore* then = before_ ? before_->scoreOf(score.id) : nullptr;
  const auto isSame = [](const CompiledStave& a, const CompiledStave& b) { return a.cells == b.cells; };
  return then && std::equal(score.staves.begin(), score.staves.end(), then->staves.begin(),
                            then->staves.end(), isSame)
             ? then
             : nullptr;
}

}  // namespace chispa
