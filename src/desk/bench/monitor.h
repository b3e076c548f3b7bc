// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <memory>

#include <QWidget>

#include "desk/session/session.h"
#include "engine/playback.h"
#include "link/receiver.h"
#include "link/streamrecorder.h"

class QComboBox;
class QHBoxLayout;
class QLabel;
class QLineEdit;
class QPushButton;
class QStackedWidget;

namespace chispa::desk {

class ChainView;
class HistoryPlot;
class UniverseField;

/// What leaves this machine and what arrives, universe by universe: values, the same as LEDs, and the history
/// of one channel.
class Monitor : public QWidget {
  Q_OBJECT
 public:
  explicit Monitor(const Session& session, QWidget* parent = nullptr);
  ~Monitor() override;

  /// Shows this universe of a controller, unless the maker has chosen another.
  void follow(ControllerId controller, int universe);
  /// Records what arrives to a file, until recorded once more; plays a recording to the show's controllers,
  /// until played once more.
  void record(const QString& path);
  void playBack(const QString& path);
  bool isRecording() const { return recorder_ != nullptr; }
  bool isPlayingBack() const { return playback_ != nullptr; }
  /// Begins to listen on an interface, or ends it; says why if it cannot.
  void listen(bool on);

 private:
  QHBoxLayout* makeTop();
  void makeListening();

  /// A universe to look at.
  struct Entry {
    Protocol protocol = Protocol::E131;
    ControllerId controller;
    int universe = 0;
    QString label;
    QString facts;
    int used = 512;
    /// Its place among the compiled show's universes.
    std::size_t index = 0;
    std::array<std::uint8_t, 512> values{};

    bool isSamePlace(const Entry& other) const {
      return protocol == other.protocol && controller == other.controller && universe == other.universe;
    }
  };

  /// Every universe that leaves, without its facts and values, which readLeaving() gets for the one that is
  /// shown.
  std::vector<Entry> leaving() const;
  void readLeaving(Entry& entry) const;
  std::vector<Entry> arriving() const;
  void showNow();
  void fill(const std::vector<Entry>& entries);
  void showLeds(const Entry& entry);
  bool isArriving() const;

  Session session_;
  std::unique_ptr<link::Receiver> receiver_;
  /// Listens by the receiver.
  std::unique_ptr<link::StreamRecorder> recorder_;
  std::unique_ptr<engine::Playback> playback_;
  QString trouble_;
  Entry wanted_;
  /// The place that the Bench last asked for; until it asks for another, the maker's own choice stands.
  std::pair<ControllerId, int> followed_;
  std::vector<QString> labels_;
  std::vector<Entry> entries_;
  QPushButton* leaving_;
  QPushButton* arriving_;
  QComboBox* universes_;
  QLabel* facts_;
  QLabel* channel_;
  QPushButton* leds_;
  QLineEdit* address_;
  QPushButton* listen_;
  QPushButton* record_;
  QPushButton* play_;
  QStackedWidget* faces_;
  UniverseField* field_;
  ChainView* chain_;
  HistoryPlot* history_;
};

}  // namespace chispa::desk
