// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/check/scoresearch.h"

#include <algorithm>
#include <cctype>
#include <unordered_map>

#include "core/effect/effect.h"

namespace chispa {
namespace {

/// Small letters of ASCII; all else stays as it is.
std::string folded(std::string text) {
  std::transform(text.begin(), text.end(), text.begin(),
                 [](unsigned char c) { return static_cast<char>(std::tolower(c)); });
  return text;
}

/// Names of a list, by their id, folded.
template <class T>
auto namesOf(const Items<T>& items) {
  std::unordered_map<decltype(T::id), std::string> names;
  for (const auto& item : items) names[item->id] = folded(item->name);
  return names;
}

template <class Names, class Id>
std::string nameIn(const Names& names, Id id) {
  const auto found = names.find(id);
  return found == names.end() ? std::string() : found->second;
}

}  // namespace

ScoreMatches searchScore(const Show& show, const Score& score, const std::string& words) {
  ScoreMatches found;
  const std::string wanted = folded(words);
  if (wanted.empty()) return found;
  const auto has = [&](const std::string& text) { return text.find(wanted) != std::string::npos; };
  const auto zones = namesOf(show.zones);
  const auto palettes = namesOf(show.palettes);
  const auto blocks = namesOf(show.blocks);
  std::vector<const Clip*> clips;
  for (const auto& clip : score.clips) {
    const Effect* effect = findEffect(clip->effect);
    bool matches = has(folded(clip->effect)) || (effect && has(folded(effect->name))) ||
                   has(nameIn(zones, clip->zone)) || has(nameIn(palettes, clip->palette)) ||
                   has(nameIn(blocks, clip->block));
    for (const auto& [key, value] : clip->params)
      if (const auto* text = std::get_if<std::string>(&value)) matches = matches || has(folded(*text));
    if (matches) clips.push_back(clip.get());
  }
  std::stable_sort(clips.begin(), clips.end(),
                   [](const Clip* a, const Clip* b) { return a->start < b->start; });
  for (const Clip* clip : clips) found.clips.push_back(clip->id);
  for (const MarkLane& lane : score.lanes)
    for (const Mark& mark : lane.marks)
      if (has(folded(mark.text))) found.marks.push_back(mark);
  std::stable_sort(found.marks.begin(), found.marks.end(),
                   [](const Mark& a, const Mark& b) { return a.at < b.at; });
  return found;
}

}  // namespace chispa
