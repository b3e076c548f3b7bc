// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/check/problems.h"

#include <algorithm>
#include <cstdio>
#include <map>
#include <set>
#include <unordered_set>

#include "core/effect/effect.h"
#include "core/show/strip.h"
#include "core/show/unwired.h"
#include "core/wire/echo.h"
#include "core/wire/powernet.h"
#include "core/wire/sizing.h"

namespace chispa {
namespace {

/// Goes through a show part by part and writes down what it finds.
class Inspection {
 public:
  explicit Inspection(const Show& show) : show_(show) {
    for (const auto& zone : show.zones) zones_.insert(zone->id);
  }

  std::vector<Problem> take() && {
    std::stable_sort(problems_.begin(), problems_.end(),
                     [](const Problem& a, const Problem& b) { return a.severity < b.severity; });
    return std::move(problems_);
  }

  void inspectUnread() {
    for (const UnreadPart& part : show_.unread) {
      const std::string where = part.index < 0 ? part.list : part.list + " " + std::to_string(part.index + 1);
      add(Severity::Warning, "This part of the file cannot be read (" + part.reason + ").", where,
          "It is kept as it is; open the show with the Chispa that wrote it.", {});
    }
  }

  void inspectLooks() {
    for (const auto& look : show_.looks) {
      bool isEmpty = true;
      for (const LookStep& step : look->steps)
        for (const auto& layer : step.layers) {
          isEmpty = false;
          if (!zones_.contains(layer->zone))
            add(Severity::Warning, "The zone of one of its layers is gone.", look->name,
                "Delete the layer, or make the zone again.", look->id);
          if (!findEffect(layer->effect))
            add(Severity::Warning,
                "The effect \"" + layer->effect + "\" is unknown to this version; its layer stays dark.",
                look->name, "Choose another effect.", look->id);
        }
      if (isEmpty)
        add(Severity::Note, "This look has no layer, and so no light.", look->name, "Add a layer in Run.",
            look->id);
      if (!look->key.empty() && !padKeys_.insert(look->key).second)
        add(Severity::Warning, "Key " + look->key + " plays another look already.", look->name,
            "Choose another key.", look->id);
      if (look->end == LookEnd::GoOn && !find(show_.looks, look->next))
        add(Severity::Warning, "The look that is to follow it is gone.", look->name, "Choose another.",
            look->id);
    }
  }

  void inspectBindings() {
    for (const auto& binding : show_.bindings) {
      const BindingTarget& target = binding->target;
      const auto gone = [&](const std::string& what) {
        add(Severity::Warning, what, binding->name.empty() ? "a binding" : binding->name,
            "Choose what it drives, or delete it.", binding->id);
      };
      const bool isOfLook = target.kind == TargetKind::Look || target.kind == TargetKind::LookLevel ||
                            target.kind == TargetKind::Parameter || target.kind == TargetKind::Speed;
      if (isOfLook && !find(show_.looks, target.look)) gone("The look that it drives is gone.");
      if (target.kind == TargetKind::ZoneLevel && !zones_.contains(target.zone))
        gone("The zone that it drives is gone.");
      if (target.kind == TargetKind::Channels && !find(show_.controllers, target.controller))
        gone("The controller whose channels it drives is gone.");
    }
  }

  void inspectDesks() {
    for (const auto& input : show_.deskInputs) {
      const UniverseRange range = universeRange(input->protocol);
      if (!zones_.contains(input->zone))
        add(Severity::Warning, "The zone that listens to the desk is gone.", input->name,
            "Choose another zone, or delete it in Run.", input->id);
      if (input->universe < range.low || input->universe > range.high)
        add(Severity::Error, "The protocol has no universe " + std::to_string(input->universe) + ".",
            input->name,
            "Choose one from " + std::to_string(range.low) + " to " + std::to_string(range.high) + ".",
            input->id);
    }
  }

  void inspectSetLists() {
    for (const auto& list : show_.setLists) {
      if (list->items.empty())
        add(Severity::Note, "This set list is empty.", list->name, "Drag scores and looks into it in Run.",
            list->id);
      for (std::size_t i = 0; i < list->items.size(); ++i)
        if (const std::string what = goneOf(list->items[i]); !what.empty())
          add(Severity::Warning, "Line " + std::to_string(i + 1) + " is left out: its " + what + " is gone.",
              list->name, "Choose another, or delete the line.", list->id);
      if (holdsItself(list->id, list->id, {}))
        add(Severity::Warning, "This set list stands in itself; it is left out there.", list->name,
            "Take it out of the lists that it holds.", list->id);
    }
  }

