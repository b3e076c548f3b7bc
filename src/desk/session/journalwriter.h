// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <optional>

#include <QFutureWatcher>
#include <QObject>
#include <QThreadPool>

#include "core/files/journal.h"

namespace chispa::desk {

/// Appends shows to a journal on a thread of its own, so that a large one does not hold the window up; of
/// those that come while it writes, the newest. UI thread.
class JournalWriter : public QObject {
  Q_OBJECT
 public:
  explicit JournalWriter(std::unique_ptr<Journal> journal, QObject* parent = nullptr);
  /// Waits for what is being written. The journal goes.
  ~JournalWriter() override;

  void write(const Show& show);
  const std::filesystem::path& file() const { return journal_->file(); }
  /// Waits until all is written.
  void finish();
  /// The file stays when this goes.
  void keep() { journal_->keep(); }

 signals:
  /// What was given last is safe.
  void written();
  /// What was given last is not in the journal, and why.
  void failed(const QString& words);

 private:
  void start(const Show& show);
  void conclude();
  void tell(const Outcome& outcome);

  std::unique_ptr<Journal> journal_;
  /// One thread: what is appended follows what was appended before.
  QThreadPool pool_;
  QFutureWatcher<Outcome> running_;
  std::optional<Show> next_;
};

}  // namespace chispa::desk
