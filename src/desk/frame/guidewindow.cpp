// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/frame/guidewindow.h"

#include <QFile>
#include <QFileInfo>
#include <QImage>
#include <QLineEdit>
#include <QScrollBar>
#include <QTextBlock>
#include <QTextBrowser>
#include <QVBoxLayout>

#include "desk/parts/named.h"
#include "desk/parts/theme.h"

namespace chispa::desk {
namespace {

/// Shows pictures no wider than itself.
class GuideText : public QTextBrowser {
 public:
  QVariant loadResource(int type, const QUrl& name) override {
    const QVariant loaded = QTextBrowser::loadResource(type, name);
    if (type != QTextDocument::ImageResource) return loaded;
    QImage picture = loaded.value<QImage>();
    if (picture.isNull() && !picture.loadFromData(loaded.toByteArray())) return loaded;
    constexpr int kAround = 40;
    const int room = std::max(200, viewport()->width() - kAround);
    return picture.width() > room ? picture.scaledToWidth(room, Qt::SmoothTransformation) : picture;
  }
};

}  // namespace

GuideWindow::GuideWindow(const QString& file, QWidget* parent)
    : QWidget(parent, Qt::Window), text_(new GuideText) {
  setObjectName(QStringLiteral("guideWindow"));
  setWindowTitle(tr("Guide"));
  resize(textWidth(90), 640);
  auto* column = new QVBoxLayout(this);
  auto* search =
      named(new QLineEdit, "guideSearch", tr("Find in the guide"), tr("Enter goes from one to the next"));
  search->setPlaceholderText(tr("Find in the guide"));
  search->setClearButtonEnabled(true);
  column->addWidget(search);
  named(text_, "guideText", tr("Guide"), {});
  text_->setOpenExternalLinks(true);
  text_->setSearchPaths({QFileInfo(file).path()});
  column->addWidget(text_);
  // Its width is known before the pictures are asked for.
  layout()->activate();
  QFile in(file);
  if (in.open(QIODevice::ReadOnly))
    text_->setMarkdown(QString::fromUtf8(in.readAll()));
  else
    text_->setPlainText(tr("The guide cannot be read: %1").arg(in.errorString()));
  connect(search, &QLineEdit::returnPressed, this, [this, search] {
    if (text_->find(search->text())) return;
    // From the beginning once more.
    text_->moveCursor(QTextCursor::Start);
    text_->find(search->text());
  });
}

void GuideWindow::goTo(const QString& heading) {
  for (QTextBlock block = text_->document()->begin(); block.isValid(); block = block.next()) {
    if (block.blockFormat().headingLevel() == 0 || !block.text().startsWith(heading)) continue;
    text_->setTextCursor(QTextCursor(block));
    text_->verticalScrollBar()->setValue(text_->verticalScrollBar()->value() + text_->cursorRect().top());
    return;
  }
}

}  // namespace chispa::desk
