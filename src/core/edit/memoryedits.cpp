// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/edit/memoryedits.h"

#include <algorithm>

#include "core/show/limits.h"

namespace chispa {
namespace {

MemoryScene sceneOf(SceneId source) {
  MemoryScene scene;
  if (const auto* score = std::get_if<ScoreId>(&source)) {
    scene.kind = PieceKind::Score;
    scene.score = *score;
  } else {
    scene.look = std::get<LookId>(source);
  }
  return scene;
}

/// Gives every number that names a scene what `renamed` says of it; both from 1, 0 is no scene.
template <class F>
void renameScenes(ControllerMemory& memory, F renamed) {
  const auto change = [&](int& number) {
    if (number > 0) number = renamed(number);
  };
  change(memory.atPowerOn);
  for (MemoryScene& scene : memory.scenes) change(scene.next);
}

template <class Memory>
auto* startsIn(Memory& memory, int scene) {
  if (scene < 0) return &memory.darkens;
  const auto index = static_cast<std::size_t>(scene);
  return index < memory.scenes.size() ? &memory.scenes[index].starts : nullptr;
}

/// Builds scenes from the lines that a rule plays.
class AlmanacScenes {
 public:
  AlmanacScenes(const Show& show, ControllerMemory& memory) : show_(show), memory_(memory) {}

  /// The first scene of what a rule plays, from 0; nothing if it plays nothing that is there.
  std::optional<std::size_t> add(const Rule& rule) {
    const std::size_t first = memory_.scenes.size();
    if (rule.kind == PieceKind::Score) addScore(rule.score, 0);
    if (rule.kind == PieceKind::Look) addLook(rule.look, {});
    if (rule.kind == PieceKind::SetList) addList(rule.list);
    return memory_.scenes.size() > first ? std::optional(first) : std::nullopt;
  }

 private:
  void addScore(ScoreId id, int rounds) {
    if (!find(show_.scores, id)) return;
    memory_.scenes.push_back(sceneOf(id));
    memory_.scenes.back().rounds = rounds;
  }
  void addLook(LookId id, std::optional<Micros> length) {
    if (!find(show_.looks, id)) return;
    memory_.scenes.push_back(sceneOf(id));
    if (!length) return;
    memory_.scenes.back().length = *length;
    memory_.scenes.back().rounds = 1;
  }
  void addList(SetListId id) {
    const SetList* list = find(show_.setLists, id);
    if (!list) return;
    const std::size_t first = memory_.scenes.size();
    for (const SetListItem& line : list->items) {
      const std::size_t before = memory_.scenes.size();
      if (line.kind == PieceKind::Score) addScore(line.score, line.repeats);
      if (line.kind == PieceKind::Look) addLook(line.look, line.length * line.repeats);
      if (memory_.scenes.size() > before) memory_.scenes.back().then = AfterScene::Next;
    }
    if (memory_.scenes.size() == first) return;
    MemoryScene& last = memory_.scenes.back();
    // A list that plays once ends in the dark; what is counted comes again for ever.
    last.then = list->rounds == 1 ? AfterScene::Dark : AfterScene::Next;
    last.next = static_cast<int>(first) + 1;
  }

  const Show& show_;
  ControllerMemory& memory_;
};

}  // namespace

void addMemoryScene(Show& show, ControllerId controller, SceneId source) {
  changeMemory(show, controller, [&](ControllerMemory& memory) {
    if (memory.scenes.size() < limits::kMaxMemoryScenes) memory.scenes.push_back(sceneOf(source));
  });
}

void removeMemoryScene(Show& show, ControllerId controller, std::size_t scene) {
  changeMemory(show, controller, [&](ControllerMemory& memory) {
    if (scene >= memory.scenes.size()) return;
    memory.scenes.erase(memory.scenes.begin() + static_cast<std::ptrdiff_t>(scene));
    const int gone = static_cast<int>(scene) + 1;
    renameScenes(memory, [gone](int number) {
      return number == gone ? 0 : number > gone ? number - 1 : number;
    });
  });
}

void moveMemoryScene(Show& show, ControllerId controller, std::size_t from, std::size_t to) {
  changeMemory(show, controller, [&](ControllerMemory& memory) {
    if (from >= memory.scenes.size() || to >= memory.scenes.size() || from == to) return;
    const auto at = [&](std::size_t i) { return memory.scenes.begin() + static_cast<std::ptrdiff_t>(i); };
    if (from < to)
      std::rotate(at(from), at(from + 1), at(to + 1));
    else
      std::rotate(at(to), at(from), at(from + 1));
    const int was = static_cast<int>(from) + 1, is = static_cast<int>(to) + 1;
    renameScenes(memory, [was, is](int number) {
      if (number == was) return is;
      if (was < is && number > was && number <= is) return number - 1;
      if (is < was && number >= is && number < was) return number + 1;
      return number;
    });
  });
}

std::vector<MemoryStart>* startsOf(ControllerMemory& memory, int scene) {
  return startsIn(memory, scene);
}
const std::vector<MemoryStart>* startsOf(const ControllerMemory& memory, int scene) {
  return startsIn(memory, scene);
}

ControllerMemory memoryOfAlmanac(const Show& show, const ControllerMemory& like) {
  ControllerMemory memory = like;
  memory.scenes.clear();
  memory.darkens.clear();
  memory.atPowerOn = 0;
  AlmanacScenes scenes(show, memory);
  for (const auto& rule : show.rules) {
    if (rule->isOff || memory.scenes.size() >= limits::kMaxMemoryScenes) continue;
    if (const auto first = scenes.add(*rule))
      memory.scenes[*first].starts.push_back({0, rule->from, rule->days});
    else if (rule->kind == PieceKind::Silence)
      memory.darkens.push_back({0, rule->from, rule->days});
    memory.darkens.push_back({0, rule->until, rule->days});
  }
  return memory;
}

}  // namespace chispa
