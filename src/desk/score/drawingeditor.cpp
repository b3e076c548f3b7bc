// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/score/drawingeditor.h"

#include <QFormLayout>
#include <QLabel>
#include <QListWidget>
#include <QMouseEvent>
#include <QPainter>
#include <QPushButton>
#include <QSpinBox>
#include <QVBoxLayout>

#include "desk/parts/format.h"
#include "desk/parts/named.h"
#include "desk/parts/theme.h"

namespace chispa::desk {
namespace {

QColor shadeColour(const Palette& palette, int shade) {
  const Srgb8 c = toSrgb8(colourAt(palette, static_cast<double>(shade) / (DotDrawing::kShades - 1)));
  return {c.r, c.g, c.b};
}

}  // namespace

DotField::DotField(const Palette& palette, QWidget* parent) : QWidget(parent), palette_(palette) {
  setObjectName(QStringLiteral("dotField"));
  setAccessibleName(tr("Dots of the frame"));
  setToolTip(tr(
      "Draw with the left button, clear with the right. With keys: arrows move, Space sets, Delete clears."));
  setFocusPolicy(Qt::StrongFocus);
  setMinimumSize(360, 360);
}

void DotField::show(const DotDrawing& drawing, int frame) {
  drawing_ = drawing;
  frame_ = frame;
  column_ = std::min(column_, drawing.columns - 1);
  row_ = std::min(row_, drawing.rows - 1);
  update();
}

QRectF DotField::boxOf(int column, int row) const {
  const double side = std::min(static_cast<double>(width()) / drawing_.columns,
                               static_cast<double>(height()) / drawing_.rows);
  const double left = (width() - side * drawing_.columns) / 2;
  const double top = (height() - side * drawing_.rows) / 2;
  return {left + side * column, top + side * row, side, side};
}

void DotField::paintEvent(QPaintEvent*) {
  QPainter painter(this);
  painter.setRenderHint(QPainter::Antialiasing);
  painter.fillRect(rect(), theme().night);
  for (int row = 0; row < drawing_.rows; ++row)
    for (int column = 0; column < drawing_.columns; ++column) {
      const QRectF box = boxOf(column, row);
      const int shade = drawing_.at(frame_, column, row);
      const double inset = box.width() * 0.12;
      painter.setPen(shade == DotDrawing::kClear ? QPen(theme().line) : QPen(Qt::NoPen));
      painter.setBrush(shade == DotDrawing::kClear ? QBrush(Qt::NoBrush)
                                                   : QBrush(shadeColour(palette_, shade)));
      painter.drawEllipse(box.adjusted(inset, inset, -inset, -inset));
    }
  if (!hasFocus()) return;
  painter.setPen(QPen(theme().ember, 1.5));
  painter.setBrush(Qt::NoBrush);
  painter.drawRect(boxOf(column_, row_));
}

void DotField::draw(QPointF at, bool isClearing) {
  const QRectF first = boxOf(0, 0);
  const int column = static_cast<int>(std::floor((at.x() - first.left()) / first.width()));
  const int row = static_cast<int>(std::floor((at.y() - first.top()) / first.height()));
  if (column < 0 || row < 0 || column >= drawing_.columns || row >= drawing_.rows) return;
  column_ = column;
  row_ = row;
  emit dotSet(column, row, isClearing ? DotDrawing::kClear : shade_);
}

void DotField::mousePressEvent(QMouseEvent* event) {
  draw(event->position(), event->button() == Qt::RightButton);
}
void DotField::mouseMoveEvent(QMouseEvent* event) {
  draw(event->position(), event->buttons() & Qt::RightButton);
}

void DotField::keyPressEvent(QKeyEvent* event) {
  switch (event->key()) {
    case Qt::Key_Left:
      column_ = std::max(0, column_ - 1);
      break;
    case Qt::Key_Right:
      column_ = std::min(drawing_.columns - 1, column_ + 1);
      break;
    case Qt::Key_Up:
      row_ = std::max(0, row_ - 1);
      break;
    case Qt::Key_Down:
      row_ = std::min(drawing_.rows - 1, row_ + 1);
      break;
    case Qt::Key_Space:
      emit dotSet(column_, row_, shade_);
      break;
    case Qt::Key_Delete:
    case Qt::Key_Backspace:
      emit dotSet(column_, row_, DotDrawing::kClear);
      break;
    default:
      return QWidget::keyPressEvent(event);
  }
  update();
}

DrawingEditor::DrawingEditor(const Palette& palette, const QString& drawing, std::function<void(QString)> set,
                             QWidget* parent)
    : QDialog(parent),
      drawing_(parseDrawing(drawing.toStdString())),
      set_(std::move(set)),
      field_(new DotField(palette)) {
  setObjectName(QStringLiteral("drawingEditor"));
  setWindowTitle(tr("Drawing"));
  resize(720, 460);
  auto* row = new QHBoxLayout(this);
  row->addWidget(makeShades(palette));
  row->addWidget(field_, 1);
  row->addWidget(makeFrames());
  connect(field_, &DotField::dotSet, this, [this](int column, int at, int shade) {
    drawing_.frames[static_cast<std::size_t>(frame_->value() - 1)]
                   [static_cast<std::size_t>(at * drawing_.columns + column)] =
        static_cast<std::int8_t>(shade);
    commit();
  });
  refresh();
}

QWidget* DrawingEditor::makeShades(const Palette& palette) {
  shades_ = new QListWidget;
  named(shades_, "shades", tr("Colours"),
        tr("The clip's palette in %1 steps; the dots keep the step when the palette changes.")
            .arg(DotDrawing::kShades));
  shades_->setFixedWidth(96);
  for (int shade = DotDrawing::kShades - 1; shade >= 0; --shade) {
    QPixmap colour(48, 12);
    colour.fill(shadeColour(palette, shade));
    shades_->addItem(new QListWidgetItem(QIcon(colour), QString::number(shade + 1)));
  }
  shades_->setIconSize({48, 12});
  shades_->setCurrentRow(0);
  connect(shades_, &QListWidget::currentRowChanged, this,
          [this](int at) { field_->setShade(DotDrawing::kShades - 1 - at); });
  return shades_;
}

QWidget* DrawingEditor::makeFrames() {
  auto* panel = new QWidget;
  panel->setFixedWidth(176);
  auto* column = new QVBoxLayout(panel);
  auto* form = new QFormLayout;
  const auto number = [&](const char* name, const QString& label, const QString& tip, int low, int high,
                          int value) {
    auto* field = new QSpinBox;
    named(field, name, label, tip);
    field->setRange(low, high);
    field->setValue(value);
    form->addRow(label, field);
    return field;
  };
  columns_ = number("dotColumns", tr("Columns"), tr("How many dots wide"), 1, DotDrawing::kMaxSide,
                    drawing_.columns);
  rows_ = number("dotRows", tr("Rows"), tr("How many dots high"), 1, DotDrawing::kMaxSide, drawing_.rows);
  frame_ = number("dotFrame", tr("Frame"), tr("Which frame is drawn"), 1,
                  static_cast<int>(drawing_.frames.size()), 1);
  column->addLayout(form);
  for (QSpinBox* side : {columns_, rows_})
    connect(side, &QSpinBox::valueChanged, this, [this] {
      drawing_ = resized(drawing_, columns_->value(), rows_->value());
      commit();
    });
  connect(frame_, &QSpinBox::valueChanged, this, [this] { refresh(); });
  const auto button = [&](const char* name, const QString& label, const QString& tip, auto pressed) {
    auto* one = new QPushButton(label);
    one->setObjectName(QLatin1String(name));
    one->setToolTip(tip);
    connect(one, &QPushButton::clicked, this, pressed);
    column->addWidget(one);
  };
  button("addFrame", tr("Add a frame"), tr("A copy of this frame behind it"), [this] {
    if (drawing_.frames.size() >= DotDrawing::kMaxFrames) return;
    const auto at = static_cast<std::ptrdiff_t>(frame_->value());
    drawing_.frames.insert(drawing_.frames.begin() + at, drawing_.frames[static_cast<std::size_t>(at - 1)]);
    commit();
    frame_->setValue(static_cast<int>(at) + 1);
  });
  button("dropFrame", tr("Remove"), tr("Removes this frame"), [this] {
    if (drawing_.frames.size() < 2) return;
    drawing_.frames.erase(drawing_.frames.begin() + frame_->value() - 1);
    commit();
  });
  button("clearFrame", tr("Clear"), tr("All dots of this frame are clear"), [this] {
    auto& frame = drawing_.frames[static_cast<std::size_t>(frame_->value() - 1)];
    std::fill(frame.begin(), frame.end(), DotDrawing::kClear);
    commit();
  });
  column->addStretch();
  auto* words =
      new QLabel(tr("Dots take places in the clip's palette: give the clip another palette, and the drawing "
                    "takes its colours."));
  words->setWordWrap(true);
  words->setObjectName(QStringLiteral("quiet"));
  column->addWidget(words);
  return panel;
}

void DrawingEditor::refresh() {
  frame_->setMaximum(static_cast<int>(drawing_.frames.size()));
  field_->show(drawing_, frame_->value() - 1);
}

void DrawingEditor::follow(const std::optional<QString>& drawing) {
  if (!drawing) {
    close();
    return;
  }
  if (*drawing == text(drawingText(drawing_))) return;
  drawing_ = parseDrawing(drawing->toStdString());
  for (const auto& [side, count] : {std::pair(columns_, drawing_.columns), std::pair(rows_, drawing_.rows)}) {
    const QSignalBlocker quiet(side);
    side->setValue(count);
  }
  refresh();
}

void DrawingEditor::commit() {
  refresh();
  set_(text(drawingText(drawing_)));
}

}  // namespace chispa::desk
