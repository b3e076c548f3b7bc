// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <algorithm>

#include "core/show/planfields.h"
#include "core/show/show.h"

/// Members of supplies, injection points, beads, ports and controllers, described as showfields.h says.
namespace chispa::fields {

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
  v.whole("most_packets_in_a_row", c.maxPacketsInRow, 0, 1000, &plain.maxPacketsInRow);
  v.flag("dithers", c.dithers, &plain.dithers);
  v.number("delay_ms", c.delay_ms, -limits::kMaxDelay_ms, limits::kMaxDelay_ms, &plain.delay_ms);
  v.list("ports", c.ports);
  v.object("memory", c.memory, &plain.memory);
  v.require(c.ports.size() <= limits::kMaxPorts, "it has more ports than any controller");
}

}  // namespace chispa::fields
