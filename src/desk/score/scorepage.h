// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <QWidget>

#include "desk/session/session.h"

class QComboBox;
class QLabel;
class QListWidget;
class QPushButton;

namespace chispa::desk {

class ClipPictures;
class Composing;
class EffectShelf;
class TimelineView;

/// The workspace Score: palettes and effects, the glow, and the timeline.
class ScorePage : public QWidget {
  Q_OBJECT
 public:
  explicit ScorePage(const Session& session, QWidget* parent = nullptr);

  TimelineView& timeline() { return *timeline_; }
  ClipPictures& pictures() { return *pictures_; }
  Composing& composing() { return *composing_; }
  /// Draws the icons anew in the theme's colours.
  void refreshIcons();
  /// Asks for an audio file and makes a score of it; with a path, asks nothing.
  void newScore(QString audio = {});
  /// Adds a palette from a file of colours or a picture; without a path, asks for one.
  void importPalette(QString file = {});

 private:
  QWidget* makeShelf();
  QWidget* makeTransport();
  void fillPalettes();
  void fillScores();
  void showPosition();
  void addFoundBeats();

  Session session_;
  ClipPictures* pictures_;
  TimelineView* timeline_;
  Composing* composing_;
  EffectShelf* shelf_;
  QListWidget* palettes_;
  QComboBox* scores_;
  QPushButton* play_;
  QPushButton* loop_;
  QLabel* position_;
  bool filling_ = false;
};

}  // namespace chispa::desk
