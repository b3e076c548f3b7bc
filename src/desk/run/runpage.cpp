// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/run/runpage.h"

#include <QAbstractSpinBox>
#include <QApplication>
#include <QComboBox>
#include <QKeyEvent>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QTextEdit>
#include <QVBoxLayout>

#include "core/edit/lookedits.h"
#include "core/edit/playededits.h"
#include "desk/glow/glowview.h"
#include "desk/parts/columngrip.h"
#include "desk/parts/format.h"
#include "desk/parts/named.h"
#include "desk/parts/theme.h"
#include "desk/run/atoncebar.h"
#include "desk/run/livepanel.h"
#include "desk/run/nightstrip.h"
#include "desk/run/padgrid.h"
#include "desk/run/setlistpanel.h"

namespace chispa::desk {
namespace {

constexpr int kNightsHeight = 190;

}  // namespace

RunPage::RunPage(const Session& session, LiveInputs& inputs, NightDesk& night, QWidget* parent)
    : QWidget(parent), session_(session), inputs_(inputs), night_(night) {
  auto* row = new QHBoxLayout(this);
  row->setContentsMargins(0, 0, 0, 0);
  row->setSpacing(0);
  row->addWidget(makeSide(inputs));
  auto* middle = new QVBoxLayout;
  middle->setSpacing(0);
  middle->addWidget(makeTools());
  middle->addWidget(new GlowView(session.stage), 1);
  atOnce_ = new AtOnceBar(session_);
  middle->addWidget(atOnce_);
  pads_ = new PadGrid(session_);
  pads_->setMinimumHeight(pads_->sizeHint().height());
  pads_->setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
  middle->addWidget(pads_);
  nights_ = new NightStrip(session_, night_);
  nights_->setFixedHeight(kNightsHeight);
  middle->addWidget(nights_);
  row->addLayout(middle, 1);
  connect(&session_.stage, &Stage::ticked, this, &RunPage::showNow);
  connect(live_, &LivePanel::failed, this, &RunPage::failed);
  connect(atOnce_, &AtOnceBar::failed, this, &RunPage::failed);
  connect(nights_, &NightStrip::failed, this, &RunPage::failed);
  qApp->installEventFilter(this);
}

QWidget* RunPage::makeSide(LiveInputs& inputs) {
  auto* side = new QWidget;
  side->setObjectName(QStringLiteral("sidePanel"));
  side->setFixedWidth(250);
  new ColumnGrip(side, QStringLiteral("run"));
  auto* column = new QVBoxLayout(side);
  column->setContentsMargins(8, 10, 8, 8);
  setLists_ = new SetListPanel(session_, night_);
  column->addWidget(setLists_, 1);
  column->addSpacing(8);
  live_ = new LivePanel(session_, inputs);
  column->addWidget(live_, 1);
  return side;
}

QWidget* RunPage::makeTools() {
  auto* top = new QWidget;
  top->setObjectName(QStringLiteral("toolRow"));
  auto* line = new QHBoxLayout(top);
  line->setContentsMargins(12, 8, 12, 8);
  line->setSpacing(8);
  now_ = new QLabel;
  now_->setObjectName(QStringLiteral("runNow"));
  // It takes what room there is, and asks for none.
  now_->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Preferred);
  state_ = new QLabel;
  state_->setObjectName(QStringLiteral("quiet"));
  line->addWidget(now_, 1);
  line->addWidget(state_);
  auto* keep = named(new QPushButton(tr("Keep what is lit")), "keepLit", tr("Keep what is lit"),
                     tr("What the score and the pads show now becomes a look"));
  connect(keep, &QPushButton::clicked, this, &RunPage::keepWhatIsLit);
  record_ = named(new QPushButton(tr("Record")), "recordLive", tr("Record into the score"),
                  tr("Plays the score and writes into it what is played by hand; press again to end"));
  record_->setCheckable(true);
  connect(record_, &QPushButton::clicked, this, &RunPage::record);
  auto* release = named(new QPushButton(tr("Reset")), "resetLive", tr("Reset"),
                        tr("Lets go of everything that is lit or held by hand"));
  connect(release, &QPushButton::clicked, this, &RunPage::reset);
  for (QPushButton* button : {keep, record_, release}) line->addWidget(button);
  return top;
}

void RunPage::showNow() {
  if (!isVisible()) return;
  const Score* score = session_.stage.score();
  record_->setEnabled(score != nullptr);
  // The score has come to its end.
  if (session_.stage.isKeeping() && !session_.stage.isPlaying()) record(false);
  const auto& piece = night_.performer().piece();
  QStringList lit;
  for (const LookPlay& play : session_.stage.live().state.plays)
    if (const Look* look = chispa::find(session_.show().looks, play.look);
        look && !play.isEnding && !(piece && piece->look == play.look))
      lit << text(look->name);
  QStringList parts;
  if (const QString playing = night_.playing(); !playing.isEmpty())
    parts << (session_.stage.isPlaying() ? tr("%1 · %2").arg(playing, timeText(session_.stage.position()))
                                         : playing);
  if (!lit.isEmpty()) parts << tr("By hand: %1").arg(lit.join(QStringLiteral(", ")));
  if (const QString coming = night_.coming(); !coming.isEmpty()) parts << tr("next: %1").arg(coming);
  QString words = parts.join(QStringLiteral("  ·  "));
  if (words.isEmpty()) words = tr("Nothing plays. Press a pad, or its key.");
  now_->setText(fontMetrics().elidedText(words, Qt::ElideRight, now_->width()));
  state_->setText(session_.stage.isLit() ? QString() : tr("Light is OFF (F9)"));
}