  void inspectRules() {
    for (const auto& rule : show_.rules) {
      const SetListItem line{rule->kind, rule->score, rule->look, rule->list};
      if (const std::string what = goneOf(line); !what.empty())
        add(Severity::Warning, "The " + what + " that it plays is gone.", rule->name, "Choose another.",
            rule->id);
    }
    if (!show_.rules.empty() && show_.almanac.zone.empty())
      add(Severity::Warning,
          "The almanac does not know where the installation stands: it counts in UTC, at 0° north and east.",
          "the almanac", "Choose its place in Run.", show_.rules.front()->id);
    if (show_.almanac.between && !find(show_.looks, show_.almanac.between))
      add(Severity::Warning, "The look that is lit between the rules is gone.", "the almanac",
          "Choose another, or dark.", {});
  }

  void inspectFixtures() {
    for (const auto& fixture : show_.fixtures) {
      if (!find(show_.stripTypes, fixture->stripType))
        add(Severity::Error, "It has no strip type.", fixture->name, "Choose what strip it is made of.",
            fixture->id);
      inspectCuts(*fixture);
    }
  }

  void inspectUnwired() {
    std::map<FixtureId, int> loose;
    for (const UnwiredPiece& piece : unwiredPieces(show_)) loose[piece.fixture] += piece.count;
    for (const auto& fixture : show_.fixtures) {
      const auto found = loose.find(fixture->id);
      if (found == loose.end()) continue;
      add(Severity::Note,
          found->second == pixelCount(*fixture)
              ? "It hangs on no port."
              : std::to_string(found->second) + " of its pixels hang on no port.",
          fixture->name, "Hang it on a port in Wire.", fixture->id);
    }
  }

  void inspectPower() {
    if (show_.supplies.empty()) return;
    const auto chains = powerChains(show_);
    const PowerReading full = readFullWhite(chains, show_.supplies.size());
    for (std::size_t i = 0; i < chains.size(); ++i) inspectChain(chains[i], full.states[i]);
  }

  void inspectZones() {
    for (const auto& zone : show_.zones)
      for (const ZonePart& part : zone->parts)
        if (!find(show_.fixtures, part.fixture))
          add(Severity::Warning, "A part of this zone is gone.", zone->name, "Take the part out of the zone.",
              zone->id);
  }

  void inspectControllers() {
    for (const auto& controller : show_.controllers) {
      if (controller->host.empty() && controller->delivery != Delivery::Multicast &&
          controller->protocol != Protocol::Screen)
        add(Severity::Error, "The controller has no address.", controller->name,
            "Enter its IP address or host name.", controller->id);
      for (std::size_t p = 0; p < controller->ports.size(); ++p) inspectRun(*controller, static_cast<int>(p));
    }
  }

  void inspectAddresses() {
    const Patch patch = derivePatch(show_);
    inspectUniverses(patch);
    inspectGaps(patch);
    inspectOverlaps(patch);
    inspectPorts(patch);
  }

  void inspectScores(const std::function<bool(const std::string&)>& fileExists) {
    for (const auto& score : show_.scores) {
      if (!score->audio.empty() && !fileExists(score->audio))
        add(Severity::Warning, "The audio file " + score->audio + " is not there.", score->name,
            "Put it back, or choose the file anew; until then the score plays silently.", score->id);
      for (const auto& clip : score->clips) inspectClip(*score, *clip);
    }
  }

 private:
  /// What a line plays, if it is gone.
  std::string goneOf(const SetListItem& line) const {
    switch (line.kind) {
      case PieceKind::Score:
        return find(show_.scores, line.score) ? "" : "score";
      case PieceKind::Look:
        return find(show_.looks, line.look) ? "" : "look";
      case PieceKind::SetList:
        return find(show_.setLists, line.list) ? "" : "set list";
      case PieceKind::Silence:
        return "";
    }
    return {};
  }
  bool holdsItself(SetListId id, SetListId wanted, std::set<SetListId> seen) const {
    const SetList* list = find(show_.setLists, id);
    if (!list || !seen.insert(id).second) return false;
    return std::any_of(list->items.begin(), list->items.end(), [&](const SetListItem& line) {
      return line.kind == PieceKind::SetList && (line.list == wanted || holdsItself(line.list, wanted, seen));
    });
  }
  void add(Severity severity, std::string what, std::string where, std::string cure, ProblemPlace place) {
    problems_.push_back({severity, std::move(what), std::move(where), std::move(cure), place});
  }

  const Controller& controllerOf(int index) const {
    return *show_.controllers[static_cast<std::size_t>(index)];
  }

