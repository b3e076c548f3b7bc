// SPDX-License-Identifier: GPL-3.0-or-later
#include <algorithm>

#include <QRegularExpression>

#include "core/show/limits.h"
#include "core/show/strip.h"
#include "desk/plan/forms/fixturerows.h"

namespace chispa::desk {
namespace {

const Form::Number kRadius{"m", 0, 1000, 0.05, 3};
const Form::Number kAngle{"°", -360, 360, 5, 2};
const Form::Number kHeight{"m", -1000, 1000, 0.1, 3};
const Form::Number kStrings{{}, 1, 1000, 1, 0};
const Form::Number kPerString{{}, 1, 2000, 1, 0};
const Form::Number kPitch{"m", 0.001, 100, 0.001, 4};
const QRegularExpression kSeparators(QStringLiteral("[,; ]+"));

void addLineRows(FixtureRows&) {}
void addPointsRows(FixtureRows&) {}

void addArcRows(FixtureRows& rows) {
  rows.number("radius", Form::tr("Radius"), {"m", 0.001, 1000, 0.05, 3}, &ArcShape::radius_m);
  rows.number("arcStart", Form::tr("Starts at"), kAngle, &ArcShape::start_deg);
  rows.number("arcSweep", Form::tr("Sweep"), kAngle, &ArcShape::sweep_deg);
}

/// A side of a grid: what it cannot have any more is dropped.
void addSide(FixtureRows& rows, const QString& key, const QString& label, int GridShape::*side) {
  rows.form().addNumber(key, label, {{}, 1, 2000, 1, 0},
                        rows.ofShape<double, GridShape>([side](const GridShape& g) { return g.*side; }),
                        rows.changeShape<double, GridShape>(label, [side](GridShape& g, double v) {
                          g.*side = static_cast<int>(v);
                          tidyGrid(g);
                        }));
}

/// "3/4, 3/5" → row 3, column 4 …, counted from 1 at the bottom left; nothing if something else stands there.
std::optional<std::vector<GridCell>> readHoles(const QString& words) {
  std::vector<GridCell> holes;
  for (const QString& word : words.split(kSeparators, Qt::SkipEmptyParts)) {
    const auto match = QRegularExpression(QStringLiteral("^(\\d{1,4})/(\\d{1,4})$")).match(word);
    if (!match.hasMatch()) return std::nullopt;
    holes.push_back({match.captured(1).toInt() - 1, match.captured(2).toInt() - 1});
  }
  std::sort(holes.begin(), holes.end());
  holes.erase(std::unique(holes.begin(), holes.end()), holes.end());
  return holes;
}

void addGridRows(FixtureRows& rows) {
  addSide(rows, "columns", Form::tr("Columns"), &GridShape::columns);
  addSide(rows, "rows", Form::tr("Rows"), &GridShape::rows);
  rows.number("columnPitch", Form::tr("Column pitch"), kPitch, &GridShape::columnPitch_m);
  rows.number("rowPitch", Form::tr("Row pitch"), kPitch, &GridShape::rowPitch_m);
  rows.form().addNumber(
      "gridPixels", Form::tr("Pixels in all"), {{}, 1, limits::kMaxPixelsOfSegment, 1, 0},
      rows.ofShape<double, GridShape>([](const GridShape& g) { return pixelCount(Shape(g)); }),
      rows.changeShape<double, GridShape>(
          Form::tr("pixels"), [](GridShape& g, double v) { setGridPixels(g, static_cast<int>(v)); }));
  rows.choice(
      "startCorner", Form::tr("Data starts at"),
      {Form::tr("bottom left"), Form::tr("bottom right"), Form::tr("top left"), Form::tr("top right")},
      &GridShape::start);
  rows.choice("gridRuns", Form::tr("Data direction"), {Form::tr("along rows"), Form::tr("along columns")},
              &GridShape::runs);
  rows.toggle("serpentine", Form::tr("Serpentine"), &GridShape::serpentine);
  rows.form().addText(
      "holes", Form::tr("Holes (row/column)"), rows.ofShape<QString, GridShape>([](const GridShape& g) {
        QStringList words;
        for (const GridCell& hole : g.holes)
          words << QStringLiteral("%1/%2").arg(hole.row + 1).arg(hole.column + 1);
        return words.join(QStringLiteral(", "));
      }),
      rows.changeShape<QString, GridShape>(Form::tr("holes"), [](GridShape& g, QString v) {
        if (const auto holes = readHoles(v)) {
          g.holes = *holes;
          std::erase_if(g.holes, [](const GridCell& hole) { return hole.row < 0 || hole.column < 0; });
          tidyGrid(g);
        }
      }));
}

void addPathRows(FixtureRows& rows) {
  rows.toggle("smooth", Form::tr("Smooth corners"), &PathShape::smooth);
}

/// "24, 16, 8" → {24, 16, 8}; empty if something else stands there.
std::vector<int> readCounts(const QString& words) {
  std::vector<int> counts;
  int sum = 0;
  for (const QString& word : words.split(kSeparators, Qt::SkipEmptyParts)) {
    bool good = false;
    counts.push_back(word.toInt(&good));
    if (!good || counts.back() < 1 || counts.back() > limits::kMaxPixelsOfSegment ||
        (sum += counts.back()) > limits::kMaxPixelsOfSegment)
      return {};
  }
  return counts;
}

void addRingsRows(FixtureRows& rows) {
  rows.form().addText(
      "ringCounts", Form::tr("Pixels, from inside"),
      rows.ofShape<QString, RingsShape>([](const RingsShape& s) {
        QStringList words;
        for (const int count : s.counts) words << QString::number(count);
        return words.join(QStringLiteral(", "));
      }),
      rows.changeShape<QString, RingsShape>(Form::tr("ring pixels"), [](RingsShape& s, QString v) {
        if (const auto counts = readCounts(v); !counts.empty()) s.counts = counts;
      }));
  rows.number("innerRadius", Form::tr("Inner radius"), kRadius, &RingsShape::innerRadius_m);
  rows.number("outerRadius", Form::tr("Outer radius"), kRadius, &RingsShape::outerRadius_m);
  rows.number("arcStart", Form::tr("Starts at"), kAngle, &RingsShape::start_deg);
  rows.toggle("outsideIn", Form::tr("Data starts outside"), &RingsShape::outsideIn);
  rows.toggle("clockwise", Form::tr("Clockwise"), &RingsShape::clockwise);
}

void addSpiralRows(FixtureRows& rows) {
  rows.number("turns", Form::tr("Turns"), {{}, -1000, 1000, 0.5, 2}, &SpiralShape::turns);
  rows.number("startRadius", Form::tr("Radius at the start"), kRadius, &SpiralShape::startRadius_m);
  rows.number("endRadius", Form::tr("Radius at the end"), kRadius, &SpiralShape::endRadius_m);
  rows.number("rise", Form::tr("Rise"), kHeight, &SpiralShape::rise_m);
}

void addConeRows(FixtureRows& rows) {
  rows.number("strings", Form::tr("Strings"), kStrings, &ConeShape::strings);
  rows.number("perString", Form::tr("Pixels per string"), kPerString, &ConeShape::perString);
  rows.number("bottomRadius", Form::tr("Radius at the foot"), kRadius, &ConeShape::bottomRadius_m);
  rows.number("topRadius", Form::tr("Radius at the top"), kRadius, &ConeShape::topRadius_m);
  rows.number("coneHeight", Form::tr("Height"), kHeight, &ConeShape::height_m);
  rows.number("arcStart", Form::tr("First string at"), kAngle, &ConeShape::start_deg);
  rows.number("arcSweep", Form::tr("Sweep"), kAngle, &ConeShape::sweep_deg);
  rows.choice("stringWay", Form::tr("Data direction"),
              {Form::tr("upward"), Form::tr("downward"), Form::tr("up and down in turn")}, &ConeShape::way);
}

void addSpokesRows(FixtureRows& rows) {
  rows.number("strings", Form::tr("Spokes"), kStrings, &SpokesShape::spokes);
  rows.number("perString", Form::tr("Pixels per spoke"), kPerString, &SpokesShape::perSpoke);
  rows.number("innerRadius", Form::tr("Inner radius"), kRadius, &SpokesShape::innerRadius_m);
  rows.number("outerRadius", Form::tr("Outer radius"), kRadius, &SpokesShape::outerRadius_m);
  rows.number("arcStart", Form::tr("First spoke at"), kAngle, &SpokesShape::start_deg);
  rows.number("arcSweep", Form::tr("Sweep"), kAngle, &SpokesShape::sweep_deg);
  rows.choice("stringWay", Form::tr("Data direction"),
              {Form::tr("outward"), Form::tr("inward"), Form::tr("out and in in turn")}, &SpokesShape::way);
}

}  // namespace

void addShapeRows(FixtureRows& rows, const Shape& shape) {
  static constexpr void (*kRows[])(FixtureRows&) = {addLineRows, addGridRows,   addArcRows,
                                                    addPathRows, addRingsRows,  addSpiralRows,
                                                    addConeRows, addSpokesRows, addPointsRows};
  static_assert(std::size(kRows) == std::variant_size_v<Shape>);
  kRows[shape.index()](rows);
}

}  // namespace chispa::desk
