// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/run/desksheetpdf.h"

#include <array>

#include <QCoreApplication>

#include "core/files/desksheet.h"
#include "desk/parts/format.h"
#include "desk/parts/paper.h"

namespace chispa::desk {
namespace {

// Tenths of millimetres.
constexpr int kLeft = 150;
constexpr int kTop = 150;
constexpr int kBottom = 2'820;
constexpr int kRow = 62;
constexpr std::array kColumns{0, 420, 840, 970, 1'230, 1'440, 1'600};

struct Sheet {
  Q_DECLARE_TR_FUNCTIONS(DeskSheet)
 public:
  static QStringList titles() {
    return {tr("Fixture"),  tr("Zone"),   tr("Cell"),    tr("Universe"),
            tr("Channels"), tr("Format"), tr("The desk")};
  }
  static QString use(DeskUse use) {
    static const QStringList kUses{tr("replaces"), tr("multiplies"), tr("adds"), tr("higher")};
    return kUses.at(static_cast<int>(use));
  }
};

void paintRow(QPainter& painter, int y, const QStringList& words) {
  for (int i = 0; i < words.size(); ++i) {
    const auto column = static_cast<std::size_t>(i);
    const int next = column + 1 < kColumns.size() ? kColumns[column + 1] : 1'850;
    const QRect box(kLeft + kColumns[column], y, next - kColumns[column] - 20, kRow);
    painter.drawText(box, Qt::AlignLeft | Qt::AlignVCenter,
                     painter.fontMetrics().elidedText(words[i], Qt::ElideRight, box.width()));
  }
}

}  // namespace

void paintDeskSheet(QPainter& painter, const Show& show, const std::function<void()>& newPage) {
  int y = kTop;
  const auto begin = [&] {
    painter.setPen(kInk);
    painter.setFont(paperFont(5, true));
    painter.drawText(QRect(kLeft, kTop, 1'800, 90), Qt::AlignLeft,
                     text(show.name) + QStringLiteral(" · ") + Sheet::tr("desk sheet"));
    painter.setFont(paperFont(3, true));
    y = kTop + 120;
    paintRow(painter, y, Sheet::titles());
    y += kRow;
    painter.setPen(kFaint);
    painter.drawLine(kLeft, y, kLeft + 1'800, y);
    painter.setPen(kInk);
    painter.setFont(paperFont(3));
  };
  begin();
  for (const DeskRow& row : deskRows(show)) {
    if (y + kRow > kBottom) {
      newPage();
      begin();
    }
    const QString protocol =
        row.protocol == Protocol::E131 ? QStringLiteral("E1.31") : QStringLiteral("Art-Net");
    paintRow(painter, y,
             {text(row.fixture), text(row.zone), QString::number(row.cell),
              QStringLiteral("%1 %2").arg(protocol).arg(row.universe),
              QStringLiteral("%1–%2").arg(row.channel).arg(row.channel + row.channels - 1), text(row.format),
              Sheet::use(row.use)});
    y += kRow;
  }
}

bool writeDeskSheetPdf(const Show& show, const QString& path) {
  return writePdf(
      path, text(show.name), QPageSize::A4, QPageLayout::Portrait,
      [&](QPainter& painter, QPdfWriter& pdf) { paintDeskSheet(painter, show, [&] { pdf.newPage(); }); });
}

}  // namespace chispa::desk
