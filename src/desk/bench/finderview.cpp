// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/bench/finderview.h"

#include <QHBoxLayout>
#include <QKeyEvent>
#include <QLabel>
#include <QPainter>
#include <QPushButton>
#include <QVBoxLayout>

#include "desk/parts/theme.h"

namespace chispa::desk {
namespace {

QIcon disc(const QColor& colour) {
  constexpr int kSide = 28;
  QPixmap picture(kSide, kSide);
  picture.fill(Qt::transparent);
  QPainter painter(&picture);
  painter.setRenderHint(QPainter::Antialiasing);
  painter.setPen(Qt::NoPen);
  painter.setBrush(colour);
  painter.drawEllipse(1, 1, kSide - 2, kSide - 2);
  return QIcon(picture);
}

}  // namespace

FinderView::FinderView(const Session& session, QWidget* parent) : QWidget(parent), session_(session) {
  setObjectName(QStringLiteral("finderView"));
  setFocusPolicy(Qt::StrongFocus);
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 0, 0, 0);
  const auto label = [&](const QString& name, bool isQuiet) {
    auto* made = new QLabel;
    made->setObjectName(isQuiet ? QStringLiteral("quiet") : name);
    made->setWordWrap(true);
    column->addWidget(made);
    return made;
  };
  head_ = label(QStringLiteral("finderHead"), true);
  words_ = label(QStringLiteral("finderWords"), false);
  words_->setFont(numberFont(1.9));
  look_ = label(QStringLiteral("finderLook"), true);
  column->addSpacing(14);
  answers_ = new QHBoxLayout;
  column->addLayout(answers_);
  column->addSpacing(14);
  left_ = label(QStringLiteral("finderLeft"), false);
  accept_ = new QPushButton(tr("Accept (Return)"));
  accept_->setObjectName(QStringLiteral("finderAccept"));
  accept_->setToolTip(tr("Changes the show to what was found; one undo takes it back"));
  connect(accept_, &QPushButton::clicked, this, &FinderView::accept);
  column->addWidget(accept_, 0, Qt::AlignLeft);
  auto* keys = label(QString(), true);
  keys->setText(tr("Backspace: the answer before · Esc: leave, come back later · nothing changes until you accept"));
  column->addStretch();
}

void FinderView::begin(std::shared_ptr<Finder> finder, const QString& place) {
  finder_ = std::move(finder);
  place_ = place;
  setFocus();
  ask();
}

void FinderView::showAnswers(const std::vector<FinderAnswer>& answers) {
  while (QLayoutItem* old = answers_->takeAt(0)) {
    if (old->widget()) old->widget()->deleteLater();
    delete old;
  }
  for (const FinderAnswer& one : answers) {
    auto* button = new QPushButton(one.words.isEmpty() ? one.letter : QStringLiteral("%1   %2").arg(one.letter, one.words));
    button->setObjectName(QStringLiteral("finderAnswer-%1").arg(one.letter));
    button->setToolTip(tr("Key %1").arg(one.letter));
    button->setMinimumHeight(64);
    button->setFocusPolicy(Qt::NoFocus);
    if (one.colour.isValid()) {
      button->setIcon(disc(one.colour));
      button->setIconSize(QSize(28, 28));
    }
    connect(button, &QPushButton::clicked, this, [this, seen = one.seen] { answer(seen); });
    answers_->addWidget(button);
  }
}

void FinderView::ask() {
  accept_->hide();
  if (!finder_) {
    head_->clear();
    words_->setText(tr("Nothing hangs on this port yet."));
    look_->setText(tr("Hang a strip on it in Wire, or choose another port."));
    left_->clear();
    return showAnswers({});
  }
  const auto question = finder_->question();
  head_->setText(tr("Finder: %1 · %2 · answer %3").arg(finder_->title().toLower(), place_).arg(finder_->answers() + (question ? 1 : 0)));
  left_->setText(finder_->isContradicted() ? QString() : tr("Still possible:  <b>%1</b>").arg(finder_->left()));
  if (question) {
    words_->setText(question->words);
    look_->setText(session_.stage.isLit() ? question->look : tr("Light is OFF: switch it on below (F9). ") + question->look);
    session_.stage.setSignal(question->signal);
    return showAnswers(question->answers);
  }
  session_.stage.setSignal(std::nullopt);
  showAnswers({});
  if (finder_->isContradicted()) {
    words_->setText(tr("These answers contradict each other."));
    look_->setText(tr("One of them was wrong: go back with Backspace."));
    return;
  }
  const QString difference = finder_->difference(session_.show());
  words_->setText(difference.isEmpty() ? tr("It is as the show says: %1.").arg(finder_->left()) : difference);
  look_->setText(difference.isEmpty() ? tr("Nothing needs to change.") : finder_->canApply() ? tr("This is what would change.") : tr("Nothing is changed from here."));
  accept_->setVisible(!difference.isEmpty() && finder_->canApply());
}

void FinderView::answer(int seen) {
  finder_->answer(seen);
  ask();
}

void FinderView::accept() {
  if (!finder_ || finder_->question() || finder_->isContradicted()) return;
  if (finder_->canApply() && !finder_->difference(session_.show()).isEmpty()) session_.edit(finder_->title(), [this](Show& show) { finder_->apply(show); });
  finder_.reset();
  leave();
}

void FinderView::leave() {
  session_.stage.setSignal(std::nullopt);
  emit left();
}

void FinderView::keyPressEvent(QKeyEvent* event) {
  if (event->key() == Qt::Key_Escape) return leave();
  if (!finder_) return QWidget::keyPressEvent(event);
  if (event->key() == Qt::Key_Backspace) {
    finder_->takeBack();
    return ask();
  }
  if (event->key() == Qt::Key_Return || event->key() == Qt::Key_Enter) return accept();
  if (const auto question = finder_->question())
    for (const FinderAnswer& one : question->answers)
      if (one.key == event->key()) return answer(one.seen);
  QWidget::keyPressEvent(event);
}

}  // namespace chispa::desk
