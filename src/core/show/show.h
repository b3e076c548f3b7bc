// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <cstdint>
#include <string>
#include <vector>

#include "core/colour/evenness.h"
#include "core/colour/palette.h"
#include "core/show/almanac.h"
#include "core/show/binding.h"
#include "core/show/controller.h"
#include "core/show/fixture.h"
#include "core/show/items.h"
#include "core/show/look.h"
#include "core/show/score.h"
#include "core/show/striptype.h"
#include "core/show/supply.h"
#include "core/show/underlay.h"
#include "core/show/zone.h"

namespace chispa {

/// A piece of a show file that this version cannot read; kept and written back where it stood.
struct UnreadPart {
  /// The list it stood in, with the ids of what holds it ("fixtures", "scores/12/clips"), or the name of an
  /// unknown member of the file.
  std::string list;
  /// Its place in that list, from 0; −1 for a member of the file itself.
  int index = -1;
  std::string json;
  std::string reason;

  bool operator==(const UnreadPart&) const = default;
};

/// How light is made, all over the show.
struct LightSettings {
  /// What fades, cross-fades and the master go evenly in.
  Evenness fades = Evenness::ToTheEye;

  bool operator==(const LightSettings&) const = default;
};

/// Everything a maker plans, wires and composes: a value. An edit makes a new one; see History.
struct Show {
  std::string name;
  Items<StripType> stripTypes;
  Items<Fixture> fixtures;
  Items<Zone> zones;
  Items<Underlay> underlays;
  Items<Supply> supplies;
  Items<Controller> controllers;
  Items<Palette> palettes;
  Items<Score> scores;
  Items<Block> blocks;
  Items<OwnEffect> ownEffects;
  Items<Look> looks;
  Items<Binding> bindings;
  Items<DeskInput> deskInputs;
  Items<SetList> setLists;
  Items<Rule> rules;
  Almanac almanac;
  LightSettings light;
  std::vector<UnreadPart> unread;
  /// The number that the next new thing gets; ids are never used twice.
  std::uint32_t nextId = 1;

  /// A fresh id of the wanted kind.
  template <class IdType>
  IdType newId() {
    return IdType{nextId++};
  }
};

bool operator==(const Show& a, const Show& b);

/// `base`, or `base 2`, `base 3` … : the first that no item of the list is called.
template <class T>
std::string freeName(const Items<T>& items, const std::string& base) {
  const auto taken = [&](const std::string& name) {
    return std::any_of(items.begin(), items.end(), [&](const auto& item) { return item->name == name; });
  };
  std::string name = base;
  for (int n = 2; taken(name); ++n) name = base + " " + std::to_string(n);
  return name;
}

/// "Post 3" for a copy of "Post", or of "Post 2": the first number behind its own that is free.
template <class T>
std::string nextName(const Items<T>& items, const std::string& name) {
  const auto last = name.find_last_not_of("0123456789");
  const bool isNumbered =
      last != std::string::npos && name[last] == ' ' && last + 1 < name.size() && name.size() - last < 9;
  const std::string stem = isNumbered ? name.substr(0, last) : name;
  for (int n = isNumbered ? std::stoi(name.substr(last + 1)) + 1 : 2;; ++n) {
    const std::string next = stem + " " + std::to_string(n);
    if (std::none_of(items.begin(), items.end(), [&](const auto& item) { return item->name == next; }))
      return next;
  }
}

/// The item called `name`, or null; what the command line's names refer to.
template <class T>
const T* findNamed(const Items<T>& items, const std::string& name) {
  const auto found =
      std::find_if(items.begin(), items.end(), [&](const auto& item) { return item->name == name; });
  return found == items.end() ? nullptr : found->get();
}

/// Pixels of all fixtures; of a show that breaks the limits, at most the largest int.
int pixelCount(const Show& show);

/// The strip type of a fixture; a plain one stands in where the show has none by that id.
const StripType& stripTypeOf(const Show& show, const Fixture& fixture);

}  // namespace chispa
