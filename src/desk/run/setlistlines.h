// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <QListWidget>

#include "desk/session/nightdesk.h"

namespace chispa::desk {

/// What a look carries while it is dragged: its id as text.
inline constexpr const char* kLookMime = "application/x-chispa-look";

/// The lines of one set list: dragged to order them, looks dropped in between, the one that plays marked.
/// Enter or a double click plays a line, Delete takes it out, Alt+Up and Alt+Down move it. UI thread.
class SetListLines : public QListWidget {
  Q_OBJECT
 public:
  SetListLines(const Session& session, NightDesk& night, QWidget* parent = nullptr);

  SetListId list() const { return list_; }
  void show(SetListId list);
  /// Adds lines behind the chosen one, or at the end.
  void insert(const std::vector<SetListItem>& lines);
  void removeChosen();
  void moveChosen(int by);

 protected:
  void keyPressEvent(QKeyEvent* event) override;
  void contextMenuEvent(QContextMenuEvent* event) override;
  QStringList mimeTypes() const override;
  Qt::DropActions supportedDropActions() const override { return Qt::MoveAction | Qt::CopyAction; }
  void dragEnterEvent(QDragEnterEvent* event) override;
  void dragMoveEvent(QDragMoveEvent* event) override;
  void dropEvent(QDropEvent* event) override;

 private:
  void refill();
  void follow();
  void play(int row);
  int rowAt(const QDropEvent& event) const;

  Session session_;
  NightDesk& night_;
  SetListId list_;
  /// The row that is marked as playing; -1 for none.
  int playing_ = -1;
};

}  // namespace chispa::desk
