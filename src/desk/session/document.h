// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <QObject>
#include <QTimer>
#include <filesystem>
#include <memory>

#include "core/edit/refit.h"
#include "core/files/journal.h"
#include "core/show/history.h"

namespace chispa::desk {

class JournalWriter;

/// The open show: its history, its file and its journal. All edits of the window go through apply(). UI thread.
class Document : public QObject {
  Q_OBJECT
 public:
  /// Unsaved work is kept in `journalFolder`.
  explicit Document(std::filesystem::path journalFolder, QObject* parent = nullptr);
  ~Document() override;

  const Show& show() const { return history_.now(); }
  const std::filesystem::path& path() const { return path_; }
  /// File name without ending, or the show's name if it has no file yet.
  QString title() const;
  bool isModified() const { return !(history_.now() == saved_); }

  bool canUndo() const { return history_.canUndo(); }
  bool canRedo() const { return history_.canRedo(); }
  QString undoName() const { return QString::fromStdString(history_.undoName()); }
  QString redoName() const { return QString::fromStdString(history_.redoName()); }

  /// One named edit; edits in a row with the same `mergeKey` are one step of undo.
  void apply(const QString& name, const History::Edit& edit, const QString& mergeKey = {});
  /// As apply(), for an edit that may be unable to keep all: what would be lost is shown first, and nothing happens if
  /// the maker does not want that. Returns whether it happened.
  bool applyWithCare(const QString& name, const std::function<Losses(Show&)>& edit, const QString& mergeKey = {});
  /// Shows what an edit would cost and returns whether to go on; without it everything goes on.
  std::function<bool(const QString& edit, const Losses& losses)> mayLose;
  /// The next edit starts a step of its own: a drag has ended.
  void seal() { history_.seal(); }

  /// A show with a strip type and a palette to begin with, and nothing else.
  void startEmpty();
  /// Replaces the open show by the file's; on failure nothing changes.
  Outcome open(const std::filesystem::path& path);
  /// Takes up what a crash left behind; it stays unsaved.
  void adopt(const LeftJournal& left);
  Outcome save();
  Outcome saveAs(const std::filesystem::path& path);
  /// Writes what is not yet in the journal, and waits for it; happens by itself, without waiting, within half a second of an edit.
  void flushJournal();

 public slots:
  void undo();
  void redo();

 signals:
  /// The show is another value now; `before` is what it was. Not sent by opening.
  void showChanged(const chispa::Show& before);
  /// Another show is open.
  void opened();
  /// Path, or whether there is something to save, changed.
  void stateChanged();
  /// Something failed that the user should know of and that stops nothing.
  void failed(const QString& words);

 private:
  void replace(Show show, std::filesystem::path path);
  void step(const std::function<void()>& move);
  void beginJournal();

  std::filesystem::path journalFolder_;
  History history_;
  Show saved_;
  std::filesystem::path path_;
  std::unique_ptr<JournalWriter> journal_;
  QTimer journalTimer_;
};

}  // namespace chispa::desk
