// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <QFutureWatcher>
#include <QObject>
#include <QThreadPool>
#include <optional>

#include "core/files/journal.h"

namespace chispa::desk {

/// Appends shows to a journal on a thread of its own, so that a large one does not hold the window up; of those that come while it
/// writes, the newest. UI thread.
class JournalWriter : public QObject {
  Q_OBJECT
 public:
  explicit JournalWriter(std::unique_ptr<Journal> journal, QObject* parent = nullptr);
  /// Waits for what is being written. The journal goes.
  ~JournalWriter() override;

  void write(const Show& show);
  /// Waits until all is written.
  void finish();

 signals:
  /// What is not in the journal now, and why.
  void failed(const QString& words);

 private:
  void start(const Show& show);
  void conclude();

  std::unique_ptr<Journal> journal_;
  /// One thread: what is appended follows what was appended before.
  QThreadPool pool_;
  QFutureWatcher<Outcome> running_;
  std::optional<Show> next_;
};

}  // namespace chispa::desk
