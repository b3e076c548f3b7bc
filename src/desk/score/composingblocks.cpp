// SPDX-License-Identifier: GPL-3.0-or-later
// Building blocks, own effects, and what all clips that are alike share.
#include "core/edit/scoreedits.h"
#include "desk/parts/format.h"
#include "desk/parts/language.h"
#include "desk/score/chosenthing.h"
#include "desk/score/composing.h"
#include "desk/score/timelineview.h"

namespace chispa::desk {

void Composing::makeBlock() {
  const ClipIds ids = session_.selection.clips();
  if (ids.empty()) return emit told(tr("Choose the clips that the block is to be made of first."));
  change(tr("make a block"),
         [&](Show& show, ScoreId id) { chispa::makeBlock(show, id, ids, tr("Block").toStdString()); });
}

void Composing::dissolveBlock() {
  run(tr("dissolve a block"), [ids = session_.selection.clips()](Show& show, ScoreId id) {
    ClipList all;
    for (const ClipId clip : ids)
      for (const ClipId made : chispa::dissolveBlock(show, id, clip)) all.push_back(made);
    return all;
  });
}

void Composing::openBlock() {
  const Score* score = session_.stage.score();
  const ClipIds ids = session_.selection.clips();
  const Clip* place = score && ids.size() == 1 ? findClip(*score, ids.front()) : nullptr;
  if (!place || !place->block) return emit told(tr("Choose a block on a stave to open it."));
  opened_ = place->block;
  run(tr("open the block"),
      [clip = place->id](Show& show, ScoreId id) { return chispa::dissolveBlock(show, id, clip); });
  emit told(
      tr("The block's clips lie open. Change them, select all that shall be in it, and close it with "
         "Ctrl+Shift+Return."));
}

void Composing::closeBlock() {
  const Block* block = chispa::find(session_.show().blocks, opened_);
  const ClipIds ids = session_.selection.clips();
  if (!block) return emit told(tr("No block is open. Choose one on a stave and open it first."));
  if (ids.empty())
    return emit told(tr("Select the clips that shall be in the block “%1”.").arg(text(block->name)));
  change(tr("change the block"),
         [&](Show& show, ScoreId id) { chispa::makeBlock(show, id, ids, {}, opened_); });
  opened_ = {};
}

void Composing::saveOwn() {
  const Score* score = session_.stage.score();
  const ClipIds ids = session_.selection.clips();
  const Clip* clip = score && !ids.empty() ? findClip(*score, ids.front()) : nullptr;
  const Effect* effect = clip ? findEffect(clip->effect) : nullptr;
  if (!effect) return emit told(tr("Choose a clip whose effect you want to keep first."));
  OwnEffectId made;
  change(tr("keep an effect"), [&](Show& show, ScoreId) {
    made = saveOwnEffect(show, *clip, tr("My %1").arg(said(effect->name)).toStdString());
  });
  emit offered(wordsOf(made));
}

void Composing::swapEffect() {
  swap(tr("swap the effect in the section"),
       [this](Show& show, ScoreId id, TimeSpan section, const Clip& like) {
         replaceEffect(show, id, section, like.effect, chosenThing(show, timeline_.chosenEffect()).effect);
       });
}

void Composing::swapPalette() {
  swap(tr("swap the palette in the section"),
       [this](Show& show, ScoreId id, TimeSpan section, const Clip& like) {
         replacePalette(show, id, section, like.palette, timeline_.paletteForNew());
       });
}

}  // namespace chispa::desk
