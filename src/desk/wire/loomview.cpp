// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/wire/loomview.h"

#include <QMouseEvent>
#include <QPainter>

#include "core/base/hash.h"
#include "desk/parts/format.h"
#include "desk/parts/theme.h"

namespace chispa::desk {
namespace {

/// A quiet colour of its own for each kind of fixture, the same for "Post 1" and "Post 12".
QColor kindColour(const Show& show, FixtureId id) {
  const Fixture* fixture = chispa::find(show.fixtures, id);
  if (!fixture) return theme().wrong;
  std::uint64_t hash = 7;
  for (const char c : fixture->name)
    if (std::isalpha(static_cast<unsigned char>(c))) hash = mixBits(hash ^ static_cast<std::uint64_t>(c));
  const int hue = static_cast<int>(hash % 12) * 30 + 10;
  return theme().isDark ? QColor::fromHsv(hue, 110, 150) : QColor::fromHsv(hue, 70, 215);
}

/// "Uplight 7" → "U 7", where there is no room for more.
QString shortLabel(const QString& label) {
  const QString number = label.section(QLatin1Char(' '), -1);
  return label.left(1) + (number == label ? QString() : QLatin1Char(' ') + number);
}

bool operator==(const BeadPlace& a, const ThreadPlace& b) {
  return a.controller == b.controller && a.port == b.port && a.bead == b.bead;
}

}  // namespace

LoomView::LoomView(const Session& session, QWidget* parent) : QWidget(parent), session_(session) {
  setObjectName(QStringLiteral("loomView"));
  setAccessibleName(tr("Loom"));
  setToolTip(tr("Drag from the tray onto a port. C cuts at the pointer, R turns round, Delete takes off, arrows move the selection."));
  setFocusPolicy(Qt::StrongFocus);
  setMouseTracking(true);
  connect(&session_.document, &Document::showChanged, this, &LoomView::relayout);
  connect(&session_.document, &Document::opened, this, &LoomView::relayout);
  connect(&session_.selection, &Selection::changed, this, qOverload<>(&LoomView::update));
  relayout();
}

void LoomView::relayout() {
  layout_ = LoomLayout(session_.show(), size(), fontMetrics().height(), scrolled_);
  update();
}

void LoomView::resizeEvent(QResizeEvent*) { relayout(); }

void LoomView::paintCards(QPainter& painter) const {
  const auto lines = session_.stage.player().lines();
  for (const auto& card : layout_.cards()) {
    const Controller* controller = chispa::find(session_.show().controllers, card.controller);
    if (!controller) continue;
    const bool selected = session_.selection.now() == Selected{card.controller};
    painter.setPen(selected ? theme().ember : theme().line);
    painter.setBrush(selected ? theme().selectedGround() : theme().panel);
    painter.drawRoundedRect(card.box, 4, 4);
    const double line = painter.fontMetrics().height();
    const QRectF words = card.box.adjusted(9, 5, -6, 0);
    QFont bold = font();
    bold.setBold(true);
    painter.setFont(bold);
    painter.setPen(theme().text);
    painter.drawText(words, text(controller->name));
    painter.setFont(numberFont(0.9));
    painter.setPen(theme().quiet);
    painter.drawText(words.translated(0, line + 1), QStringLiteral("%1 · %2").arg(QString::fromLatin1(protocolTitle(controller->protocol)), text(controller->host)));
    const auto state = std::find_if(lines.begin(), lines.end(), [&](const auto& l) { return l.controller == card.controller; });
    const bool lit = session_.stage.isLit();
    const bool reached = !lit || state == lines.end() || state->reached;
    painter.setPen(!reached ? theme().wrong : lit ? theme().fine : theme().quiet);
    painter.drawText(words.translated(0, 2 * line + 2), !reached ? tr("! ") + text(state->trouble) : lit ? tr("✓ light is going out") : tr("light is off"));
    painter.setFont(font());
  }
}

void LoomView::paintBead(QPainter& painter, const LoomLayout::BeadBox& bead) const {
  const auto* chosen = std::get_if<BeadPlace>(&session_.selection.now());
  const bool selected = chosen && *chosen == bead.place;
  if (bead.skipped > 0) {
    painter.setPen(QPen(theme().quiet, 1.5));
    painter.setBrush(theme().window);
    painter.drawEllipse(QPointF(bead.box.center().x(), bead.box.top() - bead.skipped / 2 - 1), 4, 4);
  }
  painter.setPen(selected ? QPen(theme().ember, 2) : QPen(Qt::NoPen));
  const QColor ground = kindColour(session_.show(), bead.fixture);
  painter.setBrush(selected ? theme().ember : ground);
  painter.drawRoundedRect(bead.box, 5, 5);
  const QColor ink = selected || !theme().isDark ? QColor(0x14, 0x12, 0x10) : QColor(0xff, 0xff, 0xff);
  painter.setPen(ink);
  painter.setFont(numberFont(0.8));
  const double line = painter.fontMetrics().height();
  const bool roomForArrow = bead.box.height() > 2 * line + 8;
  const bool isLow = bead.box.height() < 2 * line;
  // A narrow bead carries its name along the thread.
  const QString firstWord = bead.label.section(QLatin1Char(' '), 0, 0);
  const bool isUpright = !isLow && bead.box.height() > 3 * line && painter.fontMetrics().horizontalAdvance(firstWord) > bead.box.width() - 4;
  const QString words = isLow && painter.fontMetrics().horizontalAdvance(bead.label) > bead.box.width() - 2 ? shortLabel(bead.label) : bead.label;
  if (isUpright) {
    const QString fitting = painter.fontMetrics().elidedText(bead.label, Qt::ElideRight, static_cast<int>(bead.box.height()) - 20);
    const double wide = painter.fontMetrics().horizontalAdvance(fitting);
    painter.save();
    painter.translate(bead.box.center().x() + painter.fontMetrics().ascent() / 2.0 - 1, bead.box.top() + wide + 8);
    painter.rotate(-90);
    painter.drawText(QPointF(0, 0), fitting);
    painter.restore();
  }
  if (!isUpright) painter.drawText(bead.box.adjusted(1, isLow ? 0 : 2, -1, roomForArrow ? -12 : 0), Qt::AlignHCenter | (isLow ? Qt::AlignVCenter : Qt::AlignTop) | Qt::TextWordWrap, words);
  painter.setFont(font());
  if (!roomForArrow) return;
  // Data flows downward; a bead that was turned round says so.
  const QPointF tip(bead.box.center().x(), bead.box.bottom() - 4);
  painter.setPen(Qt::NoPen);
  painter.setBrush(ink);
  painter.drawPolygon(QPolygonF{tip, tip + QPointF(-4, -5), tip + QPointF(4, -5)});
  if (bead.reversed) {
    painter.setPen(ink);
    painter.drawText(QRectF(bead.box.left(), bead.box.bottom() - line - 8, bead.box.width(), line), Qt::AlignCenter, tr("turned"));
  }
}

void LoomView::paintTicks(QPainter& painter, const LoomLayout::Thread& thread) const {
  const QFont small = numberFont(0.8);
  painter.setFont(small);
  double lastLabel = -1e9;
  for (const auto& tick : thread.ticks) {
    const double left = thread.x - layout_.step() * 0.36;
    painter.setPen(QPen(tick.isFirst ? theme().text : theme().quiet, 1.2));
    painter.drawLine(QPointF(left - 4, tick.y), QPointF(left + 5, tick.y));
    const double wide = painter.fontMetrics().horizontalAdvance(tick.address);
    if (tick.y < lastLabel + wide + 6) continue;
    lastLabel = tick.y;
    painter.save();
    painter.translate(left - 1, tick.y + wide + 4);
    painter.rotate(-90);
    painter.setPen(theme().quiet);
    painter.drawText(QPointF(0, 0), tick.address);
    painter.restore();
  }
  painter.setFont(font());
}

void LoomView::paintThread(QPainter& painter, const LoomLayout::Thread& thread) const {
  const bool isChosen = session_.selection.now() == Selected{PortChoice{thread.controller, thread.port}};
  const QPointF hook(thread.x, layout_.beamY() + 10);
  painter.setPen(QPen(theme().quiet, 1.4, thread.beads.empty() ? Qt::DotLine : Qt::SolidLine));
  painter.drawLine(hook, QPointF(thread.x, thread.beads.empty() ? thread.top + 26 : thread.bottom));
  painter.setPen(isChosen ? theme().ember : theme().quiet);
  painter.setBrush(isChosen ? theme().selectedGround() : theme().raised);
  painter.drawEllipse(hook, 10, 10);
  painter.setPen(theme().text);
  painter.drawText(QRectF(hook.x() - 10, hook.y() - 10, 20, 20), Qt::AlignCenter, QString::number(thread.port + 1));
  for (const auto& bead : thread.beads) paintBead(painter, bead);
  paintTicks(painter, thread);
  if (thread.beads.empty()) return;
  painter.setFont(numberFont(0.85));
  painter.setPen(theme().quiet);
  const double line = painter.fontMetrics().height();
  painter.drawText(QRectF(thread.x - 34, thread.bottom + 2, 68, line), Qt::AlignCenter, tr("%1 px").arg(thread.pixels));
  painter.drawText(QRectF(thread.x - 34, thread.bottom + 2 + line, 68, line), Qt::AlignCenter, ampsText(thread.amps));
  painter.setFont(font());
}

void LoomView::paintTray(QPainter& painter) const {
  painter.setPen(Qt::NoPen);
  painter.setBrush(theme().panel);
  painter.drawRect(layout_.tray());
  painter.setPen(theme().line);
  painter.drawLine(layout_.tray().topLeft(), layout_.tray().topRight());
  painter.setPen(theme().quiet);
  const QString words = layout_.chips().empty() ? tr("Everything is wired.") : tr("Not wired yet — drag onto a port");
  painter.drawText(layout_.tray().topLeft() + QPointF(10, painter.fontMetrics().height() + 4), words);
  for (const auto& chip : layout_.chips()) {
    painter.setPen(Qt::NoPen);
    painter.setBrush(kindColour(session_.show(), chip.piece.fixture));
    painter.drawRoundedRect(chip.box, 4, 4);
    painter.setPen(theme().isDark ? QColor(0xff, 0xff, 0xff) : QColor(0x14, 0x12, 0x10));
    painter.drawText(chip.box, Qt::AlignCenter, chip.label);
  }
}

void LoomView::paintDrag(QPainter& painter) const {
  const auto place = layout_.dropPlace(pointer_);
  const LoomLayout::Thread* thread = place ? layout_.threadOf(place->controller, place->port) : nullptr;
  if (thread) {
    const auto bead = static_cast<std::size_t>(place->bead);
    const double y = bead < thread->beads.size() ? thread->beads[bead].box.top() - 3 : thread->beads.empty() ? thread->top : thread->bottom;
    painter.setPen(QPen(theme().ember, 3));
    painter.drawLine(QPointF(thread->x - 24, y), QPointF(thread->x + 24, y));
  }
  const int count = draggedPiece_ ? draggedPiece_->count : beadAt(session_.show(), *draggedBead_) ? beadAt(session_.show(), *draggedBead_)->count : 0;
  const QString words = thread ? tr("%1 px → port %2").arg(count).arg(thread->port + 1) : tr("%1 px · drop on a port").arg(count);
  painter.setPen(Qt::NoPen);
  painter.setBrush(theme().raised);
  const QRectF box(pointer_ + QPointF(12, -24), QSizeF(painter.fontMetrics().horizontalAdvance(words) + 16, painter.fontMetrics().height() + 8));
  painter.drawRoundedRect(box, 4, 4);
  painter.setPen(theme().text);
  painter.drawText(box, Qt::AlignCenter, words);
}

void LoomView::paintScissors(QPainter& painter) const {
  const LoomLayout::BeadBox* bead = layout_.beadAt(pointer_);
  if (!bead) return;
  const int above = pixelsAbove(*bead, pointer_.y());
  const Bead* cut = beadAt(session_.show(), bead->place);
  painter.setPen(QPen(theme().watch, 1.5, Qt::DashLine));
  painter.drawLine(QPointF(bead->box.left() - 10, pointer_.y()), QPointF(bead->box.right() + 10, pointer_.y()));
  painter.setPen(theme().watch);
  painter.drawText(pointer_ + QPointF(14, 16), tr("✂ after %1 · %2 left").arg(above).arg(cut ? cut->count - above : 0));
}

void LoomView::paintEvent(QPaintEvent*) {
  QPainter painter(this);
  painter.setRenderHint(QPainter::Antialiasing);
  painter.fillRect(rect(), theme().window);
  painter.fillRect(QRectF(0, layout_.beamY() - 4, width(), 8), theme().raised);
  paintCards(painter);
  for (const auto& thread : layout_.threads()) paintThread(painter, thread);
  paintTray(painter);
  if (session_.show().controllers.empty()) {
    painter.setPen(theme().quiet);
    painter.drawText(rect(), Qt::AlignCenter, tr("No controller yet.\n\nAdd one above, then drag what is in the tray onto its ports."));
  }
  if (draggedPiece_ || draggedBead_) paintDrag(painter);
  if (cutting_) paintScissors(painter);
}

void LoomView::mousePressEvent(QMouseEvent* event) {
  pressed_ = pointer_ = event->position();
  if (cutting_) return cutAtPointer();
  if (const auto* chip = layout_.chipAt(pressed_)) {
    draggedPiece_ = chip->piece;
    session_.selection.select(FixtureIds{chip->piece.fixture});
  } else if (const auto* bead = layout_.beadAt(pressed_)) {
    session_.selection.select(BeadPlace{bead->place.controller, bead->place.port, bead->place.bead});
    draggedBead_ = bead->place;
  } else if (const auto* card = layout_.cardAt(pressed_)) {
    session_.selection.select(card->controller);
  } else if (const auto* thread = layout_.threadAt(pressed_)) {
    session_.selection.select(PortChoice{thread->controller, thread->port});
  } else {
    session_.selection.clear();
  }
}

void LoomView::mouseMoveEvent(QMouseEvent* event) {
  pointer_ = event->position();
  if (cutting_ || draggedPiece_ || draggedBead_) update();
}

void LoomView::mouseReleaseEvent(QMouseEvent* event) {
  pointer_ = event->position();
  constexpr double kDragBegins = 6;
  if ((pointer_ - pressed_).manhattanLength() >= kDragBegins) drop();
  draggedPiece_.reset();
  draggedBead_.reset();
  update();
}

void LoomView::drop() {
  const auto place = layout_.dropPlace(pointer_);
  if (draggedPiece_ && place) {
    session_.edit(tr("hang on port %1").arg(place->port + 1), [&](Show& show) { hang(show, *draggedPiece_, *place); });
    session_.selection.select(BeadPlace{place->controller, place->port, place->bead});
  } else if (draggedBead_ && place) {
    session_.edit(tr("move a bead"), [&](Show& show) { moveBead(show, *draggedBead_, *place); });
  } else if (draggedBead_ && layout_.tray().contains(pointer_)) {
    session_.edit(tr("take off a port"), [&](Show& show) { unhang(show, *draggedBead_); });
    session_.selection.prune(session_.show(), nullptr);
  }
}

int LoomView::pixelsAbove(const LoomLayout::BeadBox& bead, double y) const {
  const Bead* cut = beadAt(session_.show(), bead.place);
  if (!cut) return 0;
  const double share = (y - bead.box.top()) / bead.box.height();
  return std::clamp(static_cast<int>(std::lround(share * cut->count)), 0, cut->count);
}

void LoomView::cutAtPointer() {
  cutting_ = false;
  setCursor(Qt::ArrowCursor);
  const auto* bead = layout_.beadAt(pointer_);
  if (!bead) return update();
  const ThreadPlace place = bead->place;
  const int above = pixelsAbove(*bead, pointer_.y());
  session_.edit(tr("cut after %1").arg(above), [&](Show& show) { cutBead(show, place, above); });
}

std::optional<ThreadPlace> LoomView::selectedBead() const {
  const auto* bead = std::get_if<BeadPlace>(&session_.selection.now());
  if (!bead) return std::nullopt;
  return ThreadPlace{bead->controller, bead->port, bead->bead};
}

void LoomView::wheelEvent(QWheelEvent* event) {
  const double step = event->angleDelta().y() != 0 ? event->angleDelta().y() : event->angleDelta().x();
  scrolled_ = std::clamp(scrolled_ - step, 0.0, std::max(0.0, layout_.width() - width()));
  relayout();
}

void LoomView::moveSelection(int threads, int beads) {
  const auto& all = layout_.threads();
  if (all.empty()) return;
  std::size_t thread = 0;
  int bead = 0;
  const auto at = [&](ControllerId controller, int port) {
    for (std::size_t i = 0; i < all.size(); ++i)
      if (all[i].controller == controller && all[i].port == port) return i;
    return std::size_t{0};
  };
  if (const auto* chosen = std::get_if<BeadPlace>(&session_.selection.now())) {
    thread = at(chosen->controller, chosen->port);
    bead = chosen->bead + beads;
  } else if (const auto* port = std::get_if<PortChoice>(&session_.selection.now())) {
    thread = at(port->controller, port->port);
  }
  thread = static_cast<std::size_t>(std::clamp<std::ptrdiff_t>(static_cast<std::ptrdiff_t>(thread) + threads, 0, std::ssize(all) - 1));
  const auto& to = all[thread];
  if (to.beads.empty()) return session_.selection.select(PortChoice{to.controller, to.port});
  session_.selection.select(BeadPlace{to.controller, to.port, std::clamp(bead, 0, static_cast<int>(to.beads.size()) - 1)});
}

void LoomView::keyPressEvent(QKeyEvent* event) {
  const auto bead = selectedBead();
  switch (event->key()) {
    case Qt::Key_C:
      cutting_ = true;
      setCursor(Qt::SplitVCursor);
      return update();
    case Qt::Key_Escape:
      cutting_ = false;
      setCursor(Qt::ArrowCursor);
      return update();
    case Qt::Key_R:
      if (bead) session_.edit(tr("turn round"), [&](Show& show) { turnBead(show, *bead); });
      return;
    case Qt::Key_Left: return moveSelection(-1, 0);
    case Qt::Key_Right: return moveSelection(1, 0);
    case Qt::Key_Up: return moveSelection(0, -1);
    case Qt::Key_Down: return moveSelection(0, 1);
    default: QWidget::keyPressEvent(event);
  }
}

}  // namespace chispa::desk
