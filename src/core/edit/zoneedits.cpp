// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/edit/zoneedits.h"

#include <algorithm>
#include <map>
#include <set>

#include "core/edit/planedits.h"
#include "core/zone/cells.h"
#include "core/zone/partpixels.h"

namespace chispa {
namespace {

void addStaves(Show& show, const Zone& zone) {
  for (const auto& score : Items<Score>(show.scores))
    if (!zone.score || zone.score == score->id)
      changeItem(show.scores, score->id, [&](Score& s) { s.staves.push_back(zone.id); });
}

void dropFromScore(Show& show, const Score& score, ZoneId zone) {
  Score left = score;
  std::erase(left.staves, zone);
  std::erase_if(left.clips, [zone](const auto& clip) { return clip->zone == zone; });
  if (!(left == score)) put(show.scores, left);
}

}  // namespace

ZoneId addZone(Show& show, Zone zone) {
  zone.id = show.newId<ZoneId>();
  zone.name = freeName(show.zones, zone.name);
  addStaves(show, zone);
  put(show.zones, zone);
  return zone.id;
}

ZoneId addZone(Show& show, const std::string& name, const std::vector<FixtureId>& fixtures) {
  Zone zone;
  zone.name = name;
  bool allMatrices = true;
  for (const FixtureId id : fixtures) {
    const Fixture* fixture = find(show.fixtures, id);
    if (!fixture) continue;
    zone.parts.push_back({id, std::nullopt, false});
    allMatrices = allMatrices && fixture->segments.size() == 1 && isMatrix(fixture->segments[0].shape);
  }
  if (allMatrices) zone.layout = ZoneLayout::SideBySide;
  return addZone(show, zone);
}

void deleteZone(Show& show, ZoneId id) {
  remove(show.zones, id);
  for (const auto& score : Items<Score>(show.scores)) dropFromScore(show, *score, id);
  for (const auto& look : Items<Look>(show.looks)) {
    Look left = *look;
    for (LookStep& step : left.steps)
      std::erase_if(step.layers, [id](const auto& layer) { return layer->zone == id; });
    if (!(left == *look)) put(show.looks, std::move(left));
  }
  std::erase_if(show.bindings, [id](const auto& binding) { return binding->target.zone == id; });
  std::erase_if(show.deskInputs, [id](const auto& input) { return input->zone == id; });
}

std::string numberedName(const std::string& base, int index, int count, Numbering numbering) {
  std::string number = std::to_string(index + 1);
  if (numbering == Numbering::Padded) {
    const std::size_t width = std::to_string(count).size();
    number.insert(0, width > number.size() ? width - number.size() : 0, '0');
  } else if (numbering == Numbering::Letters) {
    number.clear();
    for (int left = index; left >= 0; left = left / 26 - 1)
      number.insert(number.begin(), static_cast<char>('A' + left % 26));
  }
  return base.empty() ? number : base + " " + number;
}

namespace {

/// Cells of a zone under the number of the piece they go to.
class Divider {
 public:
  Divider(const Show& show, const Zone& zone, const DivideRequest& request)
      : show_(show), zone_(zone), request_(request), map_(mapPixels(show)) {}

  /// The parts of each piece.
  std::vector<std::vector<ZonePart>> pieces() {
    std::map<int, std::vector<ZonePart>> pieces;
    for (const Zone& layer : layers()) {
      const ZoneCells cells = cellsOf(show_, map_, layer);
      std::map<int, std::vector<int>> cellsOfPiece;
      for (int cell = 0; cell < cells.count(); ++cell) cellsOfPiece[pieceOf(cells, cell)].push_back(cell);
      for (auto& [piece, members] : cellsOfPiece) {
        sortWithin(cells, members);
        for (ZonePart& part : partsOfCells(cells, members)) pieces[piece].push_back(std::move(part));
      }
    }
    std::vector<std::vector<ZonePart>> all;
    for (auto& [number, parts] : pieces) all.push_back(std::move(parts));
    return all;
  }

  /// What the pieces are laid out as.
  ZoneLayout layout() const {
    const bool keepsGrid = request_.by == Division::ColumnParts || request_.by == Division::RowParts ||
                           request_.by == Division::Fixtures;
    if (request_.by == Division::Fixtures && zone_.layout == ZoneLayout::Strings) return ZoneLayout::Strand;
    return keepsGrid ? zone_.layout : ZoneLayout::Strand;
  }

 private:
  /// Parts that play as one are divided alike, each for itself.
  std::vector<Zone> layers() const {
    if (!zone_.playsAsOne) return {zone_};
    std::vector<Zone> layers;
    for (const ZonePart& part : zone_.parts) {
      layers.push_back(zone_);
      layers.back().parts = {part};
      layers.back().playsAsOne = false;
    }
    return layers;
  }

