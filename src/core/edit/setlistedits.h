// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/edit/planedits.h"
#include "core/show/show.h"

namespace chispa {

/// An empty set list of that name, or the first like it that is free.
SetListId addSetList(Show& show, const std::string& name);
/// Takes the list away; what named it tells so as a problem.
void deleteSetList(Show& show, SetListId id);
/// Puts lines into a list so that the first stands at place `at`, or at its end.
void insertLines(Show& show, SetListId id, std::size_t at, const std::vector<SetListItem>& lines);
/// Moves a line so that it stands before what is at place `to` now.
void moveLine(Show& show, SetListId id, std::size_t from, std::size_t to);
void deleteLine(Show& show, SetListId id, std::size_t line);
/// Changes a line by `change`.
template <class F>
void changeLine(Show& show, SetListId id, std::size_t line, F change) {
  changeItem(show.setLists, id, [&](SetList& list) {
    if (line < list.items.size()) change(list.items[line]);
  });
}
/// A line that plays this, with what is usual for its kind.
SetListItem lineOf(ScoreId score);
SetListItem lineOf(LookId look);
SetListItem lineOf(SetListId list);
SetListItem lineOfSilence(Micros length);
/// What a line is called: the name of what it plays; empty if that is gone.
std::string nameOfLine(const Show& show, const SetListItem& line);

/// Adds a rule that plays the first thing there is.
RuleId addRule(Show& show, const std::string& name);
void deleteRule(Show& show, RuleId id);
/// Moves it to place `to` of the list: of rules alike in priority the first one plays.
void moveRule(Show& show, RuleId id, std::size_t to);

}  // namespace chispa
