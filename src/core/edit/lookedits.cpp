// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/edit/lookedits.h"

#include <algorithm>

#include "core/edit/planedits.h"
#include "core/render/compiled.h"

namespace chispa {
namespace {

/// What effects with a beginning and an end take for a round.
constexpr Micros kRound{4'000'000};

std::shared_ptr<const Clip> layerOf(Show& show, Clip clip, int layer) {
  clip.id = show.newId<ClipId>();
  clip.layer = layer;
  clip.start = Micros(0);
  clip.fadeIn = clip.fadeOut = Micros(0);
  clip.over = 0;
  if (clip.length.count() <= 0) clip.length = kRound;
  return std::make_shared<const Clip>(std::move(clip));
}

void fillStep(Show& show, LookStep& step, const std::vector<Clip>& layers) {
  int number = 0;
  for (const Clip& layer : layers) step.layers.push_back(layerOf(show, layer, number++));
}

/// The clips of a score at an instant, from the lowest up, as they are laid.
std::vector<Clip> clipsAt(const Show& show, const Score& score, Micros at) {
  std::vector<Clip> all;
  const auto isThere = [at](const Clip& clip) { return at >= clip.start && at < clip.end(); };
  for (auto zone = score.staves.rbegin(); zone != score.staves.rend(); ++zone) {
    std::vector<Clip> own;
    for (const auto& clip : score.clips) {
      if (!isThere(*clip) || clip->over > 0) continue;
      for (Clip& one : unfolded(show, *clip))
        if (one.zone == *zone && isThere(one)) own.push_back(std::move(one));
    }
    std::stable_sort(own.begin(), own.end(), [](const Clip& a, const Clip& b) { return a.layer < b.layer; });
    all.insert(all.end(), own.begin(), own.end());
  }
  std::vector<Clip> over;
  for (const auto& clip : score.clips)
    if (isThere(*clip) && clip->over > 0) over.push_back(*clip);
  std::stable_sort(over.begin(), over.end(), [](const Clip& a, const Clip& b) { return a.over < b.over; });
  all.insert(all.end(), over.begin(), over.end());
  return all;
}

}  // namespace

const std::vector<std::string>& padKeys() {
  static const std::vector<std::string> keys{"1", "2", "3", "4", "5", "6", "7", "8", "9", "Q",
                                             "W", "E", "R", "T", "Y", "U", "I", "O", "P"};
  return keys;
}

std::string freePadKey(const Show& show) {
  for (const std::string& key : padKeys())
    if (std::none_of(show.looks.begin(), show.looks.end(),
                     [&](const auto& look) { return look->key == key; }))
      return key;
  return {};
}

LookId addLook(Show& show, const std::string& name, const std::vector<Clip>& layers) {
  Look look;
  look.id = show.newId<LookId>();
  look.name = freeName(show.looks, name);
  look.key = freePadKey(show);
  fillStep(show, look.steps.front(), layers);
  const LookId id = look.id;
  put(show.looks, std::move(look));
  return id;
}

LookId addLook(Show& show, const std::string& name, const std::vector<ZoneId>& zones,
               const std::string& effect, PaletteId palette) {
  std::vector<Clip> layers;
  for (const ZoneId zone : zones) {
    Clip layer;
    layer.zone = zone;
    layer.effect = effect;
    layer.palette = palette;
    layers.push_back(std::move(layer));
  }
  return addLook(show, name, layers);
}

LookId keepLook(Show& show, const std::string& name, ScoreId score, Micros at, std::span<const LookId> lit,
                bool withLevels) {
  std::vector<Clip> layers;
  if (const Score* from = find(show.scores, score)) layers = clipsAt(show, *from, at);
  for (const LookId id : lit)
    if (const Look* look = find(show.looks, id))
      for (const auto& layer : look->steps.front().layers) layers.push_back(*layer);
  if (layers.empty()) return {};
  if (!withLevels)
    for (Clip& layer : layers) layer.strength = 1;
  return addLook(show, name, layers);
}

LookId keepLook(Show& show, const std::string& name, const Clip& clip) {
  std::vector<Clip> layers = unfolded(show, clip);
  return addLook(show, name, layers);
}

LookId duplicateLook(Show& show, LookId id) {
  const Look* found = find(show.looks, id);
  if (!found) return {};
  Look copy = *found;
  copy.id = show.newId<LookId>();
  copy.name = nextName(show.looks, found->name);
  copy.key = freePadKey(show);
  for (LookStep& step : copy.steps)
    for (auto& layer : step.layers) layer = layerOf(show, *layer, layer->layer);
  const LookId made = copy.id;
  put(show.looks, std::move(copy));
  return made;
}

void deleteLook(Show& show, LookId id) {
  remove(show.looks, id);
  std::erase_if(show.bindings, [id](const auto& binding) { return binding->target.look == id; });
  for (const auto& look : Items<Look>(show.looks))
    if (look->next == id)
      changeItem(show.looks, look->id, [](Look& other) {
        other.next = {};
        if (other.end == LookEnd::GoOn) other.end = LookEnd::Stay;
      });
}

void moveLook(Show& show, LookId id, std::size_t to) {
  auto& looks = show.looks;
  const auto from =
      std::find_if(looks.begin(), looks.end(), [id](const auto& look) { return look->id == id; });
  if (from == looks.end()) return;
  const auto look = *from;
  looks.erase(from);
  looks.insert(looks.begin() + static_cast<std::ptrdiff_t>(std::min(to, looks.size())), look);
}

void addStep(Show& show, LookId id, std::size_t after) {
  const Look* found = find(show.looks, id);
  if (!found || after >= found->steps.size()) return;
  Look changed = *found;
  LookStep step = changed.steps[after];
  for (auto& layer : step.layers) layer = layerOf(show, *layer, layer->layer);
  changed.steps.insert(changed.steps.begin() + static_cast<std::ptrdiff_t>(after) + 1, std::move(step));
  put(show.looks, std::move(changed));
}

void deleteStep(Show& show, LookId id, std::size_t step) {
  changeItem(show.looks, id, [step](Look& look) {
    if (look.steps.size() > 1 && step < look.steps.size())
      look.steps.erase(look.steps.begin() + static_cast<std::ptrdiff_t>(step));
  });
}

ClipId addLayer(Show& show, LookId look, std::size_t step, ZoneId zone, const std::string& effect,
                PaletteId palette) {
  const Look* found = find(show.looks, look);
  if (!found || step >= found->steps.size()) return {};
  Look changed = *found;
  auto& layers = changed.steps[step].layers;
  int top = 0;
  for (const auto& layer : layers) top = std::max(top, layer->layer + 1);
  Clip clip;
  clip.zone = zone;
  clip.effect = effect;
  clip.palette = palette;
  layers.push_back(layerOf(show, std::move(clip), top));
  const ClipId id = layers.back()->id;
  put(show.looks, std::move(changed));
  return id;
}

void deleteLayer(Show& show, LookId look, ClipId layer) {
  changeItem(show.looks, look, [layer](Look& changed) {
    for (LookStep& step : changed.steps)
      std::erase_if(step.layers, [layer](const auto& one) { return one->id == layer; });
  });
}

}  // namespace chispa
