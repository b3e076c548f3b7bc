// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/wire/loomview.h"

#include <cmath>

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

LoomView::LoomView(const Session& session, QWidget* parent)
    : QWidget(parent), session_(session), power_(session) {
  setObjectName(QStringLiteral("loomView"));
  setAccessibleName(tr("Loom"));
  setToolTip(
      tr("Drag from the tray onto a port: Shift spreads its strings over ports, Ctrl hangs a bead once more. "
         "C cuts and P puts a power pin at the pointer, R turns round, Delete takes off, F folds a "
         "controller, Ctrl and the wheel zoom."));
  setFocusPolicy(Qt::StrongFocus);
  setMouseTracking(true);
  connect(&session_.document, &Document::showChanged, this, &LoomView::relayout);
  connect(&session_.document, &Document::opened, this, &LoomView::relayout);
  connect(&session_.selection, &Selection::changed, this, qOverload<>(&LoomView::update));
  connect(&power_, &LoomPower::changed, this, qOverload<>(&LoomView::update));
  relayout();
}

void LoomView::relayout() {
  layout_ = LoomLayout(session_.show(), size(), fontMetrics().height(), view_);
  update();
}

void LoomView::resizeEvent(QResizeEvent*) {
  relayout();
}

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
    painter.drawText(words.translated(0, line + 1),
                     QStringLiteral("%1 · %2").arg(QString::fromLatin1(protocolTitle(controller->protocol)),
                                                   text(controller->host)));
    const auto state = std::find_if(lines.begin(), lines.end(),
                                    [&](const auto& l) { return l.controller == card.controller; });
    const bool lit = session_.stage.isLit();
    const bool reached = !lit || state == lines.end() || state->reached;
    painter.setPen(!reached ? theme().wrong : lit ? theme().fine : theme().quiet);
    painter.drawText(words.translated(0, 2 * line + 2), !reached ? tr("! ") + text(state->trouble)
                                                        : lit    ? tr("✓ light is going out")
                                                                 : tr("light is off"));
    painter.setFont(font());
    if (!card.isFolded) continue;
    painter.setPen(theme().quiet);
    painter.drawText(QRectF(card.box.left(), layout_.beamY() + 14, card.box.width(), 3 * line),
                     Qt::AlignHCenter | Qt::AlignTop,
                     tr("%1 ports, %2 px\nF unfolds").arg(card.ports).arg(card.pixels));
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
  const bool isUpright = !isLow && bead.box.height() > 3 * line &&
                         painter.fontMetrics().horizontalAdvance(firstWord) > bead.box.width() - 4;
  const QString words = isLow && painter.fontMetrics().horizontalAdvance(bead.label) > bead.box.width() - 2
                            ? shortLabel(bead.label)
                            : bead.label;
  if (isUpright) {
    const QString fitting = painter.fontMetrics().elidedText(bead.label, Qt::ElideRight,
                                                             static_cast<int>(bead.box.height()) - 20);
    const double wide = painter.fontMetrics().horizontalAdvance(fitting);
    painter.save();
    painter.translate(bead.box.center().x() + painter.fontMetrics().ascent() / 2.0 - 1,
                      bead.box.top() + wide + 8);
    painter.rotate(-90);
    painter.drawText(QPointF(0, 0), fitting);
    painter.restore();
  }
  if (!isUpright)
    painter.drawText(bead.box.adjusted(1, isLow ? 0 : 2, -1, roomForArrow ? -12 : 0),
                     Qt::AlignHCenter | (isLow ? Qt::AlignVCenter : Qt::AlignTop) | Qt::TextWordWrap, words);
  painter.setFont(font());
  if (!roomForArrow) return;
  // Data flows downward; a bead that was turned round says so.
  const QPointF tip(bead.box.center().x(), bead.box.bottom() - 4);
  painter.setPen(Qt::NoPen);
  painter.setBrush(ink);
  painter.drawPolygon(QPolygonF{tip, tip + QPointF(-4, -5), tip + QPointF(4, -5)});
  if (bead.reversed) {
    painter.setPen(ink);
    painter.drawText(QRectF(bead.box.left(), bead.box.bottom() - line - 8, bead.box.width(), line),
                     Qt::AlignCenter, tr("turned"));
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
  const Controller* controller = chispa::find(session_.show().controllers, thread.controller);
  const auto mark = controller ? controller->ports[static_cast<std::size_t>(thread.port)].mark : std::nullopt;
  painter.setPen(isChosen ? QPen(theme().ember, 2)
                 : mark   ? QPen(QColor(mark->r, mark->g, mark->b), 3)
                          : QPen(theme().quiet));
  painter.setBrush(isChosen ? theme().selectedGround() : theme().raised);
  painter.drawEllipse(hook, 10, 10);
  painter.setPen(theme().text);
  painter.drawText(QRectF(hook.x() - 10, hook.y() - 10, 20, 20), Qt::AlignCenter,
                   QString::number(thread.port + 1));
  for (const auto& bead : thread.beads) paintBead(painter, bead);
  for (const auto& bead : thread.beads) paintPower(painter, bead);
  paintTicks(painter, thread);
  if (thread.beads.empty()) return;
  paintThreadFoot(painter, thread);
}

