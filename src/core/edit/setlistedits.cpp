// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/edit/setlistedits.h"

#include <algorithm>

#include "core/setlist/setlistwalk.h"

namespace chispa {

SetListId addSetList(Show& show, const std::string& name) {
  SetList list;
  list.id = show.newId<SetListId>();
  list.name = freeName(show.setLists, name);
  const SetListId id = list.id;
  put(show.setLists, std::move(list));
  return id;
}

void deleteSetList(Show& show, SetListId id) {
  remove(show.setLists, id);
}

void insertLines(Show& show, SetListId id, std::size_t at, const std::vector<SetListItem>& lines) {
  changeItem(show.setLists, id, [&](SetList& list) {
    list.items.insert(list.items.begin() + static_cast<std::ptrdiff_t>(std::min(at, list.items.size())),
                      lines.begin(), lines.end());
  });
}

void moveLine(Show& show, SetListId id, std::size_t from, std::size_t to) {
  changeItem(show.setLists, id, [&](SetList& list) {
    if (from >= list.items.size() || to > list.items.size()) return;
    const auto first = list.items.begin();
    const auto place = [first](std::size_t i) { return first + static_cast<std::ptrdiff_t>(i); };
    if (to > from)
      std::rotate(place(from), place(from + 1), place(to));
    else
      std::rotate(place(to), place(from), place(from + 1));
  });
}

void deleteLine(Show& show, SetListId id, std::size_t line) {
  changeItem(show.setLists, id, [&](SetList& list) {
    if (line < list.items.size()) list.items.erase(list.items.begin() + static_cast<std::ptrdiff_t>(line));
  });
}

SetListItem lineOf(ScoreId score) {
  SetListItem line;
  line.score = score;
  return line;
}

SetListItem lineOf(LookId look) {
  SetListItem line;
  line.kind = PieceKind::Look;
  line.look = look;
  return line;
}

SetListItem lineOf(SetListId list) {
  SetListItem line;
  line.kind = PieceKind::SetList;
  line.list = list;
  return line;
}

SetListItem lineOfSilence(Micros length) {
  SetListItem line;
  line.kind = PieceKind::Silence;
  line.length = length;
  return line;
}

std::string nameOfLine(const Show& show, const SetListItem& line) {
  return nameOfPlayed(show, line.kind, line.score, line.look, line.list);
}

RuleId addRule(Show& show, const std::string& name) {
  Rule rule;
  rule.id = show.newId<RuleId>();
  rule.name = freeName(show.rules, name);
  if (!show.setLists.empty()) {
    rule.list = show.setLists.front()->id;
  } else if (!show.scores.empty()) {
    rule.kind = PieceKind::Score;
    rule.score = show.scores.front()->id;
  } else if (!show.looks.empty()) {
    rule.kind = PieceKind::Look;
    rule.look = show.looks.front()->id;
  }
  const RuleId id = rule.id;
  put(show.rules, std::move(rule));
  return id;
}

void deleteRule(Show& show, RuleId id) {
  remove(show.rules, id);
}

void moveRule(Show& show, RuleId id, std::size_t to) {
  const auto found =
      std::find_if(show.rules.begin(), show.rules.end(), [id](const auto& rule) { return rule->id == id; });
  if (found == show.rules.end()) return;
  auto rule = *found;
  show.rules.erase(found);
  show.rules.insert(show.rules.begin() + static_cast<std::ptrdiff_t>(std::min(to, show.rules.size())),
                    std::move(rule));
}

}  // namespace chispa
