// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/session/stage.h"

#include <QCoreApplication>
#include <QThreadPool>
#include <QtConcurrent>

#include "desk/parts/format.h"

namespace chispa::desk {
namespace {

constexpr int kTick_ms = 33;

engine::Player::Options playerOptions(std::unique_ptr<engine::Sound> sound) {
  engine::Player::Options options;
  options.sound = std::move(sound);
  options.source.cid = link::randomCid();
  return options;
}

}  // namespace

Stage::Stage(Document& document, std::unique_ptr<engine::Sound> sound, QObject* parent)
    : QObject(parent), document_(document), player_(playerOptions(std::move(sound))) {
  connect(&document_, &Document::opened, this, &Stage::adoptShow);
  connect(&document_, &Document::showChanged, this, [this] {
    requestAudio();
    requestCompile();
    if (!score()) openScore(document_.show().scores.empty() ? ScoreId{} : document_.show().scores.front()->id);
  });
  connect(&compileWatcher_, &QFutureWatcherBase::finished, this, &Stage::finishCompile);
  timer_.setTimerType(Qt::PreciseTimer);
  connect(&timer_, &QTimer::timeout, this, &Stage::tick);
  timer_.start(kTick_ms);
  adoptShow();
}

Stage::~Stage() {
  compileWatcher_.disconnect(this);
  compileWatcher_.waitForFinished();
  QThreadPool::globalInstance()->waitForDone();
}

const Score* Stage::score() const { return chispa::find(document_.show().scores, score_); }

void Stage::adoptShow() {
  if (isPlaying()) pause();
  trial_.reset();
  // Another show has other addresses: nothing goes there until the user says so.
  switchLight(false);
  // Names of audio files are relative to the show: another show's are others.
  ++generation_;
  audio_.clear();
  audioTrouble_.clear();
  music_.clear();
  const auto& scores = document_.show().scores;
  score_ = scores.empty() ? ScoreId{} : scores.front()->id;
  player_.seek(score_, Micros(0));
  requestAudio();
  requestCompile();
  emit scoreChanged();
  emit audioChanged();
}

void Stage::openScore(ScoreId id) {
  if (id == score_) return;
  if (isPlaying()) pause();
  score_ = id;
  player_.seek(id, Micros(0));
  emit scoreChanged();
  emit audioChanged();
}

std::shared_ptr<const AnalysedAudio> Stage::audio() const {
  const Score* open = score();
  if (!open) return nullptr;
  const auto found = audio_.find(open->audio);
  return found == audio_.end() ? nullptr : found->second;
}

QString Stage::audioTrouble(const std::string& name) const {
  const auto found = audioTrouble_.find(name);
  return found == audioTrouble_.end() ? QString() : found->second;
}

void Stage::requestAudio() {
  for (const auto& score : document_.show().scores) {
    const std::string name = score->audio;
    if (name.empty() || audio_.contains(name)) continue;
    audio_[name] = nullptr;
    ++analysing_;
    const auto path = audioPath(document_.path(), name);
    QtConcurrent::run([path] { return analyseAudio(path); }).then(this, [this, name, generation = generation_](const Result<std::shared_ptr<const AnalysedAudio>>& result) {
      --analysing_;
      if (generation == generation_) finishAudio(name, result);
    });
  }
}

void Stage::finishAudio(const std::string& name, const Result<std::shared_ptr<const AnalysedAudio>>& result) {
  if (result) {
    audio_[name] = *result;
    audioTrouble_.erase(name);
    music_[name] = (*result)->features;
    requestCompile();
  } else {
    audioTrouble_[name] = text(result.failure().text());
  }
  emit audioChanged();
}

void Stage::requestCompile() {
  if (compileWatcher_.isRunning())
    compileAgain_ = true;
  else
    startCompile();
}

void Stage::startCompile() {
  compiling_ = played();
  compileWatcher_.setFuture(QtConcurrent::run([show = compiling_, music = music_] { return compile(show, music); }));
}

void Stage::finishCompile() {
  compiled_ = compileWatcher_.result();
  player_.setShow(compiling_, compiled_);
  emit compiledChanged();
  if (std::exchange(compileAgain_, false)) startCompile();
}

void Stage::settle() {
  // A compilation that has just ended is taken over first.
  QCoreApplication::processEvents();
  while (compileWatcher_.isRunning() || compileAgain_ || analysing_ > 0 ||
         frame_.size() != static_cast<std::size_t>(compiled_ ? compiled_->map.count() : 0)) {
    QCoreApplication::processEvents(QEventLoop::WaitForMoreEvents, 50);
    tick();
  }
}

void Stage::play() {
  const Score* open = score();
  if (!open || open->length.count() == 0) return;
  const auto music = audio();
  player_.setSound(music ? music->clip : nullptr);
  const Micros from = position() >= open->length ? Micros(0) : position();
  player_.play(open->id, from, open->length, looping_);
  tick();
}

void Stage::playClicks() {
  constexpr Micros kMinute{60'000'000};
  player_.setSound(makeClicks(kMinute));
  player_.play(ScoreId{}, Micros(0), kMinute, true);
  tick();
}

void Stage::pause() {
  player_.pause();
  tick();
}

void Stage::togglePlaying() { isPlaying() ? pause() : play(); }

void Stage::seek(Micros position) {
  const Score* open = score();
  if (!open) return;
  player_.seek(open->id, std::clamp(position, Micros(0), std::max(Micros(0), open->length)));
  emit ticked();
}

void Stage::setLooping(bool on) {
  if (on == looping_) return;
  looping_ = on;
  player_.setLoop(on);
  emit loopingChanged();
}

void Stage::switchLight(bool on) {
  if (on == lit_) return;
  lit_ = on;
  player_.output().switchLight(on);
  emit lightChanged();
}

void Stage::setSignal(std::optional<engine::TestSignal> signal) {
  signal_ = std::move(signal);
  player_.output().setSignal(signal_);
}

void Stage::setTrial(std::optional<Show> trial) {
  if (!trial && !trial_) return;
  if (trial && trial_ && *trial == *trial_) return;
  trial_ = std::move(trial);
  requestCompile();
}

AmpsByVolts Stage::ampsNow() const {
  if (!compiled_ || !lit_ || player_.isBlackout()) return {};
  return frameAmps(compiled_->power, frame_, static_cast<double>(player_.master()));
}

void Stage::tick() {
  const PixelFrame& latest = player_.latestFrame();
  frame_.r = latest.r;
  frame_.g = latest.g;
  frame_.b = latest.b;
  if (isPlaying() != wasPlaying_) {
    wasPlaying_ = isPlaying();
    emit playingChanged();
  }
  emit ticked();
}

}  // namespace chispa::desk