void LoomView::paintThreadFoot(QPainter& painter, const LoomLayout::Thread& thread) const {
  painter.setFont(numberFont(0.85));
  painter.setPen(theme().quiet);
  const double line = painter.fontMetrics().height();
  const QRectF words(thread.x - 34, thread.bottom + 2, 68, line);
  painter.drawText(words, Qt::AlignCenter, tr("%1 px").arg(thread.pixels));
  painter.drawText(words.translated(0, line), Qt::AlignCenter, ampsText(thread.amps));
  if (const auto lowest = power_.lowestOf(thread.controller, thread.port)) {
    const bool fades = lowest->volts < lowest->least_v;
    painter.setPen(fades ? theme().wrong : theme().quiet);
    painter.drawText(words.translated(0, 2 * line), Qt::AlignCenter,
                     tr("%1%2 V").arg(fades ? tr("! ") : QString()).arg(lowest->volts, 0, 'f', 1));
  }
  painter.setFont(font());
}

namespace {

/// From fine at the full voltage over watch to wrong, where colours fade.
QColor levelColour(const LoomPower::Level& level) {
  const double share = (level.volts - level.least_v) / std::max(0.01, level.nominal_v - level.least_v);
  if (share < 0) return theme().wrong;
  const double fine = std::clamp((share - 0.1) / 0.6, 0.0, 1.0);
  const auto mix = [fine](int a, int b) { return static_cast<int>(a + (b - a) * fine); };
  const QColor& low = theme().watch;
  const QColor& high = theme().fine;
  return {mix(low.red(), high.red()), mix(low.green(), high.green()), mix(low.blue(), high.blue())};
}

}  // namespace

void LoomView::paintPower(QPainter& painter, const LoomLayout::BeadBox& bead) const {
  constexpr double kBand = 4;
  constexpr double kStep = 3;
  const double left = bead.box.right() + 3;
  for (double y = bead.box.top(); y < bead.box.bottom(); y += kStep) {
    const auto level = power_.levelAt(bead.place, LoomLayout::pixelsAbove(bead, y));
    if (!level) break;
    painter.fillRect(QRectF(left, y, kBand, std::min(kStep + 1, bead.box.bottom() - y)), levelColour(*level));
  }
  painter.setFont(numberFont(0.75));
  for (std::size_t i = 0; i < bead.pins.size(); ++i) {
    const QPointF at(left + kBand, std::clamp(bead.pins[i], bead.box.top() + 4, bead.box.bottom() - 4));
    painter.setPen(QPen(theme().text, 1.5));
    painter.setBrush(theme().ember);
    constexpr double kRoomForAmps = 66;
    const bool hasRoom = layout_.step() >= kRoomForAmps;
    if (hasRoom) painter.drawLine(at, at + QPointF(6, 0));
    painter.drawEllipse(hasRoom ? at + QPointF(9, 0) : at - QPointF(kBand / 2, 0), 3, 3);
    const auto amps = power_.pin_a(bead.place, static_cast<int>(i));
    if (!amps || !hasRoom) continue;
    painter.setPen(theme().quiet);
    painter.drawText(at + QPointF(-2, -5), ampsText(*amps));
  }
  painter.setFont(font());
}

