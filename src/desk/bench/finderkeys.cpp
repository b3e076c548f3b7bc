// SPDX-License-Identifier: GPL-3.0-or-later
// A finder by keys alone.
#include <cmath>

#include <QKeyEvent>
#include <QSlider>

#include "desk/bench/finderview.h"
#include "desk/bench/planpicker.h"

namespace chispa::desk {
namespace {

bool isReturn(const QKeyEvent* event) {
  return event->key() == Qt::Key_Return || event->key() == Qt::Key_Enter;
}

}  // namespace

bool FinderView::slideByKey(int key) {
  if (fields_.empty()) return false;
  const auto count = static_cast<int>(fields_.size());
  if (key == Qt::Key_Up || key == Qt::Key_Down)
    slider_ = std::clamp(slider_ + (key == Qt::Key_Up ? -1 : 1), 0, count - 1);
  auto* field = fields_[static_cast<std::size_t>(std::min(slider_, count - 1))];
  if (key == Qt::Key_Left || key == Qt::Key_Right) field->stepBy(key == Qt::Key_Left ? -1 : 1);
  if (key == Qt::Key_PageDown || key == Qt::Key_PageUp) field->stepBy(key == Qt::Key_PageDown ? -10 : 10);
  const bool isOurs = key == Qt::Key_Up || key == Qt::Key_Down || key == Qt::Key_Left ||
                      key == Qt::Key_Right || key == Qt::Key_PageDown || key == Qt::Key_PageUp;
  if (isOurs) ask();
  return isOurs;
}

bool FinderView::walkByKey(const QKeyEvent* event) {
  const int far = event->modifiers() & Qt::ControlModifier ? 100
                  : event->modifiers() & Qt::ShiftModifier ? 10
                                                           : 1;
  switch (event->key()) {
    case Qt::Key_Left:
      finder_->walk(-far);
      break;
    case Qt::Key_Right:
      finder_->walk(far);
      break;
    case Qt::Key_Space:
      finder_->mark();
      ask();
      name_->setFocus();
      name_->selectAll();
      return true;
    default:
      return false;
  }
  ask();
  return true;
}

bool FinderView::pickByKey(int key) {
  switch (key) {
    case Qt::Key_Left:
    case Qt::Key_Up:
      picker_->step(-1);
      return true;
    case Qt::Key_Right:
    case Qt::Key_Down:
      picker_->step(1);
      return true;
    case Qt::Key_Return:
    case Qt::Key_Enter:
      emit picker_->picked(picker_->current());
      return true;
    default:
      return false;
  }
}

bool FinderView::eventFilter(QObject* watched, QEvent* event) {
  if (watched != name_ || !finder_) return QWidget::eventFilter(watched, event);
  if (event->type() == QEvent::FocusOut) finder_->setName(name_->text());
  if (event->type() != QEvent::KeyPress || !isReturn(static_cast<QKeyEvent*>(event)))
    return QWidget::eventFilter(watched, event);
  // Return ends the name alone, not the walk.
  setFocus();
  ask();
  return true;
}

bool FinderView::event(QEvent* event) {
  // Single keys are answers here, whatever they are shortcuts for elsewhere.
  if (event->type() == QEvent::ShortcutOverride &&
      static_cast<QKeyEvent*>(event)->modifiers() == Qt::NoModifier)
    event->accept();
  return QWidget::event(event);
}

void FinderView::keyPressEvent(QKeyEvent* event) {
  if (event->key() == Qt::Key_Escape) return leave();
  if (!finder_) return QWidget::keyPressEvent(event);
  if (event->key() == Qt::Key_Backspace) {
    finder_->takeBack();
    return ask();
  }
  const auto question = finder_->question();
  if (!question) return isReturn(event) ? accept() : QWidget::keyPressEvent(event);
  if (!question->fixtures.empty() && pickByKey(event->key())) return;
  if (question->name && walkByKey(event)) return;
  if (!question->sliders.empty() && slideByKey(event->key())) return;
  for (const FinderAnswer& one : question->answers)
    if (one.key == event->key()) return answer(one.seen);
  if (isReturn(event) && (question->name || !question->sliders.empty())) return answer(0);
  QWidget::keyPressEvent(event);
}

}  // namespace chispa::desk
