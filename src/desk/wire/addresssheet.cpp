// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/wire/addresssheet.h"

#include <algorithm>

#include <QHeaderView>

#include "core/files/csv.h"
#include "core/wire/patch.h"
#include "core/wire/wiresettings.h"
#include "desk/parts/format.h"
#include "desk/parts/whenseen.h"

namespace chispa::desk {

AddressSheet::AddressSheet(const Session& session, QWidget* parent)
    : QTableWidget(parent), session_(session) {
  setObjectName(QStringLiteral("addressSheet"));
  setAccessibleName(tr("Address sheet"));
  setEditTriggers(NoEditTriggers);
  setSelectionBehavior(SelectRows);
  setShowGrid(false);
  verticalHeader()->hide();
  const QStringList titles = {tr("Controller"), tr("Port"),     tr("Fixture"), tr("Pixels"),
                              tr("Universe"),   tr("Channels"), tr("Order")};
  setColumnCount(static_cast<int>(titles.size()));
  setHorizontalHeaderLabels(titles);
  horizontalHeader()->setDefaultAlignment(Qt::AlignLeft | Qt::AlignVCenter);
  horizontalHeader()->setSectionResizeMode(QHeaderView::Stretch);
  auto* seen = new WhenSeen(this, [this] { fill(); });
  connect(&session_.document, &Document::showChanged, seen, &WhenSeen::ask);
  connect(&session_.document, &Document::opened, this, &AddressSheet::fill);
  fill();
}

void AddressSheet::fill() {
  setSortingEnabled(false);
  const Show& show = session_.show();
  const Patch patch = derivePatch(show);
  const auto orderOf = [&](const PatchSpan& span, const Fixture& fixture) {
    const Port& port = show.controllers[static_cast<std::size_t>(span.controller)]
                           ->ports[static_cast<std::size_t>(span.port)];
    return text(resolveWire(stripTypeOf(show, fixture), fixture, port.settings,
                            port.run[static_cast<std::size_t>(span.bead)].settings)
                    .order);
  };
  setRowCount(static_cast<int>(patch.spans.size()));
  for (int row = 0; row < rowCount(); ++row) {
    const PatchSpan& span = patch.spans[static_cast<std::size_t>(row)];
    const Fixture* fixture = chispa::find(show.fixtures, span.fixture);
    const int a = span.firstPixel + 1;
    const int b = span.firstPixel + (span.pixels - 1) * span.step + 1;
    const auto number = [](int value) {
      auto* item = new QTableWidgetItem;
      item->setData(Qt::DisplayRole, value);
      item->setTextAlignment(Qt::AlignLeft | Qt::AlignVCenter);
      return item;
    };
    setItem(row, 0,
            new QTableWidgetItem(text(show.controllers[static_cast<std::size_t>(span.controller)]->name)));
    setItem(row, 1, number(span.port + 1));
    setItem(row, 2, new QTableWidgetItem(fixture ? text(fixture->name) : QString()));
    setItem(row, 3,
            new QTableWidgetItem(a == b ? QString::number(a) : QStringLiteral("%1 – %2").arg(a).arg(b)));
    setItem(row, 4, number(span.universe));
    setItem(row, 5,
            new QTableWidgetItem(
                QStringLiteral("%1 – %2").arg(span.channel).arg(span.channel + span.channelCount() - 1)));
    setItem(row, 6, new QTableWidgetItem(fixture ? orderOf(span, *fixture) : QString()));
  }
  setSortingEnabled(true);
  setFilter(filter_);
}

void AddressSheet::setFilter(const QString& words) {
  filter_ = words;
  const QStringList wanted = words.split(QLatin1Char(','), Qt::SkipEmptyParts);
  for (int row = 0; row < rowCount(); ++row) {
    QString all;
    for (int column = 0; column < columnCount(); ++column)
      all += item(row, column)->text() + QLatin1Char(' ');
    setRowHidden(row, !std::all_of(wanted.begin(), wanted.end(), [&](const QString& word) {
                   return all.contains(word.trimmed(), Qt::CaseInsensitive);
                 }));
  }
}

QString AddressSheet::csv() const {
  const auto field = [](const QString& words) { return text(csvField(words.toStdString())); };
  QStringList lines;
  QStringList cells;
  for (int column = 0; column < columnCount(); ++column) cells << field(horizontalHeaderItem(column)->text());
  lines << cells.join(QLatin1Char(','));
  for (int row = 0; row < rowCount(); ++row) {
    if (isRowHidden(row)) continue;
    cells.clear();
    for (int column = 0; column < columnCount(); ++column) cells << field(item(row, column)->text());
    lines << cells.join(QLatin1Char(','));
  }
  return lines.join(QLatin1Char('\n')) + QLatin1Char('\n');
}

}  // namespace chispa::desk
