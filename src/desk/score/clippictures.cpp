// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/score/clippictures.h"

#include "core/preview/clippicture.h"
#include "desk/session/background.h"

namespace chispa::desk {
namespace {

/// One compilation may be under way when a change comes; the next one has it.
constexpr int kLateCompilations = 2;

QImage draw(const CompiledScore& score, const std::vector<CompiledClip>& clips, const ZoneCells& cells,
            TimeSpan span, QSize size) {
  const ClipPicture picture = drawClips(score, clips, cells, span, size.width(), size.height());
  return QImage(picture.rgba.data(), picture.width, picture.height, QImage::Format_RGBX8888).copy();
}

std::shared_ptr<const Palette> paletteOf(const Show& show, PaletteId id) {
  const auto found =
      std::find_if(show.palettes.begin(), show.palettes.end(), [id](const auto& p) { return p->id == id; });
  return found == show.palettes.end() ? nullptr : *found;
}

}  // namespace

ClipPictures::ClipPictures(const Session& session, QObject* parent) : QObject(parent), session_(session) {
  // One worker: the output thread and the window keep a core each.
  pool_.setMaxThreadCount(1);
  connect(&session_.document, &Document::opened, this, [this] { entries_.clear(); });
  connect(&session_.document, &Document::showChanged, this, &ClipPictures::noteChange);
  connect(&session_.stage, &Stage::compiledChanged, this, &ClipPictures::noteCompiled);
  // Music that has been listened to, or another score.
  for (const auto signal : {&Stage::audioChanged, &Stage::scoreChanged})
    connect(&session_.stage, signal, this, [this] { awaited_ = kLateCompilations; });
}

ClipPictures::~ClipPictures() {
  pool_.clear();
  pool_.waitForDone();
}

void ClipPictures::noteChange(const Show& before) {
  const Show& now = session_.show();
  const Score* score = session_.stage.score();
  const Score* was = score ? chispa::find(before.scores, score->id) : nullptr;
  const bool isSameTime = !score || score == was ||
                          (was && was->lanes == score->lanes && was->audio == score->audio &&
                           was->audioStart == score->audioStart);
  const bool isSamePlan = sameItems(before.zones, now.zones) && sameItems(before.fixtures, now.fixtures) &&
                          sameItems(before.stripTypes, now.stripTypes);
  if (!isSameTime || !isSamePlan) awaited_ = kLateCompilations;
}

void ClipPictures::noteCompiled() {
  ++compilations_;
  if (awaited_ == 0) return;
  --awaited_;
  ++grounds_;
}

int ClipPictures::groundOf(const Clip& clip) const {
  const Effect* effect = findEffect(clip.effect);
  // Blocks, other zones' light, files and the screen: what these show may be changed by anything.
  const bool isOwn = !clip.block && effect && !effect->prepare && !effect->screenOf &&
                     std::none_of(effect->params.begin(), effect->params.end(),
                                  [](const ParamSpec& spec) { return spec.kind == ParamKind::Zone; });
  return isOwn ? grounds_ : -2 - compilations_;
}

std::shared_ptr<const PaletteTable> ClipPictures::tableFor(PaletteId id) {
  const auto palette = paletteOf(session_.show(), id);
  auto& [of, table] = tables_[id];
  if (!table || of != palette) {
    of = palette;
    table = tableOf(session_.show(), id);
  }
  return table;
}

QImage ClipPictures::picture(const std::shared_ptr<const Clip>& clip, int width, int height) {
  // Coarse steps of width, so that zooming does not draw everything anew at each notch.
  constexpr int kWidthStep = 32;
  constexpr int kMaxWidth = 1024;
  const QSize size(std::clamp((width + kWidthStep - 1) / kWidthStep * kWidthStep, kWidthStep, kMaxWidth),
                   std::max(4, height));
  Entry& entry = entries_[clip->id];
  const auto palette = paletteOf(session_.show(), clip->palette);
  // A new compilation alone redraws only what it may have changed: zones and music.
  const int ground = groundOf(*clip);
  const bool same =
      entry.clip == clip && entry.palette == palette && entry.size == size && entry.ground == ground;
  if (!same && !entry.wanted && session_.stage.compiled()) {
    entry.clip = clip;
    entry.palette = palette;
    entry.size = size;
    entry.ground = ground;
    request(entry);
  }
  return entry.image;
}

void ClipPictures::request(Entry& entry) {
  const Score* score = session_.stage.score();
  const auto whole = session_.stage.compiled();
  const CompiledScore* compiled = score ? whole->scoreOf(score->id) : nullptr;
  if (!compiled) return;
  const auto stave = std::find_if(compiled->staves.begin(), compiled->staves.end(),
                                  [&](const auto& s) { return s.zone == entry.clip->zone; });
  if (stave == compiled->staves.end()) return;
  entry.wanted = true;
  ++drawing_;
  std::vector<CompiledClip> clips;
  for (const Clip& one : unfolded(session_.show(), *entry.clip))
    if (one.zone == entry.clip->zone)
      clips.push_back(compileClip(one, tableFor(one.palette), session_.stage.media()));
  std::stable_sort(clips.begin(), clips.end(),
                   [](const CompiledClip& a, const CompiledClip& b) { return a.layer < b.layer; });
  const TimeSpan span{entry.clip->start, entry.clip->length};
  runThen(
      pool_, this,
      [whole, score = compiled, clips = std::move(clips), cells = stave->cells, span, size = entry.size] {
        return draw(*score, clips, *cells, span, size);
      },
      [this, id = entry.clip->id](const QImage& image) {
        --drawing_;
        const auto found = entries_.find(id);
        if (found == entries_.end()) return;
        found->second.image = image;
        found->second.wanted = false;
        emit drawn();
      });
}

}  // namespace chispa::desk
