// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/session/stage.h"

#include <QCoreApplication>
#include <QSettings>
#include <QtConcurrent>

#include "core/base/relativepath.h"
#include "core/edit/markedits.h"
#include "core/effect/showmedia.h"
#include "core/media/shown.h"
#include "desk/parts/format.h"
#include "desk/parts/language.h"
#include "desk/session/analyses.h"
#include "desk/session/background.h"
#include "desk/session/pools.h"

namespace chispa::desk {
namespace {

constexpr int kTick_ms = 33;
/// Where nothing has moved for a while, it is looked for less often.
constexpr int kRest_ms = 140;
constexpr qint64 kRestsAfter_ms = 1'000;
const QString kShowsAsStrips = QStringLiteral("showsAsStrips");

/// An exception ends here: it must not travel through Qt's event loop.
Result<std::shared_ptr<const CompiledShow>> compiledOf(const Show& show, const MusicLibrary& music,
                                                       const MediaLibrary& media,
                                                       const CompiledShow* before) {
  const auto failed = [](const std::string& why) {
    return Failure{sentence("The light of this show cannot be computed (%1).", why),
                   {},
                   "Undo the last change, or divide the show."};
  };
  try {
    return compile(show, music, media, before);
  } catch (const std::bad_alloc&) {
    return failed("there is not enough memory");
  } catch (const std::exception& error) {
    return failed(error.what());
  }
}

engine::Player::Options playerOptions(std::unique_ptr<engine::Sound> sound) {
  engine::Player::Options options;
  options.sound = std::move(sound);
  options.source.cid = link::randomCid();
  return options;
}

}  // namespace

Stage::Stage(Document& document, std::unique_ptr<engine::Sound> sound, QObject* parent)
    : QObject(parent), document_(document), player_(playerOptions(std::move(sound))) {
  showsAsStrips_ = QSettings().value(kShowsAsStrips, false).toBool();
  connect(&document_, &Document::opened, this, &Stage::adoptShow);
  connect(&document_, &Document::showChanged, this, [this] {
    screens_.allow();
    requestAll();
    followBeats();
    if (!score())
      openScore(document_.show().scores.empty() ? ScoreId{} : document_.show().scores.front()->id);
  });
  connect(&outside_, &OutsideFiles::allowed, this, [this] {
    std::erase_if(audioTrouble_, [this](const auto& one) { return !audio_.contains(one.first); });
    std::erase_if(mediaTrouble_, [this](const auto& one) { return !mediaAsked_.contains(one.first); });
    requestAll();
    emit audioChanged();
  });
  connect(&compileWatcher_, &QFutureWatcherBase::finished, this, &Stage::finishCompile);
  timer_.setTimerType(Qt::PreciseTimer);
  connect(&timer_, &QTimer::timeout, this, &Stage::tick);
  timer_.start(kTick_ms);
  sinceMoved_.start();
  adoptShow();
}

Stage::~Stage() {
  if (slowCancelled_) slowCancelled_->store(true);
  // What is under way works on values of its own, and its answers find nobody: it need not be waited for.
  leaving_->store(true);
  compileWatcher_.disconnect(this);
}

const Score* Stage::score() const {
  return chispa::find(document_.show().scores, score_);
}

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
  media_ = {};
  mediaTrouble_.clear();
  mediaAsked_.clear();
  part_.reset();
  const auto& scores = document_.show().scores;
  score_ = scores.empty() ? ScoreId{} : scores.front()->id;
  player_.seek(score_, Micros(0));
  requestAll();
  emit scoreChanged();
  emit audioChanged();
}

