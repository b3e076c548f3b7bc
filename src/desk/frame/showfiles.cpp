// SPDX-License-Identifier: GPL-3.0-or-later
// Shows, and other files, that MainWindow opens, saves and takes up again.
#include <QAbstractButton>
#include <QApplication>
#include <QCloseEvent>
#include <QFileDialog>
#include <QFileInfo>
#include <QMessageBox>

#include "desk/frame/mainwindow.h"
#include "desk/frame/pulsebar.h"
#include "desk/frame/recentshows.h"
#include "desk/glow/glowview.h"
#include "desk/glow/glowwindow.h"
#include "desk/parts/format.h"
#include "desk/parts/language.h"
#include "desk/plan/planpage.h"
#include "desk/score/scorepage.h"

namespace chispa::desk {
namespace {

/// As many lines as a question has room for, and how many more there are.
QString firstLines(const QStringList& lines) {
  constexpr qsizetype kMaxLines = 12;
  QStringList shown = lines.mid(0, kMaxLines);
  if (lines.size() > kMaxLines) shown << MainWindow::tr("… and %1 more.").arg(lines.size() - kMaxLines);
  return shown.join(QLatin1Char('\n'));
}

}  // namespace

bool MainWindow::openFile(const QString& path) {
  if (!isUnattended_ && session_.document.isOpenElsewhere(path.toStdString()))
    tell(tr("“%1” is open in another window.\nWhat is saved here replaces what is saved there, and the other "
            "way round; Chispa asks before it does.")
             .arg(path));
  const Outcome opened = session_.document.open(path.toStdString());
  if (!opened) {
    tell(said(opened.failure()));
    return false;
  }
  rememberRecent(session_.document.path());
  return true;
}

void MainWindow::dragEnterEvent(QDragEnterEvent* event) {
  if (event->mimeData()->hasUrls()) event->acceptProposedAction();
}

void MainWindow::dropEvent(QDropEvent* event) {
  event->acceptProposedAction();
  for (const QUrl& url : event->mimeData()->urls())
    if (url.isLocalFile()) takeFile(url.toLocalFile());
}

void MainWindow::takeFile(const QString& path) {
  const QString ending = QFileInfo(path).suffix().toLower();
  const auto isOne = [&ending](std::initializer_list<const char*> endings) {
    return std::any_of(endings.begin(), endings.end(),
                       [&ending](const char* one) { return ending == QLatin1String(one); });
  };
  if (isOne({"chispa"})) {
    if (mayDiscard()) openFile(path);
  } else if (isOne({"mp3", "m4a", "aac", "ogg", "flac", "wav"})) {
    showWorkspace(Workspace::Score);
    score_->newScore(path);
  } else if (isOne({"gpl", "ggr", "cpt", "css"})) {
    showWorkspace(Workspace::Score);
    score_->importPalette(path);
  } else if (isOne({"svg"})) {
    showWorkspace(Workspace::Plan);
    plan_->importSvg(path);
  } else if (isOne({"csv", "txt", "json"})) {
    showWorkspace(Workspace::Plan);
    plan_->importPoints(path);
  } else if (isOne({"png", "jpg", "jpeg", "webp", "bmp", "gif"})) {
    showWorkspace(Workspace::Plan);
    plan_->addUnderlay(path);
  } else {
    tell(tr("“%1” is of no kind that is known here.\nShows, music, palettes, drawings, tables of points and "
            "pictures "
            "can be dropped.")
             .arg(QFileInfo(path).fileName()));
  }
}

void MainWindow::newShow() {
  if (mayDiscard()) session_.document.start();
}

void MainWindow::openAsking() {
  if (!mayDiscard()) return;
  const QString path =
      QFileDialog::getOpenFileName(this, tr("Open a show"), {}, tr("Chispa shows (*.chispa)"));
  if (!path.isEmpty()) openFile(path);
}

bool MainWindow::save() {
  if (session_.document.path().empty()) return saveAs();
  if (session_.document.wasChangedOutside() && !mayOverwrite()) return false;
  const Outcome saved = session_.document.save();
  if (!saved) tell(said(saved.failure()));
  if (saved) rememberRecent(session_.document.path());
  return static_cast<bool>(saved);
}

bool MainWindow::saveAs() {
  QString path = QFileDialog::getSaveFileName(this, tr("Save the show"),
                                              session_.document.title() + QStringLiteral(".chispa"),
                                              tr("Chispa shows (*.chispa)"));
  if (path.isEmpty()) return false;
  if (!path.endsWith(QStringLiteral(".chispa"))) path += QStringLiteral(".chispa");
  const Outcome saved = session_.document.saveAs(path.toStdString());
  if (!saved) {
    tell(said(saved.failure()));
    return false;
  }
  rememberRecent(session_.document.path());
  return true;
}

void MainWindow::askForOutsideFiles() {
  OutsideFiles& files = session_.stage.outsideFiles();
  const QStringList waiting = files.waiting();
  // Nobody is there to answer; the pulse bar tells of them.
  if (waiting.isEmpty() || isUnattended_) return;
  QMessageBox box(QMessageBox::Question, tr("Files outside the show's folder"),
                  tr("“%1” wants to read files that lie outside its folder:").arg(session_.document.title()),
                  QMessageBox::NoButton, this);
  box.setInformativeText(
      firstLines(waiting) + QStringLiteral("\n\n") +
      tr("Allow it if you know who made the show. It is remembered, and asked again only for other files."));
  const QAbstractButton* allow = box.addButton(tr("Allow it"), QMessageBox::AcceptRole);
  box.setDefaultButton(box.addButton(tr("Leave them out"), QMessageBox::RejectRole));
  box.exec();
  if (box.clickedButton() == allow) files.allow();
}

bool MainWindow::mayOverwrite() {
  QMessageBox box(
      QMessageBox::Warning, tr("The file has changed"),
      tr("“%1” was changed by somebody else since it was opened here.").arg(session_.document.title()),
      QMessageBox::Cancel, this);
  box.setInformativeText(tr("Saving would replace what they did. Under another name both are kept."));
  const QAbstractButton* other = box.addButton(tr("Save under another name…"), QMessageBox::AcceptRole);
  const QAbstractButton* replace = box.addButton(tr("Replace it"), QMessageBox::DestructiveRole);
  box.exec();
  if (box.clickedButton() == other) saveAs();
  return box.clickedButton() == replace;
}

bool MainWindow::mayDiscard() {
  if (!session_.document.isModified()) return true;
  const auto answer = QMessageBox::question(
      this, tr("Unsaved changes"),
      tr("“%1” has changes that are not saved.\nSave them?").arg(session_.document.title()),
      QMessageBox::Save | QMessageBox::Discard | QMessageBox::Cancel, QMessageBox::Save);
  return answer == QMessageBox::Discard || (answer == QMessageBox::Save && save());
}

void MainWindow::closeEvent(QCloseEvent* event) {
  if (!mayDiscard()) return event->ignore();
  session_.stage.switchLight(false);
  keepLayout();
  if (keepsLayout_ && !session_.document.path().empty()) rememberRecent(session_.document.path());
  if (glowWindow_) glowWindow_->close();
  event->accept();
}

void MainWindow::offerRecovery(const std::filesystem::path& journals) {
  pulse_->setNotice({});
  const LeftJournals found = findLeftJournals(journals);
  for (const Failure& lost : found.unreadable) tell(said(lost));
  for (const LeftJournal& left : found.left) {
    const QString name = left.showPath.empty() ? tr("a show that was never saved") : text(left.showPath);
    QString words = tr("Chispa closed unexpectedly. It kept %1 to %2.")
                        .arg(counted(left.changes, tr("one change"), tr("%1 changes")), name);
    if (left.isDamaged)
      words += QLatin1Char('\n') + tr("What followed them cannot be read; the file is kept.");
    const auto answer = QMessageBox::question(
        this, tr("Unsaved work was found"), words + QLatin1Char('\n') + tr("Restore unsaved work?"),
        QMessageBox::Yes | QMessageBox::Discard | QMessageBox::Cancel, QMessageBox::Yes);
    if (answer == QMessageBox::Cancel) continue;
    const bool isSafe = answer == QMessageBox::Yes ? session_.document.adopt(left) : true;
    if (isSafe) disposeOf(left);
    if (answer == QMessageBox::Yes) return;
  }
}

void MainWindow::noteRecovery(const std::filesystem::path& journals) {
  const auto left = std::ssize(leftJournalFiles(journals));
  if (left > 0)
    pulse_->setNotice(tr("Unsaved work of an earlier time is kept; File ▸ Recover unsaved work shows it"));
}

void MainWindow::endInOrder() {
  session_.stage.switchLight(false);
  session_.document.keepJournal();
  QApplication::exit(0);
}

void MainWindow::rememberRecent(const std::filesystem::path& path) {
  // The picture is the glow as it was seen last; a show that was just opened has not been drawn yet.
  constexpr QSize kPicture(512, 288);
  GlowView& glow = plan_->glow();
  const bool isSeen = glow.isVisible() && session_.stage.compiled() && !session_.show().fixtures.empty();
  rememberShow(text(std::filesystem::absolute(path).string()),
               isSeen ? glow.grab().toImage().scaled(kPicture, Qt::KeepAspectRatioByExpanding,
                                                     Qt::SmoothTransformation)
                      : QImage());
  fillRecent();
}

void MainWindow::fillRecent() {
  recent_->clear();
  for (const QString& path : recentShows())
    recent_->addAction(path, this, [this, path] {
      if (mayDiscard()) openFile(path);
    });
  recent_->setEnabled(!recent_->isEmpty());
}

bool MainWindow::confirmLosses(const QString& edit, const Losses& losses) {
  QStringList lines;
  for (const std::string& loss : losses) lines << text(loss);
  QMessageBox box(QMessageBox::Question, tr("Not everything can be kept"),
                  tr("This cannot be kept (%1):").arg(edit), QMessageBox::NoButton, this);
  box.setInformativeText(firstLines(lines));
  const QAbstractButton* go = box.addButton(tr("Change it anyway"), QMessageBox::AcceptRole);
  box.setDefaultButton(box.addButton(tr("Leave it as it is"), QMessageBox::RejectRole));
  box.exec();
  return box.clickedButton() == go;
}

}  // namespace chispa::desk
