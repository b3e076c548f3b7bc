// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/board/say.h"

#include "core/effect/effect.h"

namespace chispa::board {
namespace {

Saying sayingOf(const std::string& key) {
  for (const auto* sayings :
       {&flowSayings(), &sparkSayings(), &stepSayings(), &textureSayings(), &formulaSayings()})
    if (const auto found = sayings->find(key); found != sayings->end()) return found->second;
  return nullptr;
}

}  // namespace

std::optional<CellLight> say(ClipTerms& clip) {
  const Saying saying = sayingOf(clip.clip().effect->key);
  if (!saying) clip.refuse("“" + clip.clip().effect->name + "” cannot be said as a program");
  if (clip.refusal()) return std::nullopt;
  CellLight light = saying(clip);
  if (clip.refusal()) return std::nullopt;
  return light;
}

bool isSayable(const std::string& key) {
  return sayingOf(key) != nullptr;
}

}  // namespace chispa::board