void Stage::openScore(ScoreId id) {
  if (id == score_) return;
  if (isPlaying()) pause();
  score_ = id;
  part_.reset();
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
    if (!outside_.mayRead(name)) {
      audioTrouble_[name] = OutsideFiles::trouble(name);
      continue;
    }
    audio_[name] = nullptr;
    ++analysing_;
    const auto path = resolvedBeside(document_.path(), name);
    runThen(
        pools::media(), this,
        [path, leaving = leaving_] { return analysedOnce(path, [&](double) { return !leaving->load(); }); },
        [this, name, generation = generation_](const Result<std::shared_ptr<const AnalysedAudio>>& result) {
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
    audioTrouble_[name] = said(result.failure());
  }
  emit audioChanged();
}

QString Stage::mediaTrouble(const std::string& name) const {
  const auto found = mediaTrouble_.find(name);
  return found == mediaTrouble_.end() ? QString() : found->second;
}

void Stage::requestAll() {
  requestAudio();
  requestMedia();
  requestCompile();
}

void Stage::requestMedia() {
  screens_.watch(screenParts(document_.show()));
  screens_.addTo(media_);
  for (const std::string& name : mediaNames(document_.show())) {
    const std::string file = fileOfMediaName(name);
    if (!outside_.mayRead(file)) {
      mediaTrouble_[name] = OutsideFiles::trouble(file);
      continue;
    }
    if (!mediaAsked_.insert(name).second) continue;
    ++loading_;
    runThen(
        pools::media(), this,
        [showFile = document_.path(), name, leaving = leaving_] {
          return decodeShown(showFile, name, leaving.get());
        },
        [this, name, generation = generation_](const Result<std::shared_ptr<const Media>>& result) {
          --loading_;
          if (generation != generation_) return;
          if (result)
            media_.add(name, *result);
          else
            mediaTrouble_[name] = said(result.failure());
          requestCompile();
        });
  }
}

void Stage::requestCompile() {
  if (compileWatcher_.isRunning())
    compileAgain_ = true;
  else
    startCompile();
}

void Stage::startCompile() {
  compiling_ = played();
  auto last = compileWatcher_.future();
  compileWatcher_.setFuture(QtConcurrent::run(
      &pools::compiling(), [show = compiling_, music = music_, media = media_, before = compiled_] {
        return compiledOf(show, music, media, before.get());
      }));
  letGoOn(pools::compiling(), std::move(last));
}

void Stage::finishCompile() {
  const auto result = compileWatcher_.result();
  compileTrouble_ = result ? QString() : said(result.failure());
  // What played before plays on where the new show cannot be computed.
  if (result) {
    stripView_.reset();
    letGoOn(pools::compiling(), std::exchange(compiled_, *result));
    compiledShow_ = compiling_;
    player_.setShow(compiling_, compiled_);
    for (const LookId look : std::exchange(toLight_, {})) play({LiveEvent::Kind::Light, look.value, 1});
  }
  emit compiledChanged();
  if (std::exchange(compileAgain_, false)) startCompile();
}

bool Stage::isUpToDate() const {
  return compiled_ && !compileWatcher_.isRunning() && !compileAgain_ && compiling_ == document_.show();
}

void Stage::settle() {
  // A compilation that has just ended is taken over first.
  QCoreApplication::processEvents();
  while (compileWatcher_.isRunning() || compileAgain_ || analysing_ > 0 || loading_ > 0 ||
         (compileTrouble_.isEmpty() &&
          frame_.size() != static_cast<std::size_t>(compiled_ ? compiled_->map->count() : 0))) {
    QCoreApplication::processEvents(QEventLoop::WaitForMoreEvents, 50);
    tick();
  }
}

void Stage::setShowsAsStrips(bool on) {
  showsAsStrips_ = on;
  QSettings().setValue(kShowsAsStrips, on);
  stripView_.reset();
  emit compiledChanged();
}

const PixelFrame& Stage::seenFrame() {
  if (!showsAsStrips_ || !compiled_ || frame_.size() != compiled_->map->positions.size()) return frame_;
  if (!stripView_) stripView_ = std::make_unique<StripView>(compiledShow_, *compiled_);
  return stripView_->seen(frame_, lit_ ? player_.output().lightLevel() : 1.f);
}

void Stage::switchLight(bool on) {
  if (on == lit_) return;
  if (on) screens_.allow();
  lit_ = on;
  player_.switchLight(on);
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
  return frameAmps(*compiled_->power, frame_, static_cast<double>(player_.output().lightLevel()));
}

void Stage::light(LookId look) {
  if (compiled_ && compiled_->live->lookOf(look) && !compileWatcher_.isRunning())
    play({LiveEvent::Kind::Light, look.value, 1});
  else
    toLight_.push_back(look);
}

void Stage::beginKeeping() {
  kept_.clear();
  isKeeping_ = true;
}

std::vector<LiveNote> Stage::endKeeping() {
  followHand();
  isKeeping_ = false;
  return std::exchange(kept_, {});
}

QString Stage::listenToDesks(std::optional<engine::DeskListener::Options> options) {
  const auto result = player_.listenToDesks(std::move(options));
  return result ? QString() : said(result.failure());
}

void Stage::answer(const LiveRequest& request) {
  switch (request.kind) {
    case LiveRequest::Kind::Light:
      return switchLight(!lit_);
    case LiveRequest::Kind::Play:
      return togglePlaying();
    case LiveRequest::Kind::Stop:
      pause();
      return seek(Micros(0));
    case LiveRequest::Kind::GoTo:
      return seek(request.at);
    case LiveRequest::Kind::SetListOn:
    case LiveRequest::Kind::SetListBack:
      emit setListAsked(request.kind == LiveRequest::Kind::SetListOn);
      return;
    case LiveRequest::Kind::Follow:
      return follow(request);
    default:
      return;
  }
}

void Stage::follow(const LiveRequest& request) {
  const Score* open = score();
  if (!open) return;
  const CodeStep step = player_.codeStep(request, open->length);
  switch (step.kind) {
    case CodeStep::Kind::Nothing:
      return;
    case CodeStep::Kind::Seek:
      return seek(step.at);
    case CodeStep::Kind::Pause:
      if (isPlaying()) pause();
      return seek(step.at);
    case CodeStep::Kind::Play: {
      // Whatever part is chosen, or looped: the time code leads.
      Micros from = step.at;
      prepareSound(from);
      player_.play(open->id, from, {Micros(0), open->length, false});
      return;
    }
  }
}

void Stage::followHand() {
  live_ = player_.output().live().snapshot();
  while (const auto request = player_.output().live().takeRequest()) answer(*request);
  // Notes that nobody wants are taken out too: there is room for so many only.
  while (const auto note = player_.output().live().takeNote())
    if (isKeeping_) kept_.push_back(*note);
}

void Stage::tick() {
  followHand();
  const PixelFrame& latest = player_.latestFrame();
  const Micros now = position();
  hasMoved_ = std::exchange(shownAt_, now) != now || !(frame_ == latest);
  if (hasMoved_) {
    frame_.r = latest.r;
    frame_.g = latest.g;
    frame_.b = latest.b;
  }
  if (hasMoved_ || isPlaying()) sinceMoved_.start();
  const bool rests = sinceMoved_.isValid() && sinceMoved_.elapsed() > kRestsAfter_ms;
  if (const int wanted = rests ? kRest_ms : kTick_ms; timer_.interval() != wanted) timer_.setInterval(wanted);
  if (isPlaying() != wasPlaying_) {
    wasPlaying_ = isPlaying();
    emit playingChanged();
  }
  emit ticked();
}

}  // namespace chispa::desk
