// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <QElapsedTimer>
#include <QTimer>
#include <QWidget>

#include "core/check/problems.h"
#include "desk/session/flashwatch.h"
#include "desk/session/session.h"

class QLabel;
class QPushButton;
class QSlider;

namespace chispa::desk {

/// Tells at all times whether light is really leaving the machine, to whom, and what is wrong.
class PulseBar : public QWidget {
  Q_OBJECT
 public:
  explicit PulseBar(const Session& session, QWidget* parent = nullptr);

  void setBlackout(bool on);
  /// Takes the theme's colours anew.
  void refreshColours();
  bool isBlackout() const;
  /// Says something where problems stand, while there is none; empty for nothing.
  void setNotice(const QString& words);
  /// All that was found, the worst first.
  const std::vector<Problem>& problems() const { return problems_; }

 signals:
  /// A part was clicked that speaks of controllers, or of a problem at a place.
  void controllersAsked();
  void powerAsked();
  void problemAsked(const chispa::ProblemPlace& place);
  void allProblemsAsked();
  void problemsFound();

 private:
  void showLight();
  void showNumbers();
  void showRate();
  void showDropped();
  void findProblem();
  /// Now, or where that takes long, once the show has not changed for a moment.
  void findProblemSoon();
  void showProblem();

  Session session_;
  QPushButton* light_;
  QPushButton* blackout_;
  QSlider* master_;
  QLabel* masterText_;
  QPushButton* rate_;
  QPushButton* controllers_;
  QPushButton* amps_;
  QPushButton* problem_;
  QPushButton* problemCount_;
  FlashWatch flashes_;
  std::vector<Problem> problems_;
  ProblemPlace problemPlace_;
  /// Of the whole show; worked out when that changes.
  double fullWhite_a_ = 0;
  QString notice_;
  int ticks_ = 0;
  /// What the output had done when the rate was shown last, and when light was switched on.
  quint64 framesShown_ = 0;
  quint64 skippedBefore_ = 0;
  /// Events played by hand that found no room, as told last.
  quint64 droppedShown_ = 0;
  QElapsedTimer sinceShown_;
  QTimer soon_;
  /// How long problems took to find last.
  qint64 finding_ms_ = 0;
};

}  // namespace chispa::desk
