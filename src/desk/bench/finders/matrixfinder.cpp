// SPDX-License-Identifier: GPL-3.0-or-later
// The size and the wiring of a matrix, from pictures of where the light is.
#include "core/finders/matrixfinder.h"

#include <QPainter>

#include "core/edit/planedits.h"
#include "core/edit/wireedits.h"
#include "desk/bench/finders/finderparts.h"
#include "desk/parts/theme.h"

namespace chispa::desk {
namespace {

using namespace finderparts;

constexpr int kPictureCells = 4;

QRectF cellOf(const QRectF& box, int column, int row, int cells) {
  const double side = std::min(box.width(), box.height()) / cells;
  const QPointF origin = box.center() - QPointF(side, side) * cells / 2;
  return {origin.x() + column * side + 1, origin.y() + (cells - 1 - row) * side + 1, side - 2, side - 2};
}

void drawCells(QPainter& painter, const QRectF& box,
               const std::function<double(int column, int row)>& light) {
  for (int row = 0; row < kPictureCells; ++row)
    for (int column = 0; column < kPictureCells; ++column) {
      const double level = light(column, row);
      QColor colour(0x44, 0x44, 0x4a);
      if (level > 0)
        colour = QColor(static_cast<int>(90 + 165 * level), static_cast<int>(80 + 164 * level),
                        static_cast<int>(70 + 154 * level));
      painter.fillRect(cellOf(box, column, row, kPictureCells), colour);
    }
}

/// Three pixels from a corner, each dimmer than the one before.
void drawHead(QPainter& painter, const QRectF& box, Corner corner, GridRuns runs) {
  drawCells(painter, box, [&](int column, int row) {
    const bool fromRight = corner == Corner::BottomRight || corner == Corner::TopRight;
    const bool fromTop = corner == Corner::TopLeft || corner == Corner::TopRight;
    const int c = fromRight ? kPictureCells - 1 - column : column;
    const int r = fromTop ? kPictureCells - 1 - row : row;
    const int across = runs == GridRuns::AlongRows ? r : c;
    const int along = runs == GridRuns::AlongRows ? c : r;
    return across == 0 && along < 3 ? 1 - 0.36 * along : 0.0;
  });
}

QString cornerName(Corner corner) {
  switch (corner) {
    case Corner::BottomLeft:
      return tr("bottom left");
    case Corner::BottomRight:
      return tr("bottom right");
    case Corner::TopLeft:
      return tr("top left");
    case Corner::TopRight:
      return tr("top right");
  }
  return {};
}

QString wiringName(const MatrixWiring& w) {
  return tr("%1 × %2 from the %3, %4, %5")
      .arg(w.columns)
      .arg(w.rows)
      .arg(cornerName(w.start), w.runs == GridRuns::AlongRows ? tr("along rows") : tr("along columns"),
           w.isSerpentine ? tr("turning back") : tr("each line the same way"));
}

class Matrix final : public EliminationFinder<MatrixWiring> {
 public:
  Matrix(const Subject& subject, const GridShape& now, Elimination<MatrixWiring> elimination,
         std::vector<MatrixPicture> pictures)
      : EliminationFinder(subject, std::move(elimination)), now_(now), pictures_(std::move(pictures)) {}

  QString title() const override { return finderTitle(FinderKind::Matrix); }
  QString difference(const Show&) const override {
    const MatrixWiring now{now_.columns, now_.rows, now_.start, now_.runs, now_.serpentine};
    return found() && (*found() != now || subject_.bead.reversed)
               ? changeText(wiringName(now) + (subject_.bead.reversed ? tr(", turned round") : QString()),
                            wiringName(*found()))
               : QString();
  }
  void apply(Show& show) const override {
    if (!found()) return;
    changeFixture(show, subject_.bead.fixture, [w = *found()](Fixture& fixture) {
      auto& grid = std::get<GridShape>(fixture.segments.front().shape);
      grid.columns = w.columns;
      grid.rows = w.rows;
      grid.start = w.start;
      grid.runs = w.runs;
      grid.serpentine = w.isSerpentine;
      fixture.segments.front().reversed = false;
    });
    if (subject_.bead.reversed) turnBead(show, subject_.place());
  }

  bool hasDrawing() const override {
    constexpr std::size_t kMaxDrawn = 8;
    const auto left = possible();
    return !left.empty() && left.size() <= kMaxDrawn;
  }
  /// The way of the data: what all that is left agrees on is drawn firmly, the rest as it may be.
  void draw(QPainter& painter, const QRectF& box) const override {
    const auto left = possible();
    const MatrixWiring& w = left.front();
    const bool isSure = left.size() == 1;
    const GridShape grid{w.columns, w.rows, 1, 1, w.start, w.runs, w.isSerpentine};
    const double side = std::min(box.width() / w.columns, box.height() / w.rows);
    const QPointF origin = box.center() + QPointF(-side * w.columns, side * w.rows) / 2;
    const auto cells = matrixCells(Shape(grid));
    const auto at = [&](std::size_t i) {
      return origin + QPointF((cells[i].column + 0.5) * side, -(cells[i].row + 0.5) * side);
    };
    painter.setPen(QPen(isSure ? theme().ember : theme().quiet, std::clamp(side * 0.25, 0.4, 2.0),
                        isSure ? Qt::SolidLine : Qt::DotLine));
    for (std::size_t i = 1; i < cells.size(); ++i) painter.drawLine(at(i - 1), at(i));
    painter.setBrush(isSure ? theme().ember : theme().quiet);
    painter.drawEllipse(at(0), 4, 4);
  }

