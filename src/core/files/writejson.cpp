// SPDX-License-Identifier: GPL-3.0-or-later
#include <cmath>
#include <nlohmann/json.hpp>

#include "core/files/names.h"
#include "core/files/shapejson.h"
#include "core/files/showjson.h"

namespace chispa {
namespace {

using Json = nlohmann::ordered_json;

template <class Tag>
Json idJson(Id<Tag> id) {
  return id.value;
}

/// A share as people write it: to a thousandth.
double shortest(float share) { return std::round(static_cast<double>(share) * 1000) / 1000; }

Json toJson(const StripType& s) {
  Json json = {{"id", idJson(s.id)},
          {"name", s.name},
          {"order", s.order},
          {"pixels_per_metre", s.pixelsPerMetre},
          {"volts", s.volts},
          {"channel_ma", s.channel_ma},
          {"response", s.response}};
  if (s.channelBits != 8) json["channel_bits"] = s.channelBits;
  if (s.ledsPerPixel != 1) json["leds_per_pixel"] = s.ledsPerPixel;
  if (s.pixelsPerCut != 1) json["pixels_per_cut"] = s.pixelsPerCut;
  if (s.ohmsPerMetre != StripType{}.ohmsPerMetre) json["ohms_per_metre"] = s.ohmsPerMetre;
  if (s.white != StripType{}.white) json["white"] = {{"r", shortest(s.white.r)}, {"g", shortest(s.white.g)}, {"b", shortest(s.white.b)}};
  if (s.fadesBelow_v != 0) json["fades_below_v"] = s.fadesBelow_v;
  return json;
}

Json toJson(const Fixture& f) {
  Json segments = Json::array();
  for (const Segment& segment : f.segments) {
    Json one = {{"name", segment.name}, {"shape", toJson(segment.shape)}, {"place", toJson(segment.place)}};
    if (segment.reversed) one["reversed"] = true;
    segments.push_back(std::move(one));
  }
  Json json = {{"id", idJson(f.id)}, {"name", f.name}, {"strip_type", idJson(f.stripType)}, {"place", toJson(f.place)}};
  if (!f.group.empty()) json["group"] = f.group;
  json["segments"] = std::move(segments);
  return json;
}

Json toJson(const Zone& z) {
  Json parts = Json::array();
  for (const ZonePart& part : z.parts) {
    Json one = {{"fixture", idJson(part.fixture)}};
    if (part.segment) one["segment"] = *part.segment;
    if (part.reversed) one["reversed"] = true;
    for (const PixelRun& run : part.runs) one["runs"].push_back({{"first", run.first}, {"count", run.count}, {"step", run.step}});
    parts.push_back(std::move(one));
  }
  Json json = {{"id", idJson(z.id)}, {"name", z.name}, {"layout", nameOf(z.layout)}, {"pixels_per_cell", z.pixelsPerCell}};
  if (z.playsAsOne) json["plays_as_one"] = true;
  if (z.order != ZoneOrder::Listed) json["order"] = nameOf(z.order);
  if (z.backwards) json["backwards"] = true;
  if (z.centre_m) json["centre_m"] = toJson(*z.centre_m);
  if (z.score) json["score"] = idJson(z.score);
  json["parts"] = std::move(parts);
  return json;
}

Json toJson(const Underlay& u) {
  return {{"id", idJson(u.id)},
          {"name", u.name},
          {"file", u.file},
          {"face", nameOf(u.face)},
          {"position_m", toJson(u.position_m)},
          {"scale_m", u.scale_m},
          {"turn_deg", u.turn_deg},
          {"opacity", u.opacity},
          {"visible", u.isVisible}};
}

Json toJson(const Supply& s) { return {{"id", idJson(s.id)}, {"name", s.name}, {"volts", s.volts}, {"limit_a", s.limit_a}}; }

Json toJson(const Injection& i) {
  Json json = {{"supply", idJson(i.supply)}, {"pixel", i.pixel}, {"wire_m", i.wire_m}, {"wire_mm2", i.wire_mm2}};
  if (i.fuse_a > 0) json["fuse_a"] = i.fuse_a;
  return json;
}

Json toJson(const ScreenArea& s) {
  return {{"columns", s.columns}, {"dots", s.dots}, {"display", s.display}, {"left", s.left}, {"top", s.top}, {"full_screen", s.isFullScreen}};
}

void putWireSettings(Json& json, const WireSettings& settings, const std::optional<Pin>& pin) {
  if (settings.brightness) json["brightness"] = *settings.brightness;
  if (settings.order) json["order"] = *settings.order;
  if (settings.response) json["response"] = *settings.response;
  if (settings.grouping) json["grouping"] = *settings.grouping;
  if (settings.zigzag) json["zigzag"] = *settings.zigzag;
  if (pin) json["pin"] = {{"universe", pin->universe}, {"channel", pin->channel}};
}

Json toJson(const Controller& c) {
  Json ports = Json::array();
  for (const Port& port : c.ports) {
    Json run = Json::array();
    for (const Bead& bead : port.run) {
      run.push_back({{"fixture", idJson(bead.fixture)},
                     {"first", bead.first},
                     {"count", bead.count},
                     {"reversed", bead.reversed},
                     {"skipped_before", bead.skippedBefore}});
      putWireSettings(run.back(), bead.settings, bead.pin);
      for (const Injection& injection : bead.injections) run.back()["injections"].push_back(toJson(injection));
    }
    Json one = Json::object();
    putWireSettings(one, port.settings, port.pin);
    if (port.mark) one["mark"] = hexText(*port.mark);
    if (port.screen != ScreenArea{}) one["screen"] = toJson(port.screen);
    one["run"] = std::move(run);
    ports.push_back(std::move(one));
  }
  Json json = {{"id", idJson(c.id)},
          {"name", c.name},
          {"protocol", nameOf(c.protocol)},
          {"host", c.host},
          {"udp_port", c.udpPort},
          {"setup_port", c.setupPort},
          {"first_universe", c.firstUniverse},
          {"port_start", nameOf(c.portStart)}};
  if (c.channelsPerUniverse != 512) json["channels_per_universe"] = c.channelsPerUniverse;
  if (c.isPacked) json["packed"] = true;
  if (c.insertsSkipped) json["inserts_skipped"] = true;
  if (c.mostPixelsOfPort > 0) json["most_pixels_of_port"] = c.mostPixelsOfPort;
  if (c.delivery != Delivery::Unicast) json["delivery"] = nameOf(c.delivery);
  if (!c.localAddress.empty()) json["local_address"] = c.localAddress;
  if (c.priority != 100) json["priority"] = c.priority;
  if (c.sendsSync) json["sync"] = true;
  if (c.mostFramesPerSecond > 0) json["most_frames_per_second"] = c.mostFramesPerSecond;
  if (c.delay_ms > 0) json["delay_ms"] = c.delay_ms;
  json["ports"] = std::move(ports);
  return json;
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

Json paramsJson(const ParamValues& values) {
  Json params = Json::object();
  for (const auto& [key, value] : values) params[key] = paramJson(value);
  return params;
}

Json toJson(const Motion& m) {
  Json json = {{"driver", nameOf(m.driver)}, {"low", m.low}, {"high", m.high}};
  for (const CurvePoint& point : m.points) json["points"].push_back({{"at", point.at}, {"value", point.value}});
  if (m.band != 0) json["band"] = m.band;
  if (!m.parameter.empty()) json["parameter"] = m.parameter;
  return json;
}

Json toJson(const Clip& c) {
  Json json = {{"id", idJson(c.id)},
          {"zone", idJson(c.zone)},
          {"layer", c.layer},
          {"start_us", c.start.count()},
          {"length_us", c.length.count()},
          {"effect", c.effect},
          {"palette", idJson(c.palette)},
          {"params", paramsJson(c.params)},
          {"blend", nameOf(c.blend)},
          {"strength", c.strength},
          {"fade_in_us", c.fadeIn.count()},
          {"fade_out_us", c.fadeOut.count()},
          {"seed", c.seed}};
  if (c.fadeShape != FadeShape::Even) json["fade_shape"] = nameOf(c.fadeShape);
  if (c.slip.count() != 0) json["slip_us"] = c.slip.count();
  if (c.speed != 1) json["speed"] = c.speed;
  if (c.whole.count() != 0) json["whole_us"] = c.whole.count();
  for (const auto& [key, motion] : c.motions) json["motions"][key] = toJson(motion);
  if (c.block) json["block"] = idJson(c.block);
  return json;
}

Json toJson(const Block& b) {
  Json clips = Json::array();
  for (const auto& clip : b.clips) clips.push_back(toJson(*clip));
  return {{"id", idJson(b.id)}, {"name", b.name}, {"length_us", b.length.count()}, {"clips", std::move(clips)}};
}

Json toJson(const OwnEffect& e) { return {{"id", idJson(e.id)}, {"name", e.name}, {"effect", e.effect}, {"params", paramsJson(e.params)}}; }

Json toJson(const MarkLane& lane) {
  Json marks = Json::array();
  for (const Mark& mark : lane.marks) {
    Json one = {{"id", idJson(mark.id)}, {"at_us", mark.at.count()}};
    if (!mark.text.empty()) one["text"] = mark.text;
    if (mark.length.count() > 0) one["length_us"] = mark.length.count();
    marks.push_back(std::move(one));
  }
  return {{"id", idJson(lane.id)}, {"name", lane.name}, {"kind", nameOf(lane.kind)}, {"marks", std::move(marks)}};
}

Json zonesJson(const std::vector<ZoneId>& zones) {
  Json json = Json::array();
  for (const ZoneId zone : zones) json.push_back(idJson(zone));
  return json;
}

Json toJson(const Score& s) {
  Json lanes = Json::array();
  for (const MarkLane& lane : s.lanes) lanes.push_back(toJson(lane));
  Json clips = Json::array();
  for (const auto& clip : s.clips) clips.push_back(toJson(*clip));
  Json json = {{"id", idJson(s.id)}, {"name", s.name}, {"audio", s.audio}};
  if (s.audioStart.count() != 0) json["audio_start_us"] = s.audioStart.count();
  json["length_us"] = s.length.count();
  if (s.framesPerSecond != Score{}.framesPerSecond) json["frames_per_second"] = s.framesPerSecond;
  json["lanes"] = std::move(lanes);
  json["staves"] = zonesJson(s.staves);
  for (const StaveFolder& folder : s.folders) json["folders"].push_back({{"name", folder.name}, {"zones", zonesJson(folder.zones)}, {"folded", folder.isFolded}});
  json["clips"] = std::move(clips);
  return json;
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
               {"underlays", listJson(show.underlays)},
               {"supplies", listJson(show.supplies)},
               {"controllers", listJson(show.controllers)},
               {"palettes", listJson(show.palettes)},
               {"scores", listJson(show.scores)}};
  if (!show.blocks.empty()) root["blocks"] = listJson(show.blocks);
  if (!show.ownEffects.empty()) root["own_effects"] = listJson(show.ownEffects);
  for (const UnreadPart& part : show.unread) putBack(root, part);
  return root;
}

std::string showText(const Show& show) { return toJson(show).dump(1, ' ', false, Json::error_handler_t::replace) + "\n"; }

}  // namespace chispa
