// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <algorithm>

#include "core/show/limits.h"
#include "core/show/shapefields.h"
#include "core/show/show.h"

/// Members of looks, bindings, desks, set lists, the almanac and memories, described as showfields.h says.
namespace chispa::fields {

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

}  // namespace chispa::fields
