// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/score/composing.h"

#include <QInputDialog>

#include "core/edit/markedits.h"
#include "core/edit/pictureedits.h"
#include "core/edit/scoreedits.h"
#include "core/edit/sectionlight.h"
#include "core/edit/staveedits.h"
#include "core/edit/transfer.h"
#include "desk/parts/format.h"
#include "desk/score/chosenthing.h"
#include "desk/score/timelineview.h"
#include "desk/session/parcelboard.h"

namespace chispa::desk {
namespace {

/// "Post" of "Post 3".
std::string stemOf(const std::string& name) {
  return name.substr(0, name.find_last_not_of("0123456789 ") + 1);
}

}  // namespace

Composing::Composing(const Session& session, TimelineView& timeline, QObject* parent)
    : QObject(parent), session_(session), timeline_(timeline) {}

std::optional<Clip> Composing::pattern() const {
  const Score* score = session_.stage.score();
  if (!score) return std::nullopt;
  const ClipIds ids = session_.selection.clips();
  if (const Clip* clip = ids.empty() ? nullptr : findClip(*score, ids.front())) return *clip;
  const ZoneId zone = timeline_.chosenZone();
  if (!zone) return std::nullopt;
  Clip fresh;
  fresh.zone = zone;
  const ChosenThing thing = chosenThing(session_.show(), timeline_.chosenEffect());
  fresh.effect = thing.effect;
  fresh.params = thing.params;
  fresh.block = thing.block;
  fresh.palette = timeline_.paletteForNew();
  fresh.start = session_.stage.position();
  return fresh;
}

void Composing::change(const QString& name, const std::function<void(Show&, ScoreId)>& edit,
                       const QString& mergeKey) {
  const Score* score = session_.stage.score();
  if (!score) return;
  session_.edit(
      name, [&, id = score->id](Show& show) { edit(show, id); }, mergeKey);
  session_.selection.prune(session_.show(), session_.stage.score());
}

void Composing::run(const QString& name, const std::function<ClipList(Show&, ScoreId)>& edit) {
  ClipList made;
  change(name, [&](Show& show, ScoreId id) { made = edit(show, id); });
  if (!made.empty()) session_.selection.select(ClipIds(made));
}

std::vector<ZoneId> Composing::selectedZones(const Score& score) const {
  std::vector<ZoneId> chosen;
  for (const ClipId id : session_.selection.clips())
    if (const Clip* clip = findClip(score, id);
        clip && std::find(chosen.begin(), chosen.end(), clip->zone) == chosen.end())
      chosen.push_back(clip->zone);
  return chosen;
}

std::vector<ZoneId> Composing::zonesAlike(ZoneId zone) const {
  const Score* score = session_.stage.score();
  const std::vector<ZoneId> chosen = selectedZones(*score);
  if (chosen.size() > 1) return chosen;
  const Zone* own = chispa::find(session_.show().zones, zone);
  std::vector<ZoneId> alike;
  for (const ZoneId stave : score->staves) {
    const Zone* other = chispa::find(session_.show().zones, stave);
    const bool isNumbered =
        other && !other->name.empty() && std::isdigit(static_cast<unsigned char>(other->name.back()));
    if (own && other && (stave == zone || (isNumbered && stemOf(other->name) == stemOf(own->name))))
      alike.push_back(stave);
  }
  return alike;
}

void Composing::fillOver(LaneKind kind, int every, std::vector<ZoneId> zones, const QString& name) {
  const Score* score = session_.stage.score();
  const auto like = pattern();
  if (!score || !like) return emit told(tr("There is no stave to fill. Open a score, and choose a stave."));
  const TimeSpan section = sectionAt(*score, like->start);
  Fill fill{{}, section.end(), std::move(zones), every};
  constexpr Micros kHair{1000};
  for (const Micros at : instantsOf(*score, kind))
    if (at >= like->start - kHair && at < section.end()) fill.instants.push_back(at);
  if (fill.instants.empty())
    return emit told(tr("There are no such marks from here to the end of the section."));
  const ClipIds replaced = session_.selection.clips();
  run(name, [&](Show& show, ScoreId id) {
    deleteClips(show, id, replaced);
    return fillInstants(show, id, *like, fill);
  });
}

void Composing::fill(LaneKind kind, int every) {
  const auto like = pattern();
  fillOver(kind, every, like ? std::vector<ZoneId>{like->zone} : std::vector<ZoneId>{},
           tr("fill every mark"));
}

void Composing::alternate(LaneKind kind) {
  const auto like = pattern();
  fillOver(kind, 1, like ? zonesAlike(like->zone) : std::vector<ZoneId>{}, tr("alternate over staves"));
}

void Composing::repeatToSectionEnd() {
  const Score* score = session_.stage.score();
  const ClipIds ids = session_.selection.clips();
  if (!score || ids.empty()) return emit told(tr("Choose the clips to repeat first."));
  const TimeSpan span = spanOf(*score, ids);
  run(tr("repeat to the end of the section"), [&](Show& show, ScoreId id) {
    ClipList all = repeatUntil(show, id, ids, sectionAt(*score, span.from).end());
    all.insert(all.begin(), ids.begin(), ids.end());
    return all;
  });
}

void Composing::split() {
  const ClipIds ids = session_.selection.clips();
  run(tr("split"),
      [&](Show& show, ScoreId id) { return splitClips(show, id, ids, session_.stage.position()); });
}

void Composing::stretch(double factor) {
  const Score* score = session_.stage.score();
  const ClipIds ids = session_.selection.clips();
  if (!score || ids.empty()) return;
  const Micros pivot = spanOf(*score, ids).from;
  change(tr("stretch clips"), [&](Show& show, ScoreId id) { stretchClips(show, id, ids, pivot, factor); });
}

void Composing::contentOffset(int beats) {
  const Score* score = session_.stage.score();
  if (!score) return;
  const Micros by = gridOf(*score).beatLength(session_.stage.position()) * beats;
  change(tr("content offset"),
         [&, ids = session_.selection.clips()](Show& show, ScoreId id) { shiftContent(show, id, ids, by); });
}

void Composing::copy() {
  const Score* score = session_.stage.score();
  if (!score || session_.selection.clips().empty()) return;
  copied_.clear();
  const ClipIds ids = session_.selection.clips();
  eachClip(*score, ClipSet(ids.begin(), ids.end()), [this](const Clip& clip) {
    copied_.push_back(clip);
    return true;
  });
  putOnClipboard(parcelOf(session_.show(), score->id, ids));
}

void Composing::cut() {
  copy();
  change(tr("cut clips"),
         [ids = session_.selection.clips()](Show& show, ScoreId id) { deleteClips(show, id, ids); });
}

void Composing::paste() {
  if (!isOwnClipboard())
    if (const auto parcel = parcelOnClipboard(); parcel && *parcel && !(*parcel)->scores.empty())
      return pasteParcel(**parcel);
  if (copied_.empty())
    return emit told(tr("There are no copied clips. Choose some, and press Ctrl+C first."));
  run(tr("paste clips"), [this](Show& show, ScoreId id) {
    return pasteClips(show, id, copied_, session_.stage.position(), timeline_.chosenZone());
  });
}

void Composing::pasteParcel(const Show& parcel) {
  if (!session_.stage.score())
    return emit told(
        tr("There is no score to put the clips into.\nOpen music, or make a silent score, in the Score "
           "workspace first."));
  Unpacked done;
  run(tr("paste clips"), [&](Show& show, ScoreId id) {
    done = unpack(show, parcel, {id, session_.stage.position()});
    return done.clips;
  });
  if (done.withoutZone > 0)
    emit told(counted(
        done.withoutZone, tr("One clip was left out: this show has no zone of that name, or not its block."),
        tr("%1 clips were left out: this show has no zones of those names, or not their blocks.")));
}

void Composing::randomise() {
  constexpr double kShare = 0.25;
  change(tr("randomise"), [ids = session_.selection.clips()](Show& show, ScoreId id) {
    chispa::randomise(show, id, ids, kShare, show.newId<ClipId>().value);
  });
}

namespace {

const char* const kNoPicture =
    QT_TRANSLATE_NOOP("Composing", "Select clips that show a picture first: Picture, Drawing or Spyhole.");

}  // namespace

void Composing::turnPicture(double by_deg) {
  const Score* score = session_.stage.score();
  const ClipIds ids = score ? pictureClips(*score, session_.selection.clips()) : ClipIds{};
  if (ids.empty()) return emit told(tr(kNoPicture));
  change(tr("turn a picture"), [&](Show& show, ScoreId id) { turnPictures(show, id, ids, by_deg); });
}

void Composing::switchPicture(const QString& name, const char* key) {
  const Score* score = session_.stage.score();
  const ClipIds ids = score ? pictureClips(*score, session_.selection.clips()) : ClipIds{};
  if (ids.empty()) return emit told(tr(kNoPicture));
  change(name, [&](Show& show, ScoreId id) { switchPictures(show, id, ids, key); });
}

void Composing::swap(const QString& name,
                     const std::function<void(Show&, ScoreId, TimeSpan, const Clip&)>& edit) {
  const Score* score = session_.stage.score();
  const auto like = pattern();
  if (!score || !like || session_.selection.clips().empty())
    return emit told(tr("Choose a clip that is like those to be changed first."));
  const TimeSpan section = sectionAt(*score, like->start);
  change(name, [&](Show& show, ScoreId id) { edit(show, id, section, *like); });
}

void Composing::closeGap() {
  const Score* score = session_.stage.score();
  if (!score || session_.selection.clips().empty()) return;
  const TimeSpan span = spanOf(*score, session_.selection.clips());
  change(tr("delete the time of the selection"),
         [span](Show& show, ScoreId id) { rippleDelete(show, id, span); });
}

void Composing::insertBar() {
  const Score* score = session_.stage.score();
  if (!score) return;
  const MusicGrid grid = gridOf(*score);
  const double bar = grid.barAt(session_.stage.position());
  change(tr("insert a bar"), [&](Show& show, ScoreId id) {
    rippleInsert(
        show, id,
        {session_.stage.position(), grid.barStart(std::floor(bar) + 1) - grid.barStart(std::floor(bar))});
  });
}

void Composing::moveStave(bool up) {
  change(tr("move a stave"), [&, zone = timeline_.chosenZone()](Show& show, ScoreId id) {
    chispa::moveStave(show, id, zone, up);
  });
}

void Composing::newFolder() {
  const Score* score = session_.stage.score();
  if (!score) return;
  std::vector<ZoneId> zones = selectedZones(*score);
  if (zones.empty() && timeline_.chosenZone()) zones = {timeline_.chosenZone()};
  if (zones.empty())
    return emit told(tr("Choose the stave, or clips of the staves, that the folder is to hold first."));
  const std::string name = freeFolderName(*score, tr("Folder").toStdString());
  change(tr("new folder of staves"), [&](Show& show, ScoreId id) { putInFolder(show, id, zones, name); });
  timeline_.editFolderName(text(name));
}

void Composing::joinFolder(const QString& name) {
  change(tr("put a stave into a folder"), [&, zone = timeline_.chosenZone()](Show& show, ScoreId id) {
    putInFolder(show, id, {zone}, name.toStdString());
  });
}

void Composing::leaveFolder() {
  change(tr("move a stave out of its folder"),
         [zone = timeline_.chosenZone()](Show& show, ScoreId id) { takeOutOfFolder(show, id, zone); });
}

void Composing::renameFolder() {
  const Score* score = session_.stage.score();
  const StaveFolder* folder = score ? folderOf(*score, timeline_.chosenZone()) : nullptr;
  if (!folder) return emit told(tr("The chosen stave is in no folder. Choose one that is first."));
  timeline_.editFolderName(text(folder->name));
}

void Composing::removeStave() {
  change(tr("remove a stave"),
         [zone = timeline_.chosenZone()](Show& show, ScoreId id) { chispa::removeStave(show, id, zone); });
}

void Composing::addStaves(const std::vector<ZoneId>& zones) {
  change(tr("add staves"), [&, before = timeline_.chosenZone()](Show& show, ScoreId id) {
    for (const ZoneId zone : zones) placeStave(show, id, zone, before);
  });
}

std::vector<ZoneId> Composing::zonesWithoutStave() const {
  const Score* score = session_.stage.score();
  std::vector<ZoneId> found;
  for (const auto& zone : session_.show().zones)
    if (score && std::find(score->staves.begin(), score->staves.end(), zone->id) == score->staves.end())
      found.push_back(zone->id);
  return found;
}

void Composing::beginSection() {
  const Score* score = session_.stage.score();
  if (!score) return;
  const MarkLane* lane = laneOf(*score, LaneKind::Sections);
  const std::string name = tr("Section %1").arg(lane ? lane->marks.size() + 1 : 1).toStdString();
  MarkId made;
  change(tr("begin a section"), [&](Show& show, ScoreId id) {
    made =
        addMark(show, id, LaneKind::Sections, tr("Sections").toStdString(), session_.stage.position(), name);
  });
  if (!session_.stage.isPlaying()) session_.selection.select(MarkIds{made});
}

void Composing::stepMark(bool forward) {
  const Score* score = session_.stage.score();
  if (!score) return;
  const Micros from = session_.stage.position();
  const Mark* next = nullptr;
  for (const MarkLane& lane : score->lanes) {
    if (lane.kind == LaneKind::Beats || lane.kind == LaneKind::Bars) continue;
    for (const Mark& mark : lane.marks) {
      const bool isBeyond = forward ? mark.at > from : mark.at < from;
      if (isBeyond && (!next || std::chrono::abs(mark.at - from) < std::chrono::abs(next->at - from)))
        next = &mark;
    }
  }
  if (!next)
    return emit told(forward ? tr("There is no mark behind the playhead.")
                             : tr("There is no mark before the playhead."));
  session_.stage.seek(next->at);
  timeline_.reveal(next->at);
  session_.selection.select(MarkIds{next->id});
}

void Composing::copySectionLight() {
  const Score* score = session_.stage.score();
  if (!score) return;
  const Micros at = session_.stage.position();
  if (sectionsLike(*score, at).empty())
    return emit told(
        tr("No other section is called like the one at the playhead. Sections that sound alike have the same "
           "letter."));
  run(tr("copy the light of a section"),
      [at](Show& show, ScoreId id) { return chispa::copySectionLight(show, id, at); });
}

void Composing::takeLight() {
  const Score* score = session_.stage.score();
  if (!score) return emit told(tr("Open a score first."));
  QStringList names;
  std::vector<ScoreId> others;
  for (const auto& other : session_.show().scores)
    if (other->id != score->id) {
      others.push_back(other->id);
      names << QStringLiteral("%1 · %2").arg(others.size()).arg(text(other->name));
    }
  if (others.empty()) return emit told(tr("There is no other score in this show."));
  bool isChosen = false;
  const QString name = QInputDialog::getItem(&timeline_, tr("Take the light of another score"),
                                             tr("Its clips come bar by bar, in place of those here."), names,
                                             0, false, &isChosen);
  if (!isChosen) return;
  run(tr("take the light of a score"), [from = others.at(static_cast<std::size_t>(names.indexOf(name)))](
                                           Show& show, ScoreId id) { return takeLightOf(show, id, from); });
}

void Composing::togglePart() {
  const Score* score = session_.stage.score();
  if (!score) return;
  if (session_.stage.part()) return session_.stage.setPart({});
  const ClipIds ids = session_.selection.clips();
  session_.stage.setPart(ids.empty() ? sectionAt(*score, session_.stage.position()) : spanOf(*score, ids));
}

}  // namespace chispa::desk
