// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/bench/finderview.h"

#include <cmath>

#include <QApplication>
#include <QDoubleSpinBox>
#include <QFormLayout>
#include <QGridLayout>
#include <QLabel>
#include <QLineEdit>
#include <QPainter>
#include <QPushButton>
#include <QSlider>

#include "desk/bench/planpicker.h"
#include "desk/parts/theme.h"

namespace chispa::desk {
namespace {

constexpr int kDisc = 28;
constexpr int kPicture = 68;
/// Answers beside each other.
constexpr int kAnswersOfRow = 5;

QIcon pictureOf(const FinderAnswer& answer) {
  const int side = answer.picture ? kPicture : kDisc;
  const double ratio = qApp->devicePixelRatio();
  QPixmap picture(QSize(side, side) * ratio);
  picture.setDevicePixelRatio(ratio);
  picture.fill(Qt::transparent);
  QPainter painter(&picture);
  painter.setRenderHint(QPainter::Antialiasing);
  if (answer.picture) {
    answer.picture(painter, QRectF(0, 0, side, side));
  } else {
    painter.setPen(Qt::NoPen);
    painter.setBrush(answer.colour);
    painter.drawEllipse(1, 1, side - 2, side - 2);
  }
  painter.end();
  return QIcon(picture);
}

void empty(QLayout* layout) {
  while (QLayoutItem* old = layout->takeAt(0)) {
    if (old->widget()) old->widget()->deleteLater();
    delete old;
  }
}

}  // namespace

/// What a finder knows so far, as it draws it.
class FinderDrawing : public QWidget {
 public:
  FinderDrawing() {
    setMinimumHeight(70);
    setAccessibleName(FinderView::tr("What is known so far, drawn"));
  }
  void showOf(std::shared_ptr<const Finder> finder) {
    finder_ = std::move(finder);
    setVisible(finder_ && finder_->hasDrawing());
    update();
  }

 protected:
  void paintEvent(QPaintEvent*) override {
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    if (finder_ && finder_->hasDrawing()) finder_->draw(painter, QRectF(rect()).adjusted(12, 12, -12, -12));
  }

 private:
  std::shared_ptr<const Finder> finder_;
};

FinderView::FinderView(const Session& session, Ground ground, QWidget* parent)
    : QWidget(parent), session_(session), ground_(std::move(ground)) {
  setObjectName(QStringLiteral("finderView"));
  setFocusPolicy(Qt::StrongFocus);
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 0, 0, 0);
  const auto label = [&](const QString& name, bool isQuiet) {
    auto* made = new QLabel;
    made->setObjectName(isQuiet ? QStringLiteral("quiet") : name);
    made->setWordWrap(true);
    made->setSizePolicy(QSizePolicy::Preferred, QSizePolicy::Maximum);
    column->addWidget(made);
    return made;
  };
  head_ = label(QStringLiteral("finderHead"), true);
  words_ = label(QStringLiteral("finderWords"), false);
  words_->setFont(numberFont(1.7));
  look_ = label(QStringLiteral("finderLook"), true);
  column->addSpacing(8);
  answers_ = new QGridLayout;
  answers_->setSpacing(6);
  column->addLayout(answers_, 1);
  sliders_ = new QFormLayout;
  column->addLayout(sliders_);
  picker_ = new PlanPicker;
  connect(picker_, &PlanPicker::picked, this, [this](FixtureId fixture) {
    finder_->pick(fixture);
    ask();
  });
  column->addWidget(picker_, 1);
  name_ = new QLineEdit;
  name_->setObjectName(QStringLiteral("partName"));
  name_->setAccessibleName(tr("Name of the part"));
  name_->setToolTip(tr("Name of the part that the lit pixel is in; Return goes back to walking"));
  name_->installEventFilter(this);
  column->addWidget(name_);
  column->addSpacing(8);
  left_ = label(QStringLiteral("finderLeft"), false);
  drawing_ = new FinderDrawing;
  drawing_->hide();
  column->addWidget(drawing_, 2);
  accept_ = new QPushButton(tr("Accept (Return)"));
  accept_->setObjectName(QStringLiteral("finderAccept"));
  accept_->setToolTip(tr("Changes the show to what was found; one undo takes it back"));
  connect(accept_, &QPushButton::clicked, this, &FinderView::accept);
  column->addWidget(accept_, 0, Qt::AlignLeft);
  auto* keys = label(QString(), true);
  keys->setText(
      tr("Backspace: the answer before · Esc: leave, come back later · nothing changes until you accept"));
  column->addStretch();
}

