// SPDX-License-Identifier: GPL-3.0-or-later
#include <nlohmann/json.hpp>

#include "core/files/names.h"
#include "core/files/showjson.h"

namespace chispa {
namespace {

using Json = nlohmann::ordered_json;

template <class Tag>
Json idJson(Id<Tag> id) {
  return id.value;
}

Json toJson(const Vec3& v) { return Json::array({v.x, v.y, v.z}); }

Json toJson(const Placement& place) {
  return {{"position_m", toJson(place.position_m)}, {"rotation_deg", toJson(place.rotation_deg)}};
}

Json shapeJson(const LineShape& s) { return {{"kind", "line"}, {"count", s.count}, {"pitch_m", s.pitch_m}}; }

Json shapeJson(const GridShape& s) {
  return {{"kind", "grid"},
          {"columns", s.columns},
          {"rows", s.rows},
          {"column_pitch_m", s.columnPitch_m},
          {"row_pitch_m", s.rowPitch_m},
          {"start", nameOf(s.start)},
          {"runs", nameOf(s.runs)},
          {"serpentine", s.serpentine}};
}

Json shapeJson(const ArcShape& s) {
  return {{"kind", "arc"},
          {"count", s.count},
          {"radius_m", s.radius_m},
          {"start_deg", s.start_deg},
          {"sweep_deg", s.sweep_deg}};
}

Json pointsJson(const std::vector<Vec3>& points) {
  Json list = Json::array();
  for (const Vec3& point : points) list.push_back(toJson(point));
  return list;
}

Json shapeJson(const PathShape& s) {
  return {{"kind", "path"}, {"count", s.count}, {"smooth", s.smooth}, {"corners_m", pointsJson(s.corners)}};
}

Json shapeJson(const RingsShape& s) {
  return {{"kind", "rings"},
          {"counts", s.counts},
          {"inner_radius_m", s.innerRadius_m},
          {"outer_radius_m", s.outerRadius_m},
          {"start_deg", s.start_deg},
          {"outside_in", s.outsideIn}};
}

Json shapeJson(const SpiralShape& s) {
  return {{"kind", "spiral"},
          {"count", s.count},
          {"turns", s.turns},
          {"start_radius_m", s.startRadius_m},
          {"end_radius_m", s.endRadius_m},
          {"rise_m", s.rise_m}};
}

Json shapeJson(const ConeShape& s) {
  return {{"kind", "cone"},
          {"strings", s.strings},
          {"per_string", s.perString},
          {"bottom_radius_m", s.bottomRadius_m},
          {"top_radius_m", s.topRadius_m},
          {"height_m", s.height_m},
          {"start_deg", s.start_deg},
          {"sweep_deg", s.sweep_deg},
          {"way", nameOf(s.way)}};
}

Json shapeJson(const SpokesShape& s) {
  return {{"kind", "spokes"},
          {"spokes", s.spokes},
          {"per_spoke", s.perSpoke},
          {"inner_radius_m", s.innerRadius_m},
          {"outer_radius_m", s.outerRadius_m},
          {"start_deg", s.start_deg},
          {"sweep_deg", s.sweep_deg},
          {"way", nameOf(s.way)}};
}

Json shapeJson(const PointsShape& s) { return {{"kind", "points"}, {"points_m", pointsJson(s.points)}}; }

Json toJson(const StripType& s) {
  return {{"id", idJson(s.id)},
          {"name", s.name},
          {"order", s.order},
          {"pixels_per_metre", s.pixelsPerMetre},
          {"volts", s.volts},
          {"channel_ma", s.channel_ma},
          {"response", s.response}};
}

Json toJson(const Fixture& f) {
  Json segments = Json::array();
  for (const Segment& segment : f.segments) {
    Json shape = std::visit([](const auto& s) { return shapeJson(s); }, segment.shape);
    segments.push_back({{"name", segment.name}, {"shape", std::move(shape)}, {"place", toJson(segment.place)}});
  }
  return {{"id", idJson(f.id)},
          {"name", f.name},
          {"strip_type", idJson(f.stripType)},
          {"place", toJson(f.place)},
          {"segments", std::move(segments)}};
}

Json toJson(const Zone& z) {
  Json parts = Json::array();
  for (const ZonePart& part : z.parts) {
    Json one = {{"fixture", idJson(part.fixture)}};
    if (part.segment) one["segment"] = *part.segment;
    if (part.reversed) one["reversed"] = true;
    parts.push_back(std::move(one));
  }
  return {{"id", idJson(z.id)},
          {"name", z.name},
          {"layout", nameOf(z.layout)},
          {"pixels_per_cell", z.pixelsPerCell},
          {"parts", std::move(parts)}};
}

Json toJson(const Controller& c) {
  Json ports = Json::array();
  for (const Port& port : c.ports) {
    Json run = Json::array();
    for (const Bead& bead : port.run)
      run.push_back({{"fixture", idJson(bead.fixture)},
                     {"first", bead.first},
                     {"count", bead.count},
                     {"reversed", bead.reversed},
                     {"skipped_before", bead.skippedBefore}});
    ports.push_back({{"run", std::move(run)}});
  }
  return {{"id", idJson(c.id)},
          {"name", c.name},
          {"protocol", nameOf(c.protocol)},
          {"host", c.host},
          {"udp_port", c.udpPort},
          {"setup_port", c.setupPort},
          {"first_universe", c.firstUniverse},
          {"port_start", nameOf(c.portStart)},
          {"ports", std::move(ports)}};
}

Json toJson(const Palette& p) {
  Json stops = Json::array();
  for (const ColourStop& stop : p.stops) stops.push_back({{"at", stop.at}, {"colour", hexText(stop.colour)}});
  return {{"id", idJson(p.id)}, {"name", p.name}, {"stops", std::move(stops)}};
}

Json paramJson(const ParamValue& value) {
  if (const auto* colour = std::get_if<Srgb8>(&value)) return {{"colour", hexText(*colour)}};
  if (const auto* number = std::get_if<double>(&value)) return *number;
  if (const auto* on = std::get_if<bool>(&value)) return *on;
  return std::get<std::string>(value);
}

Json toJson(const Clip& c) {
  Json params = Json::object();
  for (const auto& [key, value] : c.params) params[key] = paramJson(value);
  return {{"id", idJson(c.id)},
          {"zone", idJson(c.zone)},
          {"layer", c.layer},
          {"start_us", c.start.count()},
          {"length_us", c.length.count()},
          {"effect", c.effect},
          {"palette", idJson(c.palette)},
          {"params", std::move(params)},
          {"blend", nameOf(c.blend)},
          {"strength", c.strength},
          {"fade_in_us", c.fadeIn.count()},
          {"fade_out_us", c.fadeOut.count()},
          {"seed", c.seed}};
}

Json toJson(const MarkLane& lane) {
  Json marks = Json::array();
  for (const Mark& mark : lane.marks) {
    Json one = {{"id", idJson(mark.id)}, {"at_us", mark.at.count()}};
    if (!mark.text.empty()) one["text"] = mark.text;
    marks.push_back(std::move(one));
  }
  return {{"id", idJson(lane.id)}, {"name", lane.name}, {"kind", nameOf(lane.kind)}, {"marks", std::move(marks)}};
}

Json toJson(const Score& s) {
  Json lanes = Json::array();
  for (const MarkLane& lane : s.lanes) lanes.push_back(toJson(lane));
  Json staves = Json::array();
  for (const ZoneId zone : s.staves) staves.push_back(idJson(zone));
  Json clips = Json::array();
  for (const auto& clip : s.clips) clips.push_back(toJson(*clip));
  return {{"id", idJson(s.id)},
          {"name", s.name},
          {"audio", s.audio},
          {"length_us", s.length.count()},
          {"lanes", std::move(lanes)},
          {"staves", std::move(staves)},
          {"clips", std::move(clips)}};
}

template <class T>
Json listJson(const Items<T>& items) {
  Json list = Json::array();
  for (const auto& item : items) list.push_back(toJson(*item));
  return list;
}

void putBack(Json& root, const UnreadPart& part) {
  Json value = Json::parse(part.json, nullptr, false);
  if (part.index < 0) {
    root[part.list] = std::move(value);
    return;
  }
  Json& list = root[part.list];
  const auto at = std::min<std::size_t>(static_cast<std::size_t>(part.index), list.size());
  list.insert(list.begin() + static_cast<std::ptrdiff_t>(at), std::move(value));
}

}  // namespace

Json toJson(const Show& show) {
  Json root = {{"format", "chispa-show"},
               {"version", kShowFormat},
               {"name", show.name},
               {"next_id", show.nextId},
               {"strip_types", listJson(show.stripTypes)},
               {"fixtures", listJson(show.fixtures)},
               {"zones", listJson(show.zones)},
               {"controllers", listJson(show.controllers)},
               {"palettes", listJson(show.palettes)},
               {"scores", listJson(show.scores)}};
  for (const UnreadPart& part : show.unread) putBack(root, part);
  return root;
}

std::string showText(const Show& show) { return toJson(show).dump(1, ' ', false, Json::error_handler_t::replace) + "\n"; }

}  // namespace chispa
