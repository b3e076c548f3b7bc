// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <algorithm>

#include "core/base/bands.h"
#include "core/show/limits.h"
#include "core/show/shapefields.h"
#include "core/show/show.h"

/// Members of palettes, clips, blocks, marks and scores, described as showfields.h says.
namespace chispa::fields {

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
