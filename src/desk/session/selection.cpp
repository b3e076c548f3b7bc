// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/session/selection.h"

#include <algorithm>
#include <functional>
#include <unordered_set>

#include "core/base/overloaded.h"
#include "core/edit/scoreedits.h"

namespace chispa::desk {
namespace {

bool hasBead(const Show& show, const BeadPlace& place) {
  const Controller* controller = chispa::find(show.controllers, place.controller);
  if (!controller || place.port >= std::ssize(controller->ports)) return false;
  return place.bead < std::ssize(controller->ports[static_cast<std::size_t>(place.port)].run);
}

bool hasPort(const Show& show, const PortChoice& port) {
  const Controller* controller = chispa::find(show.controllers, port.controller);
  return controller && port.port < std::ssize(controller->ports);
}

/// Those of `list` that `isThere` knows; a list of one is that one.
template <class One>
Selected those(std::vector<One> list, const std::function<bool(const One&)>& isThere) {
  std::erase_if(list, [&](const One& one) { return !isThere(one); });
  if (list.empty()) return {};
  if constexpr (OneOrMore<One>)
    if (list.size() == 1) return list.front();
  return list;
}

/// Those of `list` that are among `items`, of which there may be thousands.
template <class One, class T>
Selected those(const std::vector<One>& list, const Items<T>& items) {
  std::vector<One> wanted = list;
  std::sort(wanted.begin(), wanted.end());
  std::unordered_set<One> there;
  for (const auto& item : items)
    if (std::binary_search(wanted.begin(), wanted.end(), item->id)) there.insert(item->id);
  return those<One>(list, [&](const One& one) { return there.contains(one); });
}

Selected pruned(const Selected& selected, const Show& show, const Score* score) {
  return std::visit(
      Overloaded{
          [](std::monostate) { return Selected{}; },
          [&](const FixtureIds& ids) { return those(ids, show.fixtures); },
          [&](const ZoneIds& ids) { return those(ids, show.zones); },
          [&](const ControllerIds& ids) { return those(ids, show.controllers); },
          [&](const PortChoices& ports) {
            return those<PortChoice>(ports, [&](const PortChoice& port) { return hasPort(show, port); });
          },
          [&](const BeadPlaces& places) {
            return those<BeadPlace>(places, [&](const BeadPlace& place) { return hasBead(show, place); });
          },
          [&](const ClipIds& ids) { return score ? those(ids, score->clips) : Selected{}; },
          [&](const MarkIds& ids) {
            return those<MarkId>(ids, [&](MarkId id) { return score && findMark(*score, id).mark; });
          },
          [&](ZoneId id) { return chispa::find(show.zones, id) ? Selected{id} : Selected{}; },
          [&](UnderlayId id) { return chispa::find(show.underlays, id) ? Selected{id} : Selected{}; },
          [&](StripTypeId id) { return find(show.stripTypes, id) ? Selected{id} : Selected{}; },
          [&](ScoreId id) { return find(show.scores, id) ? Selected{id} : Selected{}; },
          [&](PaletteId id) { return chispa::find(show.palettes, id) ? Selected{id} : Selected{}; },
          [&](LookId id) { return chispa::find(show.looks, id) ? Selected{id} : Selected{}; },
          [&](LayerChoice choice) {
            const Look* look = chispa::find(show.looks, choice.look);
            if (!look) return Selected{};
            return findLayer(*look, choice.layer) ? Selected{choice} : Selected{choice.look};
          },
          [&](BindingId id) { return chispa::find(show.bindings, id) ? Selected{id} : Selected{}; },
          [&](DeskInputId id) { return chispa::find(show.deskInputs, id) ? Selected{id} : Selected{}; },
          [&](SetListId id) { return chispa::find(show.setLists, id) ? Selected{id} : Selected{}; },
          [&](LineChoice choice) {
            const SetList* list = chispa::find(show.setLists, choice.list);
            if (!list) return Selected{};
            return choice.line < list->items.size() ? Selected{choice} : Selected{choice.list};
          },
          [&](RuleId id) { return chispa::find(show.rules, id) ? Selected{id} : Selected{}; },
          [](AlmanacChoice choice) { return Selected{choice}; },
          [&](ControllerId id) { return chispa::find(show.controllers, id) ? Selected{id} : Selected{}; },
          [&](PortChoice port) { return hasPort(show, port) ? Selected{port} : Selected{}; },
          [&](BeadPlace place) { return hasBead(show, place) ? Selected{place} : Selected{}; }},
      selected);
}

}  // namespace

void Selection::select(Selected selected) {
  selected = std::visit(Overloaded{[]<class One>(std::vector<One>& several) {
                                     return those<One>(std::move(several), [](const One&) { return true; });
                                   },
                                   [](auto& one) { return Selected{std::move(one)}; }},
                        selected);
  if (selected == selected_) return;
  selected_ = std::move(selected);
  segment_ = 0;
  pixel_.reset();
  emit changed();
}

void Selection::chooseSegment(int index) {
  if (std::exchange(segment_, index) != index) emit changed();
}

void Selection::choosePixel(std::optional<int> pixel) {
  if (std::exchange(pixel_, pixel) != pixel) emit changed();
}

void Selection::prune(const Show& show, const Score* score) {
  select(pruned(selected_, show, score));
}

}  // namespace chispa::desk
