// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/wire/wirepage.h"

#include <QButtonGroup>
#include <QComboBox>
#include <QFileDialog>
#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QStackedWidget>

#include "core/edit/wireedits.h"
#include "core/files/showfile.h"
#include "desk/parts/format.h"
#include "desk/parts/language.h"
#include "desk/parts/theme.h"
#include "desk/wire/addresssheet.h"
#include "desk/wire/booklet.h"
#include "desk/wire/finddialog.h"
#include "desk/wire/loomview.h"
#include "desk/wire/setupdialog.h"

namespace chispa::desk {

WirePage::WirePage(const Session& session, QWidget* parent)
    : QWidget(parent),
      session_(session),
      loom_(new LoomView(session)),
      sheet_(new AddressSheet(session)),
      faces_(new QStackedWidget) {
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 0, 0, 0);
  column->setSpacing(0);
  auto* tools = new QWidget;
  tools->setObjectName(QStringLiteral("toolRow"));
  auto* row = new QHBoxLayout(tools);
  row->setContentsMargins(8, 6, 8, 6);
  auto* group = new QButtonGroup(this);
  const auto button = [&](const QString& name, const QString& label, const QString& tip) {
    auto* made = new QPushButton(label);
    made->setObjectName(name);
    made->setToolTip(tip);
    row->addWidget(made);
    return made;
  };
  auto* loom = button("faceLoom", tr("Loom"), tr("Ports as chains, to the scale of pixels"));
  auto* sheet = button("faceSheet", tr("Address sheet"), tr("Every universe and channel as a table"));
  for (QPushButton* face : {loom, sheet}) {
    face->setCheckable(true);
    group->addButton(face);
  }
  loom->setChecked(true);
  connect(sheet, &QPushButton::toggled, this, &WirePage::showSheet);
  hint_ = makeLoomTools();
  row->addSpacing(8);
  row->addWidget(hint_, 1);
  filter_ = new QLineEdit;
  filter_->setObjectName(QStringLiteral("sheetFilter"));
  filter_->setPlaceholderText(tr("Filter: post 4, GRB …"));
  filter_->setAccessibleName(tr("Filter of the address sheet"));
  filter_->setToolTip(tr("Shows and exports only rows with all of these words, separated by commas"));
  filter_->setClearButtonEnabled(true);
  filter_->hide();
  connect(filter_, &QLineEdit::textChanged, sheet_, &AddressSheet::setFilter);
  row->addWidget(filter_, 1);
  auto* add = button("addController", tr("Add controller"), tr("A controller with four ports"));
  connect(add, &QPushButton::clicked, this, [this] {
    ControllerId id;
    session_.edit(tr("add a controller"),
                  [&](Show& show) { id = addController(show, LoomView::kPortsOfNew); });
    session_.selection.select(id);
  });
  auto* look = button("findControllers", tr("Find…"), tr("Ask the network for controllers"));
  connect(look, &QPushButton::clicked, this, [this] {
    auto* dialog = new FindDialog(session_, this);
    dialog->setAttribute(Qt::WA_DeleteOnClose);
    dialog->open();
  });
  auto* compare = button("compareSetup", tr("Compare and send…"),
                         tr("What the controllers are set to, and what the show wants"));
  connect(compare, &QPushButton::clicked, this, [this] {
    auto* dialog = new SetupDialog(session_, this);
    dialog->setAttribute(Qt::WA_DeleteOnClose);
    dialog->open();
  });
  column->addWidget(tools);
  faces_->addWidget(loom_);
  faces_->addWidget(sheet_);
  column->addWidget(faces_, 1);
}

QWidget* WirePage::makeLoomTools() {
  auto* box = new QWidget;
  auto* row = new QHBoxLayout(box);
  row->setContentsMargins(0, 0, 0, 0);
  auto* find = new QLineEdit;
  find->setObjectName(QStringLiteral("loomFind"));
  find->setPlaceholderText(tr("Find on the loom"));
  find->setAccessibleName(tr("Find a fixture or controller on the loom"));
  find->setToolTip(tr("Return goes to the next"));
  find->setMinimumWidth(textWidth(14));
  find->setMaximumWidth(textWidth(22));
  connect(find, &QLineEdit::returnPressed, this,
          [this, find] { setTextColour(*find, loom_->findNext(find->text()) ? QColor() : theme().wrong); });
  row->addWidget(find, 1);
  auto* load = new QComboBox;
  load->setObjectName(QStringLiteral("powerLoad"));
  load->setAccessibleName(tr("Load at which power is shown"));
  load->setToolTip(
      tr("Currents and voltages along the chains are shown at this load; P on the loom injects power"));
  load->addItems({tr("At full white"), tr("At the score's peak"), tr("Now")});
  connect(load, &QComboBox::currentIndexChanged, this,
          [this](int index) { loom_->power().setLoad(static_cast<PowerLoad>(index)); });
  row->addWidget(load);
  auto* light = new QPushButton(tr("Light up"));
  light->setObjectName(QStringLiteral("lightSelected"));
  light->setCheckable(true);
  light->setChecked(true);
  light->setToolTip(tr("The selected bead or port shines white, on the plan and on the LEDs"));
  connect(light, &QPushButton::toggled, this, &WirePage::pointingChosen);
  row->addWidget(light);
  row->addStretch();
  return box;
}

void WirePage::showSheet(bool sheet) {
  faces_->setCurrentIndex(sheet ? 1 : 0);
  hint_->setVisible(!sheet);
  filter_->setVisible(sheet);
  findChild<QPushButton*>(sheet ? QStringLiteral("faceSheet") : QStringLiteral("faceLoom"))->setChecked(true);
}

void WirePage::exportSheet(QString path) {
  if (path.isEmpty())
    path =
        QFileDialog::getSaveFileName(this, tr("The address sheet"), tr("addresses.csv"), tr("Table (*.csv)"));
  if (path.isEmpty()) return;
  const Outcome written = writeFileAtomically(path.toStdString(), sheet_->csv().toStdString());
  if (!written) emit failed(said(written.failure()));
}

void WirePage::exportBooklet(QString path) {
  if (path.isEmpty())
    path = QFileDialog::getSaveFileName(this, tr("The wiring booklet"), tr("wiring.pdf"), tr("PDF (*.pdf)"));
  if (path.isEmpty()) return;
  if (!writeBooklet(session_.show(), path))
    emit failed(
        tr("The booklet could not be written.\n%1\nCheck that the folder exists and has room.").arg(path));
}

}  // namespace chispa::desk
