// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/run/soundrow.h"

#include <cmath>

#include <QHBoxLayout>
#include <QLabel>
#include <QMenu>
#include <QProgressBar>
#include <QToolButton>

#include "desk/parts/format.h"
#include "desk/parts/language.h"
#include "desk/parts/named.h"

namespace chispa::desk {

SoundRow::SoundRow(const Session& session, LiveInputs& inputs, QWidget* parent)
    : QWidget(parent), session_(session), inputs_(inputs) {
  auto* row = new QHBoxLayout(this);
  row->setContentsMargins(0, 0, 0, 0);
  choose_ = named(new QToolButton, "hearSound", tr("Sound"),
                  tr("Looks follow what is heard now: a microphone, or what this computer plays"));
  choose_->setPopupMode(QToolButton::InstantPopup);
  choose_->setToolButtonStyle(Qt::ToolButtonTextOnly);
  menu_ = new QMenu(choose_);
  menu_->setObjectName(QStringLiteral("soundSources"));
  choose_->setMenu(menu_);
  // Sources come and go: they are asked for when the list is opened, never before.
  connect(menu_, &QMenu::aboutToShow, this, &SoundRow::fillMenu);
  row->addWidget(choose_);
  level_ =
      named(new QProgressBar, "soundLevel", tr("Loudness"), tr("How loud it is, from -60 dB to full scale"));
  level_->setRange(0, 100);
  level_->setTextVisible(false);
  level_->setMaximumHeight(8);
  row->addWidget(level_, 1);
  tempo_ = named(new QLabel, "heardTempo", tr("Tempo heard"),
                 tr("The tempo that is heard; bars and beats of looks follow it"));
  row->addWidget(tempo_);
  // Where nothing is listened to, the button alone stands at the left.
  row->addStretch();
  connect(&inputs_, &LiveInputs::changed, this, &SoundRow::showState);
  connect(&session_.stage, &Stage::ticked, this, &SoundRow::showMeter);
  showState();
}

void SoundRow::fillMenu() {
  menu_->clear();
  const auto add = [this](const QString& words, bool isChosen, auto act) {
    QAction* action = menu_->addAction(words, this, act);
    action->setCheckable(true);
    action->setChecked(isChosen);
  };
  add(tr("Nothing"), !inputs_.hearsSound(), [this] { inputs_.stopSound(); });
  menu_->addSeparator();
  const auto sources = engine::soundSources();
  if (!sources) {
    menu_->addAction(tr("No sound server answers"))->setEnabled(false);
    return emit failed(said(sources.failure()));
  }
  for (const engine::SoundSource& source : *sources)
    add(source.isOwnSound ? tr("What this computer plays: %1").arg(text(source.title)) : text(source.title),
        inputs_.soundName() == text(source.name), [this, source] {
          if (const QString trouble = inputs_.listenTo(source); !trouble.isEmpty()) emit failed(trouble);
        });
  if (sources->empty()) menu_->addAction(tr("Nothing can be heard on this computer"))->setEnabled(false);
}

void SoundRow::showState() {
  const bool on = inputs_.hearsSound();
  choose_->setText(on ? tr("Sound: on") : tr("Sound: off"));
  level_->setVisible(on);
  tempo_->setVisible(on);
  if (on) showMeter();
}

void SoundRow::showMeter() {
  if (!inputs_.hearsSound() || !isVisible()) return;
  const engine::SoundListener::Meter meter = inputs_.soundMeter();
  const int level = static_cast<int>(std::lround(100 * static_cast<double>(meter.loudness)));
  if (level_->value() != level) level_->setValue(level);
  const QString words =
      meter.tempo_bpm > 0 ? tr("%1 bpm").arg(std::lround(meter.tempo_bpm)) : tr("no beat yet");
  if (tempo_->text() != words) tempo_->setText(words);
}

}  // namespace chispa::desk