void LoomView::paintTray(QPainter& painter) const {
  painter.setPen(Qt::NoPen);
  painter.setBrush(theme().panel);
  painter.drawRect(layout_.tray());
  painter.setPen(theme().line);
  painter.drawLine(layout_.tray().topLeft(), layout_.tray().topRight());
  painter.setPen(theme().quiet);
  const QString words = layout_.chips().empty() ? tr("Everything is wired.")
                        : layout_.trayWidth() > width()
                            ? tr("Not wired yet — drag onto a port; the wheel shows more")
                            : tr("Not wired yet — drag onto a port");
  painter.drawText(layout_.tray().topLeft() + QPointF(10, painter.fontMetrics().height() + 4), words);
  for (const auto& chip : layout_.chips()) {
    painter.setPen(Qt::NoPen);
    painter.setBrush(kindColour(session_.show(), chip.piece.fixture));
    painter.drawRoundedRect(chip.box, 4, 4);
    painter.setPen(theme().isDark ? QColor(0xff, 0xff, 0xff) : QColor(0x14, 0x12, 0x10));
    painter.drawText(chip.box, Qt::AlignCenter, chip.label);
  }
}

int LoomView::stringsDragged() const {
  const Bead* bead = draggedBead_ ? beadAt(session_.show(), *draggedBead_) : nullptr;
  const FixtureId id = draggedPiece_ ? draggedPiece_->fixture : bead ? bead->fixture : FixtureId{};
  const Fixture* fixture = chispa::find(session_.show().fixtures, id);
  return fixture ? stringCount(*fixture) : 0;
}

QString LoomView::dragText(const LoomLayout::Thread* thread) const {
  const Bead* bead = draggedBead_ ? beadAt(session_.show(), *draggedBead_) : nullptr;
  const int count = draggedPiece_ ? draggedPiece_->count : bead ? bead->count : 0;
  if (!thread) return tr("%1 px · drop on a port").arg(count);
  const int strings = stringsDragged();
  if (held_ & Qt::ShiftModifier && strings > 1)
    return tr("%1 strings → port %2 and on").arg(strings).arg(thread->port + 1);
  if (held_ & Qt::ControlModifier && draggedBead_)
    return tr("%1 px once more → port %2").arg(count).arg(thread->port + 1);
  QString words = tr("%1 px → port %2").arg(count).arg(thread->port + 1);
  if (strings > 1) words += tr(" · Shift: %1 strings, a port each").arg(strings);
  return words;
}

void LoomView::paintDrag(QPainter& painter) const {
  const auto place = layout_.dropPlace(pointer_);
  const LoomLayout::Thread* thread = place ? layout_.threadOf(place->controller, place->port) : nullptr;
  if (thread) {
    const auto bead = static_cast<std::size_t>(place->bead);
    const double y = bead < thread->beads.size() ? thread->beads[bead].box.top() - 3
                     : thread->beads.empty()     ? thread->top
                                                 : thread->bottom;
    painter.setPen(QPen(theme().ember, 3));
    painter.drawLine(QPointF(thread->x - 24, y), QPointF(thread->x + 24, y));
  }
  const QString words = dragText(thread);
  painter.setPen(Qt::NoPen);
  painter.setBrush(theme().raised);
  const QRectF box(pointer_ + QPointF(12, -24), QSizeF(painter.fontMetrics().horizontalAdvance(words) + 16,
                                                       painter.fontMetrics().height() + 8));
  painter.drawRoundedRect(box, 4, 4);
  painter.setPen(theme().text);
  painter.drawText(box, Qt::AlignCenter, words);
}

