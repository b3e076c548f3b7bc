// SPDX-License-Identifier: GPL-3.0-or-later
// How the parts of the memory dialog stand.
#include <QComboBox>
#include <QHBoxLayout>
#include <QListWidget>
#include <QMenu>
#include <QPushButton>
#include <QScrollArea>
#include <QToolButton>

#include "desk/parts/format.h"
#include "desk/parts/named.h"
#include "desk/parts/workbar.h"
#include "desk/takeaway/dialogparts.h"
#include "desk/takeaway/memorybar.h"
#include "desk/takeaway/memorydialog.h"
#include "desk/takeaway/pairglow.h"

namespace chispa::desk {

QVBoxLayout* MemoryDialog::makeScenes() {
  auto* rows = new QVBoxLayout;
  auto* line = new QHBoxLayout;
  named(controllers_, "memoryController", tr("Controller"), tr("Whose memory is filled"));
  line->addWidget(controllers_, 1);
  auto* ask =
      namedButton("memoryAsk", tr("Ask again"), tr("Reads what its memory holds and what its clock shows"));
  connect(ask, &QPushButton::clicked, this, &MemoryDialog::readController);
  line->addWidget(ask);
  rows->addLayout(line);
  told_->setObjectName(QStringLiteral("memoryTold"));
  told_->setWordWrap(true);
  rows->addWidget(told_);
  rows->addWidget(quietHeading(tr("Scenes")));
  named(scenes_, "memoryScenes", tr("Scenes"), tr("What it plays on its own, and how much room each takes"));
  asTable(scenes_, {tr("Scene"), tr("Long"), tr("Steps"), tr("Bytes"), tr("ΔE")});
  rows->addWidget(scenes_, 3);
  rows->addLayout(makeSceneButtons());
  rows->addWidget(quietHeading(tr("When they begin")));
  named(starts_, "memoryStarts", tr("When scenes begin"), tr("By clock, by the sun, or by a contact"));
  rows->addWidget(starts_, 2);
  rows->addLayout(makeStartButtons());
  connect(controllers_, &QComboBox::currentIndexChanged, this, [this] {
    there_.reset();
    refresh();
    readController();
  });
  connect(scenes_, &QTreeWidget::currentItemChanged, this, [this] {
    if (isFilling_) return;
    refreshForms();
    showScene();
  });
  connect(starts_, &QListWidget::currentItemChanged, this, [this] {
    if (!isFilling_) refreshForms();
  });
  return rows;
}

QHBoxLayout* MemoryDialog::makeSceneButtons() {
  auto* buttons = new QHBoxLayout;
  named(add_, "memoryAdd", tr("Add a scene"), tr("A score or a look as another scene"));
  add_->setText(tr("Add"));
  add_->setMenu(new QMenu(add_));
  add_->setPopupMode(QToolButton::InstantPopup);
  buttons->addWidget(add_);
  auto* almanac = namedButton("memoryAlmanac", tr("From the almanac"),
                              tr("Takes what the almanac plays, and when, in place of these scenes"));
  connect(almanac, &QPushButton::clicked, this, &MemoryDialog::takeAlmanac);
  buttons->addWidget(almanac);
  buttons->addStretch();
  const auto small = [&](const char* name, const QString& sign, const QString& tip, auto pressed) {
    auto* tool = named(new QToolButton, name, tip, tip);
    tool->setText(sign);
    connect(tool, &QToolButton::clicked, this, pressed);
    buttons->addWidget(tool);
  };
  small("memoryUp", QStringLiteral("↑"), tr("Earlier"), [this] { moveScene(-1); });
  small("memoryDown", QStringLiteral("↓"), tr("Later"), [this] { moveScene(1); });
  small("memoryRemove", QStringLiteral("−"), tr("Remove the selected scene"), [this] { removeScene(); });
  return buttons;
}

QHBoxLayout* MemoryDialog::makeStartButtons() {
  auto* more = new QHBoxLayout;
  auto* begins =
      namedButton("memoryBegins", tr("Begins …"), tr("Another time at which the selected scene begins"));
  connect(begins, &QPushButton::clicked, this, [this] {
    if (currentScene() < 0) return say(tr("Select the scene first that shall begin then."), false);
    addStart(currentScene());
  });
  more->addWidget(begins);
  auto* dark = namedButton("memoryDark", tr("Goes dark …"), tr("Another time at which all goes dark"));
  connect(dark, &QPushButton::clicked, this, [this] { addStart(-1); });
  more->addWidget(dark);
  more->addStretch();
  auto* away = named(new QToolButton, "memoryStartRemove", tr("Remove this time"), tr("Remove this time"));
  away->setText(QStringLiteral("−"));
  connect(away, &QToolButton::clicked, this, &MemoryDialog::removeStart);
  more->addWidget(away);
  return more;
}

QVBoxLayout* MemoryDialog::makeMiddle() {
  auto* rows = new QVBoxLayout;
  forms_->setObjectName(QStringLiteral("memoryForms"));
  forms_->setWidgetResizable(true);
  forms_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  forms_->setFrameShape(QFrame::NoFrame);
  rows->addWidget(forms_);
  return rows;
}

QVBoxLayout* MemoryDialog::makeSizes() {
  auto* rows = new QVBoxLayout;
  const QString taken = tr("How much of it is taken, scene by scene");
  addBar(rows, tr("Its memory"), bytesWords_, bytesBar_, "memoryBytesBar", taken);
  addBar(rows, tr("Its steps"), stepsWords_, stepsBar_, "memoryStepsBar", taken);
  auto* line = new QHBoxLayout;
  line->addStretch();
  connect(fit_, &QPushButton::clicked, this, &MemoryDialog::fit);
  line->addWidget(fit_);
  rows->addLayout(line);
  rows->addWidget(quietHeading(tr("What differs from what it holds")));
  named(differences_, "memoryDifferences", tr("What differs"),
        tr("What the controller holds now, and what would be written"));
  asTable(differences_, {tr("What"), tr("There"), tr("To be written")});
  // What it is takes its own width; what is there and what shall be share the rest.
  differences_->header()->setSectionResizeMode(QHeaderView::Stretch);
  differences_->header()->setSectionResizeMode(0, QHeaderView::ResizeToContents);
  differences_->setWordWrap(true);
  rows->addWidget(differences_, 2);
  named(glow_, "memoryGlow", tr("The light, composed and from its memory"),
        tr("The selected scene, side by side and in step"));
  rows->addWidget(glow_, 3);
  return rows;
}

QVBoxLayout* MemoryDialog::makeEnd() {
  auto* rows = new QVBoxLayout;
  auto* last = new QHBoxLayout;
  state_->setObjectName(QStringLiteral("memoryState"));
  state_->setWordWrap(true);
  last->addWidget(state_, 1);
  progress_->setMaximumWidth(textWidth(16));
  named(progress_, "memoryProgress", tr("Progress"), tr("How much is done"));
  last->addWidget(progress_);
  named(putBack_, "memoryPutBack", tr("Put back"), tr("Writes what it held before, as it was kept here"));
  putBack_->setText(tr("Put back"));
  putBack_->setMenu(new QMenu(putBack_));
  putBack_->setPopupMode(QToolButton::InstantPopup);
  connect(putBack_->menu(), &QMenu::aboutToShow, this, &MemoryDialog::fillPutBack);
  last->addWidget(putBack_);
  connect(play_, &QPushButton::clicked, this, &MemoryDialog::play);
  last->addWidget(play_);
  auto* close = namedButton("memoryClose", tr("Close"), tr("Closes this; the scenes stay in the show"));
  connect(close, &QPushButton::clicked, this, &QDialog::close);
  last->addWidget(close);
  write_->setDefault(true);
  connect(write_, &QPushButton::clicked, this, [this] {
    if (fill_) write(fill_->content, true);
  });
  last->addWidget(write_);
  rows->addLayout(last);
  return rows;
}

}  // namespace chispa::desk
