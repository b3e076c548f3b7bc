// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <vector>

#include <QDialog>

#include "core/music/analysis.h"
#include "desk/session/session.h"

class QListWidget;

namespace chispa::desk {

/// Other ways to count the open score's music, the likeliest first. What is chosen is in the score at once,
/// so that it is seen, and heard as clicks; leaving it puts back what was there. UI thread.
class ReadingsDialog : public QDialog {
  Q_OBJECT
 public:
  ReadingsDialog(const Session& session, const AnalysedAudio& audio, QWidget* parent = nullptr);
  void done(int result) override;

 private:
  void list(const AnalysedAudio& audio);
  void show(int row);

  Session session_;
  /// The score as it was, then the other readings.
  std::vector<BeatMarks> readings_;
  QListWidget* list_;
  /// As the score stood; clicks were heard before.
  Show before_;
  bool heardClicks_;
};

}  // namespace chispa::desk
