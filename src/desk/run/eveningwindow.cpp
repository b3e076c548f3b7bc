// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/run/eveningwindow.h"

#include <QHBoxLayout>
#include <QKeyEvent>
#include <QLabel>
#include <QPushButton>

#include "desk/glow/glowview.h"
#include "desk/parts/format.h"
#include "desk/parts/named.h"
#include "desk/parts/theme.h"

namespace chispa::desk {
namespace {

QLabel* large(double scale, const char* name) {
  auto* label = new QLabel;
  label->setObjectName(QLatin1String(name));
  label->setFont(numberFont(scale));
  label->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Preferred);
  return label;
}

}  // namespace

EveningWindow::EveningWindow(const Session& session, NightDesk& night, QWidget* parent)
    : QWidget(parent, Qt::Window), session_(session), night_(night) {
  setObjectName(QStringLiteral("eveningWindow"));
  setWindowTitle(tr("The evening"));
  setAttribute(Qt::WA_DeleteOnClose);
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(24, 16, 24, 20);
  column->setSpacing(10);
  column->addWidget(new GlowView(session_.stage), 1);
  auto* row = new QHBoxLayout;
  constexpr double kHuge = 3.2, kLarge = 1.8;
  now_ = large(kHuge, "eveningNow");
  time_ = large(kHuge, "eveningTime");
  time_->setSizePolicy(QSizePolicy::Maximum, QSizePolicy::Preferred);
  row->addWidget(now_, 1);
  row->addWidget(time_);
  column->addLayout(row);
  next_ = large(kLarge, "eveningNext");
  column->addWidget(next_);
  state_ = large(kLarge, "eveningState");
  column->addWidget(state_);
  auto* buttons = new QHBoxLayout;
  light_ = named(new QPushButton, "eveningLight", tr("Light"), tr("Switches the light on or off"));
  connect(light_, &QPushButton::clicked, this,
          [this] { session_.stage.switchLight(!session_.stage.isLit()); });
  skip_ = named(new QPushButton(tr("Next piece")), "eveningSkip", tr("Next piece"),
                tr("On to the next piece of the set list"));
  connect(skip_, &QPushButton::clicked, &night_, &NightDesk::skip);
  lock_ = named(new QPushButton, "eveningLock", tr("Lock"),
                tr("Locked, nothing has an effect; hold this, or the key U, for three seconds to unlock"));
  connect(lock_, &QPushButton::pressed, this, [this] { holdUnlock(true); });
  connect(lock_, &QPushButton::released, this, [this] {
    const bool wasLocked = isLocked_;
    holdUnlock(false);
    if (!wasLocked) setLocked(true);
  });
  auto* leave = named(new QPushButton(tr("Back to the workshop")), "eveningLeave", tr("Leave the evening"),
                      tr("Back to the window (Esc)"));
  connect(leave, &QPushButton::clicked, this, &QWidget::close);
  for (QPushButton* button : {light_, skip_, lock_, leave}) {
    button->setFont(numberFont(1.4));
    button->setMinimumHeight(44);
    buttons->addWidget(button);
    button->installEventFilter(this);
  }
  column->addLayout(buttons);
  connect(&session_.stage, &Stage::ticked, this, &EveningWindow::follow);
  setLocked(false);
  follow();
}

void EveningWindow::setLocked(bool on) {
  isLocked_ = on;
  held_.invalidate();
  follow();
}

void EveningWindow::holdUnlock(bool down) {
  if (!isLocked_) return;
  down ? held_.start() : held_.invalidate();
}

void EveningWindow::follow() {
  if (held_.isValid() && held_.hasExpired(kUnlock_ms)) return setLocked(false);
  const NightPlan* plan = night_.watch().plan();
  const auto instant = std::chrono::floor<std::chrono::seconds>(night_.now());
  if (plan) time_->setText(text(clockText(instant, plan->zone())));
  const QString playing = night_.playing(), coming = night_.coming();
  now_->setText(playing.isEmpty() ? tr("Dark") : playing);
  next_->setText(coming.isEmpty() ? tr("Tonight: %1").arg(night_.tonight()) : tr("next: %1").arg(coming));
  const QStringList troubles = night_.isWatching() ? night_.troubles() : QStringList();
  state_->setText(!troubles.isEmpty() ? tr("! %1").arg(troubles.front())
                  : isLocked_         ? tr("Locked. Hold U for three seconds to unlock.")
                                      : QString());
  light_->setText(session_.stage.isLit() ? tr("Light is ON") : tr("Light is OFF"));
  skip_->setEnabled(!coming.isEmpty());
  lock_->setText(isLocked_ ? tr("Hold to unlock") : tr("Lock"));
}

/// Locked, the other buttons hear nothing.
bool EveningWindow::eventFilter(QObject* watched, QEvent* event) {
  const bool isInput = event->type() == QEvent::MouseButtonPress ||
                       event->type() == QEvent::MouseButtonRelease ||
                       event->type() == QEvent::MouseButtonDblClick || event->type() == QEvent::KeyPress ||
                       event->type() == QEvent::KeyRelease || event->type() == QEvent::TouchBegin;
  if (!isLocked_ || !isInput) return QWidget::eventFilter(watched, event);
  const bool isKey = event->type() == QEvent::KeyPress || event->type() == QEvent::KeyRelease;
  if (isKey) {
    // The key that unlocks works wherever the focus is.
    event->type() == QEvent::KeyPress ? keyPressEvent(static_cast<QKeyEvent*>(event))
                                      : keyReleaseEvent(static_cast<QKeyEvent*>(event));
    return true;
  }
  return watched != lock_;
}

void EveningWindow::keyPressEvent(QKeyEvent* event) {
  event->accept();
  if (isLocked_) {
    if (event->key() == Qt::Key_U && !event->isAutoRepeat()) holdUnlock(true);
    return;
  }
  if (event->key() == Qt::Key_Escape || event->key() == Qt::Key_F11)
    close();
  else
    event->ignore();
}

void EveningWindow::keyReleaseEvent(QKeyEvent* event) {
  if (isLocked_ && event->key() == Qt::Key_U && !event->isAutoRepeat()) holdUnlock(false);
}

void EveningWindow::closeEvent(QCloseEvent* event) {
  isLocked_ ? event->ignore() : event->accept();
}

}  // namespace chispa::desk
