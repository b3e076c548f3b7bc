// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/run/setlistpanel.h"

#include <QComboBox>
#include <QInputDialog>
#include <QLabel>
#include <QListWidget>
#include <QMenu>
#include <QPushButton>
#include <QStackedWidget>
#include <QToolButton>
#include <QVBoxLayout>

#include "core/edit/deletions.h"
#include "core/edit/setlistedits.h"
#include "core/setlist/setlistwalk.h"
#include "desk/parts/format.h"
#include "desk/parts/named.h"
#include "desk/run/setlistlines.h"

namespace chispa::desk {

SetListPanel::SetListPanel(const Session& session, NightDesk& night, QWidget* parent)
    : QWidget(parent), session_(session), night_(night) {
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 0, 0, 0);
  column->setSpacing(6);
  auto* head = new QHBoxLayout;
  choice_ =
      named(new QComboBox, "setListChoice", tr("Set list"), tr("The set list that is shown, or the scores"));
  head->addWidget(choice_, 1);
  auto* add = named(new QToolButton, "setListAdd", tr("Add to the set list"),
                    tr("Scores, looks, silence and other lists; new lists"));
  add->setText(QStringLiteral("+"));
  add->setPopupMode(QToolButton::InstantPopup);
  auto* menu = new QMenu(add);
  connect(menu, &QMenu::aboutToShow, this, [this, menu] { fillAddMenu(*menu); });
  add->setMenu(menu);
  head->addWidget(add);
  column->addLayout(head);
  pages_ = new QStackedWidget;
  lines_ = new SetListLines(session_, night_);
  pages_->addWidget(lines_);
  pages_->addWidget(makeScores());
  column->addWidget(pages_, 1);
  total_ = new QLabel;
  total_->setObjectName(QStringLiteral("quiet"));
  total_->setWordWrap(true);
  column->addWidget(total_);
  column->addWidget(makeTransport());
  connect(choice_, &QComboBox::activated, this, [this] {
    if (chosen()) session_.selection.select(chosen());
    showChosen();
  });
  connect(&session_.document, &Document::showChanged, this, &SetListPanel::fill);
  connect(&session_.document, &Document::opened, this, &SetListPanel::fill);
  connect(&session_.stage, &Stage::scoreChanged, this, &SetListPanel::fill);
  connect(&session_.stage, &Stage::ticked, this, &SetListPanel::follow);
  fill();
}

QWidget* SetListPanel::makeScores() {
  scores_ = named(new QListWidget, "runScores", tr("Scores"), tr("The score that plays"));
  connect(scores_, &QListWidget::currentItemChanged, this, [this](QListWidgetItem* item) {
    if (item) session_.stage.openScore(ScoreId{item->data(Qt::UserRole).toUInt()});
  });
  return scores_;
}

QWidget* SetListPanel::makeTransport() {
  auto* row = new QWidget;
  auto* line = new QHBoxLayout(row);
  line->setContentsMargins(0, 0, 0, 0);
  line->setSpacing(6);
  start_ = named(new QPushButton, "runStart", tr("Play"),
                 tr("Plays the shown list, or the score in a loop; stops it"));
  connect(start_, &QPushButton::clicked, this, &SetListPanel::start);
  back_ = named(new QPushButton(QStringLiteral("⏮")), "setListBack", tr("Back in the set list"),
                tr("To the beginning of this piece, or to the one before it"));
  skip_ = named(new QPushButton(QStringLiteral("⏭")), "setListSkip", tr("On in the set list"),
                tr("To the next piece"));
  connect(back_, &QPushButton::clicked, &night_, &NightDesk::back);
  connect(skip_, &QPushButton::clicked, &night_, &NightDesk::skip);
  line->addWidget(start_, 1);
  for (QPushButton* button : {back_, skip_}) {
    button->setFixedWidth(36);
    line->addWidget(button);
  }
  return row;
}

SetListId SetListPanel::chosen() const {
  return SetListId{choice_->currentData().toUInt()};
}

void SetListPanel::fill() {
  const QSignalBlocker quiet(choice_);
  const SetListId before = choice_->count() > 0 ? chosen() : SetListId{};
  const bool showedScores = choice_->count() > 1 && !before;
  choice_->clear();
  for (const auto& list : session_.show().setLists) choice_->addItem(text(list->name), list->id.value);
  choice_->addItem(tr("Scores"), 0u);
  const int same = before ? choice_->findData(before.value) : showedScores ? choice_->count() - 1 : 0;
  choice_->setCurrentIndex(std::max(0, same));
  const QSignalBlocker still(scores_);
  scores_->clear();
  for (const auto& score : session_.show().scores) {
    auto* item =
        new QListWidgetItem(QStringLiteral("%1   %2").arg(text(score->name), timeText(score->length)));
    item->setData(Qt::UserRole, score->id.value);
    scores_->addItem(item);
    if (session_.stage.score() && score->id == session_.stage.score()->id) scores_->setCurrentItem(item);
  }
  showChosen();
}