  int pieceOf(const ZoneCells& cells, int cell) {
    const auto at = static_cast<std::size_t>(cell);
    const auto share = [n = std::max(1, request_.n)](int index, int count) {
      return static_cast<int>(static_cast<long long>(index) * n / std::max(1, count));
    };
    switch (request_.by) {
      case Division::Rows:
        return cells.row[at];
      case Division::Columns:
        return cells.column[at];
      case Division::Parts:
        return share(cell, cells.count());
      case Division::ColumnParts:
        return share(cells.column[at], cells.columns);
      case Division::RowParts:
        return share(cells.row[at], cells.rows);
      case Division::EveryNth:
        return cell % std::max(1, request_.n);
      case Division::Segments:
      case Division::Fixtures:
        return numberOf(ownerOf(cells.pixelsOf(cell).front()));
    }
    return 0;
  }

  /// Fixture and segment (0 if only fixtures matter) that a pixel belongs to.
  std::pair<FixtureId, std::size_t> ownerOf(std::uint32_t pixel) {
    const ZonePart part = partsOf(show_, map_, std::span(&pixel, 1)).front();
    const Fixture& fixture = *find(show_.fixtures, part.fixture);
    const bool bySegment = request_.by == Division::Segments;
    return {part.fixture, bySegment ? segmentOf(fixture, pixelsOf(fixture, part).front()) : 0};
  }

  /// Owners are numbered as they come.
  int numberOf(const std::pair<FixtureId, std::size_t>& owner) {
    return owners_.try_emplace(owner, static_cast<int>(owners_.size())).first->second;
  }

  void sortWithin(const ZoneCells& cells, std::vector<int>& members) const {
    const auto at = [](int cell) { return static_cast<std::size_t>(cell); };
    if (request_.by == Division::Rows)
      std::stable_sort(members.begin(), members.end(),
                       [&](int a, int b) { return cells.column[at(a)] < cells.column[at(b)]; });
    if (request_.by == Division::Columns)
      std::stable_sort(members.begin(), members.end(),
                       [&](int a, int b) { return cells.row[at(a)] < cells.row[at(b)]; });
  }

  std::vector<ZonePart> partsOfCells(const ZoneCells& cells, const std::vector<int>& members) const {
    // Parts that are single cells must stay apart.
    if (zone_.pixelsPerCell == 0) {
      std::vector<ZonePart> parts;
      for (const int cell : members)
        for (ZonePart& part : partsOf(show_, map_, cells.pixelsOf(cell))) parts.push_back(std::move(part));
      return parts;
    }
    std::vector<std::uint32_t> pixels;
    for (const int cell : members)
      for (const std::uint32_t pixel : cells.pixelsOf(cell)) pixels.push_back(pixel);
    return partsOf(show_, map_, pixels);
  }

