// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <algorithm>
#include <concepts>
#include <optional>
#include <variant>
#include <vector>

#include <QObject>

#include "core/show/show.h"

namespace chispa::desk {

/// A bead by its place: the n-th on a port.
struct BeadPlace {
  ControllerId controller;
  int port = 0;
  int bead = 0;

  bool operator==(const BeadPlace&) const = default;
};

/// A port of a controller, from 0.
struct PortChoice {
  ControllerId controller;
  int port = 0;

  bool operator==(const PortChoice&) const = default;
};

/// A layer of a look.
struct LayerChoice {
  LookId look;
  ClipId layer;

  bool operator==(const LayerChoice&) const = default;
};

/// A line of a set list, from 0.
struct LineChoice {
  SetListId list;
  std::size_t line = 0;

  bool operator==(const LineChoice&) const = default;
};

/// The almanac itself: its place, and what is lit between the rules.
struct AlmanacChoice {
  bool operator==(const AlmanacChoice&) const = default;
};

using FixtureIds = std::vector<FixtureId>;
using ClipIds = std::vector<ClipId>;
using MarkIds = std::vector<MarkId>;
// Two or more; one alone is selected as itself.
using ZoneIds = std::vector<ZoneId>;
using ControllerIds = std::vector<ControllerId>;
using PortChoices = std::vector<PortChoice>;
using BeadPlaces = std::vector<BeadPlace>;

/// What the inspector shows: one kind of thing at a time.
using Selected = std::variant<std::monostate, FixtureIds, ZoneId, ControllerId, PortChoice, BeadPlace,
                              ClipIds, PaletteId, StripTypeId, ScoreId, UnderlayId, MarkIds, LookId,
                              LayerChoice, BindingId, DeskInputId, SetListId, LineChoice, RuleId,
                              AlmanacChoice, ZoneIds, ControllerIds, PortChoices, BeadPlaces>;

/// A thing that can be selected alone or together with others of its kind.
template <class One>
concept OneOrMore = std::same_as<One, ZoneId> || std::same_as<One, ControllerId> ||
    std::same_as<One, PortChoice> || std::same_as<One, BeadPlace>;

/// What is selected in the window, shared by all workspaces. UI thread.
class Selection : public QObject {
  Q_OBJECT
 public:
  using QObject::QObject;

  const Selected& now() const { return selected_; }
  /// A list of one zone, controller, port or bead becomes that one; an empty list selects nothing.
  void select(Selected selected);
  void clear() { select({}); }

  /// All of a kind that are selected: none, one, or several in the order in which they were chosen.
  template <OneOrMore One>
  std::vector<One> all() const {
    if (const One* alone = std::get_if<One>(&selected_)) return {*alone};
    return listOf<std::vector<One>>();
  }
  template <OneOrMore One>
  bool has(const One& one) const {
    const One* alone = std::get_if<One>(&selected_);
    return (alone && *alone == one) || contains<std::vector<One>>(one);
  }
  bool has(FixtureId id) const { return contains<FixtureIds>(id); }
  bool has(ClipId id) const { return contains<ClipIds>(id); }
  bool has(MarkId id) const { return contains<MarkIds>(id); }
  /// Adds the thing if it is not selected, takes it out if it is.
  void toggle(FixtureId id) { toggleIn<FixtureIds>(id); }
  void toggle(ClipId id) { toggleIn<ClipIds>(id); }
  void toggle(MarkId id) { toggleIn<MarkIds>(id); }
  FixtureIds fixtures() const { return listOf<FixtureIds>(); }
  ClipIds clips() const { return listOf<ClipIds>(); }
  MarkIds marks() const { return listOf<MarkIds>(); }

  /// The segment of the selected fixtures, or the step of the look, that the inspector speaks of, from 0.
  int segment() const { return segment_; }
  void chooseSegment(int index);
  /// The pixel of the one selected fixture that is being pointed out; nothing if none is.
  std::optional<int> pixel() const { return pixel_; }
  void choosePixel(std::optional<int> pixel);

  /// Lets go of what the show does not have any more; `score` is the one that clips are looked for in.
  void prune(const Show& show, const Score* score);

 signals:
  void changed();

 private:
  template <class List>
  List listOf() const {
    const List* list = std::get_if<List>(&selected_);
    return list ? *list : List{};
  }
  template <class List, class IdType>
  bool contains(const IdType& id) const {
    const List* list = std::get_if<List>(&selected_);
    return list && std::find(list->begin(), list->end(), id) != list->end();
  }
  template <class List, class IdType>
  void toggleIn(IdType id) {
    List list = listOf<List>();
    if (std::erase(list, id) == 0) list.push_back(id);
    select(list.empty() ? Selected{} : Selected{std::move(list)});
  }

  Selected selected_;
  int segment_ = 0;
  std::optional<int> pixel_;
};

}  // namespace chispa::desk
