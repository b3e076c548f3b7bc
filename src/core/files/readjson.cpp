// SPDX-License-Identifier: GPL-3.0-or-later
#include <algorithm>
#include <set>

#include "core/files/fieldreader.h"
#include "core/files/shapejson.h"
#include "core/files/showjson.h"
#include "core/music/features.h"
#include "core/show/limits.h"

namespace chispa {
namespace {

using Json = nlohmann::ordered_json;

void read(const Json& json, StripType& s) {
  const FieldReader in(json);
  s.id = in.id<StripTypeId>("id");
  s.name = in.text("name");
  s.order = in.text("order", "GRB");
  if (!isChannelOrder(s.order))
    throw FieldError("order \"" + s.order + "\" is not made of the letters R, G, B and W, each once");
  s.pixelsPerMetre = in.number("pixels_per_metre", 0.01, 10'000, s.pixelsPerMetre);
  s.volts = in.number("volts", 0.1, 400, s.volts);
  s.channel_ma = in.number("channel_ma", 0, 100'000, s.channel_ma);
  s.response = in.number("response", 0.1, 10, s.response);
  s.channelBits = in.whole<int>("channel_bits", 8, 16, 8);
  if (s.channelBits % 8 != 0) throw FieldError("channel_bits is neither 8 nor 16");
  s.ledsPerPixel = in.whole<int>("leds_per_pixel", 1, 1000, 1);
  s.pixelsPerCut = in.whole<int>("pixels_per_cut", 1, 1000, 1);
  s.ohmsPerMetre = in.number("ohms_per_metre", 0, 100, s.ohmsPerMetre);
  if (const Json* white = in.member("white")) {
    const FieldReader share(*white);
    const auto part = [&](const char* key) { return static_cast<float>(share.number(key, 0.02, 1, 1)); };
    s.white = {part("r"), part("g"), part("b")};
  }
  s.fadesBelow_v = in.number("fades_below_v", 0, 400, 0);
}

void read(const Json& json, Fixture& f) {
  const FieldReader in(json);
  f.id = in.id<FixtureId>("id");
  f.name = in.text("name");
  f.stripType = in.id<StripTypeId>("strip_type");
  f.group = in.text("group");
  if (const Json* place = in.member("place")) f.place = readPlacement(*place);
  in.each("segments", [&](const Json& element) {
    const FieldReader segment(element);
    const Json* shape = segment.member("shape");
    if (!shape) throw FieldError("a segment has no shape");
    Segment read{segment.text("name"), readShape(*shape), {}};
    if (const Json* place = segment.member("place")) read.place = readPlacement(*place);
    read.reversed = segment.flag("reversed", false);
    f.segments.push_back(std::move(read));
  });
}

ZonePart readPart(const Json& json) {
  const FieldReader in(json);
  ZonePart part{in.id<FixtureId>("fixture"), std::nullopt, in.flag("reversed", false)};
  if (in.member("segment")) part.segment = in.whole<int>("segment", 0, 100'000, 0);
  constexpr int kMost = limits::kMostPixelsOfSegment * 10;
  int left = kMost;
  in.each("runs", [&](const Json& element) {
    const FieldReader run(element);
    part.runs.push_back({run.whole<int>("first", 0, kMost, 0), run.whole<int>("count", 1, left, 1), run.whole<int>("step", -kMost, kMost, 1)});
    left -= part.runs.back().count;
  });
  return part;
}

void read(const Json& json, Zone& z) {
  const FieldReader in(json);
  z.id = in.id<ZoneId>("id");
  z.name = in.text("name");
  z.layout = in.word("layout", ZoneLayout::Strand);
  z.pixelsPerCell = in.whole<int>("pixels_per_cell", 0, limits::kMostPixelsOfSegment, 1);
  z.playsAsOne = in.flag("plays_as_one", false);
  z.order = in.word("order", ZoneOrder::Listed);
  z.backwards = in.flag("backwards", false);
  if (in.member("centre_m")) z.centre_m = in.vector("centre_m", limits::kLargest_m);
  if (in.member("score")) z.score = in.id<ScoreId>("score");
  in.each("parts", [&](const Json& element) { z.parts.push_back(readPart(element)); });
}

void read(const Json& json, Underlay& u) {
  const FieldReader in(json);
  u.id = in.id<UnderlayId>("id");
  u.name = in.text("name");
  u.file = in.text("file");
  u.face = in.word("face", UnderlayFace::Floor);
  u.position_m = in.vector("position_m", limits::kLargest_m);
  u.scale_m = in.number("scale_m", 1e-6, limits::kLargest_m, u.scale_m);
  u.turn_deg = in.number("turn_deg", -3600, 3600, 0);
  u.opacity = in.number("opacity", 0, 1, u.opacity);
  u.isVisible = in.flag("visible", true);
}

WireSettings readWireSettings(const FieldReader& in) {
  WireSettings settings;
  if (in.member("brightness")) settings.brightness = in.number("brightness", 0, 1, 1);
  if (in.member("response")) settings.response = in.number("response", 0.1, 10, 1);
  if (in.member("grouping")) settings.grouping = in.whole<int>("grouping", 1, limits::kMostGrouped, 1);
  if (in.member("zigzag")) settings.zigzag = in.whole<int>("zigzag", 0, limits::kMostPixelsOfSegment, 0);
  if (in.member("order")) {
    settings.order = in.text("order");
    if (!isChannelOrder(*settings.order)) throw FieldError("order \"" + *settings.order + "\" is not made of the letters R, G, B and W, each once");
  }
  return settings;
}

std::optional<Pin> readPin(const FieldReader& in) {
  const Json* pin = in.member("pin");
  if (!pin) return std::nullopt;
  const FieldReader fields(*pin);
  return Pin{fields.whole<int>("universe", 0, 63'999, 1), fields.whole<int>("channel", 1, 512, 1)};
}

Srgb8 readColour(const std::string& text) {
  const auto colour = parseHex(text);
  if (!colour) throw FieldError("colour \"" + text + "\" is not of the form #rrggbb");
  return *colour;
}

void read(const Json& json, Supply& s) {
  const FieldReader in(json);
  s.id = in.id<SupplyId>("id");
  s.name = in.text("name");
  s.volts = in.number("volts", 0.1, 400, s.volts);
  s.limit_a = in.number("limit_a", 0, 100'000, 0);
}

Injection readInjection(const Json& json) {
  const FieldReader in(json);
  return {in.id<SupplyId>("supply"), in.whole<int>("pixel", 0, limits::kMostPixelsOfSegment * 10, 0), in.number("wire_m", 0, limits::kLargest_m, 1),
          in.number("wire_mm2", 0.01, 1000, 1.5), in.number("fuse_a", 0, 10'000, 0)};
}

ScreenArea readScreenArea(const Json& json) {
  const FieldReader in(json);
  constexpr int kMost = 100'000;
  return {in.whole<int>("columns", 1, 10'000, 16), in.whole<int>("dots", 1, 1000, 16), in.whole<int>("display", 0, 64, 0), in.whole<int>("left", -kMost, kMost, 0),
          in.whole<int>("top", -kMost, kMost, 0),  in.flag("full_screen", false)};
}

Bead readBead(const Json& json) {
  const FieldReader in(json);
  constexpr int kMost = limits::kMostPixelsOfSegment * 10;
  Bead bead{in.id<FixtureId>("fixture"), in.whole<int>("first", 0, kMost, 0), in.whole<int>("count", 0, kMost, 0),
            in.flag("reversed", false), in.whole<int>("skipped_before", 0, limits::kMostSkipped, 0), readWireSettings(in), readPin(in)};
  in.each("injections", [&](const Json& element) { bead.injections.push_back(readInjection(element)); });
  return bead;
}

void read(const Json& json, Controller& c) {
  const FieldReader in(json);
  c.id = in.id<ControllerId>("id");
  c.name = in.text("name");
  c.protocol = in.word("protocol", Protocol::E131);
  c.host = in.text("host");
  c.udpPort = in.whole<int>("udp_port", 0, 65'535, 0);
  c.setupPort = in.whole<int>("setup_port", 0, 65'535, 0);
  c.firstUniverse = in.whole<int>("first_universe", 0, 63'999, 1);
  c.portStart = in.word("port_start", PortStart::NewUniverse);
  c.channelsPerUniverse = in.whole<int>("channels_per_universe", 510, 512, 512);
  c.isPacked = in.flag("packed", false);
  c.insertsSkipped = in.flag("inserts_skipped", false);
  c.mostPixelsOfPort = in.whole<int>("most_pixels_of_port", 0, limits::kMostPixelsOfSegment, 0);
  c.delivery = in.word("delivery", Delivery::Unicast);
  c.localAddress = in.text("local_address");
  c.priority = in.whole<int>("priority", 0, 200, 100);
  c.sendsSync = in.flag("sync", false);
  c.mostFramesPerSecond = in.number("most_frames_per_second", 0, 1000, 0);
  c.delay_ms = in.number("delay_ms", 0, limits::kMostDelay_ms, 0);
  in.each("ports", [&](const Json& element) {
    const FieldReader fields(element);
    Port port{{}, readWireSettings(fields), readPin(fields)};
    if (fields.member("mark")) port.mark = readColour(fields.text("mark"));
    if (const Json* screen = fields.member("screen")) port.screen = readScreenArea(*screen);
    fields.each("run", [&](const Json& bead) { port.run.push_back(readBead(bead)); });
    c.ports.push_back(std::move(port));
  });
  if (c.ports.size() > limits::kMostPorts) throw FieldError("it has more ports than any controller");
}

void read(const Json& json, Palette& p) {
  const FieldReader in(json);
  p.id = in.id<PaletteId>("id");
  p.name = in.text("name");
  in.each("stops", [&](const Json& element) {
    const FieldReader stop(element);
    p.stops.push_back({stop.number("at", 0, 1, 0), readColour(stop.text("colour"))});
  });
  std::stable_sort(p.stops.begin(), p.stops.end(), [](const auto& a, const auto& b) { return a.at < b.at; });
}

ParamValue readParam(const Json& json) {
  if (json.is_number()) return json.get<double>();
  if (json.is_boolean()) return json.get<bool>();
  if (json.is_string()) return json.get<std::string>();
  return readColour(FieldReader(json).text("colour"));
}

ParamValues readParams(const FieldReader& in) {
  ParamValues values;
  const Json* params = in.member("params");
  if (!params) return values;
  if (!params->is_object()) throw FieldError("params is not an object");
  for (const auto& [key, value] : params->items()) values[key] = readParam(value);
  return values;
}

Motion readMotion(const Json& json) {
  const FieldReader in(json);
  constexpr double kMost = 1e9;
  Motion motion{in.word("driver", Driver::Curve), in.number("low", -kMost, kMost, 0), in.number("high", -kMost, kMost, 1), {}, in.whole<int>("band", 0, kBands - 1, 0), in.text("parameter")};
  in.each("points", [&](const Json& element) {
    const FieldReader point(element);
    motion.points.push_back({point.number("at", 0, 1, 0), point.number("value", 0, 1, 0)});
  });
  std::stable_sort(motion.points.begin(), motion.points.end(), [](const CurvePoint& a, const CurvePoint& b) { return a.at < b.at; });
  return motion;
}

void read(const Json& json, Clip& c) {
  const FieldReader in(json);
  c.id = in.id<ClipId>("id");
  c.zone = in.id<ZoneId>("zone");
  c.layer = in.whole<int>("layer", 0, 1000, 0);
  c.start = in.time("start_us");
  c.length = in.time("length_us");
  c.effect = in.text("effect");
  c.palette = in.id<PaletteId>("palette");
  c.params = readParams(in);
  c.blend = in.word("blend", Blend::Normal);
  c.strength = in.number("strength", 0, 1, 1);
  c.fadeIn = in.time("fade_in_us");
  c.fadeOut = in.time("fade_out_us");
  c.fadeShape = in.word("fade_shape", FadeShape::Even);
  c.seed = in.whole<std::uint32_t>("seed", 0, std::numeric_limits<std::uint32_t>::max(), 1);
  c.slip = in.offset("slip_us");
  c.speed = in.number("speed", limits::kSlowest, limits::kFastest, 1);
  c.whole = in.time("whole_us");
  if (const Json* motions = in.member("motions")) {
    if (!motions->is_object()) throw FieldError("motions is not an object");
    for (const auto& [key, value] : motions->items()) c.motions[key] = readMotion(value);
  }
  c.block = in.id<BlockId>("block");
}

std::vector<std::shared_ptr<const Clip>> readClips(const FieldReader& in) {
  std::vector<std::shared_ptr<const Clip>> clips;
  in.each("clips", [&](const Json& element) {
    Clip clip;
    read(element, clip);
    clips.push_back(std::make_shared<const Clip>(std::move(clip)));
  });
  return clips;
}

void read(const Json& json, Block& b) {
  const FieldReader in(json);
  b.id = in.id<BlockId>("id");
  b.name = in.text("name");
  b.length = in.time("length_us");
  b.clips = readClips(in);
}

void read(const Json& json, OwnEffect& e) {
  const FieldReader in(json);
  e.id = in.id<OwnEffectId>("id");
  e.name = in.text("name");
  e.effect = in.text("effect");
  e.params = readParams(in);
}

MarkLane readLane(const Json& json) {
  const FieldReader in(json);
  MarkLane lane{in.id<LaneId>("id"), in.text("name"), in.word("kind", LaneKind::Free), {}};
  in.each("marks", [&](const Json& element) {
    const FieldReader mark(element);
    lane.marks.push_back({mark.id<MarkId>("id"), mark.time("at_us"), mark.text("text"), mark.time("length_us")});
  });
  std::stable_sort(lane.marks.begin(), lane.marks.end(), [](const Mark& a, const Mark& b) { return a.at < b.at; });
  return lane;
}

std::vector<ZoneId> readZones(const FieldReader& in, const char* key) {
  std::vector<ZoneId> zones;
  in.each(key, [&](const Json& zone) {
    if (!zone.is_number_unsigned()) throw FieldError("a stave is not the number of a zone");
    zones.push_back(ZoneId{zone.get<std::uint32_t>()});
  });
  return zones;
}

void read(const Json& json, Score& s) {
  const FieldReader in(json);
  s.id = in.id<ScoreId>("id");
  s.name = in.text("name");
  s.audio = in.text("audio");
  s.audioStart = in.offset("audio_start_us");
  s.length = in.time("length_us");
  s.framesPerSecond = in.number("frames_per_second", 1, 1000, s.framesPerSecond);
  in.each("lanes", [&](const Json& lane) { s.lanes.push_back(readLane(lane)); });
  s.staves = readZones(in, "staves");
  in.each("folders", [&](const Json& element) {
    const FieldReader folder(element);
    s.folders.push_back({folder.text("name"), readZones(folder, "zones"), folder.flag("folded", false)});
  });
  s.clips = readClips(in);
}

/// Reads one list of the file; elements that make no sense go to show.unread.
template <class T>
void readList(const Json& root, const char* key, Items<T>& items, Show& show) {
  const auto list = root.find(key);
  if (list == root.end()) return;
  if (!list->is_array()) {
    show.unread.push_back({key, -1, list->dump(), "is not a list"});
    return;
  }
  int index = 0;
  for (const Json& element : *list) {
    try {
      T item;
      read(element, item);
      items.push_back(std::make_shared<const T>(std::move(item)));
    } catch (const std::exception& error) {
      show.unread.push_back({key, index, element.dump(), error.what()});
    }
    ++index;
  }
}

void keepUnknownMembers(const Json& root, Show& show) {
  static const std::set<std::string> known = {"format",      "version",  "name",   "next_id", "strip_types", "fixtures", "zones",
                                              "underlays",   "supplies", "controllers", "palettes", "scores", "blocks", "own_effects"};
  for (const auto& [key, value] : root.items())
    if (!known.contains(key)) show.unread.push_back({key, -1, value.dump(), "is unknown to this version"});
}

/// The largest number used as an id anywhere in `json`; new ids must lie above it, whatever the file says.
std::uint32_t largestId(const Json& json) {
  std::uint32_t largest = 0;
  if (json.is_object()) {
    const auto id = json.find("id");
    if (id != json.end() && id->is_number_unsigned() && id->get<std::uint64_t>() < 0xffffffffULL)
      largest = id->get<std::uint32_t>();
  }
  if (json.is_structured())
    for (const Json& child : json) largest = std::max(largest, largestId(child));
  return largest;
}

Result<Show> readRoot(const Json& root, const std::string& where) {
  if (!root.is_object() || root.value("format", "") != "chispa-show")
    return Failure{"This is not a Chispa show.", where, "Choose a file whose name ends in .chispa."};
  const FieldReader in(root);
  const int version = in.whole<int>("version", 1, 1'000'000, 1);
  if (version > kShowFormat)
    return Failure{"The show was saved by a newer Chispa (format " + std::to_string(version) + "; this one reads up to " +
                       std::to_string(kShowFormat) + ").",
                   where, "Update Chispa, or open an older copy of the show."};
  Show show;
  show.name = in.text("name");
  readList(root, "strip_types", show.stripTypes, show);
  readList(root, "fixtures", show.fixtures, show);
  readList(root, "zones", show.zones, show);
  readList(root, "underlays", show.underlays, show);
  readList(root, "supplies", show.supplies, show);
  readList(root, "controllers", show.controllers, show);
  readList(root, "palettes", show.palettes, show);
  readList(root, "scores", show.scores, show);
  readList(root, "blocks", show.blocks, show);
  readList(root, "own_effects", show.ownEffects, show);
  keepUnknownMembers(root, show);
  show.nextId = std::max(in.whole<std::uint32_t>("next_id", 1, 0xfffffffe, 1), largestId(root) + 1);
  return show;
}

}  // namespace

Result<Show> parseShow(const std::string& text, const std::string& where) {
  try {
    return readRoot(Json::parse(text), where);
  } catch (const Json::parse_error& error) {
    return Failure{"The show is damaged at byte " + std::to_string(error.byte) + " of " + std::to_string(text.size()) + ".",
                   where, "Open a backup, or the copy that Chispa keeps of unsaved work."};
  } catch (const std::exception& error) {
    return Failure{std::string("The show is damaged: ") + error.what() + ".", where, "Open a backup."};
  }
}

}  // namespace chispa
