// SPDX-License-Identifier: GPL-3.0-or-later
// What is wrong with looks, bindings, desks, set lists and rules.
#include <algorithm>

#include "core/check/inspection.h"
#include "core/effect/effect.h"
#include "core/wire/patch.h"

namespace chispa {

void Inspection::inspectLooks() {
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

void Inspection::inspectBindings() {
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

void Inspection::inspectDesks() {
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

void Inspection::inspectSetLists() {
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

void Inspection::inspectRules() {
  for (const auto& rule : show_.rules) {
    const SetListItem line{rule->kind, rule->score, rule->look, rule->list};
    if (isGone(line)) add(Severity::Warning, ruleWithout(line.kind), rule->name, "Choose another.", rule->id);
  }
  if (!show_.rules.empty() && show_.almanac.zone.empty())
    add(Severity::Warning,
        "The almanac does not know where the installation stands: it counts in UTC, at 0° north and east.",
        "the almanac", "Choose its place in Run.", show_.rules.front()->id);
  if (show_.almanac.between && !find(show_.looks, show_.almanac.between))
    add(Severity::Warning, "The look that is lit between the rules is gone.", "the almanac",
        "Choose another, or dark.", {});
}

bool Inspection::isGone(const SetListItem& line) const {
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

const char* Inspection::lineWithout(PieceKind kind) {
  return kind == PieceKind::Score  ? "Line %1 is left out: its score is gone."
         : kind == PieceKind::Look ? "Line %1 is left out: its look is gone."
                                   : "Line %1 is left out: its set list is gone.";
}

const char* Inspection::ruleWithout(PieceKind kind) {
  return kind == PieceKind::Score  ? "The score that it plays is gone."
         : kind == PieceKind::Look ? "The look that it plays is gone."
                                   : "The set list that it plays is gone.";
}

bool Inspection::holdsItself(SetListId id, SetListId wanted, std::set<SetListId> seen) const {
  const SetList* list = find(show_.setLists, id);
  if (!list || !seen.insert(id).second) return false;
  return std::any_of(list->items.begin(), list->items.end(), [&](const SetListItem& line) {
    return line.kind == PieceKind::SetList && (line.list == wanted || holdsItself(line.list, wanted, seen));
  });
}

}  // namespace chispa
