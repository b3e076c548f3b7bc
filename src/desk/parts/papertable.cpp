// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/parts/papertable.h"

#include "desk/parts/paper.h"

namespace chispa::desk {
namespace {

// Tenths of millimetres.
constexpr int kLeft = 150;
constexpr int kTop = 150;
constexpr int kBottom = 2'820;
constexpr int kRow = 62;
constexpr int kWide = 1'800;

}  // namespace

PaperTable::PaperTable(QPainter& painter, QString heading, QStringList titles, std::vector<int> columns,
                       std::function<void()> newPage)
    : painter_(painter),
      heading_(std::move(heading)),
      titles_(std::move(titles)),
      columns_(std::move(columns)),
      newPage_(std::move(newPage)) {
  begin();
}

void PaperTable::begin() {
  painter_.setPen(kInk);
  painter_.setFont(paperFont(5, true));
  painter_.drawText(QRect(kLeft, kTop, kWide, 90), Qt::AlignLeft, heading_);
  painter_.setFont(paperFont(3, true));
  y_ = kTop + 120;
  paint(titles_);
  y_ += kRow;
  painter_.setPen(kFaint);
  painter_.drawLine(kLeft, y_, kLeft + kWide, y_);
  painter_.setPen(kInk);
  painter_.setFont(paperFont(3));
}

void PaperTable::paint(const QStringList& words) {
  for (int i = 0; i < words.size(); ++i) {
    const auto column = static_cast<std::size_t>(i);
    const int next = column + 1 < columns_.size() ? columns_[column + 1] : kWide + 50;
    const QRect box(kLeft + columns_[column], y_, next - columns_[column] - 20, kRow);
    painter_.drawText(box, Qt::AlignLeft | Qt::AlignVCenter,
                      painter_.fontMetrics().elidedText(words[i], Qt::ElideRight, box.width()));
  }
}

void PaperTable::addRow(const QStringList& words) {
  if (y_ + kRow > kBottom) {
    newPage_();
    begin();
  }
  paint(words);
  y_ += kRow;
}

}  // namespace chispa::desk