void SetListPanel::showChosen() {
  const SetList* list = chispa::find(session_.show().setLists, chosen());
  pages_->setCurrentIndex(list ? 0 : 1);
  if (list && lines_->list() != list->id) lines_->show(list->id);
  if (list) {
    const auto round = roundLength(session_.show(), list->id);
    const QString length = round ? timeText(*round).section(QLatin1Char('.'), 0, 0) : tr("no end");
    const QString rounds = list->rounds == 0   ? tr("again and again")
                           : list->rounds == 1 ? tr("once")
                                               : tr("%1 times").arg(list->rounds);
    total_->setText(list->isShuffled ? tr("%1, %2, in another order each round").arg(length, rounds)
                                     : tr("%1, %2").arg(length, rounds));
  }
  total_->setVisible(list != nullptr);
  follow();
}

bool SetListPanel::playsChosen() const {
  return night_.performer().isPerforming() &&
         night_.performer().programme() == engine::Programme{.kind = PieceKind::SetList, .list = chosen()};
}

void SetListPanel::follow() {
  if (!isVisible()) return;
  const bool isList = static_cast<bool>(chosen());
  const bool loops =
      session_.stage.isPlaying() && session_.stage.isLooping() && !night_.performer().isPerforming();
  const bool plays = isList ? playsChosen() : loops;
  start_->setText(plays ? tr("Stop") : isList ? tr("Play the list") : tr("Play in a loop"));
  start_->setEnabled(isList ? lines_->count() > 0 : session_.stage.score() != nullptr);
  const bool moves =
      night_.performer().isPerforming() && night_.performer().programme().kind == PieceKind::SetList;
  back_->setEnabled(moves);
  skip_->setEnabled(moves);
}

void SetListPanel::start() {
  if (chosen()) return playsChosen() ? night_.stop() : night_.play(chosen());
  if (night_.performer().isPerforming()) night_.stop();
  Stage& stage = session_.stage;
  const bool loops = stage.isPlaying() && stage.isLooping();
  stage.setLooping(!loops);
  if (loops)
    stage.pause();
  else if (!stage.isPlaying())
    stage.play();
}

void SetListPanel::tryFast() {
  constexpr double kFast = 10;
  if (chosen()) night_.play(chosen(), kFast);
}

void SetListPanel::addList() {
  SetListId made;
  session_.edit(tr("new set list"),
                [&](Show& show) { made = addSetList(show, tr("Set list").toStdString()); });
  choice_->setCurrentIndex(choice_->findData(made.value));
  showChosen();
  session_.selection.select(made);
}

void SetListPanel::deleteList() {
  const SetListId id = chosen();
  if (!id) return;
  session_.edit(tr("delete a set list"), [id](Show& show) { deleteSetList(show, id); });
}

void SetListPanel::selectList() {
  if (chosen()) session_.selection.select(chosen());
}

void SetListPanel::addLook(LookId look) {
  if (!chosen()) addList();
  lines_->insert({lineOf(look)});
}

void SetListPanel::fillAddMenu(QMenu& menu) {
  menu.clear();
  const bool isList = static_cast<bool>(chosen());
  const auto addKind = [&](const QString& title, const auto& items) {
    QMenu* kind = menu.addMenu(title);
    kind->setEnabled(isList && !items.empty());
    for (const auto& item : items)
      kind->addAction(text(item->name), this, [this, id = item->id] { lines_->insert({lineOf(id)}); });
  };
  addKind(tr("Score"), session_.show().scores);
  addKind(tr("Look"), session_.show().looks);
  Items<SetList> others = session_.show().setLists;
  remove(others, chosen());
  addKind(tr("Set list"), others);
  constexpr Micros kSilence{10'000'000};
  menu.addAction(tr("Silence"), this, [this] { lines_->insert({lineOfSilence(kSilence)}); })
      ->setEnabled(isList);
  menu.addSeparator();
  menu.addAction(tr("New set list"), this, &SetListPanel::addList);
  menu.addAction(tr("About this list"), this, &SetListPanel::selectList)->setEnabled(isList);
  menu.addAction(tr("Try it at 10 × speed"), this, &SetListPanel::tryFast)->setEnabled(isList);
  menu.addAction(tr("Delete this list"), this, &SetListPanel::deleteList)->setEnabled(isList);
}

}  // namespace chispa::desk
