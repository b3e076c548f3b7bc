// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/rules/admission.h"

#include <algorithm>

#include "core/show/limits.h"

namespace chispa {
namespace {

std::string tooMany(const char* what, std::int64_t sum, std::int64_t most) {
  return std::string("makes ") + std::to_string(sum) + " " + what + "; " + std::to_string(most) +
         " are the most";
}

/// Adds `more` to `sum` if it stays within `most`; says what is wrong if it does not.
std::string take(std::int64_t& sum, std::int64_t more, std::int64_t most, const char* what) {
  if (sum + more > most) return tooMany(what, sum + more, most);
  sum += more;
  return {};
}

constexpr std::int64_t divided(std::int64_t count, int by) {
  return by > 0 ? (count + by - 1) / by : 1;
}

}  // namespace

template <class T>
std::string Admission::refuseId(std::unordered_set<std::uint32_t>& taken, const T& item) {
  if (!item.id) return "has no id";
  if (!taken.insert(item.id.value).second)
    return "has the id " + std::to_string(item.id.value) + ", which another has";
  return {};
}

std::string Admission::refuse(const StripType& strip) {
  return refuseId(strips_, strip);
}
std::string Admission::refuse(const Underlay& underlay) {
  return refuseId(underlays_, underlay);
}
std::string Admission::refuse(const Supply& supply) {
  return refuseId(supplies_, supply);
}
std::string Admission::refuse(const Palette& palette) {
  return refuseId(palettes_, palette);
}
std::string Admission::refuse(const OwnEffect& effect) {
  return refuseId(effects_, effect);
}

std::string Admission::refuse(const Look& look) {
  if (std::string why = refuseId(looks_, look); !why.empty()) return why;
  std::int64_t layers = 0;
  for (const LookStep& step : look.steps) layers += std::ssize(step.layers);
  return take(layers_, layers, limits::kMaxClips, "layers in all looks");
}
std::string Admission::refuse(const Binding& binding) {
  if (bindings_.size() >= limits::kMaxBindings)
    return "is one of more than " + std::to_string(limits::kMaxBindings) + " bindings";
  return refuseId(bindings_, binding);
}
std::string Admission::refuse(const DeskInput& input) {
  return refuseId(deskInputs_, input);
}

std::string Admission::refuse(const SetList& list) {
  if (std::string why = refuseId(setLists_, list); !why.empty()) return why;
  return take(setListItems_, std::ssize(list.items), limits::kMaxSetListItems, "lines in all set lists");
}
std::string Admission::refuse(const Rule& rule) {
  if (rules_.size() >= limits::kMaxRules)
    return "is one of more than " + std::to_string(limits::kMaxRules) + " rules";
  return refuseId(rules_, rule);
}

Admission::Size Admission::sizeOf(const Fixture& fixture) {
  Size size;
  for (const Segment& segment : fixture.segments) {
    Size::Grid grid{pixelCount(segment), 0, 0};
    if (const auto* s = std::get_if<GridShape>(&segment.shape)) grid = {grid.pixels, s->columns, s->rows};
    if (const auto* s = std::get_if<ConeShape>(&segment.shape))
      grid = {grid.pixels, s->strings, s->perString};
    if (const auto* s = std::get_if<SpokesShape>(&segment.shape))
      grid = {grid.pixels, s->spokes, s->perSpoke};
    size.pixels += grid.pixels;
    size.segments.push_back(grid);
  }
  return size;
}

std::string Admission::refuse(const Fixture& fixture) {
  if (!fixture.id) return "has no id";
  if (fixtures_.contains(fixture.id))
    return "has the id " + std::to_string(fixture.id.value) + ", which another has";
  Size size = sizeOf(fixture);
  if (std::string why = take(pixels_, size.pixels, limits::kMaxPixels, "pixels of all fixtures");
      !why.empty())
    return why;
  fixtures_[fixture.id] = std::move(size);
  return {};
}

Admission::Size::Grid Admission::gridOf(const ZonePart& part) const {
  const auto fixture = fixtures_.find(part.fixture);
  if (fixture == fixtures_.end()) return {};
  const auto& segments = fixture->second.segments;
  Size::Grid grid{fixture->second.pixels, 0, 0};
  if (part.segment) {
    if (*part.segment < 0 || *part.segment >= std::ssize(segments)) return {};
    grid = segments[static_cast<std::size_t>(*part.segment)];
  } else if (segments.size() == 1) {
    grid = segments[0];
  }
  if (!part.runs.empty()) {
    grid.pixels = 0;
    for (const PixelRun& run : part.runs) grid.pixels += run.count;
  }
  return grid;
}

std::int64_t Admission::placesOf(const Zone& zone, const std::vector<Size::Grid>& parts) {
  std::int64_t columns = 0, rows = 1, widest = 0;
  for (const Size::Grid& part : parts) {
    const bool isGrid = keepsGrids(zone.layout) && part.columns > 0 && zone.pixelsPerCell > 0;
    const std::int64_t length = divided(part.pixels, zone.pixelsPerCell);
    const std::int64_t wide = isGrid                               ? divided(part.columns, zone.pixelsPerCell)
                              : zone.layout == ZoneLayout::Strings ? 1
                                                                   : length;
    const std::int64_t high = isGrid                               ? divided(part.rows, zone.pixelsPerCell)
                              : zone.layout == ZoneLayout::Strings ? length
                                                                   : 1;
    columns = zone.playsAsOne ? std::max(columns, wide) : columns + wide;
    rows = std::max(rows, high);
    widest = std::max(widest, wide);
  }
  if (zone.layout == ZoneLayout::Panels && zone.panelsAcross > 0)
    return widest * zone.panelsAcross * rows * divided(std::ssize(parts), zone.panelsAcross);
  return columns * rows;
}

std::string Admission::refuse(const Zone& zone) {
  if (std::string why = refuseId(zones_, zone); !why.empty()) return why;
  std::vector<Size::Grid> parts;
  std::int64_t pixels = 0;
  for (const ZonePart& part : zone.parts) {
    parts.push_back(gridOf(part));
    pixels += parts.back().pixels;
  }
  if (pixels > limits::kMaxPixels) return tooMany("pixels in one zone", pixels, limits::kMaxPixels);
  if (const std::int64_t places = placesOf(zone, parts); places > limits::kMaxPlacesOfZone)
    return tooMany("rows times columns", places, limits::kMaxPlacesOfZone);
  return take(zonePixels_, pixels, limits::kMaxZonePixels, "pixels in all zones");
}

std::string Admission::refuse(const Controller& controller) {
  if (std::string why = refuseId(controllers_, controller); !why.empty()) return why;
  std::int64_t hung = 0;
  for (const Port& port : controller.ports)
    for (const Bead& bead : port.run) {
      const auto fixture = fixtures_.find(bead.fixture);
      // One for itself, so that beads without pixels cannot be without end either.
      hung += 1 + bead.skippedBefore +
              (fixture == fixtures_.end() ? 0 : std::min<std::int64_t>(bead.count, fixture->second.pixels));
    }
  return take(wired_, hung, limits::kMaxWiredPixels, "pixels on all ports");
}

std::string Admission::refuse(const Block& block) {
  if (!block.id) return "has no id";
  if (!blocks_.try_emplace(block.id, std::ssize(block.clips)).second)
    return "has the id " + std::to_string(block.id.value) + ", which another has";
  return {};
}

std::string Admission::refuse(const Score& score) {
  if (std::string why = refuseId(scores_, score); !why.empty()) return why;
  std::int64_t clips = 0;
  for (const auto& clip : score.clips) {
    const auto block = clip->block ? blocks_.find(clip->block) : blocks_.end();
    clips += block == blocks_.end() ? 1 : block->second;
  }
  return take(clips_, clips, limits::kMaxClips, "clips in all scores");
}

}  // namespace chispa
