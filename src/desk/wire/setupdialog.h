// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <atomic>
#include <memory>

#include <QDialog>

#include "desk/session/session.h"
#include "link/setup.h"
#include "link/setupstore.h"

class QComboBox;
class QLabel;
class QPushButton;
class QTreeWidget;
class QTreeWidgetItem;

namespace chispa::desk {

/// Compares the set-up of controllers with what the show wants (or with what they had before), port by port;
/// writes it when asked, several controllers at once, keeps what was there, and tells what became of each
/// port. The network is spoken to on workers; what has not begun can be cancelled.
class SetupDialog : public QDialog {
  Q_OBJECT
 public:
  explicit SetupDialog(const Session& session, QWidget* parent = nullptr);
  ~SetupDialog() override;

 private:
  enum class Target { Show, Before };
  /// A controller's line, and what it is to get.
  struct Row {
    Controller controller;
    std::vector<PortSettings> wanted;
    QTreeWidgetItem* item = nullptr;
    /// What is kept of it, the newest first, if that is what is to be put back.
    std::vector<link::KeptSetup> kept = {};
    /// What was found when it was last asked.
    std::optional<std::vector<PortSettings>> there = {};
    bool isDifferent = false;
    bool isAsked = true;
  };

  void makeButtons(QWidget* box);
  void fillRows();
  /// The choice of what is put back: by date, each with what it was.
  void offerKept(std::size_t row);
  void run(bool send);
  void finishRow(std::size_t row, const Result<link::SetupReport>& report, bool sent);
  void finishAll();
  void readIntoShow();
  void describe();

  Session session_;
  std::vector<Row> rows_;
  std::shared_ptr<std::atomic<bool>> cancelled_;
  int running_ = 0;
  int failed_ = 0;
  QLabel* state_;
  QComboBox* target_;
  QTreeWidget* list_;
  QPushButton* send_;
  QPushButton* take_;
  QPushButton* stop_;
};

}  // namespace chispa::desk
