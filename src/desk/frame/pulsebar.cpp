// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/frame/pulsebar.h"

#include <cstring>

#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <QSlider>

#include "core/base/relativepath.h"
#include "core/music/analysis.h"
#include "desk/parts/format.h"
#include "desk/parts/language.h"
#include "desk/parts/theme.h"

namespace chispa::desk {
namespace {

/// Numbers change this often: fast enough to trust, slow enough to read.
constexpr int kTicksPerUpdate = 8;

}  // namespace

PulseBar::PulseBar(const Session& session, QWidget* parent)
    : QWidget(parent), session_(session), flashes_(session.document, session.stage) {
  setObjectName(QStringLiteral("pulseBar"));
  setFixedHeight(38);
  auto* row = new QHBoxLayout(this);
  row->setContentsMargins(0, 0, 0, 0);
  row->setSpacing(0);
  const auto part = [&](const QString& tip, int width) {
    auto* button = new QPushButton;
    button->setObjectName(QStringLiteral("pulsePart"));
    button->setSizePolicy(QSizePolicy::Preferred, QSizePolicy::Expanding);
    button->setToolTip(tip);
    button->setMinimumWidth(textWidth(width));
    row->addWidget(button);
    return button;
  };
  light_ = new QPushButton;
  light_->setObjectName(QStringLiteral("lightSwitch"));
  light_->setToolTip(tr("Sends light to the controllers, or stops (F9)"));
  light_->setSizePolicy(QSizePolicy::Preferred, QSizePolicy::Expanding);
  light_->setMinimumWidth(textWidth(20));
  connect(light_, &QPushButton::clicked, this,
          [this] { session_.stage.switchLight(!session_.stage.isLit()); });
  row->addWidget(light_);
  blackout_ = part(tr("Sends black while it is on, whatever plays (F10)"), 10);
  blackout_->setText(tr("Blackout"));
  blackout_->setCheckable(true);
  connect(blackout_, &QPushButton::toggled, this, &PulseBar::setBlackout);
  auto* masterLabel = new QLabel(tr("   Master "));
  row->addWidget(masterLabel);
  master_ = new QSlider(Qt::Horizontal);
  master_->setObjectName(QStringLiteral("master"));
  master_->setAccessibleName(tr("Master"));
  master_->setToolTip(tr("Brightness of everything"));
  master_->setRange(0, 100);
  master_->setValue(100);
  master_->setFixedWidth(textWidth(14));
  masterLabel->setBuddy(master_);
  connect(master_, &QSlider::valueChanged, this, [this](int value) {
    session_.stage.player().output().setMaster(static_cast<float>(value) / 100.f);
    masterText_->setText(percentText(value / 100.0));
  });
  row->addWidget(master_);
  masterText_ = new QLabel(percentText(1));
  masterText_->setMinimumWidth(textWidth(7));
  masterText_->setAlignment(Qt::AlignCenter);
  row->addWidget(masterText_);
  rate_ = part(tr("Frames a second that leave now, how late the latest 1 % of them began, and how many were "
                  "left out since light is on"),
               22);
  rate_->setAccessibleName(tr("Frame rate"));
  controllers_ = part(tr("Controllers that take what is sent; a click opens Wire"), 18);
  amps_ = part(tr("Current that the light draws now, of full white, or the supply whose budget holds it "
                  "back; a click shows the supplies"),
               16);
  problem_ = part(tr("The most important problem; a click goes there"), 10);
  problem_->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Expanding);
  row->setStretchFactor(problem_, 1);
  problemCount_ = part(tr("Shows all problems (Ctrl+Shift+P)"), 5);
  problemCount_->setObjectName(QStringLiteral("problemCount"));
  connect(problemCount_, &QPushButton::clicked, this, &PulseBar::allProblemsAsked);
  connect(controllers_, &QPushButton::clicked, this, &PulseBar::controllersAsked);
  connect(amps_, &QPushButton::clicked, this, &PulseBar::powerAsked);
  connect(problem_, &QPushButton::clicked, this, [this] { emit problemAsked(problemPlace_); });
  connect(&session_.stage, &Stage::lightChanged, this, &PulseBar::showLight);
  connect(&session_.stage, &Stage::ticked, this, [this] {
    if (++ticks_ % kTicksPerUpdate == 0) showNumbers();
  });
  connect(&session_.document, &Document::showChanged, this, &PulseBar::findProblemSoon);
  soon_.setSingleShot(true);
  connect(&soon_, &QTimer::timeout, this, &PulseBar::findProblem);
  connect(&flashes_, &FlashWatch::found, this, &PulseBar::findProblem);
  connect(&session_.document, &Document::opened, this, &PulseBar::findProblem);
  connect(&session_.document, &Document::safetyChanged, this, &PulseBar::showProblem);
  connect(&session_.stage, &Stage::compiledChanged, this, &PulseBar::showProblem);
  connect(&session_.stage, &Stage::audioChanged, this, &PulseBar::findProblem);
  showLight();
  showNumbers();
  findProblem();
}

