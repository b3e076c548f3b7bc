// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <QWidget>

#include "desk/session/session.h"

class QComboBox;
class QLabel;
class QLineEdit;
class QListWidget;
class QListWidgetItem;
class QHBoxLayout;
class QPushButton;
class QVBoxLayout;

namespace chispa::desk {

class BeatMending;
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
  BeatMending& beatMending() { return *mending_; }
  /// Draws the icons anew in the theme's colours.
  void refreshIcons();
  /// Asks for an audio file and makes a score of it; with a path, asks nothing.
  void newScore(QString audio = {});
  /// Asks for tempo and length, and makes a score without music of that many bars.
  void newSilentScore();
  /// Chooses an effect on the shelf by its key.
  void chooseEffect(const QString& key);
  /// The effect that is chosen on the shelf begins from its next setting.
  void nextSetting();
  /// Marks the effect that is chosen on the shelf as a favourite, or no longer.
  void toggleFavourite();
  /// Adds a palette from a file of colours or a picture; without a path, asks for one.
  void importPalette(QString file = {});
  /// To the field that finds clips and marks.
  void beginSearch();
  /// Opens the dialog that makes films and recordings.
  void openFilmDialog();

 signals:
  /// Something could not be done; the words say why and what to do.
  void failed(const QString& words);

 private:
  QWidget* makeShelf();
  void addPalettes(QVBoxLayout& column);
  void givePalette(const QListWidgetItem* item);
  QWidget* makeTransport();
  void addSearch(QHBoxLayout& row);
  /// Selects and shows the next match, a clip or a mark.
  void search();
  void fillPalettes();
  void fillScores();
  void showPosition();
  /// A new score has its length and beats once its music was heard; silent ones if that failed.
  void completeScore();
  void addFoundBeats(const Score& score, const AnalysedAudio& audio);
  void goOnSilently(const Score& score);

  Session session_;
  ClipPictures* pictures_;
  TimelineView* timeline_;
  Composing* composing_;
  BeatMending* mending_;
  EffectShelf* shelf_;
  QListWidget* palettes_;
  QComboBox* scores_;
  QPushButton* play_;
  QPushButton* loop_;
  QLabel* position_;
  QLineEdit* search_;
  /// The match that was shown last.
  std::size_t match_ = 0;
  bool filling_ = false;
};

}  // namespace chispa::desk
