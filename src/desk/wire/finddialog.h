// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <atomic>
#include <memory>

#include <QDialog>

#include "desk/session/session.h"
#include "link/finder.h"

class QLabel;
class QListWidget;
class QPushButton;
class QTreeWidget;

namespace chispa::desk {

/// Looks for controllers on the interfaces that the maker picks, and puts them into the show. Nothing is
/// asked until *Search* is pressed; answers come in while it listens, and it can be cancelled.
class FindDialog : public QDialog {
  Q_OBJECT
 public:
  explicit FindDialog(const Session& session, QWidget* parent = nullptr);
  ~FindDialog() override;

 private:
  void search();
  void show(const link::FoundController& found);
  std::vector<link::Interface> chosenInterfaces() const;
  void finish(const Outcome& outcome);
  /// Adds the chosen controller, or gives one of the show its new address.
  void take();
  void takeAll();
  void describe();

  Session session_;
  std::vector<link::Interface> interfaces_;
  std::vector<link::FoundController> found_;
  /// What could not be asked or heard.
  QStringList troubles_;
  std::shared_ptr<std::atomic<bool>> cancelled_;
  QListWidget* interfaceList_;
  QTreeWidget* list_;
  QLabel* state_;
  QPushButton* search_;
  QPushButton* take_;
  QPushButton* takeAll_;
};

}  // namespace chispa::desk
