// SPDX-License-Identifier: GPL-3.0-or-later
// How Stage plays: from where, how fast, and what is heard.
#include <QSettings>

#include "core/base/relativepath.h"
#include "core/edit/markedits.h"
#include "core/music/clicks.h"
#include "core/music/stretch.h"
#include "desk/session/background.h"
#include "desk/session/pools.h"
#include "desk/session/stage.h"

namespace chispa::desk {
namespace {

const QString kHearsScrubbing = QStringLiteral("hearsScrubbing");

}  // namespace

void Stage::setPart(std::optional<TimeSpan> part) {
  if (part && part->length.count() <= 0) part.reset();
  if (part_ == part) return;
  part_ = part;
  if (isPlaying()) play();
}

void Stage::setRate(double rate) {
  if (rate == rate_) return;
  rate_ = rate;
  requestSlow();
  if (isPlaying()) play();
}

void Stage::requestSlow() {
  const auto music = audio();
  if (rate_ == 1 || !music || (slow_ && slowOf_ == music->clip && slowRate_ == rate_)) return;
  if (slowCancelled_) slowCancelled_->store(true);
  slowCancelled_ = std::make_shared<std::atomic<bool>>(false);
  runThen(
      pools::media(), this,
      [clip = music->clip, rate = rate_, cancelled = slowCancelled_] {
        return stretched(*clip, rate, *cancelled);
      },
      [this, clip = music->clip, rate = rate_](const std::shared_ptr<const AudioClip>& made) {
        if (!made || rate != rate_) return;
        slow_ = made;
        slowOf_ = clip;
        slowRate_ = rate;
        if (isPlaying()) play();
      });
}

void Stage::prepareSound(Micros& from) {
  const auto music = audio();
  const Micros begins = score()->audioStart;
  if (rate_ != 1) {
    requestSlow();
    const bool isReady = music && slow_ && slowOf_ == music->clip && slowRate_ == rate_;
    // The slow sound begins where the score's does; before that there is silence.
    if (isReady) return player_.setSound(shifted(slow_, micros(seconds(begins) / rate_)), {Micros(0), rate_});
    return player_.setSound(nullptr, {Micros(0), rate_});
  }
  std::shared_ptr<const AudioClip> clip = music ? music->clip : nullptr;
  if (clip && begins.count() != 0) clip = shifted(clip, begins);
  if (hearsBeats_) clip = withClicks(clip, clicked_ = beatMarksOf(*score()));
  if (!countsIn_ || isPlaying()) return player_.setSound(clip);
  const MusicGrid grid = gridOf(*score());
  const auto perBar =
      std::max(1L, std::lround(grid.beatAt(from) - grid.beatAt(grid.barStart(grid.barAt(from) - 1))));
  std::vector<Micros> clicks;
  const Micros beat = grid.beatLength(from);
  for (long i = 0; i < perBar; ++i) clicks.push_back(beat * i);
  const Micros lead = beat * perBar;
  const engine::SoundPlace place{from - lead, 1};
  player_.setSound(withCountIn(clip, from, clicks, lead), place);
  from -= lead;
}

void Stage::setHearsBeats(bool on) {
  if (on == hearsBeats_) return;
  hearsBeats_ = on;
  emit hearsBeatsChanged(on);
  if (isPlaying()) play();
}

void Stage::followBeats() {
  if (hearsBeats_ && isPlaying() && score() && beatMarksOf(*score()) != clicked_) play();
}

void Stage::play() {
  screens_.allow();
  const Score* open = score();
  if (!open || open->length.count() == 0) return;
  const TimeSpan part = part_.value_or(TimeSpan{Micros(0), open->length});
  const bool isInside = position() >= part.from && position() < part.end();
  Micros from = isInside ? position() : part.from;
  prepareSound(from);
  player_.play(open->id, from, {part.from, part.end(), looping_});
  tick();
}

std::optional<std::shared_ptr<const AudioClip>> Stage::soundOf(const Score& score) const {
  if (score.audio.empty() || audioTrouble_.contains(score.audio)) return nullptr;
  const auto found = audio_.find(score.audio);
  if (found == audio_.end() || !found->second) return std::nullopt;
  std::shared_ptr<const AudioClip> clip = found->second->clip;
  return score.audioStart.count() == 0 ? clip : shifted(clip, score.audioStart);
}

void Stage::showPerformed(const engine::Stagehand::ScorePlay& play) {
  screens_.allow();
  part_.reset();
  if (std::exchange(looping_, play.isLooped) != play.isLooped) emit loopingChanged();
  if (std::exchange(score_, play.score) != play.score) {
    emit scoreChanged();
    emit audioChanged();
  }
  tick();
}

void Stage::playClicks() {
  constexpr Micros kMinute{60'000'000};
  player_.setSound(makeClicks(kMinute));
  player_.play(ScoreId{}, Micros(0), {Micros(0), kMinute, true});
  tick();
}

void Stage::pause() {
  player_.pause();
  tick();
}

void Stage::togglePlaying() {
  isPlaying() ? pause() : play();
}

void Stage::seek(Micros position) {
  goTo(position, false);
}

void Stage::scrub(Micros position) {
  goTo(position, hearsScrubbing());
}

bool Stage::hearsScrubbing() const {
  return QSettings().value(kHearsScrubbing, true).toBool();
}

void Stage::setHearsScrubbing(bool on) {
  QSettings().setValue(kHearsScrubbing, on);
}

void Stage::endScrub() {
  player_.hush();
}

void Stage::goTo(Micros position, bool isHeard) {
  const Score* open = score();
  if (!open) return;
  const Micros within = std::clamp(position, Micros(0), std::max(Micros(0), open->length));
  isHeard ? player_.scrub(open->id, within) : player_.seek(open->id, within);
  hasMoved_ = true;
  emit ticked();
}

void Stage::setLooping(bool on) {
  if (on == looping_) return;
  looping_ = on;
  player_.setLoop(on);
  emit loopingChanged();
}

}  // namespace chispa::desk
