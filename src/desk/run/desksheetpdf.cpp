// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/run/desksheetpdf.h"

#include <QCoreApplication>

#include "core/live/desksheet.h"
#include "desk/parts/format.h"
#include "desk/parts/paper.h"
#include "desk/parts/papertable.h"

namespace chispa::desk {
namespace {

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

}  // namespace

void paintDeskSheet(QPainter& painter, const Show& show, const std::function<void()>& newPage) {
  PaperTable table(painter, text(show.name) + QStringLiteral(" · ") + Sheet::tr("desk sheet"),
                   Sheet::titles(), {0, 420, 840, 970, 1'230, 1'440, 1'600}, newPage);
  for (const DeskRow& row : deskRows(show)) {
    const auto protocol = QLatin1String(protocolTitle(row.protocol));
    table.addRow({text(row.fixture), text(row.zone), QString::number(row.cell),
                  QStringLiteral("%1 %2").arg(protocol).arg(row.universe),
                  QStringLiteral("%1–%2").arg(row.channel).arg(row.channel + row.channels - 1),
                  text(row.format), Sheet::use(row.use)});
  }
}

bool writeDeskSheetPdf(const Show& show, const QString& path) {
  return writePdf(
      path, text(show.name), QPageSize::A4, QPageLayout::Portrait,
      [&](QPainter& painter, QPdfWriter& pdf) { paintDeskSheet(painter, show, [&] { pdf.newPage(); }); });
}

}  // namespace chispa::desk
