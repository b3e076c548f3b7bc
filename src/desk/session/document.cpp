// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/session/document.h"

#include "core/files/showfile.h"
#include "desk/parts/format.h"
#include "desk/session/journalwriter.h"

namespace chispa::desk {
namespace {

constexpr int kJournalDelay_ms = 400;

Show emptyShow() {
  Show show;
  show.name = "New show";
  put(show.stripTypes, StripType{show.newId<StripTypeId>(), "Plain strip 60/m", "GRB", 60, 5, 12, 1});
  put(show.stripTypes, StripType{show.newId<StripTypeId>(), "Panel", "RGB", 60, 5, 8, 1});
  put(show.palettes, Palette{show.newId<PaletteId>(), "Hearth", {{0, {26, 2, 5}}, {0.4, {200, 40, 8}}, {0.75, {255, 160, 40}}, {1, {255, 240, 200}}}});
  put(show.palettes, Palette{show.newId<PaletteId>(), "Harbour", {{0, {2, 19, 43}}, {0.5, {10, 120, 140}}, {1, {157, 242, 216}}}});
  return show;
}

}  // namespace

Document::Document(std::filesystem::path journalFolder, QObject* parent)
    : QObject(parent), journalFolder_(std::move(journalFolder)) {
  journalTimer_.setSingleShot(true);
  journalTimer_.setInterval(kJournalDelay_ms);
  connect(&journalTimer_, &QTimer::timeout, this, [this] {
    if (journal_) journal_->write(show());
  });
  startEmpty();
}

Document::~Document() = default;

QString Document::title() const {
  return path_.empty() ? text(show().name) : text(path_.stem().string());
}

void Document::beginJournal() {
  journal_.reset();
  auto begun = Journal::begin(journalFolder_, path_.string(), saved_);
  if (!begun) return emit failed(text(begun.failure().text()));
  journal_ = std::make_unique<JournalWriter>(*std::move(begun));
  connect(journal_.get(), &JournalWriter::failed, this, &Document::failed);
}

void Document::replace(Show show, std::filesystem::path path) {
  history_ = History(std::move(show));
  saved_ = history_.now();
  path_ = std::move(path);
  beginJournal();
  emit opened();
  emit stateChanged();
}

void Document::startEmpty() { replace(emptyShow(), {}); }

Outcome Document::open(const std::filesystem::path& path) {
  auto show = loadShow(path);
  if (!show) return show.failure();
  // Absolute, so that the journal's word is good in any folder.
  replace(*std::move(show), std::filesystem::absolute(path));
  return Done{};
}

void Document::adopt(const LeftJournal& left) {
  const std::filesystem::path path = left.showPath;
  Show base = emptyShow();
  if (!path.empty())
    if (auto stored = loadShow(path)) base = *std::move(stored);
  replace(std::move(base), path);
  apply(tr("recover unsaved work"), [&](Show& show) { show = left.show; });
  flushJournal();
}

Outcome Document::save() { return saveAs(path_); }

Outcome Document::saveAs(const std::filesystem::path& path) {
  const Outcome saved = saveShow(path, show());
  if (!saved) return saved;
  path_ = std::filesystem::absolute(path);
  saved_ = show();
  beginJournal();
  emit stateChanged();
  return saved;
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

bool Document::applyWithCare(const QString& name, const std::function<Losses(Show&)>& edit, const QString& mergeKey) {
  Show after = show();
  const Losses losses = edit(after);
  if (!losses.empty() && mayLose && !mayLose(name, losses)) {
    // Fields that had been turned to the new value must show the old one again.
    emit showChanged(show());
    return false;
  }
  apply(name, [&](Show& now) { now = after; }, mergeKey);
  return true;
}

void Document::apply(const QString& name, const History::Edit& edit, const QString& mergeKey) {
  step([&] { history_.apply(name.toStdString(), edit, mergeKey.toStdString()); });
}

void Document::undo() {
  step([this] { history_.undo(); });
}

void Document::redo() {
  step([this] { history_.redo(); });
}

void Document::flushJournal() {
  journalTimer_.stop();
  if (!journal_) return;
  journal_->write(show());
  journal_->finish();
}

}  // namespace chispa::desk