void RunPage::keepWhatIsLit() {
  std::vector<LookId> lit;
  for (const LookPlay& play : session_.stage.live().state.plays)
    if (!play.isEnding) lit.push_back(play.look);
  const Score* score = session_.stage.score();
  LookId kept;
  session_.edit(tr("keep what is lit"), [&](Show& show) {
    kept = keepLook(show, tr("Kept").toStdString(), score ? score->id : ScoreId{}, session_.stage.position(),
                    lit);
  });
  if (!kept)
    return emit failed(
        tr("Nothing is lit now. Press a pad, or put the playhead where the score shows light."));
  session_.selection.select(kept);
}

void RunPage::addLook() {
  const Show& show = session_.show();
  ZoneIds zones = session_.selection.all<ZoneId>();
  if (zones.empty() && !show.zones.empty()) zones.push_back(show.zones.front()->id);
  if (zones.empty()) return emit failed(tr("There is no zone yet. Make one in Plan."));
  const PaletteId palette = show.palettes.empty() ? PaletteId{} : show.palettes.front()->id;
  LookId made;
  session_.edit(tr("new look"), [&](Show& s) {
    made = chispa::addLook(s, tr("Look").toStdString(), zones, "comets", palette);
  });
  session_.selection.select(made);
}

void RunPage::record(bool on) {
  if (on && !session_.stage.isKeeping()) {
    session_.stage.beginKeeping();
    if (!session_.stage.isPlaying()) session_.stage.play();
  }
  if (!on && session_.stage.isKeeping()) {
    const Micros end = session_.stage.position();
    // First: pausing tells the page, which ends a recording that does not play any more.
    const auto notes = session_.stage.endKeeping();
    session_.stage.pause();
    const Score* score = session_.stage.score();
    std::size_t written = 0;
    if (score)
      session_.edit(tr("record what was played"),
                    [&, id = score->id](Show& show) { written = writePlayed(show, id, notes, end).size(); });
    if (written == 0)
      emit failed(tr("Nothing was played while the score ran, so there is nothing to write into it."));
  }
  record_->setChecked(session_.stage.isKeeping());
  record_->setText(session_.stage.isKeeping() ? tr("End recording") : tr("Record"));
}

void RunPage::reset() {
  session_.stage.play({LiveEvent::Kind::Reset, 0, 0});
}

/// Keys play while the page is before the eyes and no field wants them.
bool RunPage::playsKeys() const {
  if (!isVisible() || !window()->isActiveWindow() || QApplication::activeModalWidget()) return false;
  const QWidget* focus = QApplication::focusWidget();
  return !qobject_cast<const QLineEdit*>(focus) && !qobject_cast<const QAbstractSpinBox*>(focus) &&
         !qobject_cast<const QTextEdit*>(focus) && !qobject_cast<const QComboBox*>(focus);
}

bool RunPage::playKey(const QString& key, bool isDown) {
  const LookId look = pads_->lookOnKey(key);
  const bool isBound =
      std::any_of(session_.show().bindings.begin(), session_.show().bindings.end(), [&](const auto& binding) {
        return binding->source.kind == SourceKind::Key && text(binding->source.address) == key;
      });
  if (!look && !isBound && !live_->isLearning()) return false;
  if (isDown)
    keysDown_.insert(key);
  else if (keysDown_.erase(key) == 0)
    return false;
  if (look && !live_->isLearning())
    session_.stage.play(
        {isDown ? LiveEvent::Kind::Press : LiveEvent::Kind::Release, look.value, isDown ? 1.f : 0.f});
  inputs_.playKey(key, isDown);
  return true;
}

void RunPage::letGoOfKeys() {
  for (const QString& key : std::set<QString>(keysDown_)) playKey(key, false);
}

void RunPage::hideEvent(QHideEvent* event) {
  letGoOfKeys();
  QWidget::hideEvent(event);
}

bool RunPage::eventFilter(QObject* watched, QEvent* event) {
  if (event->type() == QEvent::ApplicationStateChange || event->type() == QEvent::WindowDeactivate) {
    if (watched == window() || watched == qApp) letGoOfKeys();
    return false;
  }
  const bool isDown = event->type() == QEvent::KeyPress;
  if (!isDown && event->type() != QEvent::KeyRelease) return false;
  if (watched != QApplication::focusWidget() && watched != window()) return false;
  const auto* key = static_cast<QKeyEvent*>(event);
  const bool isPlain = (key->modifiers() & ~Qt::KeypadModifier) == Qt::NoModifier;
  const bool isPadKey = (key->key() >= Qt::Key_0 && key->key() <= Qt::Key_9) ||
                        (key->key() >= Qt::Key_A && key->key() <= Qt::Key_Z);
  if (!isPadKey || (isDown && !isPlain) || !playsKeys()) return false;
  const QString name(QChar(key->key()));
  // A key that is kept down repeats itself.
  if (key->isAutoRepeat()) return keysDown_.contains(name);
  return playKey(name, isDown);
}

}  // namespace chispa::desk