  void inspectUniverses(const Patch& patch) {
    // All that arrives at one place in one protocol: the multicast groups are one place.
    std::map<std::tuple<std::string, Protocol, int, int>, int> usedBy;
    for (const PatchUniverse& used : patch.universes) {
      const Controller& controller = controllerOf(used.controller);
      const auto [low, high] = universeRange(controller.protocol);
      if (used.universe < low || used.universe > high)
        add(Severity::Error, "Universe " + std::to_string(used.universe) + " does not exist in its protocol.",
            controller.name,
            "Use universes from " + std::to_string(low) + " to " + std::to_string(high) + ".", controller.id);
      const bool isMulticast =
          controller.protocol == Protocol::E131 && controller.delivery == Delivery::Multicast;
      const auto [other, isNew] =
          usedBy.try_emplace({isMulticast ? std::string("multicast") : controller.host, controller.protocol,
                              dataPort(controller), used.universe},
                             used.controller);
      if (!isNew && other->second != used.controller)
        add(Severity::Error,
            "Universe " + std::to_string(used.universe) + " is also used by " +
                controllerOf(other->second).name + (isMulticast ? " in multicast." : " at the same address."),
            controller.name, "Give one of them another first universe.", controller.id);
    }
  }

  /// Universes that a pin has left out: the controller would have to be set up so.
  void inspectGaps(const Patch& patch) {
    for (std::size_t i = 1; i < patch.universes.size(); ++i) {
      const PatchUniverse& before = patch.universes[i - 1];
      const PatchUniverse& used = patch.universes[i];
      const int left = used.universe - before.universe - 1;
      if (before.controller != used.controller || left <= 0 || isRow(controllerOf(used.controller).protocol))
        continue;
      const std::string which = left == 1 ? "Universe " + std::to_string(used.universe - 1) + " is"
                                          : "Universes " + std::to_string(before.universe + 1) + " to " +
                                                std::to_string(used.universe - 1) + " are";
      add(Severity::Note, which + " left out by a pinned start.", controllerOf(used.controller).name,
          "Take the pin away, unless the controller is set up so.", controllerOf(used.controller).id);
    }
  }

  /// Beads that a pin has put onto channels of others.
  void inspectOverlaps(const Patch& patch) {
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
            "Channel " + std::to_string(span->channel) + " of universe " + std::to_string(span->universe) +
                " is taken twice: port " + std::to_string(before->port + 1) + " reaches into it.",
            portText(controllerOf(span->controller), span->port), "Move a pinned start, or take a pin away.",
            PortPlace{controllerOf(span->controller).id, span->port});
      if (!overlaps || span->channel + span->channelCount() > before->channel + before->channelCount())
        before = span;
    }
  }