void FinderView::begin(std::shared_ptr<Finder> finder, const QString& place, const QString& why) {
  finder_ = std::move(finder);
  place_ = place;
  why_ = why;
  slider_ = 0;
  setFocus();
  ask();
}

void FinderView::showAnswers(const std::vector<FinderAnswer>& answers) {
  empty(answers_);
  for (int i = 0; i < std::ssize(answers); ++i) {
    const FinderAnswer& one = answers[static_cast<std::size_t>(i)];
    auto* button = new QPushButton(
        one.words.isEmpty() ? one.letter : QStringLiteral("%1   %2").arg(one.letter, one.words));
    button->setObjectName(QStringLiteral("finderAnswer-%1").arg(one.letter));
    button->setToolTip(tr("Key %1").arg(one.letter));
    button->setAccessibleName(tr("Answer %1 %2").arg(one.letter, one.words));
    // The style sheet of the program has the last word on heights, so it is said in its words.
    button->setStyleSheet(QStringLiteral("min-height: %1px; max-height: 100px")
                              .arg(one.picture                      ? kPicture + 4
                                   : answers.size() > kAnswersOfRow ? 34
                                                                    : 52));
    button->setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Expanding);
    button->setFont(numberFont(1.25));
    button->setFocusPolicy(Qt::NoFocus);
    if (one.colour.isValid() || one.picture) {
      button->setIcon(pictureOf(one));
      button->setIconSize(one.picture ? QSize(kPicture, kPicture) : QSize(kDisc, kDisc));
    }
    connect(button, &QPushButton::clicked, this, [this, seen = one.seen] { answer(seen); });
    const int perRow = one.picture ? 4 : kAnswersOfRow;
    answers_->addWidget(button, i / perRow, i % perRow);
  }
}

void FinderView::showSliders(const std::vector<FinderSlider>& sliders) {
  // The same sliders stay, so that the hand on one keeps it.
  if (fields_.size() != sliders.size()) {
    while (sliders_->rowCount() > 0) sliders_->removeRow(0);
    fields_.clear();
    for (int i = 0; i < std::ssize(sliders); ++i) {
      const FinderSlider& one = sliders[static_cast<std::size_t>(i)];
      auto* row = new QWidget;
      auto* line = new QHBoxLayout(row);
      line->setContentsMargins(0, 0, 0, 0);
      auto* slider = new QSlider(Qt::Horizontal);
      auto* field = new QDoubleSpinBox;
      const double steps = (one.high - one.low) / one.step;
      slider->setRange(0, static_cast<int>(std::lround(steps)));
      slider->setObjectName(QStringLiteral("finderSlider%1").arg(i + 1));
      slider->setAccessibleName(one.name);
      slider->setToolTip(one.name);
      slider->setFocusPolicy(Qt::NoFocus);
      field->setObjectName(QStringLiteral("finderNumber%1").arg(i + 1));
      field->setAccessibleName(one.name);
      field->setToolTip(one.name);
      field->setDecimals(one.decimals);
      field->setRange(one.low, one.high);
      field->setSingleStep(one.step);
      field->setSuffix(QLatin1Char(' ') + one.unit);
      field->setKeyboardTracking(false);
      field->setFocusPolicy(Qt::ClickFocus);
      connect(slider, &QSlider::valueChanged, field,
              [field, low = one.low, step = one.step](int at) { field->setValue(low + at * step); });
      connect(field, &QDoubleSpinBox::valueChanged, this,
              [this, i, slider, low = one.low, step = one.step](double value) {
                const QSignalBlocker quiet(slider);
                slider->setValue(static_cast<int>(std::lround((value - low) / step)));
                finder_->slide(i, value);
                ask();
              });
      line->addWidget(slider, 1);
      line->addWidget(field);
      sliders_->addRow(one.name, row);
      fields_.push_back(field);
    }
  }
  for (std::size_t i = 0; i < sliders.size(); ++i) {
    const QSignalBlocker quiet(fields_[i]);
    fields_[i]->setValue(sliders[i].value);
    auto* slider = fields_[i]->parentWidget()->findChild<QSlider*>();
    const QSignalBlocker quietToo(slider);
    slider->setValue(static_cast<int>(std::lround((sliders[i].value - sliders[i].low) / sliders[i].step)));
    if (auto* label = qobject_cast<QLabel*>(sliders_->labelForField(fields_[i]->parentWidget())))
      label->setText(static_cast<int>(i) == slider_ && sliders.size() > 1
                         ? QStringLiteral("▸ ") + sliders[i].name
                         : sliders[i].name);
  }
}

