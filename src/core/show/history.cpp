// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/show/history.h"

#include <algorithm>
#include <unordered_map>

#include "core/base/listchange.h"

namespace chispa {
namespace {

/// Kinds of things, in the upper half of a thing's number.
enum class Kind : std::uint64_t {
  Show,
  StripType,
  Fixture,
  Zone,
  Underlay,
  Supply,
  Controller,
  Palette,
  Score,
  Block,
  OwnEffect,
  Look,
  Binding,
  DeskInput,
  SetList,
  Rule,
  Almanac,
  Clip
};

std::uint64_t numberOf(Kind kind, std::uint32_t id) {
  return static_cast<std::uint64_t>(kind) << 32 | id;
}

/// Items that are in one list and not, as they are, in the other.
template <class List>
void addChanged(Kind kind, const List& before, const List& after, std::vector<std::uint64_t>& things) {
  const ListChange change = changeBetween(before, after);
  std::unordered_map<const void*, std::uint32_t> known;
  for (std::size_t i = change.first; i < change.endBefore; ++i)
    known.emplace(before[i].get(), before[i]->id.value);
  for (std::size_t i = change.first; i < change.endAfter; ++i)
    if (known.erase(after[i].get()) == 0) things.push_back(numberOf(kind, after[i]->id.value));
  for (const auto& [item, id] : known) things.push_back(numberOf(kind, id));
}

void addChangedScores(const Show& before, const Show& after, std::vector<std::uint64_t>& things) {
  for (const auto& score : after.scores) {
    const Score* old = find(before.scores, score->id);
    if (old == score.get()) continue;
    const std::size_t count = things.size();
    if (old) addChanged(Kind::Clip, old->clips, score->clips, things);
    if (things.size() == count) things.push_back(numberOf(Kind::Score, score->id.value));
  }
  for (const auto& score : before.scores)
    if (!find(after.scores, score->id)) things.push_back(numberOf(Kind::Score, score->id.value));
}

bool haveOneInCommon(const std::vector<std::uint64_t>& a, const std::vector<std::uint64_t>& b) {
  for (auto i = a.begin(), j = b.begin(); i != a.end() && j != b.end();) {
    if (*i == *j) return true;
    *i < *j ? void(++i) : void(++j);
  }
  return false;
}

}  // namespace

std::vector<std::uint64_t> changedThings(const Show& before, const Show& after) {
  std::vector<std::uint64_t> things;
  if (before.name != after.name) things.push_back(numberOf(Kind::Show, 0));
  addChanged(Kind::StripType, before.stripTypes, after.stripTypes, things);
  addChanged(Kind::Fixture, before.fixtures, after.fixtures, things);
  addChanged(Kind::Zone, before.zones, after.zones, things);
  addChanged(Kind::Underlay, before.underlays, after.underlays, things);
  addChanged(Kind::Supply, before.supplies, after.supplies, things);
  addChanged(Kind::Controller, before.controllers, after.controllers, things);
  addChanged(Kind::Palette, before.palettes, after.palettes, things);
  addChanged(Kind::Block, before.blocks, after.blocks, things);
  addChanged(Kind::OwnEffect, before.ownEffects, after.ownEffects, things);
  addChanged(Kind::Look, before.looks, after.looks, things);
  addChanged(Kind::Binding, before.bindings, after.bindings, things);
  addChanged(Kind::DeskInput, before.deskInputs, after.deskInputs, things);
  addChanged(Kind::SetList, before.setLists, after.setLists, things);
  addChanged(Kind::Rule, before.rules, after.rules, things);
  if (before.almanac != after.almanac) things.push_back(numberOf(Kind::Almanac, 0));
  addChangedScores(before, after, things);
  std::sort(things.begin(), things.end());
  things.erase(std::unique(things.begin(), things.end()), things.end());
  return things;
}

History::History(Show first) {
  steps_.push_back({{}, {}, {}, std::move(first)});
}

bool History::apply(const std::string& name, const Edit& edit, const std::string& mergeKey) {
  Show next = now();
  edit(next);
  return take(name, mergeKey, std::move(next), !mergeKey.empty() && steps_[at_].mergeKey == mergeKey);
}

bool History::complete(const std::string& name, const Edit& edit) {
  Show next = now();
  edit(next);
  return take(name, {}, std::move(next), steps_[at_].name == name);
}

bool History::take(const std::string& name, const std::string& mergeKey, Show next, bool mayMerge) {
  if (next == now()) return false;
  steps_.resize(at_ + 1, Step{});
  auto things = changedThings(now(), next);
  if (mayMerge && canUndo() && haveOneInCommon(things, steps_[at_].things)) {
    steps_[at_].show = std::move(next);
    steps_[at_].things = std::move(things);
    return true;
  }
  steps_.push_back({name, mergeKey, std::move(things), std::move(next)});
  if (steps_.size() > kMax) steps_.erase(steps_.begin());
  at_ = steps_.size() - 1;
  return true;
}

void History::seal() {
  steps_[at_].mergeKey.clear();
}

void History::undo() {
  if (!canUndo()) return;
  seal();
  --at_;
  seal();
}

void History::redo() {
  if (!canRedo()) return;
  ++at_;
  seal();
}

std::vector<std::string> History::names() const {
  std::vector<std::string> all;
  all.reserve(steps_.size());
  for (const Step& step : steps_) all.push_back(step.name);
  return all;
}

void History::goTo(std::size_t position) {
  seal();
  at_ = std::min(position, steps_.size() - 1);
  seal();
}

void History::forgetAfter(std::size_t position) {
  if (position >= at_) return;
  goTo(position);
  steps_.resize(at_ + 1, Step{});
}

}  // namespace chispa
