// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <filesystem>
#include <memory>

#include <QElapsedTimer>
#include <QObject>
#include <QTimer>

#include "core/edit/remap.h"
#include "core/edit/templates.h"
#include "core/files/journal.h"
#include "core/files/pendingfile.h"
#include "core/files/showlock.h"
#include "core/show/history.h"
#include "desk/session/patience.h"

namespace chispa::desk {

class JournalWriter;

/// The open show: its history, its file and its journal. All edits of the window go through apply(). UI
/// thread.
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

  /// Names of all steps that are known, the oldest first; the first is what was opened.
  QStringList historyNames() const;
  std::size_t historyPosition() const { return history_.position(); }
  /// Undoes or redoes as many steps as it takes.
  void goToStep(std::size_t position);
  /// Takes back what was done behind step `position`, as if it never was: a drag that is called off.
  void forgetAfter(std::size_t position);

  /// One named edit; edits in a row with the same `mergeKey` are one step of undo, unless a second passes
  /// between them. An edit after which the show would break an invariant (core/check) is not taken: failed()
  /// says why. Returns whether it was.
  bool apply(const QString& name, const History::Edit& edit, const QString& mergeKey = {});
  /// The late end of an edit that the computer went on with: part of that step of undo, however long it took.
  bool complete(const QString& name, const History::Edit& edit);
  /// As apply(), for an edit that may be unable to keep all: what would be lost is shown first, and nothing
  /// happens if the maker does not want that. Returns whether it happened.
  bool applyWithCare(const QString& name, const std::function<Losses(Show&)>& edit,
                     const QString& mergeKey = {});
  /// Shows what an edit would cost and returns whether to go on; without it everything goes on.
  std::function<bool(const QString& edit, const Losses& losses)> mayLose;
  /// The next edit starts a step of its own: a drag has ended.
  void seal() { history_.seal(); }

  /// Runs work that may take long, such as reading a slow disk; false if it was called off. Without it, it is
  /// done at once.
  std::function<bool(const SlowWork&)> runSlowly;

  /// Replaces the open show by a new one.
  void start(ShowTemplate kind = ShowTemplate::Empty);
  /// Replaces the open show by the file's; on failure, or if it is called off, nothing changes.
  Outcome open(const std::filesystem::path& path);
  /// Takes up what a crash left behind; it stays unsaved. True once it is safe in a journal of this
  /// document's own: only then may the old one go.
  bool adopt(const LeftJournal& left);
  Outcome save();
  Outcome saveAs(const std::filesystem::path& path);
  /// True if the show's file is not what was opened or saved last: somebody else wrote it, or it is gone.
  bool wasChangedOutside() const;
  /// True if another window has the show at `path` open.
  bool isOpenElsewhere(const std::filesystem::path& path) const;
  /// What the file, as it was opened, names that lies outside its folder; see core/files/outsidefiles.
  const std::vector<std::string>& namesOutside() const { return namesOutside_; }
  /// Why unsaved work is not safe now; empty while it is. It is tried again every few seconds.
  const QString& journalTrouble() const { return journalTrouble_; }
  /// Writes what is not yet in the journal, and waits for it; happens by itself, without waiting, within half
  /// a second of an edit.
  void flushJournal();
  /// The program ends without asking: unsaved work stays in the journal, to be offered at the next start.
  void keepJournal();

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
  /// journalTrouble() is another.
  void safetyChanged();
  /// Something failed that the user should know of and that stops nothing.
  void failed(const QString& words);

 private:
  using Take = std::function<void(const History::Edit&)>;
  bool runSlow(const SlowWork& work) const;
  template <class T>
  std::optional<T> madeSlowly(const QString& what, std::function<T()> make) const;
  bool takeIfSound(const History::Edit& edit, const Take& take);
  /// What a file holds, and all that was found out about it where it was read.
  struct Stored {
    Result<Show> show;
    std::optional<FileStamp> stamp;
    std::vector<std::string> namesOutside;
  };
  static Stored readStored(const std::filesystem::path& path);
  std::optional<Stored> read(const std::filesystem::path& path) const;
  /// `stored` is the file of the show, or nothing.
  void replace(Show show, std::filesystem::path path, const Stored* stored = nullptr);
  void step(const std::function<void()>& move);
  bool beginJournal();
  void setJournalTrouble(const QString& words);
  void retryJournal();

  std::filesystem::path journalFolder_;
  History history_;
  Show saved_;
  std::filesystem::path path_;
  /// What its file was when it was opened or saved last.
  std::optional<FileStamp> stamp_;
  std::vector<std::string> namesOutside_;
  std::optional<ShowLock> lock_;
  std::unique_ptr<JournalWriter> journal_;
  QTimer journalTimer_;
  QTimer retryTimer_;
  QString journalTrouble_;
  QElapsedTimer sinceEdit_;
};

}  // namespace chispa::desk
