// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/check/problems.h"

#include <algorithm>

#include "core/check/inspection.h"
#include "core/effect/effect.h"

namespace chispa {
Inspection::Inspection(const Show& show) : show_(show) {
  for (const auto& zone : show.zones) zones_.insert(zone->id);
}

std::vector<Problem> Inspection::take() && {
  std::stable_sort(problems_.begin(), problems_.end(),
                   [](const Problem& a, const Problem& b) { return a.severity < b.severity; });
  return std::move(problems_);
}

void Inspection::inspectUnread() {
  for (const UnreadPart& part : show_.unread) {
    const std::string where = part.index < 0 ? part.list : part.list + " " + std::to_string(part.index + 1);
    add(Severity::Warning, sentence("This part of the file cannot be read (%1).", part.reason), where,
        "It is kept as it is; open the show with the Chispa that wrote it.", {});
  }
}

void Inspection::inspectFixtures() {
  for (const auto& fixture : show_.fixtures) {
    if (!find(show_.stripTypes, fixture->stripType))
      add(Severity::Error, "It has no strip type.", fixture->name, "Choose what strip it is made of.",
          fixture->id);
    inspectCuts(*fixture);
  }
}

void Inspection::inspectZones() {
  for (const auto& zone : show_.zones)
    for (const ZonePart& part : zone->parts)
      if (!find(show_.fixtures, part.fixture))
        add(Severity::Warning, "A part of this zone is gone.", zone->name, "Take the part out of the zone.",
            zone->id, Mending::TakeGoneParts);
}

void Inspection::inspectScores(const std::function<bool(const std::string&)>& fileExists) {
  for (const auto& score : show_.scores) {
    if (!score->audio.empty() && !fileExists(score->audio))
      add(Severity::Warning, sentence("The audio file %1 is not there.", score->audio), score->name,
          "Put it back, or choose the file anew; until then the score plays silently.", score->id);
    for (const auto& clip : score->clips) inspectClip(*score, *clip);
  }
}

void Inspection::add(Severity severity, Sentence what, Sentence where, Sentence cure, ProblemPlace place,
                     Mending mending) {
  problems_.push_back({severity, std::move(what), std::move(where), std::move(cure), place, mending});
}

void Inspection::inspectClip(const Score& score, const Clip& clip) {
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
