// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/score/overviewstrip.h"

#include <unordered_map>

#include <QKeyEvent>
#include <QPainter>

#include "desk/parts/format.h"
#include "desk/parts/named.h"
#include "desk/parts/theme.h"
#include "desk/score/timelineview.h"

namespace chispa::desk {
namespace {

constexpr int kHeight = 40;
constexpr double kSections_px = 5;

}  // namespace

OverviewStrip::OverviewStrip(const Session& session, TimelineView& timeline, QWidget* parent)
    : QWidget(parent), session_(session), timeline_(timeline) {
  named(this, "overviewStrip", tr("Overview of the whole piece"),
        tr("The whole piece. Drag or click to see another part of it; Left, Right, Home and End move it, "
           "too."));
  setFixedHeight(kHeight);
  setFocusPolicy(Qt::StrongFocus);
  const auto redraw = [this] {
    picture_ = {};
    update();
  };
  connect(&session_.document, &Document::showChanged, this, redraw);
  connect(&session_.stage, &Stage::scoreChanged, this, redraw);
  connect(&session_.stage, &Stage::ticked, this, [this] {
    if (session_.stage.hasMoved()) update();
  });
  connect(&timeline_, &TimelineView::seenChanged, this, qOverload<>(&QWidget::update));
}

QSize OverviewStrip::sizeHint() const {
  return {400, kHeight};
}

double OverviewStrip::xOf(Micros t) const {
  const Score* score = session_.stage.score();
  return score && score->length.count() > 0 ? seconds(t) / seconds(score->length) * width() : 0;
}

void OverviewStrip::drawClips() {
  picture_ = QPixmap(size() * devicePixelRatioF());
  picture_.setDevicePixelRatio(devicePixelRatioF());
  picture_.fill(theme().night);
  const Score* score = session_.stage.score();
  if (!score || score->staves.empty()) return;
  QPainter painter(&picture_);
  if (const MarkLane* sections = laneOf(*score, LaneKind::Sections))
    for (std::size_t i = 0; i < sections->marks.size(); ++i) {
      const double from = xOf(sections->marks[i].at);
      const double to = i + 1 < sections->marks.size() ? xOf(sections->marks[i + 1].at) : width();
      painter.fillRect(QRectF(from, 0, to - from - 1, kSections_px - 1),
                       i % 2 == 0 ? theme().quiet : theme().line);
    }
  std::unordered_map<ZoneId, std::size_t> rows;
  for (const ZoneId zone : score->staves) rows.emplace(zone, rows.size());
  std::unordered_map<PaletteId, QColor> colours;
  for (const auto& palette : session_.show().palettes) {
    const Srgb8 c = toSrgb8(colourAt(*palette, 0.6));
    colours[palette->id] = QColor(c.r, c.g, c.b);
  }
  const double row = (height() - kSections_px) / static_cast<double>(rows.size());
  for (const auto& clip : score->clips) {
    const auto at = rows.find(clip->zone);
    if (at == rows.end()) continue;
    const auto colour = colours.find(clip->palette);
    painter.fillRect(QRectF(xOf(clip->start), kSections_px + row * static_cast<double>(at->second),
                            std::max(1.0, xOf(clip->end()) - xOf(clip->start)), std::max(1.0, row - 0.5)),
                     colour == colours.end() ? theme().quiet : colour->second);
  }
}

void OverviewStrip::paintEvent(QPaintEvent*) {
  if (picture_.isNull()) drawClips();
  QPainter painter(this);
  painter.drawPixmap(0, 0, picture_);
  if (!session_.stage.score()) return;
  const TimeSpan seen = timeline_.seen();
  const QRectF window(xOf(seen.from), 0, std::min<double>(width(), xOf(seen.end())) - xOf(seen.from),
                      height());
  QColor beyond = theme().window;
  beyond.setAlpha(150);
  painter.fillRect(QRectF(0, 0, window.left(), height()), beyond);
  painter.fillRect(QRectF(window.right(), 0, width() - window.right(), height()), beyond);
  painter.setPen(QPen(hasFocus() ? theme().ember : theme().text, 1));
  painter.drawRect(window.adjusted(0.5, 0.5, -0.5, -0.5));
  painter.fillRect(QRectF(xOf(session_.stage.position()) - 1, 0, 2, height()), theme().ember);
}

void OverviewStrip::resizeEvent(QResizeEvent*) {
  picture_ = {};
}

void OverviewStrip::changeEvent(QEvent* event) {
  // Another theme has other colours.
  if (event->type() == QEvent::StyleChange || event->type() == QEvent::PaletteChange) picture_ = {};
  QWidget::changeEvent(event);
}

void OverviewStrip::revealAt(double x) {
  const Score* score = session_.stage.score();
  if (score)
    timeline_.reveal(micros(std::clamp(x / std::max(1, width()), 0.0, 1.0) * seconds(score->length)));
}

void OverviewStrip::mousePressEvent(QMouseEvent* event) {
  revealAt(event->position().x());
}
void OverviewStrip::mouseMoveEvent(QMouseEvent* event) {
  revealAt(event->position().x());
}

void OverviewStrip::keyPressEvent(QKeyEvent* event) {
  const TimeSpan seen = timeline_.seen();
  const double middle = xOf(seen.from + seen.length / 2);
  const double step = (xOf(seen.end()) - xOf(seen.from)) / 2;
  switch (event->key()) {
    case Qt::Key_Left:
      return revealAt(middle - step);
    case Qt::Key_Right:
      return revealAt(middle + step);
    case Qt::Key_Home:
      return revealAt(0);
    case Qt::Key_End:
      return revealAt(width());
    default:
      QWidget::keyPressEvent(event);
  }
}

}  // namespace chispa::desk
