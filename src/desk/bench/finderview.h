// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <functional>
#include <memory>

#include <QWidget>

#include "desk/bench/finder.h"

class QDoubleSpinBox;
class QFormLayout;
class QGridLayout;
class QLabel;
class QLineEdit;
class QPushButton;
class QSlider;

namespace chispa::desk {

class FinderDrawing;
class PlanPicker;

/// The dialogue of a finder: a question in large words, an answer by a key or a click, what is still
/// possible. Backspace takes an answer back, Return accepts what was found, Escape leaves; nothing changes
/// until it is accepted.
class FinderView : public QWidget {
  Q_OBJECT
 public:
  /// What a finder works on: the show that plays, and how it is changed.
  struct Ground {
    std::function<Show()> show;
    std::function<void(const QString& name, const std::function<void(Show&)>& change)> edit;
  };
  FinderView(const Session& session, Ground ground, QWidget* parent = nullptr);

  /// Begins, or goes on where it was left; null shows `why` there is none.
  void begin(std::shared_ptr<Finder> finder, const QString& place, const QString& why);
  /// Goes away; the finder can go on later.
  void leave();

  /// What is asked now; null if nothing is. For whoever answers in the maker's place, from a phone.
  const Finder* finder() const { return finder_.get(); }
  void answer(int seen);
  void takeBack();
  /// Takes what was found into the show, and leaves.
  void accept();

 signals:
  /// The maker has left it, or accepted what was found.
  void left();
  /// What was found is in the show now.
  void accepted(const QString& title, const QString& difference);

 protected:
  bool event(QEvent* event) override;
  bool eventFilter(QObject* watched, QEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;

 private:
  void ask();
  void showQuestion(const FinderQuestion& question);
  void showEnd();
  void showAnswers(const std::vector<FinderAnswer>& answers);
  void showSliders(const std::vector<FinderSlider>& sliders);
  void send(const FinderQuestion& question);
  bool slideByKey(int key);
  bool walkByKey(const QKeyEvent* event);
  bool pickByKey(int key);
  void setClicking(bool on);

  Session session_;
  Ground ground_;
  std::shared_ptr<Finder> finder_;
  QString place_;
  QString why_;
  bool isClicking_ = false;
  QLabel* head_;
  QLabel* words_;
  QLabel* look_;
  QGridLayout* answers_;
  QFormLayout* sliders_;
  /// Of each slider; the one that keys move is `slider_`.
  std::vector<QDoubleSpinBox*> fields_;
  int slider_ = 0;
  PlanPicker* picker_;
  QLineEdit* name_;
  QLabel* left_;
  FinderDrawing* drawing_;
  QPushButton* accept_;
};

}  // namespace chispa::desk
