// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/show/problems.h"

#include <algorithm>
#include <map>
#include <set>

#include "core/effect/effect.h"
#include "core/show/strip.h"
#include "core/wire/patch.h"

namespace chispa {
namespace {

/// Goes through a show part by part and writes down what it finds.
class Inspection {
 public:
  explicit Inspection(const Show& show) : show_(show) {}

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

  void inspectFixtures() {
    for (const auto& fixture : show_.fixtures) {
      if (!find(show_.stripTypes, fixture->stripType))
        add(Severity::Error, "It has no strip type.", fixture->name, "Choose what strip it is made of.", fixture->id);
      inspectCuts(*fixture);
      inspectWiring(*fixture);
    }
  }

  void inspectZones() {
    for (const auto& zone : show_.zones)
      for (const ZonePart& part : zone->parts)
        if (!find(show_.fixtures, part.fixture))
          add(Severity::Warning, "A part of this zone is gone.", zone->name, "Take the part out of the zone.", zone->id);
  }

  void inspectControllers() {
    for (const auto& controller : show_.controllers) {
      if (controller->host.empty())
        add(Severity::Error, "The controller has no address.", controller->name, "Enter its IP address or host name.",
            controller->id);
      for (std::size_t p = 0; p < controller->ports.size(); ++p) inspectRun(*controller, static_cast<int>(p));
    }
  }

  void inspectAddresses() {
    const Patch patch = derivePatch(show_);
    std::map<std::tuple<std::string, Protocol, int, int>, int> usedBy;
    for (const PatchUniverse& used : patch.universes) {
      const Controller& controller = *show_.controllers[static_cast<std::size_t>(used.controller)];
      const auto [low, high] = controller.protocol == Protocol::E131 ? std::pair(1, 63'999) : std::pair(0, 32'767);
      if (used.universe < low || used.universe > high)
        add(Severity::Error, "Universe " + std::to_string(used.universe) + " does not exist in its protocol.",
            controller.name, "Use universes from " + std::to_string(low) + " to " + std::to_string(high) + ".", controller.id);
      const auto [other, isNew] = usedBy.try_emplace(
          {controller.host, controller.protocol, dataPort(controller), used.universe}, used.controller);
      if (!isNew && other->second != used.controller)
        add(Severity::Error,
            "Universe " + std::to_string(used.universe) + " is also used by " +
                show_.controllers[static_cast<std::size_t>(other->second)]->name + " at the same address.",
            controller.name, "Give one of them another first universe.", controller.id);
    }
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
  void add(Severity severity, std::string what, std::string where, std::string cure, ProblemPlace place) {
    problems_.push_back({severity, std::move(what), std::move(where), std::move(cure), place});
  }

  void inspectCuts(const Fixture& fixture) {
    const int cut = stripTypeOf(show_, fixture).pixelsPerCut;
    for (const Segment& segment : fixture.segments) {
      const int count = runPixels(segment);
      if (cut <= 1 || count % cut == 0 || !hasFreeCount(segment)) continue;
      add(Severity::Warning, "Its " + segment.name + " has " + std::to_string(count) + " pixels, but this strip can be cut only every " + std::to_string(cut) + ".", fixture.name,
          "Make it " + std::to_string(std::max(1, count / cut) * cut) + " or " + std::to_string((count / cut + 1) * cut) + " pixels.", fixture.id);
    }
  }

  void inspectWiring(const Fixture& fixture) {
    std::vector<int> hung(static_cast<std::size_t>(pixelCount(fixture)), 0);
    for (const auto& controller : show_.controllers)
      for (const Port& port : controller->ports)
        for (const Bead& bead : port.run)
          for (int i = bead.first; bead.fixture == fixture.id && i < bead.first + bead.count && i < std::ssize(hung); ++i)
            ++hung[static_cast<std::size_t>(i)];
    const auto loose = std::count(hung.begin(), hung.end(), 0);
    if (loose > 0)
      add(Severity::Note,
          loose == std::ssize(hung) ? "It hangs on no port." : std::to_string(loose) + " of its pixels hang on no port.",
          fixture.name, "Hang it on a port in Wire.", fixture.id);
  }

  void inspectRun(const Controller& controller, int port) {
    const std::string where = controller.name + ", port " + std::to_string(port + 1);
    for (const Bead& bead : controller.ports[static_cast<std::size_t>(port)].run) {
      const Fixture* fixture = find(show_.fixtures, bead.fixture);
      if (!fixture)
        add(Severity::Error, "What hung here is gone.", where, "Take it off the port.", PortPlace{controller.id, port});
      else if (bead.first + bead.count > pixelCount(*fixture))
        add(Severity::Error, fixture->name + " ends before pixel " + std::to_string(bead.first + bead.count) + ".", where,
            "Shorten the bead.", PortPlace{controller.id, port});
    }
  }

  void inspectClip(const Score& score, const Clip& clip) {
    const std::string where = score.name + ", clip at " + std::to_string(seconds(clip.start)) + " s";
    const ClipPlace place{score.id, clip.id};
    if (!findEffect(clip.effect))
      add(Severity::Warning, "The effect \"" + clip.effect + "\" is unknown to this version; the clip stays dark.", where,
          "Choose another effect, or open the show with the Chispa that wrote it.", place);
    if (!find(show_.zones, clip.zone))
      add(Severity::Warning, "The zone of this clip is gone.", where, "Delete the clip or make the zone again.", place);
    if (clip.palette && !find(show_.palettes, clip.palette))
      add(Severity::Warning, "The palette of this clip is gone.", where, "Choose another palette.", place);
  }

  const Show& show_;
  std::vector<Problem> problems_;
};

}  // namespace

std::vector<Problem> findProblems(const Show& show, const std::function<bool(const std::string&)>& fileExists) {
  Inspection inspection(show);
  inspection.inspectUnread();
  inspection.inspectFixtures();
  inspection.inspectZones();
  inspection.inspectControllers();
  inspection.inspectAddresses();
  inspection.inspectScores(fileExists);
  return std::move(inspection).take();
}

}  // namespace chispa
