// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/plan/stripkindsdialog.h"

#include <cmath>

#include <QDialogButtonBox>
#include <QHeaderView>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QTreeWidget>
#include <QVBoxLayout>

#include "core/edit/planedits.h"
#include "core/files/striplibrary.h"
#include "core/show/stripwhite.h"
#include "core/wire/current.h"
#include "desk/parts/format.h"
#include "desk/parts/named.h"
#include "desk/parts/search.h"
#include "link/userfolders.h"

namespace chispa::desk {
namespace {

/// What a maker may search for.
QString searchedText(const StripKind& kind) {
  return QStringLiteral("%1 %2 %3 %4 V %5")
      .arg(text(kind.strip.name), text(kind.strip.order), text(kind.goodFor))
      .arg(kind.strip.volts)
      .arg(kind.strip.channelBits == 16 ? QStringLiteral("16 bit") : QStringLiteral("8 bit"));
}

}  // namespace

StripKindsDialog::StripKindsDialog(const Session& session, QWidget* parent)
    : QDialog(parent), session_(session), kinds_(stripKinds()) {
  setObjectName(QStringLiteral("stripKindsDialog"));
  setWindowTitle(tr("Kinds of strip"));
  resize(760, 480);
  auto* column = new QVBoxLayout(this);
  search_ = named(new QLineEdit, "stripKindSearch", tr("Search"),
                  tr("Words of the name, the order of its colours, its volts, what it is good for"));
  search_->setPlaceholderText(tr("Search: RGBW, 24 V, 144, warm …"));
  search_->setClearButtonEnabled(true);
  connect(search_, &QLineEdit::textChanged, this, &StripKindsDialog::filter);
  column->addWidget(search_);
  list_ =
      named(new QTreeWidget, "stripKinds", tr("Kinds of strip"), tr("Enter adds the chosen one to the show"));
  list_->setRootIsDecorated(false);
  list_->setHeaderLabels({tr("Kind"), tr("Colours"), tr("Pixels per metre"), tr("Volts"), tr("Full white")});
  connect(list_, &QTreeWidget::currentItemChanged, this, &StripKindsDialog::describe);
  connect(list_, &QTreeWidget::itemActivated, this, &StripKindsDialog::take);
  column->addWidget(list_, 1);
  about_ = new QLabel;
  about_->setObjectName(QStringLiteral("stripKindAbout"));
  about_->setWordWrap(true);
  about_->setMinimumHeight(5 * fontMetrics().height());
  about_->setAlignment(Qt::AlignTop | Qt::AlignLeft);
  column->addWidget(about_);
  auto* buttons = new QDialogButtonBox(QDialogButtonBox::Close);
  take_ = buttons->addButton(tr("Add to the show"), QDialogButtonBox::ActionRole);
  take_->setObjectName(QStringLiteral("stripKindTake"));
  take_->setToolTip(tr("Adds it to the strip types of the show, to be given to fixtures"));
  connect(take_, &QPushButton::clicked, this, &StripKindsDialog::take);
  connect(buttons, &QDialogButtonBox::rejected, this, &QDialog::reject);
  column->addWidget(buttons);
  if (const auto own = StripLibrary(link::stripLibraryFile()).read())
    for (const StripType& strip : *own)
      kinds_.push_back({strip, {}, tr("kept by you for all shows").toStdString()});
  fill();
  search_->setFocus();
}

void StripKindsDialog::fill() {
  for (std::size_t i = 0; i < kinds_.size(); ++i) {
    const StripType& strip = kinds_[i].strip;
    const auto perMetre = static_cast<int>(std::lround(strip.pixelsPerMetre));
    auto* item =
        new QTreeWidgetItem(list_, {text(strip.name), text(strip.order),
                                    QString::number(strip.pixelsPerMetre), QString::number(strip.volts),
                                    tr("%1 per metre").arg(ampsText(fullWhite_a(strip, perMetre)))});
    item->setData(0, Qt::UserRole, static_cast<int>(i));
    for (const int number : {2, 3, 4}) item->setTextAlignment(number, Qt::AlignRight | Qt::AlignVCenter);
  }
  list_->header()->setSectionResizeMode(QHeaderView::ResizeToContents);
  list_->setCurrentItem(list_->topLevelItem(0));
}

void StripKindsDialog::filter() {
  QTreeWidgetItem* first = nullptr;
  for (int i = 0; i < list_->topLevelItemCount(); ++i) {
    QTreeWidgetItem* item = list_->topLevelItem(i);
    const bool isFound = hasWords(searchedText(kinds_[static_cast<std::size_t>(i)]), search_->text());
    item->setHidden(!isFound);
    if (isFound && !first) first = item;
  }
  if (!list_->currentItem() || list_->currentItem()->isHidden()) list_->setCurrentItem(first);
  describe();
}

const StripKind* StripKindsDialog::chosen() const {
  const QTreeWidgetItem* item = list_->currentItem();
  return item && !item->isHidden() ? &kinds_[static_cast<std::size_t>(item->data(0, Qt::UserRole).toInt())]
                                   : nullptr;
}

void StripKindsDialog::describe() {
  const StripKind* kind = chosen();
  take_->setEnabled(kind);
  if (!kind) {
    about_->setText(
        tr("No kind matches. Describe one of your own: “New type” in the inspector of a fixture."));
    return;
  }
  const StripType& strip = kind->strip;
  QStringList lines;
  if (!kind->goodFor.empty()) lines << tr("Good for %1.").arg(text(kind->goodFor));
  if (strip.chips) {
    lines << tr("Chips: red %1, green %2, blue %3. White of daylight leaves %4 % of its light.")
                 .arg(wavelengthText(strip.chips->red), wavelengthText(strip.chips->green),
                      wavelengthText(strip.chips->blue))
                 .arg(std::lround(lightLeft(strip) * 100));
  }
  lines << tr("Source: %1.").arg(text(kind->source));
  lines << tr("Reels differ: Bench tells what yours really does.");
  about_->setText(lines.join(QLatin1Char('\n')));
}

void StripKindsDialog::take() {
  const StripKind* kind = chosen();
  if (!kind) return;
  StripTypeId made;
  session_.edit(tr("add a strip type"), [&](Show& show) { made = takeStripType(show, kind->strip); });
  session_.selection.select(made);
  accept();
}

}  // namespace chispa::desk
