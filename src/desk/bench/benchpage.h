// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <map>

#include <QWidget>

#include "desk/bench/finderview.h"
#include "desk/session/session.h"

class QDoubleSpinBox;
class QLabel;
class QListWidget;
class QPushButton;
class QScrollArea;
class QStackedWidget;

namespace chispa::desk {

class AddressRow;
class CameraPage;
class ChainView;
class Faders;
class Monitor;
class SignalForm;
class TargetList;

/// The workspace Bench: test signals to anything that can be addressed, finders, and what leaves and arrives.
class BenchPage : public QWidget {
  Q_OBJECT
 public:
  explicit BenchPage(const Session& session, QWidget* parent = nullptr);

  /// Chooses what is driven.
  void choose(const BenchTarget& target);
  void choosePort(PortChoice port) { choose({BenchTarget::Kind::Port, port.controller, port.port, 0}); }
  /// Chooses the address by hand, and sets it.
  void chooseAddress(const BenchRig& rig);
  const BenchRig& rig() const { return rig_; }
  SignalForm& signalForm() { return *signal_; }
  Monitor& monitor() { return *monitor_; }
  void setSending(bool on);
  /// Begins a finder on what is chosen, or goes on with it.
  void beginFinder(FinderKind kind);
  /// Begins to find the places of what is chosen by a camera.
  void beginCamera();
  CameraPage& camera() { return *camera_; }

  /// The Bench in the hand: what a phone shows of it, and what it asks for.
  struct HandAnswer {
    QString words;
    QColor colour = {};
    int seen = 0;
    /// The finder that it begins; below 0 for an answer.
    int begins = -1;
  };
  struct HandQuestion {
    QString target;
    QString question;
    QString hint;
    QString left;
    std::vector<HandAnswer> answers;
    bool canGoBack = false;
  };
  HandQuestion handQuestion() const;
  /// Answers, or, where nothing is asked any more, takes what was found.
  void answerByHand(int seen);
  void goBackByHand();
  /// The next port, or the one before.
  void stepPort(int by);
  /// Lights one pixel of the port after the other.
  void walkByHand(int by);
  /// Lets the port blink, or ends it.
  void locateByHand();

 protected:
  void keyPressEvent(QKeyEvent* event) override;
  void showEvent(QShowEvent* event) override;
  void hideEvent(QHideEvent* event) override;

 private:
  QWidget* makeLeft();
  QWidget* makeSignalFace();
  QWidget* makePowerTest();
  QWidget* makeFinders();
  FinderView::Ground ground();
  const BenchTarget& target() const;
  bool isByHand() const;
  /// The document's show, and the address by hand if it is chosen.
  Show workingShow() const;
  void takeTarget();
  void takeAddress();
  void keepAddress();
  void sendSignal();
  void step(int by);
  void copyPalette(const std::vector<Srgb8>& colours);
  void follow();
  void showNow();
  void showChain(const engine::TestSignal* signal, int lit);
  void showPower();
  void scaleCurrent();
  double computedAmps() const;

  Session session_;
  BenchRig rig_ = makeBenchRig();
  int place_ = 0;
  bool isLocating_ = false;
  TargetList* targets_;
  SignalForm* signal_;
  AddressRow* address_;
  QStackedWidget* stack_;
  QWidget* signalFace_;
  FinderView* finderView_;
  /// Scrolls the finder where the window is too small for it.
  QScrollArea* finderFace_;
  CameraPage* camera_;
  QListWidget* finders_;
  QLabel* changed_;
  /// Finders that were left before they knew, and the show they were begun in.
  std::map<std::tuple<FinderKind, ControllerId, int, int>, std::shared_ptr<Finder>> openFinders_;
  Show finderShow_;
  QLabel* headline_;
  QLabel* where_;
  QPushButton* lightHere_;
  int restingTicks_ = 0;
  ChainView* chain_;
  Faders* faders_;
  QWidget* power_;
  QLabel* computed_;
  QDoubleSpinBox* measured_;
  QPushButton* takeMeasured_;
  Monitor* monitor_;
};

}  // namespace chispa::desk
