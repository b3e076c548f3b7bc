// SPDX-License-Identifier: GPL-3.0-or-later
// What TimelineView says of the thing under the pointer, and of all clips to those who cannot see them.
#include "core/effect/effect.h"
#include "desk/parts/format.h"
#include "desk/parts/language.h"
#include "desk/score/timelineview.h"

namespace chispa::desk {
namespace {

QString titleOf(const Show& show, const Clip& clip) {
  if (clip.block) {
    const auto* block = chispa::find(show.blocks, clip.block);
    return block ? text(block->name) : QString();
  }
  const Effect* effect = findEffect(clip.effect);
  return effect ? said(effect->name) : text(clip.effect);
}

/// Where it plays, when, and in what colours.
QString detailOf(const Show& show, const Clip& clip) {
  const Zone* zone = chispa::find(show.zones, clip.zone);
  const Palette* palette = chispa::find(show.palettes, clip.palette);
  return TimelineView::tr("%1, %2 to %3, palette %4")
      .arg(zone ? text(zone->name) : QString(), timeText(clip.start), timeText(clip.start + clip.length),
           palette ? text(palette->name) : QString());
}

}  // namespace

QString TimelineView::tipAt(QPointF at) const {
  if (const auto clip = clipAt(at))
    return titleOf(session_.show(), *clip) + QLatin1Char('\n') + detailOf(session_.show(), *clip);
  const auto id = markAt(at);
  if (!id) return {};
  for (const MarkLane& lane : session_.stage.score()->lanes)
    for (const Mark& mark : lane.marks)
      if (mark.id == *id)
        return text(mark.text.empty() ? lane.name : mark.text) + QLatin1Char('\n') + timeText(mark.at);
  return {};
}

int TimelineView::toldCount() const {
  const Score* score = session_.stage.score();
  return score ? static_cast<int>(score->clips.size()) : 0;
}

ToldPiece TimelineView::told(int i) const {
  const Clip& clip = *session_.stage.score()->clips[static_cast<std::size_t>(i)];
  const StaveRow* row = rowOf(clip.zone);
  const QRect box = row ? boxOf(clip, *row).toAlignedRect() : QRect();
  return {titleOf(session_.show(), clip), detailOf(session_.show(), clip), box.translated(viewport()->pos()),
          session_.selection.has(clip.id)};
}

void TimelineView::selectTold(int i) {
  session_.selection.select(ClipIds{session_.stage.score()->clips[static_cast<std::size_t>(i)]->id});
}

int TimelineView::selectedTold() const {
  const Score* score = session_.stage.score();
  const ClipIds ids = session_.selection.clips();
  if (!score || ids.empty()) return -1;
  const auto found = std::find_if(score->clips.begin(), score->clips.end(),
                                  [&](const auto& clip) { return clip->id == ids.front(); });
  return found == score->clips.end() ? -1 : static_cast<int>(found - score->clips.begin());
}

}  // namespace chispa::desk