void PulseBar::setBlackout(bool on) {
  const QSignalBlocker quiet(blackout_);
  blackout_->setChecked(on);
  session_.stage.player().output().setBlackout(on);
}

bool PulseBar::isBlackout() const {
  return blackout_->isChecked();
}

void PulseBar::setNotice(const QString& words) {
  notice_ = words;
  showProblem();
}

void PulseBar::showLight() {
  const bool on = session_.stage.isLit();
  skippedBefore_ = session_.stage.player().stats().skipped.load();
  sinceShown_.invalidate();
  light_->setText(on ? tr("◉  Light is ON") : tr("○  Light is OFF"));
  light_->setAccessibleName(light_->text());
  const Theme& t = theme();
  const QColor ground = on ? t.ember : t.raised;
  const QColor ink = on ? (t.isDark ? QColor(0x1a, 0x10, 0x08) : QColor(Qt::white)) : t.text;
  setSheet(
      *light_,
      QStringLiteral(
          "QPushButton { background: %1; color: %2; border: none; border-right: 1px solid %3; border-radius: "
          "0; font-weight: 600; padding: 0 16px; } QPushButton:focus { border: 2px solid %2; }")
          .arg(ground.name(), ink.name(), t.line.name()));
  showNumbers();
}

/// Counted over the time since it was shown last; nothing while no light leaves.
void PulseBar::showRate() {
  const auto& stats = session_.stage.player().stats();
  const quint64 frames = stats.frames.load();
  constexpr qint64 kLeast_ms = 150;
  if (!session_.stage.isLit()) {
    rate_->setText(QString());
  } else if (sinceShown_.isValid() && sinceShown_.elapsed() < kLeast_ms) {
    return;
  } else if (sinceShown_.isValid()) {
    const double rate =
        static_cast<double>(frames - framesShown_) * 1000 / static_cast<double>(sinceShown_.elapsed());
    const quint64 skipped = stats.skipped.load() - skippedBefore_;
    rate_->setText(tr("%1 fps · late %2 ms%3")
                       .arg(QLocale().toString(rate, 'f', 1))
                       .arg(QLocale().toString(stats.lateness.percentile_ms(0.99), 'f', 1))
                       .arg(skipped > 0 ? tr(" · %1 left out").arg(skipped) : QString()));
  }
  framesShown_ = frames;
  sinceShown_.start();
  QString tip =
      tr("Frames a second that leave now, how late the latest 1 % of them began, and how many were left out "
         "since light is on");
  if (const int why = stats.grants.priority.load(); why > 0)
    tip += QLatin1Char('\n') + tr("! The system refused real-time priority (%1): under load, frames may be "
                                  "late. Allow it with “rtprio” in /etc/security/limits.d.")
                                   .arg(QString::fromLocal8Bit(std::strerror(why)));
  if (const int why = stats.grants.memory.load(); why > 0)
    tip += QLatin1Char('\n') + tr("Its memory is not locked (%1): a computer that runs out of memory may "
                                  "hold frames up. Allow it with “memlock unlimited”.")
                                   .arg(QString::fromLocal8Bit(std::strerror(why)));
  rate_->setToolTip(tip);
}

void PulseBar::showDropped() {
  const quint64 dropped = session_.stage.player().output().live().dropped();
  if (std::exchange(droppedShown_, dropped) == dropped) return;
  setNotice(
      tr("More comes in by MIDI, OSC or phone than can be played: %1 events were left out").arg(dropped));
}

void PulseBar::showNumbers() {
  showRate();
  showDropped();
  const auto lines = session_.stage.player().lines();
  const auto reached =
      std::count_if(lines.begin(), lines.end(), [](const auto& line) { return line.reached; });
  const auto all = std::ssize(lines);
  const bool lit = session_.stage.isLit();
  controllers_->setText(!lit             ? counted(all, tr("1 controller"), tr("%1 controllers"))
                        : reached == all ? tr("✓ %1 of %2 controllers").arg(reached).arg(all)
                                         : tr("! %1 of %2 controllers").arg(reached).arg(all));
  setTextColour(*controllers_, !lit ? QColor() : reached == all ? theme().fine : theme().wrong);
  double now = 0;
  for (const auto& [volts, amps] : session_.stage.ampsNow()) now += amps;
  // A budget that holds the light back is said before anything else.
  QString held;
  for (const auto& state : session_.stage.player().supplies()) {
    const Supply* supply = chispa::find(session_.show().supplies, state.supply);
    if (lit && supply && state.level < 0.995 && held.isEmpty())
      held = tr("! %1 holds the light to %2").arg(text(supply->name), percentText(state.level));
  }
  amps_->setText(!held.isEmpty()    ? held
                 : fullWhite_a_ > 0 ? tr("%1 of %2").arg(ampsText(now), ampsText(fullWhite_a_))
                                    : ampsText(now));
  setTextColour(*amps_, held.isEmpty() ? QColor() : theme().watch);
  showProblem();
}