void LoomView::paintTool(QPainter& painter) const {
  const LoomLayout::BeadBox* bead = layout_.beadAt(pointer_);
  if (!bead) return;
  const int above = LoomLayout::pixelsAbove(*bead, pointer_.y());
  painter.setPen(QPen(theme().watch, 1.5, Qt::DashLine));
  painter.drawLine(QPointF(bead->box.left() - 10, pointer_.y()),
                   QPointF(bead->box.right() + 10, pointer_.y()));
  painter.setPen(theme().watch);
  painter.drawText(pointer_ + QPointF(14, 16),
                   tool_ == Tool::Cut ? tr("✂ after %1 · %2 left").arg(above).arg(bead->count - above)
                                      : tr("power before pixel %1").arg(above + 1));
}

void LoomView::paintEvent(QPaintEvent*) {
  QPainter painter(this);
  painter.setRenderHint(QPainter::Antialiasing);
  painter.fillRect(rect(), theme().window);
  painter.save();
  painter.setClipRect(QRectF(0, layout_.beamY() - 4, width(), layout_.tray().top() - layout_.beamY() + 4));
  painter.fillRect(QRectF(0, layout_.beamY() - 4, width(), 8), theme().raised);
  for (const auto& thread : layout_.threads())
    if (thread.x > -layout_.step() && thread.x < width() + layout_.step()) paintThread(painter, thread);
  painter.restore();
  paintCards(painter);
  paintTray(painter);
  if (session_.show().controllers.empty()) {
    painter.setPen(theme().quiet);
    painter.drawText(
        rect(), Qt::AlignCenter,
        tr("No controller yet.\n\nAdd one above, then drag what is in the tray onto its ports."));
  }
  if (draggedPiece_ || draggedBead_) paintDrag(painter);
  if (tool_ != Tool::Move) paintTool(painter);
}

void LoomView::mousePressEvent(QMouseEvent* event) {
  pressed_ = pointer_ = event->position();
  if (tool_ != Tool::Move) return useTool();
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
  held_ = event->modifiers();
  if (tool_ != Tool::Move || draggedPiece_ || draggedBead_) update();
}

void LoomView::mouseReleaseEvent(QMouseEvent* event) {
  pointer_ = event->position();
  held_ = event->modifiers();
  constexpr double kDragBegins = 6;
  if ((pointer_ - pressed_).manhattanLength() >= kDragBegins) drop();
  draggedPiece_.reset();
  draggedBead_.reset();
  update();
}

void LoomView::drop() {
  const auto place = layout_.dropPlace(pointer_);
  const bool spreads = place && held_ & Qt::ShiftModifier && stringsDragged() > 1;
  if (spreads) {
    const Bead* bead = draggedBead_ ? beadAt(session_.show(), *draggedBead_) : nullptr;
    const FixtureId id = draggedPiece_ ? draggedPiece_->fixture : bead->fixture;
    session_.edit(tr("spread over ports"), [&](Show& show) {
      Show spread = show;
      if (draggedBead_) unhang(spread, *draggedBead_);
      if (spreadOverPorts(spread, id, place->controller, place->port) > 0) show = spread;
    });
  } else if (draggedPiece_ && place) {
    session_.edit(tr("hang on port %1").arg(place->port + 1),
                  [&](Show& show) { hang(show, *draggedPiece_, *place); });
    session_.selection.select(BeadPlace{place->controller, place->port, place->bead});
  } else if (draggedBead_ && place && held_ & Qt::ControlModifier) {
    session_.edit(tr("echo a bead"), [&](Show& show) { echoBead(show, *draggedBead_, *place); });
  } else if (draggedBead_ && place) {
    session_.edit(tr("move a bead"), [&](Show& show) { moveBead(show, *draggedBead_, *place); });
  } else if (draggedBead_ && layout_.tray().contains(pointer_)) {
    session_.edit(tr("take off a port"), [&](Show& show) { unhang(show, *draggedBead_); });
    session_.selection.prune(session_.show(), nullptr);
  }
}

