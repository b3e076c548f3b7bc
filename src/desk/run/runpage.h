// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <set>

#include <QWidget>

#include "desk/session/liveinputs.h"
#include "desk/session/nightdesk.h"

class QLabel;
class QPushButton;

namespace chispa::desk {

class AtOnceBar;
class LivePanel;
class NightStrip;
class PadGrid;
class SetListPanel;

/// The workspace Run: what plays tonight and what drives what on the left, the glow in the middle, looks as
/// pads below it, and the almanac. While it is before the eyes, the keys of looks play them.
class RunPage : public QWidget {
  Q_OBJECT
 public:
  RunPage(const Session& session, LiveInputs& inputs, NightDesk& night, QWidget* parent = nullptr);

  LivePanel& live() { return *live_; }
  AtOnceBar& atOnce() { return *atOnce_; }
  SetListPanel& setLists() { return *setLists_; }
  NightStrip& nights() { return *nights_; }
  /// Keeps what is lit, by the score and by hand, as a look.
  void keepWhatIsLit();
  /// A look of one effect on the selected zone, or on all.
  void addLook();
  /// Begins to keep what is played, or writes what was into the score.
  void record(bool on);
  /// Lets go of everything that is held or lit by hand.
  void reset();

 signals:
  void failed(const QString& words);

 protected:
  bool eventFilter(QObject* watched, QEvent* event) override;
  void hideEvent(QHideEvent* event) override;

 private:
  QWidget* makeSide(LiveInputs& inputs);
  QWidget* makeTools();
  void showNow();
  bool playsKeys() const;
  bool playKey(const QString& key, bool isDown);
  void letGoOfKeys();

  Session session_;
  LiveInputs& inputs_;
  NightDesk& night_;
  QPushButton* record_;
  QLabel* now_;
  QLabel* state_;
  PadGrid* pads_;
  AtOnceBar* atOnce_;
  LivePanel* live_;
  SetListPanel* setLists_;
  NightStrip* nights_;
  std::set<QString> keysDown_;
};

}  // namespace chispa::desk
