// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/session/nightdesk.h"

#include "desk/parts/format.h"
#include "desk/parts/language.h"
#include "desk/session/background.h"
#include "desk/session/pools.h"
#include "engine/night/joininghand.h"

namespace chispa::desk {

using engine::MonoTime;

/// Performs on the stage, which has the sounds of all scores.
class NightDesk::Hand final : public engine::JoiningHand {
 public:
  explicit Hand(Stage& stage) : JoiningHand(stage.player()), stage_(stage) {}

  void switchLight(bool on) override { stage_.switchLight(on); }
  /// The sound has come late: the score goes on with it.
  void resumeWithSound() {
    if (!asked() || hasSound() || !stage_.isPlaying()) return;
    const Score* score = scoreOf(asked()->score);
    if (!score || !soundNow(*score)) return;
    ScorePlay again = *asked();
    again.from = stage_.position();
    again.fade = Micros(0);
    playScore(again);
  }

 protected:
  const Score* scoreOf(ScoreId id) const override {
    return chispa::find(stage_.document().show().scores, id);
  }
  std::optional<Clip> soundIfThere(const Score& score) override { return stage_.soundOf(score); }
  void begun(const ScorePlay& play) override { stage_.showPerformed(play); }

 private:
  Stage& stage_;
};

NightDesk::NightDesk(const Session& session, QObject* parent)
    : QObject(parent),
      session_(session),
      hand_(std::make_unique<Hand>(session.stage)),
      watch_(*hand_, nullptr),
      meter_(session.stage.player(), watch_),
      clock_(std::make_unique<engine::SystemWallClock>()) {
  connect(&session_.stage, &Stage::ticked, this, &NightDesk::tick);
  connect(&session_.stage, &Stage::audioChanged, this, [this] { hand_->resumeWithSound(); });
  connect(&session_.stage, &Stage::setListAsked, this, [this](bool on) { on ? skip() : back(); });
  connect(&session_.document, &Document::showChanged, this, &NightDesk::adoptShow);
  connect(&session_.document, &Document::opened, this, [this] {
    // Another show: its nights begin when someone asks for them.
    setWatching(false);
    stop();
    adoptShow();
  });
  adoptShow();
}

NightDesk::~NightDesk() {
  watch_.stop(clock_->now(), "the window was closed");
}

void NightDesk::adoptShow() {
  const auto trouble = watch_.setShow(session_.show());
  if (trouble && isWatching()) setWatching(false);
  // The sun is not asked at every edit of something else.
  const Show& show = session_.show();
  if (show.rules == rules_ && show.almanac == almanac_) return;
  rules_ = show.rules;
  almanac_ = show.almanac;
  tonightAt_ = {};
  emit almanacChanged();
  emit changed();
}

QString NightDesk::setWatching(bool on) {
  if (on == isWatching()) return {};
  if (!on) {
    watch_.stop(clock_->now(), "it was switched off");
    guard_.reset();
    emit changed();
    return {};
  }
  if (const auto trouble = watch_.setShow(session_.show())) return text(trouble->text());
  if (!log_) {
    auto log = engine::NightLog::open(engine::NightLog::usualFile());
    // The night goes on without it, and troubles() says so.
    if (log)
      log_ = *std::move(log);
    else
      logTrouble_ = said(log.failure().what);
    watch_.setLog(log_.get());
  }
  stop();
  guardSleep();
  watch_.begin(clock_->now());
  emit changed();
  return {};
}

/// The system is asked on a worker: it may take its time.
void NightDesk::guardSleep() {
  runThen(
      pools::network(), this,
      [] {
        return std::make_shared<Result<engine::SleepGuard>>(
            engine::SleepGuard::take("Chispa watches the almanac"));
      },
      [this](const std::shared_ptr<Result<engine::SleepGuard>>& guard) {
        sleepTrouble_ = *guard ? QString() : said(guard->failure().what);
        if (isWatching() && *guard) guard_ = *std::move(*guard);
        emit changed();
      });
}

void NightDesk::tick() {
  const MonoTime now = session_.stage.player().clock().now();
  if (isWatching()) {
    watch_.tick(clock_->now(), now);
    if (now - measuredAt_ >= std::chrono::seconds(1)) {
      measuredAt_ = now;
      meter_.tick(session_.show(), now);
      if (log_) logTrouble_ = text(log_->trouble());
      emit changed();
    }
  } else {
    watch_.performer().tick(now);
  }
  const auto piece = performer().piece();
  if (piece == shownPiece_ && watch_.slot() == shownSlot_) return;
  shownPiece_ = piece;
  shownSlot_ = watch_.slot();
  tonightAt_ = {};
  emit changed();
}

void NightDesk::play(SetListId list, double speed) {
  if (isWatching()) setWatching(false);
  watch_.performer().setSpeed(speed);
  const auto seed = static_cast<std::uint64_t>(clock_->now().time_since_epoch().count());
  watch_.performer().begin(session_.show(), {.kind = PieceKind::SetList, .list = list}, seed, Micros(0),
                           session_.stage.player().clock().now());
  tick();
}

void NightDesk::stop() {
  if (performer().isPerforming()) watch_.performer().end(Micros(400'000));
  watch_.performer().setSpeed(1);
  tick();
}

void NightDesk::skip() {
  watch_.performer().skip(session_.stage.player().clock().now());
  tick();
}

void NightDesk::back() {
  watch_.performer().back(session_.stage.player().clock().now());
  tick();
}

void NightDesk::jump(std::size_t line) {
  watch_.performer().jump(line, session_.stage.player().clock().now());
  tick();
}

void NightDesk::playNext(std::size_t line) {
  watch_.performer().playNext(line);
  emit changed();
}

Micros NightDesk::played() const {
  return performer().piece() ? performer().played(session_.stage.player().clock().now()) : Micros(0);
}

void NightDesk::hold(bool on) {
  tonightAt_ = {};
  watch_.hold(on);
  emit changed();
}

void NightDesk::playLonger(int minutes) {
  tonightAt_ = {};
  watch_.playLonger(std::chrono::minutes(minutes));
  emit changed();
}

void NightDesk::setClock(std::unique_ptr<engine::WallClock> clock) {
  clock_ = std::move(clock);
  emit changed();
}

QString NightDesk::playing() const {
  const auto& piece = performer().piece();
  if (piece) return text(engine::nameOfPiece(session_.show(), *piece));
  const Score* score = session_.stage.score();
  return score && session_.stage.isPlaying() ? text(score->name) : QString();
}

QString NightDesk::coming() const {
  const auto& next = performer().coming();
  return next ? text(engine::nameOfPiece(session_.show(), *next)) : QString();
}

QString NightDesk::clockWords(Instant at) const {
  return text(clockText(at, watch_.plan()->zone()));
}

QStringList NightDesk::troubles() const {
  QStringList all;
  const Show& show = session_.show();
  if (watch_.isHeld()) all << tr("Light is held off tonight.");
  if (session_.stage.player().isBlackout()) all << tr("Blackout is on (F10): everything stays dark.");
  if (session_.stage.player().master() <= 0.f) all << tr("The master is at 0: everything stays dark.");
  if (session_.stage.signal()) all << tr("A test signal of the Bench plays over the show.");
  for (const engine::LineState& line : session_.stage.player().lines())
    if (const Controller* controller = chispa::find(show.controllers, line.controller);
        controller && !line.reached)
      all << tr("%1: %2.").arg(text(controller->name), text(line.trouble));
  for (const auto& score : show.scores)
    if (const QString trouble = session_.stage.audioTrouble(score->audio); !trouble.isEmpty())
      all << tr("The music of “%1” is missing.").arg(text(score->name));
  if (session_.document.isModified()) all << tr("The show is not saved.");
  if (!sleepTrouble_.isEmpty()) all << sleepTrouble_;
  if (!clock_->isInStep()) all << tr("The computer's clock is not kept in step with the network.");
  if (!logTrouble_.isEmpty()) all << logTrouble_;
  return all;
}

/// Worked out once a second: it is asked for with every picture of the light.
QString NightDesk::tonight() const {
  const auto at = std::chrono::floor<std::chrono::seconds>(clock_->now());
  if (at != tonightAt_) {
    tonightAt_ = at;
    tonight_ = tonightNow();
  }
  return tonight_;
}

QString NightDesk::tonightNow() const {
  const NightPlan* plan = watch_.plan();
  if (!plan) return tr("The almanac cannot be read: its time zone is unknown here.");
  const auto nameOf = [&](const Slot& slot) {
    const Rule* rule = plan->rule(slot.rule);
    return rule ? text(whatOf(session_.show(), *rule)) : QString();
  };
  std::optional<Slot> slot = watch_.slot(), next = watch_.next();
  if (!isWatching()) {
    const Moment moment = plan->at(std::chrono::floor<std::chrono::seconds>(clock_->now()));
    slot = moment.slot;
    next = moment.next;
  }
  if (watch_.isHeld()) return tr("held off tonight");
  if (slot) return tr("%1 until %2").arg(nameOf(*slot), clockWords(slot->end));
  if (next) {
    const Date tonight = plan->nightOf(std::chrono::floor<std::chrono::seconds>(clock_->now()));
    const QString day = next->night == tonight
                            ? QString()
                            : dayText(next->night).section(QLatin1Char(' '), 0, 0) + QLatin1Char(' ');
    return tr("dark until %1%2, then %3").arg(day, clockWords(next->start), nameOf(*next));
  }
  return session_.show().rules.empty() ? tr("no rule yet") : tr("nothing tonight");
}

}  // namespace chispa::desk