void PulseBar::refreshColours() {
  showLight();
  showProblem();
}

void PulseBar::findProblemSoon() {
  constexpr qint64 kLong_ms = 3;
  constexpr int kRests_ms = 150;
  if (finding_ms_ < kLong_ms)
    findProblem();
  else
    soon_.start(kRests_ms);
}

void PulseBar::findProblem() {
  QElapsedTimer taken;
  taken.start();
  fullWhite_a_ = 0;
  for (const auto& [volts, amps] : fullWhiteAmps(session_.show())) fullWhite_a_ += amps;
  problems_ = findProblems(session_.show(), [this](const std::string& name) {
    // What may not be read is not looked for either.
    return !session_.stage.outsideFiles().mayRead(name) ||
           std::filesystem::exists(resolvedBeside(session_.document.path(), name));
  });
  if (const auto waiting = session_.stage.outsideFiles().waiting().size(); waiting > 0)
    problems_.push_back(
        {Severity::Warning,
         counted(static_cast<int>(waiting), tr("one file outside the show's folder is not read."),
                 tr("%1 files outside the show's folder are not read."))
             .toStdString(),
         session_.document.title().toStdString(),
         tr("File ▸ Files outside the folder… allows it.").toStdString(),
         {}});
  problems_.insert(problems_.end(), flashes_.problems().begin(), flashes_.problems().end());
  std::stable_sort(problems_.begin(), problems_.end(),
                   [](const Problem& a, const Problem& b) { return a.severity < b.severity; });
  QStringList all;
  for (const Problem& problem : problems_)
    all << QStringLiteral("%1: %2 %3").arg(said(problem.where), said(problem.what), said(problem.cure));
  constexpr int kMax = 12;
  problem_->setToolTip(all.isEmpty() ? tr("The most important problem; a click goes there")
                                     : all.mid(0, kMax).join(QLatin1Char('\n')));
  problemCount_->setVisible(problems_.size() > 1);
  problemCount_->setText(tr("%1 …").arg(problems_.size()));
  problemCount_->setAccessibleName(tr("All %1 problems").arg(problems_.size()));
  finding_ms_ = taken.elapsed();
  emit problemsFound();
  showProblem();
}

void PulseBar::showProblem() {
  const auto lines = session_.stage.player().lines();
  const auto silent =
      std::find_if(lines.begin(), lines.end(), [](const auto& line) { return !line.reached; });
  QColor colour = theme().quiet;
  QString words = notice_.isEmpty() ? tr("No problems") : notice_;
  problemPlace_ = {};
  if (!session_.document.journalTrouble().isEmpty()) {
    colour = theme().wrong;
    words = tr("! Unsaved work is not safe: %1").arg(session_.document.journalTrouble().simplified());
  } else if (!session_.stage.compileTrouble().isEmpty()) {
    colour = theme().wrong;
    words = tr("! %1").arg(session_.stage.compileTrouble().simplified());
  } else if (session_.stage.isLit() && silent != lines.end()) {
    const Controller* controller = chispa::find(session_.show().controllers, silent->controller);
    problemPlace_ = silent->controller;
    colour = theme().wrong;
    words = tr("! %1: %2; switch it on or change its address")
                .arg(controller ? text(controller->name) : QString(), text(silent->trouble));
  } else if (!problems_.empty()) {
    const Problem& worst = problems_.front();
    problemPlace_ = worst.place;
    colour = worst.severity == Severity::Error     ? theme().wrong
             : worst.severity == Severity::Warning ? theme().watch
                                                   : theme().quiet;
    words = (worst.severity == Severity::Note ? QString() : QStringLiteral("! ")) +
            QStringLiteral("%1: %2 %3").arg(said(worst.where), said(worst.what), said(worst.cure));
  }
  constexpr int kPadding = 28;
  problem_->setAccessibleName(words);
  problem_->setText(problem_->fontMetrics().elidedText(words, Qt::ElideRight,
                                                       std::max(kPadding, problem_->width() - kPadding)));
  setTextColour(*problem_, colour);
}

}  // namespace chispa::desk
