// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <algorithm>

#include "core/base/bands.h"
#include "core/show/limits.h"
#include "core/show/shapefields.h"
#include "core/show/show.h"

/// Members of strip types, fixtures, zones and underlays, described as showfields.h says.
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

}  // namespace chispa::fields