  void inspectPorts(const Patch& patch) {
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
            "The pinned start at channel " + std::to_string(fixedStart->channel) +
                " would split a pixel; it begins in universe " + std::to_string(span.universe) + ".",
            portText(controller, span.port),
            "Pin it to channel " +
                std::to_string(controller.channelsPerUniverse - span.channelsPerPixel + 1) +
                " or lower, or let the controller be packed.",
            PortPlace{controller.id, span.port});
    }
    for (const auto& [place, count] : pixels) {
      const Controller& controller = controllerOf(place.first);
      if (controller.maxPixelsOfPort > 0 && count > controller.maxPixelsOfPort)
        add(Severity::Error,
            std::to_string(count) + " pixels hang on it, but the port drives " +
                std::to_string(controller.maxPixelsOfPort) + ".",
            portText(controller, place.second), "Cut the run and hang the rest on another port.",
            PortPlace{controller.id, place.second});
    }
  }

  static std::string portText(const Controller& controller, int port) {
    return controller.name + ", port " + std::to_string(port + 1);
  }

  void inspectCuts(const Fixture& fixture) {
    const int cut = stripTypeOf(show_, fixture).pixelsPerCut;
    for (const Segment& segment : fixture.segments) {
      const int count = runPixels(segment);
      if (cut <= 1 || count % cut == 0 || !hasFreeCount(segment)) continue;
      add(Severity::Warning,
          "Its " + segment.name + " has " + std::to_string(count) +
              " pixels, but this strip can be cut only every " + std::to_string(cut) + ".",
          fixture.name,
          "Make it " + std::to_string(std::max(1, count / cut) * cut) + " or " +
              std::to_string((count / cut + 1) * cut) + " pixels.",
          fixture.id);
    }
  }

  void inspectChain(const PowerChain& chain, const ChainState& state) {
    const Controller& controller = controllerOf(chain.controller);
    const std::string where = portText(controller, chain.port);
    const PortPlace place{controller.id, chain.port};
    if (chain.feeds.empty())
      return add(Severity::Warning, "Nothing feeds it with power.", where,
                 "Put a pin on it with P, from a supply of " + shortNumber(chain.volts) + " V.", place);
    for (std::size_t f = 0; f < chain.feeds.size(); ++f) {
      const PowerFeed& feed = chain.feeds[f];
      const std::string& name = show_.supplies[static_cast<std::size_t>(feed.supply)]->name;
      if (feed.volts != chain.volts)
        add(Severity::Error,
            name + " gives " + shortNumber(feed.volts) + " V to a strip of " + shortNumber(chain.volts) +
                " V.",
            where, "Choose a supply of the strip's voltage.", place);
      else if (feed.fuse_a > 0 && state.feed_a[f] > feed.fuse_a)
        add(Severity::Warning,
            "At full white " + shortNumber(state.feed_a[f]) + " A flow through a fuse of " +
                shortNumber(feed.fuse_a) + " A.",
            where, "Add a pin, use a larger fuse and wire, or give " + name + " a budget.", place);
      inspectWire(feed, state.feed_a[f], where, place);
    }
    const auto fades =
        std::find_if(state.volts.begin(), state.volts.end(), [&](double v) { return v < chain.least_v; });
    if (fades != state.volts.end())
      add(Severity::Note,
          "At full white its colours fade from pixel " + std::to_string(fades - state.volts.begin() + 1) +
              " on: " + shortNumber(*std::min_element(state.volts.begin(), state.volts.end())) +
              " V are left.",
          where, "Put another pin there, use thicker wire, or play less bright.", place);
  }

  /// Load, fuse and wire are one choice: the wire must carry what the fuse lets through.
  void inspectWire(const PowerFeed& feed, double amps, const std::string& where, const PortPlace& place) {
    const double carries = wireCarries_a(feed.wire_mm2);
    const std::string wire = "a wire of " + std::to_string(feed.wire_mm2).substr(0, 4) +
                             " mm², which carries " + shortNumber(carries) + " A.";
    if (feed.fuse_a > carries)
      add(Severity::Error, "A fuse of " + shortNumber(feed.fuse_a) + " A does not protect " + wire, where,
          "Use a fuse of at most " + shortNumber(carries) + " A, or thicker wire.", place);
    else if (feed.fuse_a <= 0 && amps > carries)
      add(Severity::Error, "At full white " + shortNumber(amps) + " A flow through " + wire, where,
          "Use thicker wire and a fuse, or feed it at one more place.", place);
  }

  static std::string shortNumber(double value) {
    char text[32];
    std::snprintf(text, sizeof text, "%.1f", value);
    const std::string words = text;
    return words.ends_with(".0") ? words.substr(0, words.size() - 2) : words;
  }

  void inspectRun(const Controller& controller, int port) {
    const std::string where = portText(controller, port);
    for (const Bead& bead : controller.ports[static_cast<std::size_t>(port)].run) {
      const Fixture* fixture = find(show_.fixtures, bead.fixture);
      if (!fixture)
        add(Severity::Error, "What hung here is gone.", where, "Take it off the port.",
            PortPlace{controller.id, port});
      else if (bead.first + bead.count > pixelCount(*fixture))
        add(Severity::Error,
            fixture->name + " ends before pixel " + std::to_string(bead.first + bead.count) + ".", where,
            "Shorten the bead.", PortPlace{controller.id, port});
    }
  }

  void inspectClip(const Score& score, const Clip& clip) {
    // Words are only made where something is wrong: there are thousands of clips, and they are looked at
    // after every edit.
    const auto addHere = [&](std::string what, std::string cure) {
      add(Severity::Warning, std::move(what),
          score.name + ", clip at " + std::to_string(seconds(clip.start)) + " s", std::move(cure),
          ClipPlace{score.id, clip.id});
    };
    if (clip.block && !find(show_.blocks, clip.block))
      addHere("The building block of this clip is gone.", "Delete the clip.");
    if (!clip.block && !findEffect(clip.effect))
      addHere("The effect \"" + clip.effect + "\" is unknown to this version; the clip stays dark.",
              "Choose another effect, or open the show with the Chispa that wrote it.");
    if (!zones_.contains(clip.zone))
      addHere("The zone of this clip is gone.", "Delete the clip or make the zone again.");
    if (clip.palette && !find(show_.palettes, clip.palette))
      addHere("The palette of this clip is gone.", "Choose another palette.");
  }

  const Show& show_;
  std::unordered_set<ZoneId> zones_;
  std::set<std::string> padKeys_;
  std::vector<Problem> problems_;
};

}  // namespace

std::vector<Problem> findProblems(const Show& show,
                                  const std::function<bool(const std::string&)>& fileExists) {
  Inspection inspection(show);
  inspection.inspectUnread();
  inspection.inspectFixtures();
  inspection.inspectUnwired();
  inspection.inspectZones();
  inspection.inspectControllers();
  inspection.inspectAddresses();
  inspection.inspectPower();
  inspection.inspectScores(fileExists);
  inspection.inspectLooks();
  inspection.inspectBindings();
  inspection.inspectDesks();
  inspection.inspectSetLists();
  inspection.inspectRules();
  return std::move(inspection).take();
}

}  // namespace chispa
