// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/edit/adoptsetup.h"

#include <algorithm>

#include "core/edit/planedits.h"
#include "core/edit/wireedits.h"
#include "core/wire/patch.h"

namespace chispa {
namespace {

StripTypeId stripOf(Show& show, const PortSection& section) {
  const auto known = std::find_if(show.stripTypes.begin(), show.stripTypes.end(), [&](const auto& s) {
    return s->order == section.order && s->channelBits == section.bits;
  });
  if (known != show.stripTypes.end()) return (*known)->id;
  StripType strip;
  strip.id = show.newId<StripTypeId>();
  strip.order = section.order;
  strip.channelBits = section.bits;
  strip.name = freeName(show.stripTypes, section.order + " strip");
  put(show.stripTypes, strip);
  return strip.id;
}

/// Where the skipped pixels in front of a section begin: a pin stands before them. Nothing if that would be
/// before the first universe that there is: then what the controller says cannot be.
std::optional<FixedStart> startBefore(const PortSection& section, int channelsPerUniverse) {
  const int width = static_cast<int>(section.order.size()) * section.bits / 8;
  FixedStart fixedStart{section.universe, section.channel};
  for (int i = 0; i < section.skippedBefore; i += section.grouping) {
    fixedStart.channel -= width;
    if (fixedStart.channel >= 1) continue;
    if (--fixedStart.universe < 0) return std::nullopt;
    fixedStart.channel = (channelsPerUniverse / width - 1) * width + 1;
  }
  return fixedStart;
}

/// Pins what begins elsewhere than it would by itself.
void keepStarts(Show& show, ControllerId id, const std::vector<PortSettings>& ports) {
  for (const PortSettings& port : ports)
    for (std::size_t b = 0; b < port.sections.size(); ++b) {
      const PortSection& section = port.sections[b];
      const Patch patch = derivePatch(show);
      const auto span = std::find_if(patch.spans.begin(), patch.spans.end(), [&](const PatchSpan& s) {
        return show.controllers[static_cast<std::size_t>(s.controller)]->id == id &&
               s.port == port.port - 1 && s.bead == static_cast<int>(b);
      });
      if (span == patch.spans.end() ||
          (span->universe == section.universe && span->channel == section.channel))
        continue;
      if (const auto fixedStart = startBefore(section, port.channelsPerUniverse))
        fixBeadStart(show, {id, port.port - 1, static_cast<int>(b)}, *fixedStart);
    }
}

}  // namespace

int adoptSetup(Show& show, ControllerId id, const std::vector<PortSettings>& ports) {
  const Controller* controller = find(show.controllers, id);
  if (!controller || ports.empty()) return 0;
  const std::string name = controller->name;
  constexpr double kApart_m = 0.2;
  int highest = static_cast<int>(controller->ports.size());
  for (const PortSettings& port : ports) highest = std::max(highest, port.port);
  changeItem(show.controllers, id, [&](Controller& c) {
    c.ports.assign(static_cast<std::size_t>(highest), Port{});
    for (const PortSettings& port : ports) {
      if (port.sections.empty()) continue;
      c.protocol = port.protocol;
      c.channelsPerUniverse = port.channelsPerUniverse;
      c.isPacked = port.isPacked && !isRow(port.protocol);
      c.firstUniverse = port.sections.front().universe;
      break;
    }
  });
  int made = 0;
  for (const PortSettings& port : ports)
    for (const PortSection& section : port.sections) {
      if (section.pixels == 0 || !isChannelOrder(section.order)) continue;
      const StripTypeId strip = stripOf(show, section);
      const double pitch = 1 / find(show.stripTypes, strip)->pixelsPerMetre;
      const FixtureId fixture =
          addFixture(show, LineShape{section.pixels, pitch}, {0, made * kApart_m, 0}, {}, strip);
      changeItem(show.fixtures, fixture, [&](Fixture& f) {
        f.name = freeName(show.fixtures, name + " port " + std::to_string(port.port));
      });
      const ChainPlace place{id, port.port - 1, 1'000'000};
      hang(show, {fixture, 0, section.pixels}, place);
      const int bead =
          static_cast<int>(
              find(show.controllers, id)->ports[static_cast<std::size_t>(port.port - 1)].run.size()) -
          1;
      setSkipped(show, {id, port.port - 1, bead}, section.skippedBefore);
      changeBeadSettings(show, {id, port.port - 1, bead}, [&](WireSettings& s) {
        if (section.grouping > 1) s.grouping = section.grouping;
      });
      ++made;
    }
  keepStarts(show, id, ports);
  return made;
}

}  // namespace chispa
