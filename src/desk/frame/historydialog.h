// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <QDialog>

class QListWidget;

namespace chispa::desk {

class Document;

/// What was done, step by step: choosing a step goes back, or forward, to how the show was behind it. It
/// stays open beside the window. UI thread.
class HistoryDialog : public QDialog {
  Q_OBJECT
 public:
  HistoryDialog(Document& document, QWidget* parent);

 private:
  void list();

  Document& document_;
  QListWidget* steps_;
};

}  // namespace chispa::desk
