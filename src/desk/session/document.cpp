// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/session/document.h"

#include <atomic>

#include "core/check/outsidefiles.h"
#include "core/files/showfile.h"
#include "core/rules/invariants.h"
#include "desk/parts/format.h"
#include "desk/parts/language.h"
#include "desk/session/journalwriter.h"

namespace chispa::desk {
namespace {

constexpr int kJournalDelay_ms = 400;

/// A show on its way into its file. Whoever is first decides: it is put in place, or called off.
class Write {
 public:
  Write(Show show, std::filesystem::path path) : show_(std::move(show)), path_(std::move(path)) {}

  /// Any thread.
  void run() {
    saved_ = saveShow(path_, show_, [this] { return end(); });
    stamp_ = stampOf(path_);
  }
  /// True for the first who asks. Any thread.
  bool end() { return !isDecided_.exchange(true); }

  const Show& show() const { return show_; }
  const std::filesystem::path& path() const { return path_; }
  const Outcome& saved() const { return saved_; }
  std::optional<FileStamp> stamp() const { return stamp_; }

 private:
  Show show_;
  std::filesystem::path path_;
  std::atomic<bool> isDecided_{false};
  Outcome saved_ = Done{};
  std::optional<FileStamp> stamp_;
};

}  // namespace

Document::Document(std::filesystem::path journalFolder, QObject* parent)
    : QObject(parent), journalFolder_(std::move(journalFolder)) {
  journalTimer_.setSingleShot(true);
  journalTimer_.setInterval(kJournalDelay_ms);
  connect(&journalTimer_, &QTimer::timeout, this, [this] {
    if (journal_) journal_->write(show());
  });
  retryTimer_.setSingleShot(true);
  connect(&retryTimer_, &QTimer::timeout, this, &Document::retryJournal);
  start();
}

Document::~Document() = default;

QString Document::title() const {
  return path_.empty() ? text(show().name) : text(path_.stem().string());
}

bool Document::beginJournal() {
  auto begun = Journal::begin(journalFolder_, path_.string(), saved_);
  if (!begun) {
    setJournalTrouble(said(begun.failure()));
    return false;
  }
  // The one before goes only now that there is another.
  journal_ = std::make_unique<JournalWriter>(*std::move(begun));
  connect(journal_.get(), &JournalWriter::written, this, [this] { setJournalTrouble({}); });
  connect(journal_.get(), &JournalWriter::failed, this, &Document::setJournalTrouble);
  setJournalTrouble({});
  return true;
}

void Document::setJournalTrouble(const QString& words) {
  constexpr int kTryAgain_ms = 2'000;
  if (!words.isEmpty()) retryTimer_.start(kTryAgain_ms);
  if (words == journalTrouble_) return;
  journalTrouble_ = words;
  emit safetyChanged();
}

void Document::retryJournal() {
  if (!journal_ && !beginJournal()) return;
  journal_->write(show());
}

void Document::replace(Show show, std::filesystem::path path, const Stored* stored) {
  history_ = History(std::move(show));
  saved_ = history_.now();
  path_ = std::move(path);
  stamp_ = stored ? stored->stamp : std::nullopt;
  namesOutside_ = stored ? stored->namesOutside : std::vector<std::string>();
  lock_.reset();
  if (!path_.empty()) lock_ = ShowLock::take(journalFolder_, path_);
  // What it holds is of another show.
  journal_.reset();
  beginJournal();
  emit opened();
  emit stateChanged();
}

void Document::start(ShowTemplate kind) {
  replace(newShow(kind), {});
}

bool Document::runSlow(const SlowWork& work) const {
  if (runSlowly) return runSlowly(work);
  work.run();
  return true;
}

template <class T>
std::optional<T> Document::madeSlowly(const QString& what, std::function<T()> make) const {
  return makeSlowly<T>([this](const SlowWork& work) { return runSlow(work); }, what, std::move(make));
}

Document::Stored Document::readStored(const std::filesystem::path& path) {
  // First the stamp: what changes while it is read is a change by somebody else.
  const auto stamp = stampOf(path);
  auto show = loadShow(path);
  auto names = show ? chispa::namesOutside(*show, path) : std::vector<std::string>();
  return {std::move(show), stamp, std::move(names)};
}

std::optional<Document::Stored> Document::read(const std::filesystem::path& path) const {
  return madeSlowly<Stored>(tr("Opening “%1” …").arg(text(path.filename().string())),
                            [path] { return readStored(path); });
}

Outcome Document::open(const std::filesystem::path& path) {
  // Absolute, so that the journal's word is good in any folder.
  const auto place = std::filesystem::absolute(path);
  auto stored = read(place);
  if (!stored) return Failure{"Opening was called off.", path.string(), "What was open stays open."};
  if (!stored->show) return stored->show.failure();
  replace(*stored->show, place, &*stored);
  return Done{};
}

bool Document::adopt(const LeftJournal& left) {
  const std::filesystem::path path = left.showPath;
  std::optional<Stored> stored;
  if (!path.empty()) {
    stored = read(path);
    if (!stored) return false;
  }
  replace(stored && stored->show ? *stored->show : newShow(ShowTemplate::Empty), path,
          stored ? &*stored : nullptr);
  apply(tr("recover unsaved work"), [&](Show& show) { show = left.show; });
  flushJournal();
  return journal_ && journalTrouble_.isEmpty();
}

Outcome Document::save() {
  return saveAs(path_);
}

Outcome Document::saveAs(const std::filesystem::path& path) {
  if (path != path_ && isOpenElsewhere(path))
    return Failure{"This show is open in another window.", path.string(),
                   "Close it there, or choose another name."};
  const auto write = std::make_shared<Write>(show(), std::filesystem::absolute(path));
  if (!runSlow({tr("Saving “%1” …").arg(text(path.filename().string())), [write] { write->run(); },
                [write] { return write->end(); }}))
    return Failure{"Saving was called off.", path.string(), "What was there before stays as it was."};
  if (!write->saved()) return write->saved();
  if (path != path_ || !lock_) {
    lock_.reset();
    lock_ = ShowLock::take(journalFolder_, path);
  }
  path_ = write->path();
  stamp_ = write->stamp();
  saved_ = write->show();
  beginJournal();
  emit stateChanged();
  return write->saved();
}

bool Document::wasChangedOutside() const {
  if (path_.empty() || !stamp_) return false;
  const auto now = madeSlowly<std::optional<FileStamp>>(tr("Looking at “%1” …").arg(title()),
                                                        [path = path_] { return stampOf(path); });
  return now && *now != stamp_;
}

bool Document::isOpenElsewhere(const std::filesystem::path& path) const {
  const auto isElsewhere = madeSlowly<bool>(
      tr("Looking at “%1” …").arg(text(path.filename().string())),
      [path, own = lock_ ? path_ : std::filesystem::path(), folder = journalFolder_] {
        std::error_code error;
        return !std::filesystem::equivalent(path, own, error) && !ShowLock::take(folder, path);
      });
  return isElsewhere.value_or(false);
}

void Document::step(const std::function<void()>& move) {
  const Show before = show();
  move();
  if (before == show()) return;
  // A running timer is left alone: in a long drag the journal is still written within a second.
  if (!journalTimer_.isActive()) journalTimer_.start();
  emit showChanged(before);
  emit stateChanged();
}

bool Document::applyWithCare(const QString& name, const std::function<Losses(Show&)>& edit,
                             const QString& mergeKey) {
  Show after = show();
  const Losses losses = edit(after);
  if (!losses.empty() && mayLose && !mayLose(name, losses)) {
    // Fields that had been turned to the new value must show the old one again.
    emit showChanged(show());
    return false;
  }
  return apply(
      name, [&](Show& now) { now = after; }, mergeKey);
}

bool Document::apply(const QString& name, const History::Edit& edit, const QString& mergeKey) {
  return takeIfSound(edit, [&](const History::Edit& sound) {
    // What comes a while later is another thing in the maker's mind.
    constexpr qint64 kTogether_ms = 1'000;
    if (!sinceEdit_.isValid() || sinceEdit_.restart() > kTogether_ms) history_.seal();
    if (!sinceEdit_.isValid()) sinceEdit_.start();
    history_.apply(name.toStdString(), sound, mergeKey.toStdString());
  });
}

bool Document::complete(const QString& name, const History::Edit& edit) {
  return takeIfSound(edit, [&](const History::Edit& sound) { history_.complete(name.toStdString(), sound); });
}

bool Document::takeIfSound(const History::Edit& edit, const Take& take) {
  Show after = show();
  edit(after);
  if (const auto broken = brokenInvariant(after, &show())) {
    // Fields that had been turned to the new value must show the old one again.
    emit showChanged(show());
    emit failed(text(broken->text()));
    return false;
  }
  step([&] { take([&](Show& now) { now = std::move(after); }); });
  return true;
}

void Document::undo() {
  step([this] { history_.undo(); });
}

void Document::redo() {
  step([this] { history_.redo(); });
}

QStringList Document::historyNames() const {
  QStringList all;
  for (const std::string& name : history_.names()) all << text(name);
  return all;
}

void Document::goToStep(std::size_t position) {
  step([&] { history_.goTo(position); });
}

void Document::forgetAfter(std::size_t position) {
  step([&] { history_.forgetAfter(position); });
}

void Document::keepJournal() {
  if (!isModified()) return;
  flushJournal();
  if (journal_) journal_->keep();
}

void Document::flushJournal() {
  journalTimer_.stop();
  if (!journal_ && !beginJournal()) return;
  journal_->write(show());
  journal_->finish();
}

}  // namespace chispa::desk
