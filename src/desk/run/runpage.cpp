// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/run/runpage.h"

#include <QLabel>
#include <QListWidget>
#include <QPushButton>
#include <QVBoxLayout>

#include "desk/glow/glowview.h"
#include "desk/parts/format.h"
#include "desk/parts/theme.h"

namespace chispa::desk {

RunPage::RunPage(const Session& session, QWidget* parent) : QWidget(parent), session_(session) {
  auto* row = new QHBoxLayout(this);
  row->setContentsMargins(0, 0, 0, 0);
  row->setSpacing(0);
  auto* side = new QWidget;
  side->setObjectName(QStringLiteral("sidePanel"));
  side->setFixedWidth(230);
  auto* column = new QVBoxLayout(side);
  column->setContentsMargins(8, 10, 8, 8);
  auto* heading = new QLabel(tr("Scores"));
  heading->setObjectName(QStringLiteral("heading"));
  column->addWidget(heading);
  scores_ = new QListWidget;
  scores_->setObjectName(QStringLiteral("runScores"));
  scores_->setAccessibleName(tr("Scores"));
  scores_->setToolTip(tr("The score that plays"));
  connect(scores_, &QListWidget::currentItemChanged, this, [this](QListWidgetItem* item) {
    if (item) session_.stage.openScore(ScoreId{item->data(Qt::UserRole).toUInt()});
  });
  column->addWidget(scores_, 1);
  start_ = new QPushButton(tr("Play again and again"));
  start_->setObjectName(QStringLiteral("runStart"));
  start_->setToolTip(tr("Plays the chosen score in a loop until it is stopped"));
  connect(start_, &QPushButton::clicked, this, &RunPage::start);
  column->addWidget(start_);
  row->addWidget(side);
  auto* middle = new QVBoxLayout;
  middle->setSpacing(0);
  auto* top = new QWidget;
  top->setObjectName(QStringLiteral("toolRow"));
  auto* line = new QHBoxLayout(top);
  line->setContentsMargins(14, 10, 14, 10);
  now_ = new QLabel;
  now_->setFont(numberFont(1.25));
  state_ = new QLabel;
  state_->setObjectName(QStringLiteral("quiet"));
  line->addWidget(now_);
  line->addStretch();
  line->addWidget(state_);
  middle->addWidget(top);
  middle->addWidget(new GlowView(session.stage), 1);
  row->addLayout(middle, 1);
  connect(&session_.document, &Document::showChanged, this, &RunPage::fillScores);
  connect(&session_.document, &Document::opened, this, &RunPage::fillScores);
  connect(&session_.stage, &Stage::scoreChanged, this, &RunPage::fillScores);
  connect(&session_.stage, &Stage::ticked, this, &RunPage::showNow);
  fillScores();
}

void RunPage::fillScores() {
  const QSignalBlocker quiet(scores_);
  scores_->clear();
  for (const auto& score : session_.show().scores) {
    auto* item =
        new QListWidgetItem(QStringLiteral("%1   %2").arg(text(score->name), timeText(score->length)));
    item->setData(Qt::UserRole, score->id.value);
    scores_->addItem(item);
    if (session_.stage.score() && score->id == session_.stage.score()->id) scores_->setCurrentItem(item);
  }
}

void RunPage::start() {
  if (session_.stage.isPlaying() && session_.stage.isLooping()) {
    session_.stage.setLooping(false);
    session_.stage.pause();
    return;
  }
  session_.stage.setLooping(true);
  if (!session_.stage.isPlaying()) session_.stage.play();
}

void RunPage::showNow() {
  if (!isVisible()) return;
  const Score* score = session_.stage.score();
  const bool running = session_.stage.isPlaying() && session_.stage.isLooping();
  start_->setText(running ? tr("Stop") : tr("Play again and again"));
  start_->setEnabled(score != nullptr);
  if (!score) return now_->setText(tr("There is no score yet. Make one in Score."));
  const Micros left = score->length - session_.stage.position();
  now_->setText(session_.stage.isPlaying()
                    ? tr("Now: %1 · %2").arg(text(score->name), timeText(session_.stage.position()))
                    : tr("%1 stands at %2").arg(text(score->name), timeText(session_.stage.position())));
  if (!session_.stage.isLit())
    state_->setText(tr("Light is OFF: nothing reaches the LEDs (F9)"));
  else
    state_->setText(running ? tr("from the top in %1").arg(timeText(left)) : QString());
}

}  // namespace chispa::desk