void LoomView::endTool() {
  tool_ = Tool::Move;
  setCursor(Qt::ArrowCursor);
  update();
}

void LoomView::useTool() {
  const Tool tool = tool_;
  endTool();
  const auto* bead = layout_.beadAt(pointer_);
  if (!bead) return;
  const ThreadPlace place = bead->place;
  const int above = LoomLayout::pixelsAbove(*bead, pointer_.y());
  if (tool == Tool::Cut)
    return session_.edit(tr("cut after %1").arg(above), [&](Show& show) { cutBead(show, place, above); });
  session_.edit(tr("put a power pin"), [&](Show& show) { inject(show, place, above); });
  session_.selection.select(BeadPlace{place.controller, place.port, place.bead});
}

std::optional<ThreadPlace> LoomView::selectedBead() const {
  const auto* bead = std::get_if<BeadPlace>(&session_.selection.now());
  if (!bead) return std::nullopt;
  return ThreadPlace{bead->controller, bead->port, bead->bead};
}

void LoomView::clampScroll() {
  view_.tray = std::clamp(view_.tray, 0.0, std::max(0.0, layout_.trayWidth() - width()));
  const double room = layout_.tray().top() - layout_.beamY();
  view_.scrolled.setX(std::clamp(view_.scrolled.x(), 0.0, std::max(0.0, layout_.width() - width())));
  view_.scrolled.setY(std::clamp(view_.scrolled.y(), 0.0, std::max(0.0, layout_.height() - room)));
}

void LoomView::wheelEvent(QWheelEvent* event) {
  const QPoint turned = event->angleDelta();
  if (event->modifiers() & Qt::ControlModifier)
    return zoomBy(std::pow(1.0015, turned.y()), event->position());
  // What fits its height is scrolled sideways.
  const bool isTall = layout_.height() > layout_.tray().top() - layout_.beamY() + 1;
  const bool sideways = event->modifiers() & Qt::ShiftModifier || !isTall || turned.y() == 0;
  const double step = turned.y() != 0 ? turned.y() : turned.x();
  if (layout_.tray().contains(event->position()))
    view_.tray -= step;
  else
    view_.scrolled -= sideways ? QPointF(step, 0) : QPointF(0, step);
  clampScroll();
  relayout();
}

void LoomView::zoomBy(double factor, QPointF about) {
  constexpr double kMostZoom = 40;
  const double before = view_.zoom;
  const double width = std::max(1.0, layout_.width());
  view_.zoom = std::clamp(view_.zoom * factor, 1.0, kMostZoom);
  const double along = about.y() - layout_.beamY() + view_.scrolled.y();
  const double across = (about.x() + view_.scrolled.x()) / width;
  relayout();
  // What is under the pointer stays there.
  view_.scrolled = {across * layout_.width() - about.x(),
                    along * view_.zoom / before - (about.y() - layout_.beamY())};
  clampScroll();
  relayout();
}

void LoomView::toggleFold(ControllerId id) {
  if (!view_.folded.insert(id).second) view_.folded.erase(id);
  relayout();
  clampScroll();
  relayout();
}

