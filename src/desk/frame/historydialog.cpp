// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/frame/historydialog.h"

#include <QDialogButtonBox>
#include <QListWidget>
#include <QVBoxLayout>

#include "desk/parts/named.h"
#include "desk/parts/theme.h"
#include "desk/session/document.h"

namespace chispa::desk {

HistoryDialog::HistoryDialog(Document& document, QWidget* parent)
    : QDialog(parent), document_(document), steps_(new QListWidget) {
  setObjectName(QStringLiteral("historyDialog"));
  setWindowTitle(tr("History"));
  resize(textWidth(40), 420);
  auto* column = new QVBoxLayout(this);
  named(steps_, "historyList", tr("History"),
        tr("Choose a step to see the show as it was then; what came behind it is not lost until you change "
           "something"));
  column->addWidget(steps_);
  auto* buttons = new QDialogButtonBox(QDialogButtonBox::Close);
  column->addWidget(buttons);
  connect(buttons, &QDialogButtonBox::rejected, this, &QDialog::close);
  connect(steps_, &QListWidget::currentRowChanged, this, [this](int row) {
    if (row >= 0) document_.goToStep(static_cast<std::size_t>(row));
  });
  connect(&document_, &Document::stateChanged, this, &HistoryDialog::list);
  list();
}

void HistoryDialog::list() {
  const QSignalBlocker quiet(steps_);
  QStringList names = document_.historyNames();
  names.front() = tr("as it was opened");
  const int now = static_cast<int>(document_.historyPosition());
  // A long list is not built anew while one walks through it.
  if (names.size() != steps_->count() || steps_->item(now)->text() != names[now]) {
    steps_->clear();
    steps_->addItems(names);
  }
  for (int i = 0; i < steps_->count(); ++i)
    steps_->item(i)->setForeground(i > now ? theme().quiet : theme().text);
  steps_->setCurrentRow(now);
}

}  // namespace chispa::desk