 protected:
  FinderQuestion ask(int number) const override {
    const MatrixPicture& picture = pictures_[static_cast<std::size_t>(number)];
    switch (picture.kind) {
      case MatrixPicture::Kind::Head:
        return askHead();
      case MatrixPicture::Kind::Line:
        return askLine(picture.pixels);
      case MatrixPicture::Kind::Return:
        return askReturn();
    }
    return {};
  }
  QString nameOf(const MatrixWiring& w) const override { return wiringName(w); }

 private:
  FinderQuestion askHead() const {
    // Three pixels of falling light, whatever their order of colours.
    engine::TestSignal signal = rawChannels(subject_, 0, 3 * static_cast<int>(subject_.wire.order.size()));
    const std::size_t pixel = signal.levels.size() / 3;
    for (std::size_t i = 0; i < signal.levels.size(); ++i)
      signal.levels[i] = std::array<std::uint8_t, 3>{180, 60, 14}[i / pixel];
    FinderQuestion question{tr("Three pixels are lit, from bright to dim. Which picture is it?"),
                            tr("Look at the matrix from its front."), signal};
    for (int corner = 0; corner < 4; ++corner)
      for (const GridRuns runs : {GridRuns::AlongRows, GridRuns::AlongColumns}) {
        const int seen = 2 * corner + (runs == GridRuns::AlongColumns ? 1 : 0);
        question.answers.push_back({static_cast<Qt::Key>(Qt::Key_1 + seen), QString::number(seen + 1),
                                    QString(), QColor(), seen,
                                    [corner, runs](QPainter& painter, const QRectF& box) {
                                      drawHead(painter, box, static_cast<Corner>(corner), runs);
                                    }});
      }
    return question;
  }
  FinderQuestion askLine(int pixels) const {
    constexpr int kMaxCounted = 6;
    static constexpr Qt::Key kPartly[] = {Qt::Key_Q, Qt::Key_W, Qt::Key_E, Qt::Key_R, Qt::Key_T};
    FinderQuestion question{tr("The first %1 pixels are lit. How many lines is that?").arg(pixels),
                            tr("A line is a row or a column, whichever way the strip runs."),
                            still(subject_, 0, pixels)};
    for (int lines = 1; lines < kMaxCounted; ++lines)
      question.answers.push_back({static_cast<Qt::Key>(Qt::Key_0 + lines), QString::number(lines),
                                  lines == 1 ? tr("one, full") : tr("all full"), QColor(), 2 * lines + 1});
    for (int lines = 1; lines < kMaxCounted; ++lines)
      question.answers.push_back({kPartly[lines - 1], QString(QChar(kPartly[lines - 1])),
                                  lines == 1 ? tr("part of one") : tr("%1 and a part").arg(lines - 1),
                                  QColor(), 2 * lines});
    question.answers.push_back({Qt::Key_6, QStringLiteral("6"), tr("more"), QColor(), 2 * kMaxCounted});
    return question;
  }
  FinderQuestion askReturn() const {
    const auto left = possible();
    const int line = left.empty() ? 1 : left.front().line();
    FinderQuestion question{tr("The first pixel of the second line is lit. Which picture is it?"),
                            tr("The first line, from its data end to its far end, is drawn dim."),
                            still(subject_, line, 1)};
    for (const bool serpentine : {false, true})
      question.answers.push_back(
          {serpentine ? Qt::Key_2 : Qt::Key_1, serpentine ? QStringLiteral("2") : QStringLiteral("1"),
           serpentine ? tr("beside the far end") : tr("beside the data end"), QColor(), serpentine ? 1 : 0,
           [serpentine](QPainter& painter, const QRectF& box) {
             drawCells(painter, box, [serpentine](int column, int row) {
               return row == 0                                                     ? 0.25 - 0.05 * column
                      : row == 1 && column == (serpentine ? kPictureCells - 1 : 0) ? 1.0
                                                                                   : 0.0;
             });
           }});
    return question;
  }

  GridShape now_;
  std::vector<MatrixPicture> pictures_;
};

}  // namespace

std::unique_ptr<Finder> makeMatrixFinder(const Subject& subject, QString& why) {
  const auto* grid = subject.fixture->segments.size() == 1
                         ? std::get_if<GridShape>(&subject.fixture->segments.front().shape)
                         : nullptr;
  const int pixels = pixelCount(*subject.fixture);
  if (!grid || subject.bead.count != pixels || !grid->holes.empty() || grid->missing > 0 || pixels < 4) {
    why = tr("This finder is for a whole matrix without holes. What hangs here is not one.");
    return nullptr;
  }
  std::vector<MatrixPicture> pictures;
  auto elimination = matrixFinder(pixels, pictures);
  return std::make_unique<Matrix>(subject, *grid, std::move(elimination), std::move(pictures));
}

}  // namespace chispa::desk