void LoomView::bringIntoSight(const Selected& selected) {
  const auto* bead = std::get_if<BeadPlace>(&selected);
  const auto* controller = std::get_if<ControllerId>(&selected);
  if (bead && view_.folded.erase(bead->controller) > 0) relayout();
  QRectF box;
  for (const auto& card : layout_.cards())
    if (controller && card.controller == *controller) box = card.box;
  for (const auto& thread : layout_.threads())
    for (const auto& one : thread.beads)
      if (bead && *bead == one.place) box = one.box;
  if (box.isNull()) return;
  constexpr double kMargin = 40;
  if (box.left() < kMargin || box.right() > width() - kMargin)
    view_.scrolled.rx() += box.center().x() - width() / 2.0;
  if (bead && (box.top() < layout_.beamY() + kMargin || box.top() > layout_.tray().top() - kMargin))
    view_.scrolled.ry() += box.top() - layout_.beamY() - 2 * kMargin;
  clampScroll();
  relayout();
}

bool LoomView::findNext(const QString& words) {
  if (words.trimmed().isEmpty()) return false;
  std::vector<Selected> found;
  for (const auto& controller : session_.show().controllers) {
    if (text(controller->name).contains(words.trimmed(), Qt::CaseInsensitive))
      found.push_back(controller->id);
    for (std::size_t p = 0; p < controller->ports.size(); ++p)
      for (std::size_t b = 0; b < controller->ports[p].run.size(); ++b) {
        const Fixture* fixture = chispa::find(session_.show().fixtures, controller->ports[p].run[b].fixture);
        if (fixture && text(fixture->name).contains(words.trimmed(), Qt::CaseInsensitive))
          found.push_back(BeadPlace{controller->id, static_cast<int>(p), static_cast<int>(b)});
      }
  }
  if (found.empty()) return false;
  const auto now = std::find(found.begin(), found.end(), session_.selection.now());
  const Selected next = now == found.end() || now + 1 == found.end() ? found.front() : *(now + 1);
  session_.selection.select(next);
  bringIntoSight(next);
  return true;
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
  thread = static_cast<std::size_t>(
      std::clamp<std::ptrdiff_t>(static_cast<std::ptrdiff_t>(thread) + threads, 0, std::ssize(all) - 1));
  const auto& to = all[thread];
  if (to.beads.empty()) return session_.selection.select(PortChoice{to.controller, to.port});
  session_.selection.select(
      BeadPlace{to.controller, to.port, std::clamp(bead, 0, static_cast<int>(to.beads.size()) - 1)});
  bringIntoSight(session_.selection.now());
}

std::optional<ControllerId> LoomView::selectedController() const {
  const Selected& now = session_.selection.now();
  if (const auto* id = std::get_if<ControllerId>(&now)) return *id;
  if (const auto* port = std::get_if<PortChoice>(&now)) return port->controller;
  if (const auto* bead = std::get_if<BeadPlace>(&now)) return bead->controller;
  return std::nullopt;
}

void LoomView::keyPressEvent(QKeyEvent* event) {
  const auto bead = selectedBead();
  switch (event->key()) {
    case Qt::Key_C:
    case Qt::Key_P:
      tool_ = event->key() == Qt::Key_C ? Tool::Cut : Tool::Pin;
      setCursor(Qt::SplitVCursor);
      return update();
    case Qt::Key_Escape:
      return endTool();
    case Qt::Key_F:
      if (const auto owner = selectedController()) toggleFold(*owner);
      return;
    case Qt::Key_Plus:
    case Qt::Key_Equal:
      return zoomBy(1.25, rect().center());
    case Qt::Key_Minus:
      return zoomBy(0.8, rect().center());
    case Qt::Key_R:
      if (bead) session_.edit(tr("turn round"), [&](Show& show) { turnBead(show, *bead); });
      return;
    case Qt::Key_Left:
      return moveSelection(-1, 0);
    case Qt::Key_Right:
      return moveSelection(1, 0);
    case Qt::Key_Up:
      return moveSelection(0, -1);
    case Qt::Key_Down:
      return moveSelection(0, 1);
    default:
      QWidget::keyPressEvent(event);
  }
}

}  // namespace chispa::desk
