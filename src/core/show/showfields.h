// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <algorithm>

#include "core/base/bands.h"
#include "core/show/limits.h"
#include "core/show/shapefields.h"
#include "core/show/show.h"

/// What the parts of a show are called in files and what they may hold, member by member. The reader and the
/// writer of files and the check of every edit go through the same descriptions, so that none of them can
/// disagree with another.
///
/// A visitor has a method for each kind of member: `v.number(key, member, low, high)` and the like. A last
/// argument `&plain.member` says that the member is left out of files while it equals its default. `require`
/// and `inOrder` say what members must be together.
namespace chispa::fields {

inline constexpr int kMaxOfFixture = static_cast<int>(limits::kMaxPixels);

template <class V>
void describe(V& v, Is<Rgb> auto& white) {
  v.number("r", white.r, 0.02f, 1.f);
  v.number("g", white.g, 0.02f, 1.f);
  v.number("b", white.b, 0.02f, 1.f);
}

template <class V>
void describe(V& v, Is<Chromaticity> auto& c) {
  v.number("x", c.x, 0.0, 1.0);
  v.number("y", c.y, 0.001, 1.0);
}

template <class V>
void describe(V& v, Is<ChipColours> auto& c) {
  static const ChipColours plain;
  v.object("red", c.red);
  v.object("green", c.green);
  v.object("blue", c.blue);
  v.object("white", c.white, &plain.white);
  v.number("white_light", c.whiteLight, 0.01, 10.0, &plain.whiteLight);
  v.object("amber", c.amber, &plain.amber);
  v.number("amber_light", c.amberLight, 0.01, 10.0, &plain.amberLight);
  v.number("red_light", c.light[0], 0.0, 1e6, &plain.light[0]);
  v.number("green_light", c.light[1], 0.0, 1e6, &plain.light[1]);
  v.number("blue_light", c.light[2], 0.0, 1e6, &plain.light[2]);
  v.require(spanWhite(c), "the chips' colours have no white between them");
}

template <class V>
void describe(V& v, Is<CurvePoint> auto& p) {
  v.number("at", p.at, 0.0, 1.0);
  v.number("value", p.value, 0.0, 1.0);
}

/// A response that is no mere power: that is one number.
template <class V>
void describe(V& v, Is<Response> auto& r) {
  static const Response plain;
  v.number("exponent", r.exponent, 0.1, 10.0, &plain.exponent);
  v.number("least", r.least, 0.0, 0.5, &plain.least);
  v.list("points", r.points, &plain.points);
  v.inOrder("points", r.points, &CurvePoint::at);
  v.require(std::is_sorted(r.points.begin(), r.points.end(),
                           [](const CurvePoint& a, const CurvePoint& b) { return a.value < b.value; }),
            "the response falls somewhere");
}

template <class V>
void describe(V& v, Is<LightSettings> auto& l) {
  static const LightSettings plain;
  v.word("fades_even", l.fades, &plain.fades);
}

template <class V>
void describe(V& v, Is<StripType> auto& s) {
  static const StripType plain;
  v.id("id", s.id);
  v.text("name", s.name);
  v.text("order", s.order);
  v.require(isChannelOrder(s.order),
            "order \"" + s.order + "\" is not made of the letters R, G, B and W, each once");
  v.number("pixels_per_metre", s.pixelsPerMetre, 0.01, 10'000.0);
  v.number("volts", s.volts, 0.1, 400.0);
  v.number("channel_ma", s.channel_ma, 0.0, 100'000.0);
  v.response("response", s.response);
  v.whole("channel_bits", s.channelBits, 8, 16, &plain.channelBits);
  v.require(s.channelBits % 8 == 0, "channel_bits is neither 8 nor 16");
  v.whole("leds_per_pixel", s.ledsPerPixel, 1, 1000, &plain.ledsPerPixel);
  v.whole("pixels_per_cut", s.pixelsPerCut, 1, 1000, &plain.pixelsPerCut);
  v.number("ohms_per_metre", s.ohmsPerMetre, 0.0, 100.0, &plain.ohmsPerMetre);
  v.object("white", s.white, &plain.white);
  v.number("fades_below_v", s.fadesBelow_v, 0.0, 400.0, &plain.fadesBelow_v);
  v.word("build", s.build, &plain.build);
  v.flag("brightest", s.isBrightest, &plain.isBrightest);
  v.maybe("chips", s.chips, [](auto& w, const char* key, auto& value) { w.object(key, value); });
}

template <class V>
void describe(V& v, Is<Segment> auto& s) {
  static const Segment plain;
  v.text("name", s.name);
  v.shape("shape", s.shape);
  v.object("place", s.place);
  v.flag("reversed", s.reversed, &plain.reversed);
}

template <class V>
void describe(V& v, Is<Fixture> auto& f) {
  static const Fixture plain;
  v.id("id", f.id);
  v.text("name", f.name);
  v.id("strip_type", f.stripType);
  v.object("place", f.place);
  v.text("group", f.group, &plain.group);
  v.maybe("response", f.response, [](auto& w, const char* key, auto& value) { w.response(key, value); });
  v.list("segments", f.segments);
}

template <class V>
void describe(V& v, Is<PixelRun> auto& r) {
  v.whole("first", r.first, 0, kMaxOfFixture);
  v.whole("count", r.count, 1, kMaxOfFixture);
  v.whole("step", r.step, -kMaxOfFixture, kMaxOfFixture);
}

template <class V>
void describe(V& v, Is<ZonePart> auto& p) {
  static const ZonePart plain;
  v.id("fixture", p.fixture);
  v.maybe("segment", p.segment, [](auto& w, const char* key, auto& value) {
    w.whole(key, value, 0, static_cast<int>(limits::kMaxOfList));
  });
  v.flag("reversed", p.reversed, &plain.reversed);
  v.list("runs", p.runs, &plain.runs);
}

template <class V>
void describe(V& v, Is<Zone> auto& z) {
  static const Zone plain;
  v.id("id", z.id);
  v.text("name", z.name);
  v.word("layout", z.layout);
  v.whole("pixels_per_cell", z.pixelsPerCell, 0, limits::kMaxPixelsOfSegment);
  v.flag("plays_as_one", z.playsAsOne, &plain.playsAsOne);
  v.word("order", z.order, &plain.order);
  v.whole("panels_across", z.panelsAcross, 0, 10'000, &plain.panelsAcross);
  v.flag("counts_gaps", z.countsGaps, &plain.countsGaps);
  v.flag("backwards", z.backwards, &plain.backwards);
  v.maybe("centre_m", z.centre_m,
          [](auto& w, const char* key, auto& value) { w.vector(key, value, limits::kLargest_m); });
  v.id("score", z.score, &plain.score);
  v.list("parts", z.parts);
}

template <class V>
void describe(V& v, Is<Underlay> auto& u) {
  v.id("id", u.id);
  v.text("name", u.name);
  v.text("file", u.file);
  v.word("face", u.face);
  v.vector("position_m", u.position_m, limits::kLargest_m);
  v.number("scale_m", u.scale_m, 1e-6, limits::kLargest_m);
  angle(v, "turn_deg", u.turn_deg);
  v.number("opacity", u.opacity, 0.0, 1.0);
  v.flag("visible", u.isVisible);
}

template <class V>
void describe(V& v, Is<Supply> auto& s) {
  v.id("id", s.id);
  v.text("name", s.name);
  v.number("volts", s.volts, 0.1, 400.0);
  v.number("limit_a", s.limit_a, 0.0, 100'000.0);
}

template <class V>
void describe(V& v, Is<Injection> auto& i) {
  static const Injection plain;
  v.id("supply", i.supply);
  v.whole("pixel", i.pixel, 0, kMaxOfFixture);
  v.number("wire_m", i.wire_m, 0.0, limits::kLargest_m);
  v.number("wire_mm2", i.wire_mm2, 0.01, 1000.0);
  v.number("fuse_a", i.fuse_a, 0.0, 10'000.0, &plain.fuse_a);
}

template <class V>
void describe(V& v, Is<ScreenArea> auto& s) {
  constexpr int kFarthest = 100'000;
  v.whole("columns", s.columns, 1, 10'000);
  v.whole("dots", s.dots, 1, 1000);
  v.whole("display", s.display, 0, 64);
  v.whole("left", s.left, -kFarthest, kFarthest);
  v.whole("top", s.top, -kFarthest, kFarthest);
  v.flag("full_screen", s.isFullScreen);
}

template <class V>
void describe(V& v, Is<FixedStart> auto& p) {
  v.whole("universe", p.universe, 0, limits::kMaxUniverse);
  v.whole("channel", p.channel, 1, 512);
}

/// Settings and pin stand among the members of their port or bead.
template <class V>
void wire(V& v, Is<WireSettings> auto& s, Is<std::optional<FixedStart>> auto& fixedStart) {
  v.maybe("brightness", s.brightness,
          [](auto& w, const char* key, auto& value) { w.number(key, value, 0.0, 1.0); });
  v.maybe("order", s.order, [](auto& w, const char* key, auto& value) {
    w.text(key, value);
    w.require(isChannelOrder(value),
              "order \"" + value + "\" is not made of the letters R, G, B and W, each once");
  });
  v.maybe("response", s.response, [](auto& w, const char* key, auto& value) { w.response(key, value); });
  v.maybe("grouping", s.grouping,
          [](auto& w, const char* key, auto& value) { w.whole(key, value, 1, limits::kMaxGrouped); });
  v.maybe("zigzag", s.zigzag,
          [](auto& w, const char* key, auto& value) { w.whole(key, value, 0, limits::kMaxPixelsOfSegment); });
  v.maybe("pin", fixedStart, [](auto& w, const char* key, auto& value) { w.object(key, value); });
}

template <class V>
void describe(V& v, Is<Bead> auto& b) {
  static const Bead plain;
  v.id("fixture", b.fixture);
  v.whole("first", b.first, 0, kMaxOfFixture);
  v.whole("count", b.count, 0, kMaxOfFixture);
  v.flag("reversed", b.reversed);
  v.whole("skipped_before", b.skippedBefore, 0, limits::kMaxSkipped);
  wire(v, b.settings, b.fixedStart);
  v.list("injections", b.injections, &plain.injections);
}

template <class V>
void describe(V& v, Is<Port> auto& p) {
  static const Port plain;
  wire(v, p.settings, p.fixedStart);
  v.maybe("mark", p.mark, [](auto& w, const char* key, auto& value) { w.colour(key, value); });
  v.object("screen", p.screen, &plain.screen);
  v.list("run", p.run);
}

template <class V>
void describe(V& v, Is<Controller> auto& c) {
  static const Controller plain;
  v.id("id", c.id);
  v.text("name", c.name);
  v.word("protocol", c.protocol);
  v.text("host", c.host);
  v.whole("udp_port", c.udpPort, 0, 65'535);
  v.whole("setup_port", c.setupPort, 0, 65'535);
  v.whole("first_universe", c.firstUniverse, 0, limits::kMaxUniverse);
  v.word("port_start", c.portStart);
  v.whole("channels_per_universe", c.channelsPerUniverse, 510, 512, &plain.channelsPerUniverse);
  v.flag("packed", c.isPacked, &plain.isPacked);
  v.flag("inserts_skipped", c.insertsSkipped, &plain.insertsSkipped);
  v.whole("most_pixels_of_port", c.maxPixelsOfPort, 0, kMaxOfFixture, &plain.maxPixelsOfPort);
  v.word("delivery", c.delivery, &plain.delivery);
  v.text("local_address", c.localAddress, &plain.localAddress);
  v.whole("priority", c.priority, 0, 200, &plain.priority);
  v.flag("sync", c.sendsSync, &plain.sendsSync);
  v.number("most_frames_per_second", c.maxFramesPerSecond, 0.0, 1000.0, &plain.maxFramesPerSecond);
  v.flag("dithers", c.dithers, &plain.dithers);
  v.number("delay_ms", c.delay_ms, -limits::kMaxDelay_ms, limits::kMaxDelay_ms, &plain.delay_ms);
  v.list("ports", c.ports);
  v.object("memory", c.memory, &plain.memory);
  v.require(c.ports.size() <= limits::kMaxPorts, "it has more ports than any controller");
}

template <class V>
void describe(V& v, Is<ColourStop> auto& s) {
  v.number("at", s.at, 0.0, 1.0);
  v.colour("colour", s.colour);
}

template <class V>
void describe(V& v, Is<Palette> auto& p) {
  static const Palette plain;
  v.id("id", p.id);
  v.text("name", p.name);
  v.list("stops", p.stops);
  v.inOrder("stops", p.stops, &ColourStop::at);
  v.word("path", p.path, &plain.path);
}

template <class V>
void describe(V& v, Is<Motion> auto& m) {
  static const Motion plain;
  constexpr double kMax = 1e9;
  v.word("driver", m.driver);
  v.number("low", m.low, -kMax, kMax);
  v.number("high", m.high, -kMax, kMax);
  v.list("points", m.points, &plain.points);
  v.inOrder("points", m.points, &CurvePoint::at);
  v.whole("band", m.band, 0, kBands - 1, &plain.band);
  v.text("parameter", m.parameter, &plain.parameter);
}

template <class V>
void describe(V& v, Is<Clip> auto& c) {
  static const Clip plain;
  v.id("id", c.id);
  v.id("zone", c.zone);
  v.whole("layer", c.layer, 0, 1000);
  v.time("start_us", c.start);
  v.time("length_us", c.length);
  v.effect("effect", c.effect);
  v.id("palette", c.palette);
  v.number("palette_shift", c.paletteShift, -1000.0, 1000.0, &plain.paletteShift);
  v.number("palette_turns", c.paletteTurns, -64.0, 64.0, &plain.paletteTurns);
  v.params("params", c.params);
  v.word("blend", c.blend);
  v.number("strength", c.strength, 0.0, 1.0);
  v.time("fade_in_us", c.fadeIn);
  v.time("fade_out_us", c.fadeOut);
  v.whole("seed", c.seed, 0u, 0xffffffffu);
  v.word("fade_shape", c.fadeShape, &plain.fadeShape);
  v.flag("gives_way", c.givesWay, &plain.givesWay);
  v.offset("slip_us", c.contentOffset, &plain.contentOffset);
  v.number("speed", c.speed, limits::kSlowest, limits::kFastest, &plain.speed);
  v.time("whole_us", c.whole, &plain.whole);
  v.named("motions", c.motions);
  v.id("block", c.block, &plain.block);
  v.whole("over", c.over, 0, 10'000, &plain.over);
}

template <class V>
void describe(V& v, Is<Block> auto& b) {
  v.id("id", b.id);
  v.text("name", b.name);
  v.time("length_us", b.length);
  v.unwiredList("clips", b.clips);
}

template <class V>
void describe(V& v, Is<OwnEffect> auto& e) {
  v.id("id", e.id);
  v.text("name", e.name);
  v.effect("effect", e.effect);
  v.params("params", e.params);
}

template <class V>
void describe(V& v, Is<LookStep> auto& s) {
  v.time("hold_us", s.hold);
  v.time("fade_us", s.fade);
  v.unwiredList("layers", s.layers);
}

template <class V>
void describe(V& v, Is<Look> auto& l) {
  static const Look plain;
  v.id("id", l.id);
  v.text("name", l.name);
  v.number("level", l.level, 0.0, 1.0, &plain.level);
  v.time("fade_in_us", l.fadeIn);
  v.time("fade_out_us", l.fadeOut);
  v.word("fade_shape", l.fadeShape, &plain.fadeShape);
  v.word("pad", l.mode);
  v.text("key", l.key, &plain.key);
  v.placedList("steps", l.steps);
  v.require(!l.steps.empty(), "it has no step");
  v.flag("first_fades", l.firstFades, &plain.firstFades);
  v.whole("rounds", l.rounds, 0, 1'000'000, &plain.rounds);
  v.word("then", l.end, &plain.end);
  v.id("next", l.next, &plain.next);
}

template <class V>
void describe(V& v, Is<BindingSource> auto& s) {
  static const BindingSource plain;
  v.word("kind", s.kind);
  v.text("device", s.device, &plain.device);
  v.whole("channel", s.channel, 0, 16, &plain.channel);
  v.whole("number", s.number, 0, 512, &plain.number);
  v.word("protocol", s.protocol, &plain.protocol);
  v.whole("universe", s.universe, 0, limits::kMaxUniverse, &plain.universe);
  v.text("address", s.address, &plain.address);
  v.number("value", s.value, 0.0, 1.0, &plain.value);
}

template <class V>
void describe(V& v, Is<BindingTarget> auto& t) {
  static const BindingTarget plain;
  v.word("kind", t.kind);
  v.id("look", t.look, &plain.look);
  v.flag("has_pad", t.hasMode, &plain.hasMode);
  v.word("pad", t.mode, &plain.mode);
  v.id("zone", t.zone, &plain.zone);
  v.text("parameter", t.parameter, &plain.parameter);
  v.id("controller", t.controller, &plain.controller);
  v.whole("universe", t.universe, 0, limits::kMaxUniverse, &plain.universe);
  v.whole("channel", t.channel, 1, 512, &plain.channel);
  v.whole("count", t.count, 1, 512, &plain.count);
  v.whole("every", t.every, 1, 512, &plain.every);
  v.time("at_us", t.at, &plain.at);
}

template <class V>
void describe(V& v, Is<BindingLamp> auto& l) {
  v.flag("sent", l.isSent);
  v.whole("off", l.off, 0, 127);
  v.whole("on", l.on, 0, 127);
  v.whole("playing", l.playing, 0, 127);
}

template <class V>
void describe(V& v, Is<Binding> auto& b) {
  static const Binding plain;
  v.id("id", b.id);
  v.text("name", b.name);
  v.object("source", b.source);
  v.object("target", b.target);
  v.number("low", b.low, 0.0, 1.0, &plain.low);
  v.number("high", b.high, 0.0, 1.0, &plain.high);
  v.word("response", b.response, &plain.response);
  v.whole("steps", b.steps, 2, 128, &plain.steps);
  v.list("points", b.points, &plain.points);
  v.inOrder("points", b.points, &CurvePoint::at);
  v.flag("takes_over", b.takesOver, &plain.takesOver);
  v.time("ease_in_us", b.easeIn, &plain.easeIn);
  v.time("ease_out_us", b.easeOut, &plain.easeOut);
  v.word("ease_shape", b.easeShape, &plain.easeShape);
  v.object("lamp", b.lamp, &plain.lamp);
}

template <class V>
void describe(V& v, Is<DeskInput> auto& d) {
  static const DeskInput plain;
  v.id("id", d.id);
  v.text("name", d.name);
  v.id("zone", d.zone);
  v.word("protocol", d.protocol);
  v.require(d.protocol == Protocol::E131 || d.protocol == Protocol::ArtNet, "a desk speaks E1.31 or Art-Net");
  v.whole("universe", d.universe, 0, limits::kMaxUniverse);
  v.whole("channel", d.channel, 1, 512);
  v.text("format", d.format);
  v.require(isDeskFormat(d.format), "format \"" + d.format + "\" is neither I nor made of R, G, B and W");
  v.whole("bits", d.bits, 8, 16, &plain.bits);
  v.require(d.bits == 8 || d.bits == 16, "bits is neither 8 nor 16");
  v.whole("cells", d.cells, 0, limits::kMaxPixelsOfSegment);
  v.word("use", d.use);
  v.word("on_loss", d.loss, &plain.loss);
  v.time("loss_fade_us", d.lossFade, &plain.lossFade);
}

template <class V>
void describe(V& v, Is<SetListItem> auto& i) {
  static const SetListItem plain;
  v.word("kind", i.kind);
  v.id("score", i.score, &plain.score);
  v.id("look", i.look, &plain.look);
  v.id("set_list", i.list, &plain.list);
  v.time("length_us", i.length, &plain.length);
  v.whole("repeats", i.repeats, 1, 1'000'000, &plain.repeats);
  v.time("fade_us", i.fade, &plain.fade);
  v.word("then", i.then, &plain.then);
}

template <class V>
void describe(V& v, Is<SetList> auto& l) {
  static const SetList plain;
  v.id("id", l.id);
  v.text("name", l.name);
  v.placedList("items", l.items);
  v.whole("rounds", l.rounds, 0, 1'000'000, &plain.rounds);
  v.flag("shuffled", l.isShuffled, &plain.isShuffled);
}

template <class V>
void describe(V& v, Is<NightTime> auto& t) {
  constexpr int kDay_min = 24 * 60;
  v.word("kind", t.kind);
  v.whole("minutes", t.minutes, t.kind == NightTimeKind::Clock ? 0 : 1 - kDay_min, kDay_min - 1);
}

/// A member that is a day, or empty.
template <class V>
void day(V& v, const char* key, auto& text) {
  static const std::string none;
  v.text(key, text, &none);
  v.require(text.empty() || parseDay(text), std::string(key) + " \"" + text + "\" is no day of the calendar");
}
template <class V>
void days(V& v, const char* key, auto& texts) {
  static const std::vector<std::string> none;
  v.texts(key, texts, &none);
  for (const std::string& one : texts)
    v.require(parseDay(one).has_value(), std::string(key) + " \"" + one + "\" is no day of the calendar");
}

template <class V>
void describe(V& v, Is<RuleDays> auto& d) {
  static const RuleDays plain;
  v.whole("weekdays", d.weekdays, 1, 127, &plain.weekdays);
  day(v, "first", d.first);
  day(v, "last", d.last);
  v.require(d.first.empty() || d.last.empty() || d.first.size() == d.last.size(),
            "first and last are not both of one year, or both of every year");
  days(v, "only", d.only);
  days(v, "except", d.except);
}

template <class V>
void describe(V& v, Is<Rule> auto& r) {
  static const Rule plain;
  v.id("id", r.id);
  v.text("name", r.name);
  v.word("kind", r.kind);
  v.id("set_list", r.list, &plain.list);
  v.id("look", r.look, &plain.look);
  v.id("score", r.score, &plain.score);
  v.object("days", r.days, &plain.days);
  v.object("from", r.from);
  v.object("until", r.until);
  v.whole("priority", r.priority, -1000, 1000, &plain.priority);
  v.flag("off", r.isOff, &plain.isOff);
}

template <class V>
void describe(V& v, Is<Almanac> auto& a) {
  static const Almanac plain;
  v.text("place", a.place, &plain.place);
  v.number("latitude_deg", a.latitude_deg, -90.0, 90.0);
  v.number("longitude_deg", a.longitude_deg, -180.0, 180.0);
  v.text("zone", a.zone);
  v.id("between", a.between, &plain.between);
}

template <class V>
void describe(V& v, Is<MemoryStart> auto& s) {
  static const MemoryStart plain;
  v.whole("contact", s.contact, 0, 64, &plain.contact);
  v.object("at", s.at, &plain.at);
  v.object("days", s.days, &plain.days);
}

template <class V>
void describe(V& v, Is<MemoryScene> auto& s) {
  static const MemoryScene plain;
  v.word("kind", s.kind);
  v.require(s.kind == PieceKind::Score || s.kind == PieceKind::Look, "a scene is a score or a look");
  v.id("score", s.score, &plain.score);
  v.id("look", s.look, &plain.look);
  v.time("length_us", s.length, &plain.length);
  v.whole("rounds", s.rounds, 0, 1'000'000, &plain.rounds);
  v.word("then", s.then, &plain.then);
  v.whole("next", s.next, 0, static_cast<int>(limits::kMaxMemoryScenes), &plain.next);
  v.list("starts", s.starts, &plain.starts);
}

template <class V>
void describe(V& v, Is<ControllerMemory> auto& m) {
  static const ControllerMemory plain;
  v.list("scenes", m.scenes, &plain.scenes);
  v.require(m.scenes.size() <= limits::kMaxMemoryScenes, "it has more scenes than any controller");
  v.list("darkens", m.darkens, &plain.darkens);
  v.whole("at_power_on", m.atPowerOn, 0, static_cast<int>(limits::kMaxMemoryScenes), &plain.atPowerOn);
  v.number("frames_per_second", m.framesPerSecond, 1.0, 100.0, &plain.framesPerSecond);
  v.number("tolerance", m.tolerance, 0.0, 100.0, &plain.tolerance);
  v.text("written", m.written, &plain.written);
}

template <class V>
void describe(V& v, Is<Mark> auto& m) {
  static const Mark plain;
  v.id("id", m.id);
  v.time("at_us", m.at);
  v.text("text", m.text, &plain.text);
  v.time("length_us", m.length, &plain.length);
}

template <class V>
void describe(V& v, Is<MarkLane> auto& lane) {
  v.id("id", lane.id);
  v.text("name", lane.name);
  v.word("kind", lane.kind);
  v.unwiredList("marks", lane.marks);
  v.inOrder("marks", lane.marks, &Mark::at);
}

template <class V>
void describe(V& v, Is<StaveFolder> auto& f) {
  v.text("name", f.name);
  v.ids("zones", f.zones);
  v.flag("folded", f.isFolded);
}

template <class V>
void describe(V& v, Is<Score> auto& s) {
  static const Score plain;
  v.id("id", s.id);
  v.text("name", s.name);
  v.text("audio", s.audio);
  v.offset("audio_start_us", s.audioStart, &plain.audioStart);
  v.time("length_us", s.length);
  v.number("frames_per_second", s.framesPerSecond, 1.0, 1000.0, &plain.framesPerSecond);
  v.unwiredList("lanes", s.lanes);
  v.ids("staves", s.staves);
  v.placedList("folders", s.folders, &plain.folders);
  v.unwiredList("clips", s.clips);
}

}  // namespace chispa::fields
