// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/run/padgrid.h"

#include <QLabel>
#include <QMenu>
#include <QScrollBar>

#include "core/edit/deletions.h"
#include "core/edit/lookedits.h"
#include "desk/parts/theme.h"
#include "desk/run/lookpad.h"

namespace chispa::desk {
namespace {

constexpr int kGap = 8;
constexpr int kMargin = 12;

}  // namespace

PadGrid::PadGrid(const Session& session, QWidget* parent) : QScrollArea(parent), session_(session) {
  setObjectName(QStringLiteral("padGrid"));
  setAccessibleName(tr("Looks"));
  setFrameShape(QFrame::NoFrame);
  setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  setFocusPolicy(Qt::NoFocus);
  setWidget(new QWidget);
  auto* empty =
      new QLabel(tr("A look is light that lasts until you end it. Choose an effect above: it is lit at "
                    "once, and kept as a pad."),
                 widget());
  empty->setObjectName(QStringLiteral("quiet"));
  empty->setWordWrap(true);
  empty_ = empty;
  connect(&session_.document, &Document::showChanged, this, &PadGrid::refill);
  connect(&session_.document, &Document::opened, this, &PadGrid::refill);
  connect(&session_.stage, &Stage::ticked, this, &PadGrid::follow);
  connect(&session_.selection, &Selection::changed, this, [this] {
    for (LookPad* pad : pads_) pad->update();
  });
  refill();
}

void PadGrid::refill() {
  const auto& looks = session_.show().looks;
  const bool isSame = pads_.size() == looks.size() && std::equal(pads_.begin(), pads_.end(), looks.begin(),
                                                                 [](const LookPad* pad, const auto& look) {
                                                                   return pad->look() == look->id;
                                                                 });
  if (!isSame) {
    for (LookPad* pad : pads_) pad->deleteLater();
    pads_.clear();
    for (const auto& look : looks) {
      auto* pad = new LookPad(session_, look->id, widget());
      connect(pad, &LookPad::asked, this, [this, id = look->id](QPoint at) { showMenu(id, at); });
      pad->show();
      pads_.push_back(pad);
    }
    arrange();
  }
  for (LookPad* pad : pads_) pad->refresh();
}

int PadGrid::rows() const {
  return std::max(1, (static_cast<int>(pads_.size()) + columns_ - 1) / columns_);
}

QSize PadGrid::sizeHint() const {
  const int height = pads_.empty() ? 60 : pads_.front()->sizeHint().height();
  const int shown = std::min(rows(), 2);
  return {600, shown * height + (shown - 1) * kGap + 2 * kGap};
}

void PadGrid::arrange() {
  const int space = viewport()->width() - 2 * kMargin;
  const int least = textWidth(11);
  columns_ = std::max(1, (space + kGap) / (least + kGap));
  const int width = (space - (columns_ - 1) * kGap) / columns_;
  int bottom = 60;
  for (std::size_t i = 0; i < pads_.size(); ++i) {
    const int column = static_cast<int>(i) % columns_;
    const int row = static_cast<int>(i) / columns_;
    const int height = pads_[i]->sizeHint().height();
    pads_[i]->setGeometry(kMargin + column * (width + kGap), kGap + row * (height + kGap), width, height);
    bottom = pads_[i]->geometry().bottom() + kGap;
  }
  empty_->setGeometry(kMargin, kGap, space, 44);
  empty_->setVisible(pads_.empty());
  widget()->resize(viewport()->width(), bottom);
  updateGeometry();
}

void PadGrid::resizeEvent(QResizeEvent* event) {
  QScrollArea::resizeEvent(event);
  arrange();
}

void PadGrid::follow() {
  if (!isVisible()) return;
  for (LookPad* pad : pads_) pad->follow();
}

LookId PadGrid::lookOnKey(const QString& key) const {
  for (const auto& look : session_.show().looks)
    if (!look->key.empty() && key == QString::fromStdString(look->key)) return look->id;
  return {};
}

void PadGrid::move(LookId look, int by) {
  const auto& looks = session_.show().looks;
  const auto at =
      std::find_if(looks.begin(), looks.end(), [look](const auto& one) { return one->id == look; });
  const std::ptrdiff_t to = at - looks.begin() + by;
  if (at == looks.end() || to < 0 || to >= std::ssize(looks)) return;
  session_.edit(tr("move a look"), [=](Show& show) { moveLook(show, look, static_cast<std::size_t>(to)); });
}

void PadGrid::showMenu(LookId look, QPoint at) {
  QMenu menu;
  menu.addAction(tr("Duplicate"), this, [this, look] {
    session_.edit(tr("duplicate a look"), [look](Show& show) { duplicateLook(show, look); });
  });
  menu.addAction(tr("Move left"), this, [this, look] { move(look, -1); });
  menu.addAction(tr("Move right"), this, [this, look] { move(look, 1); });
  menu.addSeparator();
  menu.addAction(tr("Delete"), this, [this, look] {
    session_.editWithCare(tr("delete a look"), [look](Show& show) {
      Losses losses = lossesOfDeleting(show, look);
      deleteLook(show, look);
      return losses;
    });
  });
  menu.exec(at);
}

}  // namespace chispa::desk
