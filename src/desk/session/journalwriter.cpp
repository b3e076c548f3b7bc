// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/session/journalwriter.h"

#include <QtConcurrent>

#include "desk/parts/format.h"

namespace chispa::desk {

JournalWriter::JournalWriter(std::unique_ptr<Journal> journal, QObject* parent) : QObject(parent), journal_(std::move(journal)) {
  pool_.setMaxThreadCount(1);
  connect(&running_, &QFutureWatcherBase::finished, this, &JournalWriter::conclude);
}

JournalWriter::~JournalWriter() {
  running_.disconnect(this);
  pool_.waitForDone();
}

void JournalWriter::start(const Show& show) {
  running_.setFuture(QtConcurrent::run(&pool_, [journal = journal_.get(), show] { return journal->append(show); }));
}

void JournalWriter::write(const Show& show) {
  if (running_.isRunning())
    next_ = show;
  else
    start(show);
}

void JournalWriter::conclude() {
  if (const Outcome written = running_.result(); !written) emit failed(text(written.failure().text()));
  if (const auto next = std::exchange(next_, std::nullopt)) start(*next);
}

void JournalWriter::finish() {
  pool_.waitForDone();
  if (const auto next = std::exchange(next_, std::nullopt))
    if (const Outcome written = journal_->append(*next); !written) emit failed(text(written.failure().text()));
}

}  // namespace chispa::desk
