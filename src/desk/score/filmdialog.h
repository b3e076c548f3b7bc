// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <QDialog>

#include "core/preview/film.h"
#include "desk/session/session.h"

class QCheckBox;
class QComboBox;
class QLabel;
class QLineEdit;
class QPushButton;
class QSpinBox;

namespace chispa::desk {

class WorkBar;

/// Makes a film, or a recording, of the open score on a worker: what, how large, where to; its size is told
/// before, and it can be cancelled. The window lives on meanwhile.
class FilmDialog : public QDialog {
  Q_OBJECT
 public:
  explicit FilmDialog(const Session& session, QWidget* parent = nullptr);

 private:
  void makeRows();
  void chooseFile();
  void tellSize();
  TimeSpan wantedSpan() const;
  FilmOrder order() const;
  bool isRecording() const;
  void begin();
  void end(const Result<bool>& made);

  Session session_;
  QLineEdit* file_;
  QComboBox* part_;
  QComboBox* view_;
  QCheckBox* asStrips_;
  QSpinBox* width_;
  QSpinBox* height_;
  QSpinBox* rate_;
  QCheckBox* sound_;
  QLabel* size_;
  WorkBar* progress_;
  QPushButton* make_;
  QPushButton* cancel_;
};

}  // namespace chispa::desk
