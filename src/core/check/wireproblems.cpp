// SPDX-License-Identifier: GPL-3.0-or-later
// What is wrong with ports, addresses and power.
#include <algorithm>
#include <cstdio>
#include <map>

#include "core/check/inspection.h"
#include "core/show/strip.h"
#include "core/show/unwired.h"
#include "core/wire/echo.h"

namespace chispa {

void Inspection::inspectUnwired() {
  std::map<FixtureId, int> loose;
  for (const UnwiredPiece& piece : unwiredPieces(show_)) loose[piece.fixture] += piece.count;
  for (const auto& fixture : show_.fixtures) {
    const auto found = loose.find(fixture->id);
    if (found == loose.end()) continue;
    add(Severity::Note,
        found->second == pixelCount(*fixture) ? Sentence("It hangs on no port.")
                                              : sentence("%1 of its pixels hang on no port.", found->second),
        fixture->name, "Hang it on a port in Wire.", fixture->id);
  }
}

void Inspection::inspectPower() {
  if (show_.supplies.empty()) return;
  const auto chains = powerChains(show_);
  const PowerReading full = readFullWhite(chains, show_.supplies.size());
  for (std::size_t i = 0; i < chains.size(); ++i) inspectChain(chains[i], full.states[i]);
}

void Inspection::inspectControllers() {
  for (const auto& controller : show_.controllers) {
    if (controller->host.empty() && controller->delivery != Delivery::Multicast &&
        controller->protocol != Protocol::Screen)
      add(Severity::Error, "The controller has no address.", controller->name,
          "Enter its IP address or host name.", controller->id);
    for (std::size_t p = 0; p < controller->ports.size(); ++p) inspectRun(*controller, static_cast<int>(p));
  }
}

void Inspection::inspectAddresses() {
  const Patch patch = derivePatch(show_);
  inspectUniverses(patch);
  inspectGaps(patch);
  inspectOverlaps(patch);
  inspectPorts(patch);
}

const Controller& Inspection::controllerOf(int index) const {
  return *show_.controllers[static_cast<std::size_t>(index)];
}

void Inspection::inspectUniverses(const Patch& patch) {
  // All that arrives at one place in one protocol: the multicast groups are one place.
  std::map<std::tuple<std::string, Protocol, int, int>, int> usedBy;
  for (const PatchUniverse& used : patch.universes) {
    const Controller& controller = controllerOf(used.controller);
    const auto [low, high] = universeRange(controller.protocol);
    if (used.universe < low || used.universe > high)
      add(Severity::Error, sentence("Universe %1 does not exist in its protocol.", used.universe),
          controller.name, sentence("Use universes from %1 to %2.", low, high), controller.id);
    const bool isMulticast =
        controller.protocol == Protocol::E131 && controller.delivery == Delivery::Multicast;
    const auto [other, isNew] = usedBy.try_emplace({isMulticast ? std::string("multicast") : controller.host,
                                                    controller.protocol, dataPort(controller), used.universe},
                                                   used.controller);
    if (!isNew && other->second != used.controller)
      add(Severity::Error,
          sentence(isMulticast ? "Universe %1 is also used by %2 in multicast."
                               : "Universe %1 is also used by %2 at the same address.",
                   used.universe, controllerOf(other->second).name),
          controller.name, "Give one of them another first universe.", controller.id);
  }
}

void Inspection::inspectGaps(const Patch& patch) {
  for (std::size_t i = 1; i < patch.universes.size(); ++i) {
    const PatchUniverse& before = patch.universes[i - 1];
    const PatchUniverse& used = patch.universes[i];
    const int left = used.universe - before.universe - 1;
    if (before.controller != used.controller || left <= 0 || isRow(controllerOf(used.controller).protocol))
      continue;
    add(Severity::Note,
        left == 1 ? sentence("Universe %1 is left out by a fixed start.", used.universe - 1)
                  : sentence("Universes %1 to %2 are left out by a fixed start.", before.universe + 1,
                             used.universe - 1),
        controllerOf(used.controller).name, "Free the start, unless the controller is set up so.",
        controllerOf(used.controller).id);
  }
}

void Inspection::inspectOverlaps(const Patch& patch) {
  std::vector<const PatchSpan*> spans;
  for (const PatchSpan& span : patch.spans) spans.push_back(&span);
  const auto place = [](const PatchSpan* span) {
    return std::tuple(span->controller, span->universe, span->channel);
  };
  std::stable_sort(spans.begin(), spans.end(),
                   [&](const PatchSpan* a, const PatchSpan* b) { return place(a) < place(b); });
  std::set<std::pair<int, int>> told;
  const PatchSpan* before = nullptr;
  for (const PatchSpan* span : spans) {
    const bool overlaps = before && before->controller == span->controller &&
                          before->universe == span->universe &&
                          before->channel + before->channelCount() > span->channel;
    if (overlaps && !isEcho(show_, *before, *span) && told.insert({span->controller, span->port}).second)
      add(Severity::Error,
          sentence("Channel %1 of universe %2 is taken twice: port %3 reaches into it.", span->channel,
                   span->universe, before->port + 1),
          portText(controllerOf(span->controller), span->port), "Move a fixed start, or free it.",
          PortPlace{controllerOf(span->controller).id, span->port});
    if (!overlaps || span->channel + span->channelCount() > before->channel + before->channelCount())
      before = span;
  }
}

void Inspection::inspectPorts(const Patch& patch) {
  std::map<std::pair<int, int>, int> pixels;
  for (const PatchSpan& span : patch.spans) {
    if (span.firstByte == 0) pixels[{span.controller, span.port}] += span.pixels;
    const Controller& controller = controllerOf(span.controller);
    const Port& port = controller.ports[static_cast<std::size_t>(span.port)];
    const auto& fixedStart = port.run[static_cast<std::size_t>(span.bead)].fixedStart
                                 ? port.run[static_cast<std::size_t>(span.bead)].fixedStart
                             : span.bead == 0 ? port.fixedStart
                                              : std::nullopt;
    if (fixedStart && !controller.isPacked && !isRow(controller.protocol) &&
        fixedStart->channel + span.channelsPerPixel - 1 > controller.channelsPerUniverse &&
        span.universe == fixedStart->universe + 1 && span.channel == 1)
      add(Severity::Warning,
          sentence("The fixed start at channel %1 would split a pixel; it begins in universe %2.",
                   fixedStart->channel, span.universe),
          portText(controller, span.port),
          sentence("Fix it at channel %1 or lower, or let pixels be split across universes.",
                   controller.channelsPerUniverse - span.channelsPerPixel + 1),
          PortPlace{controller.id, span.port});
  }
  for (const auto& [place, count] : pixels) {
    const Controller& controller = controllerOf(place.first);
    if (controller.maxPixelsOfPort > 0 && count > controller.maxPixelsOfPort)
      add(Severity::Error,
          sentence("%1 pixels hang on it, but the port drives %2.", count, controller.maxPixelsOfPort),
          portText(controller, place.second), "Cut the run and hang the rest on another port.",
          PortPlace{controller.id, place.second});
  }
}

Sentence Inspection::portText(const Controller& controller, int port) {
  return sentence("%1, port %2", controller.name, port + 1);
}

void Inspection::inspectCuts(const Fixture& fixture) {
  const int cut = stripTypeOf(show_, fixture).pixelsPerCut;
  for (const Segment& segment : fixture.segments) {
    const int count = runPixels(segment);
    if (cut <= 1 || count % cut == 0 || !hasFreeCount(segment)) continue;
    add(Severity::Warning,
        sentence("Its %1 has %2 pixels, but this strip can be cut only every %3.", segment.name, count, cut),
        fixture.name,
        sentence("Make it %1 or %2 pixels.", std::max(1, count / cut) * cut, (count / cut + 1) * cut),
        fixture.id);
  }
}

void Inspection::inspectChain(const PowerChain& chain, const ChainState& state) {
  const Controller& controller = controllerOf(chain.controller);
  const Sentence where = portText(controller, chain.port);
  const PortPlace place{controller.id, chain.port};
  if (chain.feeds.empty())
    return add(Severity::Warning, "Nothing feeds it with power.", where,
               sentence("Inject power into it with P, from a supply of %1 V.", shortNumber(chain.volts)),
               place);
  for (std::size_t f = 0; f < chain.feeds.size(); ++f) {
    const PowerFeed& feed = chain.feeds[f];
    const std::string& name = show_.supplies[static_cast<std::size_t>(feed.supply)]->name;
    if (feed.volts != chain.volts)
      add(Severity::Error,
          sentence("%1 gives %2 V to a strip of %3 V.", name, shortNumber(feed.volts),
                   shortNumber(chain.volts)),
          where, "Choose a supply of the strip's voltage.", place);
    else if (feed.fuse_a > 0 && state.feed_a[f] > feed.fuse_a)
      add(Severity::Warning,
          sentence("At full white %1 A flow through a fuse of %2 A.", shortNumber(state.feed_a[f]),
                   shortNumber(feed.fuse_a)),
          where, sentence("Inject at one more point, use a larger fuse and wire, or give %1 a budget.", name),
          place);
    inspectWire(feed, state.feed_a[f], where, place);
  }
  const auto fades =
      std::find_if(state.volts.begin(), state.volts.end(), [&](double v) { return v < chain.least_v; });
  if (fades != state.volts.end())
    add(Severity::Note,
        sentence("At full white its colours fade from pixel %1 on: %2 V are left.",
                 fades - state.volts.begin() + 1,
                 shortNumber(*std::min_element(state.volts.begin(), state.volts.end()))),
        where, "Inject power there too, use thicker wire, or play less bright.", place);
}

void Inspection::inspectWire(const PowerFeed& feed, double amps, const Sentence& where,
                             const PortPlace& place) {
  const double carries = wireCarries_a(feed.wire_mm2);
  const std::string wire = std::to_string(feed.wire_mm2).substr(0, 4);
  if (feed.fuse_a > carries)
    add(Severity::Error,
        sentence("A fuse of %1 A does not protect a wire of %2 mm², which carries %3 A.",
                 shortNumber(feed.fuse_a), wire, shortNumber(carries)),
        where, sentence("Use a fuse of at most %1 A, or thicker wire.", shortNumber(carries)), place);
  else if (feed.fuse_a <= 0 && amps > carries)
    add(Severity::Error,
        sentence("At full white %1 A flow through a wire of %2 mm², which carries %3 A.", shortNumber(amps),
                 wire, shortNumber(carries)),
        where, "Use thicker wire and a fuse, or feed it at one more place.", place);
}

std::string Inspection::shortNumber(double value) {
  char text[32];
  std::snprintf(text, sizeof text, "%.1f", value);
  const std::string words = text;
  return words.ends_with(".0") ? words.substr(0, words.size() - 2) : words;
}

void Inspection::inspectRun(const Controller& controller, int port) {
  const Sentence where = portText(controller, port);
  for (const Bead& bead : controller.ports[static_cast<std::size_t>(port)].run) {
    const Fixture* fixture = find(show_.fixtures, bead.fixture);
    if (!fixture)
      add(Severity::Error, "What hung here is gone.", where, "Take it off the port.",
          PortPlace{controller.id, port}, Mending::TakeGoneBeads);
    else if (bead.first + bead.count > pixelCount(*fixture))
      add(Severity::Error, sentence("%1 ends before pixel %2.", fixture->name, bead.first + bead.count),
          where, "Shorten the bead.", PortPlace{controller.id, port}, Mending::ShortenBeads);
  }
}

}  // namespace chispa
