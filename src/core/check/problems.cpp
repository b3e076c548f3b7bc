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
      add(Severity::Warning, sentence("This part of the file cannot be read (%1).", part.reason), where,
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
                sentence("The effect “%1” is unknown to this version; its layer stays dark.", layer->effect),
                look->name, "Choose another effect.", look->id);
        }
      if (isEmpty)
        add(Severity::Note, "This look has no layer, and so no light.", look->name, "Add a layer in Run.",
            look->id);
      if (!look->key.empty() && !padKeys_.insert(look->key).second)
        add(Severity::Warning, sentence("Key %1 plays another look already.", look->key), look->name,
            "Choose another key.", look->id);
      if (look->end == LookEnd::GoOn && !find(show_.looks, look->next))
        add(Severity::Warning, "The look that is to follow it is gone.", look->name, "Choose another.",
            look->id);
    }
  }

  void inspectBindings() {
    for (const auto& binding : show_.bindings) {
      const BindingTarget& target = binding->target;
      const auto gone = [&](const char* what) {
        add(Severity::Warning, what, binding->name.empty() ? Sentence("a binding") : Sentence(binding->name),
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
        add(Severity::Error, sentence("The protocol has no universe %1.", input->universe), input->name,
            sentence("Choose one from %1 to %2.", range.low, range.high), input->id);
    }
  }

  void inspectSetLists() {
    for (const auto& list : show_.setLists) {
      if (list->items.empty())
        add(Severity::Note, "This set list is empty.", list->name, "Drag scores and looks into it in Run.",
            list->id);
      for (std::size_t i = 0; i < list->items.size(); ++i)
        if (isGone(list->items[i]))
          add(Severity::Warning, sentence(lineWithout(list->items[i].kind), i + 1), list->name,
              "Choose another, or delete the line.", list->id);
      if (holdsItself(list->id, list->id, {}))
        add(Severity::Warning, "This set list stands in itself; it is left out there.", list->name,
            "Take it out of the lists that it holds.", list->id);
    }
  }

  void inspectRules() {
    for (const auto& rule : show_.rules) {
      const SetListItem line{rule->kind, rule->score, rule->look, rule->list};
      if (isGone(line))
        add(Severity::Warning, ruleWithout(line.kind), rule->name, "Choose another.", rule->id);
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
              ? Sentence("It hangs on no port.")
              : sentence("%1 of its pixels hang on no port.", found->second),
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
              zone->id, Mending::TakeGoneParts);
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
        add(Severity::Warning, sentence("The audio file %1 is not there.", score->audio), score->name,
            "Put it back, or choose the file anew; until then the score plays silently.", score->id);
      for (const auto& clip : score->clips) inspectClip(*score, *clip);
    }
  }

 private:
  /// True if what a line plays is not there any more.
  bool isGone(const SetListItem& line) const {
    switch (line.kind) {
      case PieceKind::Score:
        return !find(show_.scores, line.score);
      case PieceKind::Look:
        return !find(show_.looks, line.look);
      case PieceKind::SetList:
        return !find(show_.setLists, line.list);
      case PieceKind::Silence:
        return false;
    }
    return false;
  }
  static const char* lineWithout(PieceKind kind) {
    return kind == PieceKind::Score  ? "Line %1 is left out: its score is gone."
           : kind == PieceKind::Look ? "Line %1 is left out: its look is gone."
                                     : "Line %1 is left out: its set list is gone.";
  }
  static const char* ruleWithout(PieceKind kind) {
    return kind == PieceKind::Score  ? "The score that it plays is gone."
           : kind == PieceKind::Look ? "The look that it plays is gone."
                                     : "The set list that it plays is gone.";
  }
  bool holdsItself(SetListId id, SetListId wanted, std::set<SetListId> seen) const {
    const SetList* list = find(show_.setLists, id);
    if (!list || !seen.insert(id).second) return false;
    return std::any_of(list->items.begin(), list->items.end(), [&](const SetListItem& line) {
      return line.kind == PieceKind::SetList && (line.list == wanted || holdsItself(line.list, wanted, seen));
    });
  }
  void add(Severity severity, Sentence what, Sentence where, Sentence cure, ProblemPlace place,
           Mending mending = Mending::None) {
    problems_.push_back({severity, std::move(what), std::move(where), std::move(cure), place, mending});
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
        add(Severity::Error, sentence("Universe %1 does not exist in its protocol.", used.universe),
            controller.name, sentence("Use universes from %1 to %2.", low, high), controller.id);
      const bool isMulticast =
          controller.protocol == Protocol::E131 && controller.delivery == Delivery::Multicast;
      const auto [other, isNew] =
          usedBy.try_emplace({isMulticast ? std::string("multicast") : controller.host, controller.protocol,
                              dataPort(controller), used.universe},
                             used.controller);
      if (!isNew && other->second != used.controller)
        add(Severity::Error,
            sentence(isMulticast ? "Universe %1 is also used by %2 in multicast."
                                 : "Universe %1 is also used by %2 at the same address.",
                     used.universe, controllerOf(other->second).name),
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
      add(Severity::Note,
          left == 1 ? sentence("Universe %1 is left out by a fixed start.", used.universe - 1)
                    : sentence("Universes %1 to %2 are left out by a fixed start.", before.universe + 1,
                               used.universe - 1),
          controllerOf(used.controller).name, "Free the start, unless the controller is set up so.",
          controllerOf(used.controller).id);
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
            sentence("Channel %1 of universe %2 is taken twice: port %3 reaches into it.", span->channel,
                     span->universe, before->port + 1),
            portText(controllerOf(span->controller), span->port), "Move a fixed start, or free it.",
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

  static Sentence portText(const Controller& controller, int port) {
    return sentence("%1, port %2", controller.name, port + 1);
  }

  void inspectCuts(const Fixture& fixture) {
    const int cut = stripTypeOf(show_, fixture).pixelsPerCut;
    for (const Segment& segment : fixture.segments) {
      const int count = runPixels(segment);
      if (cut <= 1 || count % cut == 0 || !hasFreeCount(segment)) continue;
      add(Severity::Warning,
          sentence("Its %1 has %2 pixels, but this strip can be cut only every %3.", segment.name, count,
                   cut),
          fixture.name,
          sentence("Make it %1 or %2 pixels.", std::max(1, count / cut) * cut, (count / cut + 1) * cut),
          fixture.id);
    }
  }

  void inspectChain(const PowerChain& chain, const ChainState& state) {
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
            where,
            sentence("Inject at one more point, use a larger fuse and wire, or give %1 a budget.", name),
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

  /// Load, fuse and wire are one choice: the wire must carry what the fuse lets through.
  void inspectWire(const PowerFeed& feed, double amps, const Sentence& where, const PortPlace& place) {
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

  static std::string shortNumber(double value) {
    char text[32];
    std::snprintf(text, sizeof text, "%.1f", value);
    const std::string words = text;
    return words.ends_with(".0") ? words.substr(0, words.size() - 2) : words;
  }

  void inspectRun(const Controller& controller, int port) {
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

  void inspectClip(const Score& score, const Clip& clip) {
    // Words are only made where something is wrong: there are thousands of clips, and they are looked at
    // after every edit.
    const auto addHere = [&](Sentence what, Sentence cure, Mending mending = Mending::None) {
      add(Severity::Warning, std::move(what),
          sentence("%1, clip at %2 s", score.name, shortNumber(seconds(clip.start))), std::move(cure),
          ClipPlace{score.id, clip.id}, mending);
    };
    if (clip.block && !find(show_.blocks, clip.block))
      addHere("The building block of this clip is gone.", "Delete the clip.", Mending::DeleteClip);
    if (!clip.block && !findEffect(clip.effect))
      addHere(sentence("The effect “%1” is unknown to this version; the clip stays dark.", clip.effect),
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
