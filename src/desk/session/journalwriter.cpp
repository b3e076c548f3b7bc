// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/session/journalwriter.h"

#include <QtConcurrent>

#include "desk/parts/format.h"
#include "desk/parts/language.h"

namespace chispa::desk {

JournalWriter::JournalWriter(std::unique_ptr<Journal> journal, QObject* parent)
    : QObject(parent), journal_(std::move(journal)) {
  pool_.setMaxThreadCount(1);
  connect(&running_, &QFutureWatcherBase::finished, this, &JournalWriter::conclude);
}

JournalWriter::~JournalWriter() {
  running_.disconnect(this);
  pool_.waitForDone();
}

void JournalWriter::start(const Show& show) {
  running_.setFuture(
      QtConcurrent::run(&pool_, [journal = journal_.get(), show] { return journal->append(show); }));
}

void JournalWriter::write(const Show& show) {
  if (running_.isRunning())
    next_ = show;
  else
    start(show);
}

void JournalWriter::conclude() {
  tell(running_.result());
  if (const auto next = std::exchange(next_, std::nullopt)) start(*next);
}

void JournalWriter::finish() {
  pool_.waitForDone();
  if (const auto next = std::exchange(next_, std::nullopt))
    tell(journal_->append(*next));
  else if (running_.isFinished() && running_.future().resultCount() > 0)
    tell(running_.result());
}

void JournalWriter::tell(const Outcome& outcome) {
  if (outcome)
    emit written();
  else
    emit failed(said(outcome.failure()));
}

}  // namespace chispa::desk