void FinderView::send(const FinderQuestion& question) {
  if (finder_->isTrial()) {
    Show trial = ground_.show();
    finder_->apply(trial);
    session_.stage.setTrial(std::move(trial));
  }
  session_.stage.setSignal(question.signal);
  setClicking(question.clicks);
}

void FinderView::setClicking(bool on) {
  if (on == isClicking_) return;
  isClicking_ = on;
  on ? session_.stage.playClicks() : session_.stage.pause();
}

void FinderView::ask() {
  accept_->hide();
  drawing_->showOf(finder_);
  const auto question = finder_ ? finder_->question() : std::nullopt;
  picker_->setVisible(question && !question->fixtures.empty());
  name_->setVisible(question && question->name);
  if (!finder_) {
    head_->clear();
    words_->setText(tr("There is nothing to ask here."));
    look_->setText(why_);
    left_->clear();
    showSliders({});
    return showAnswers({});
  }
  head_->setText(tr("Finder: %1 · %2 · answer %3")
                     .arg(finder_->title().toLower(), place_)
                     .arg(finder_->answers() + (question ? 1 : 0)));
  left_->setText(
      finder_->isContradicted()
          ? QString()
          : QStringLiteral("%1  <b>%2</b>").arg(finder_->leftTitle(), finder_->left().toHtmlEscaped()));
  if (question)
    showQuestion(*question);
  else
    showEnd();
}

void FinderView::showQuestion(const FinderQuestion& question) {
  words_->setText(question.words);
  look_->setText(session_.stage.isLit() ? question.look
                                        : tr("Light is OFF: switch it on below (F9). ") + question.look);
  showAnswers(question.answers);
  showSliders(question.sliders);
  if (!question.fixtures.empty()) picker_->showFixtures(ground_.show(), question.fixtures);
  if (question.name && name_->text() != *question.name && !name_->hasFocus()) name_->setText(*question.name);
  send(question);
}

void FinderView::showEnd() {
  session_.stage.setSignal(std::nullopt);
  setClicking(false);
  showAnswers({});
  showSliders({});
  if (finder_->isContradicted()) {
    words_->setText(tr("These answers contradict each other."));
    look_->setText(tr("One of them was wrong: go back with Backspace."));
    return;
  }
  const QString difference = finder_->difference(ground_.show());
  words_->setText(difference.isEmpty() ? tr("It is as the show says: %1.").arg(finder_->left()) : difference);
  look_->setText(difference.isEmpty() ? tr("Nothing needs to change.") : tr("This is what would change."));
  accept_->setVisible(!difference.isEmpty());
}

void FinderView::answer(int seen) {
  finder_->answer(seen);
  ask();
}

void FinderView::takeBack() {
  if (!finder_ || finder_->answers() == 0) return;
  finder_->takeBack();
  ask();
}

void FinderView::accept() {
  if (!finder_ || finder_->question() || finder_->isContradicted()) return;
  const QString difference = finder_->difference(ground_.show());
  if (!difference.isEmpty()) {
    ground_.edit(finder_->title(), [this](Show& show) { finder_->apply(show); });
    emit accepted(finder_->title(), difference);
  }
  finder_.reset();
  leave();
}

void FinderView::leave() {
  session_.stage.setSignal(std::nullopt);
  setClicking(false);
  emit left();
}

}  // namespace chispa::desk