  const Show& show_;
  const Zone& zone_;
  const DivideRequest& request_;
  PixelMap map_;
  std::map<std::pair<FixtureId, std::size_t>, int> owners_;
};

}  // namespace

DivideRequest usualDivision(const Show& show, const Zone& zone) {
  std::set<FixtureId> fixtures;
  for (const ZonePart& part : zone.parts) fixtures.insert(part.fixture);
  DivideRequest request;
  const Fixture* only = fixtures.size() == 1 ? find(show.fixtures, *fixtures.begin()) : nullptr;
  if (fixtures.size() > 1)
    request.by = Division::Fixtures;
  else if (only && only->segments.size() > 1)
    request.by = Division::Segments;
  else if (only && isMatrix(only->segments.front().shape))
    request.by = Division::Rows;
  else
    request.by = Division::Parts;
  return request;
}

int piecesOf(const Show& show, const Zone& zone, const DivideRequest& request) {
  return static_cast<int>(Divider(show, zone, request).pieces().size());
}

std::vector<ZoneId> divideZone(Show& show, ZoneId id, const DivideRequest& request) {
  const Zone* found = find(show.zones, id);
  if (!found) return {};
  const Zone whole = *found;
  Divider divider(show, whole, request);
  const auto pieces = divider.pieces();
  Zone piece = whole;
  piece.layout = divider.layout();
  piece.order = ZoneOrder::Listed;
  piece.backwards = false;
  const std::string base = request.base.empty() ? whole.name : request.base;
  if (request.asCells) {
    // A piece of several fixtures cannot be one part; it takes as many cells as it has parts.
    piece.name = base;
    piece.parts.clear();
    for (const auto& parts : pieces) piece.parts.insert(piece.parts.end(), parts.begin(), parts.end());
    piece.pixelsPerCell = 0;
    piece.layout = ZoneLayout::Strand;
    return {addZone(show, piece)};
  }
  std::vector<ZoneId> made;
  for (std::size_t i = 0; i < pieces.size(); ++i) {
    piece.name = numberedName(base, static_cast<int>(i), static_cast<int>(pieces.size()), request.numbering);
    piece.parts = pieces[i];
    made.push_back(addZone(show, piece));
  }
  return made;
}

ZoneId combineZones(Show& show, ZoneId id, ZoneId with) {
  const Zone* first = find(show.zones, id);
  const Zone* second = find(show.zones, with);
  if (!first || !second) return {};
  Zone both = *first;
  both.parts.insert(both.parts.end(), second->parts.begin(), second->parts.end());
  both.name = first->name + " and " + second->name;
  return addZone(show, both);
}

ZoneId mirrorZone(Show& show, ZoneId id) {
  const Zone* zone = find(show.zones, id);
  if (!zone) return {};
  const PixelMap map = mapPixels(show);
  const ZoneCells cells = cellsOf(show, map, *zone);
  const int half = (cells.count() + 1) / 2;
  std::vector<std::uint32_t> there;
  std::vector<std::uint32_t> back;
  for (int cell = 0; cell < cells.count(); ++cell)
    for (const std::uint32_t pixel : cells.pixelsOf(cell)) (cell < half ? there : back).push_back(pixel);
  std::reverse(back.begin(), back.end());
  const auto parts = partsOf(show, map, there);
  const auto image = partsOf(show, map, back);
  Zone both = *zone;
  both.name = zone->name + " mirrored";
  both.layout = ZoneLayout::Strand;
  both.order = ZoneOrder::Listed;
  both.backwards = false;
  both.playsAsOne = true;
  both.parts = parts;
  both.parts.insert(both.parts.end(), image.begin(), image.end());
  return addZone(show, both);
}

void reverseZone(Show& show, ZoneId id) {
  changeItem(show.zones, id, [](Zone& zone) {
    if (zone.order != ZoneOrder::Listed) {
      zone.backwards = !zone.backwards;
      return;
    }
    std::reverse(zone.parts.begin(), zone.parts.end());
    for (ZonePart& part : zone.parts) part.reversed = !part.reversed;
  });
}

void moveZonePart(Show& show, ZoneId id, std::size_t from, std::size_t to) {
  const Zone* zone = find(show.zones, id);
  if (!zone || from >= zone->parts.size() || to >= zone->parts.size()) return;
  changeItem(show.zones, id, [&](Zone& z) {
    const ZonePart part = z.parts[from];
    z.parts.erase(z.parts.begin() + static_cast<std::ptrdiff_t>(from));
    z.parts.insert(z.parts.begin() + static_cast<std::ptrdiff_t>(to), part);
    z.order = ZoneOrder::Listed;
    z.backwards = false;
  });
}

void setZoneScore(Show& show, ZoneId id, ScoreId owner) {
  const Zone* found = find(show.zones, id);
  if (!found || found->score == owner) return;
  Zone zone = *found;
  zone.score = owner;
  put(show.zones, zone);
  for (const auto& score : Items<Score>(show.scores)) {
    const bool has = std::find(score->staves.begin(), score->staves.end(), id) != score->staves.end();
    const bool should = !owner || owner == score->id;
    if (has && !should) dropFromScore(show, *score, id);
    if (!has && should) changeItem(show.scores, score->id, [id](Score& s) { s.staves.push_back(id); });
  }
}

bool areAlike(const Fixture& a, const Fixture& b) {
  return std::equal(a.segments.begin(), a.segments.end(), b.segments.begin(), b.segments.end(),
                    [](const Segment& x, const Segment& y) {
                      return pixelCount(x) == pixelCount(y) && matrixCells(x) == matrixCells(y);
                    });
}

Result<std::vector<ZoneId>> copyZones(Show& show, FixtureId from, FixtureId to) {
  const Fixture* source = find(show.fixtures, from);
  const Fixture* target = find(show.fixtures, to);
  if (!source || !target) return Failure{"One of the fixtures is gone.", "", "Select the fixtures anew."};
  if (!areAlike(*source, *target))
    return Failure{sentence("Zones of %1 do not fit %2.", source->name, target->name), target->name,
                   "Choose a fixture with the same segments and as many pixels in each."};
  std::vector<ZoneId> made;
  for (const auto& zone : Items<Zone>(show.zones)) {
    const bool isOfSource =
        !zone->parts.empty() && std::all_of(zone->parts.begin(), zone->parts.end(),
                                            [&](const ZonePart& p) { return p.fixture == from; });
    if (!isOfSource) continue;
    Zone copy = *zone;
    for (ZonePart& part : copy.parts) part.fixture = to;
    // What is told of the one by its name is told of the other.
    const auto at = copy.name.find(source->name);
    copy.name = at == std::string::npos ? target->name + " " + copy.name
                                        : copy.name.replace(at, source->name.size(), target->name);
    const bool isThere = std::any_of(show.zones.begin(), show.zones.end(), [&](const auto& z) {
      return z->parts == copy.parts && z->layout == copy.layout && z->pixelsPerCell == copy.pixelsPerCell;
    });
    if (!isThere) made.push_back(addZone(show, copy));
  }
  if (made.empty())
    return Failure{sentence("%1 has no zones that %2 lacks.", source->name, target->name), source->name,
                   sentence("Make zones of %1 first.", source->name)};
  return made;
}

}  // namespace chispa
