// SPDX-License-Identifier: GPL-3.0-or-later
// How LoomView is drawn.
#include <cmath>

#include <QPainter>

#include "core/base/hash.h"
#include "desk/parts/format.h"
#include "desk/parts/theme.h"
#include "desk/wire/loomview.h"

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

}  // namespace

void LoomView::paintCards(QPainter& painter) const {
  const auto lines = session_.stage.player().lines();
  for (const auto& card : layout_.cards()) {
    const Controller* controller = chispa::find(session_.show().controllers, card.controller);
    if (!controller) continue;
    const bool selected = session_.selection.has(card.controller);
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
  const bool selected = session_.selection.has(beadPlace(bead.place));
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
  // A narrow bead carries its name along the chain.
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
                     Qt::AlignCenter, tr("reversed"));
  }
}

void LoomView::paintTicks(QPainter& painter, const LoomLayout::Chain& chain) const {
  const QFont small = numberFont(0.8);
  painter.setFont(small);
  double lastLabel = -1e9;
  for (const auto& tick : chain.ticks) {
    const double left = chain.x - layout_.step() * 0.36;
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

void LoomView::paintChain(QPainter& painter, const LoomLayout::Chain& chain) const {
  const bool isChosen = session_.selection.has(PortChoice{chain.controller, chain.port});
  const QPointF hook(chain.x, layout_.beamY() + 10);
  painter.setPen(QPen(theme().quiet, 1.4, chain.beads.empty() ? Qt::DotLine : Qt::SolidLine));
  painter.drawLine(hook, QPointF(chain.x, chain.beads.empty() ? chain.top + 26 : chain.bottom));
  const Controller* controller = chispa::find(session_.show().controllers, chain.controller);
  const auto mark = controller ? controller->ports[static_cast<std::size_t>(chain.port)].mark : std::nullopt;
  painter.setPen(isChosen ? QPen(theme().ember, 2)
                 : mark   ? QPen(QColor(mark->r, mark->g, mark->b), 3)
                          : QPen(theme().quiet));
  painter.setBrush(isChosen ? theme().selectedGround() : theme().raised);
  painter.drawEllipse(hook, 10, 10);
  painter.setPen(theme().text);
  painter.drawText(QRectF(hook.x() - 10, hook.y() - 10, 20, 20), Qt::AlignCenter,
                   QString::number(chain.port + 1));
  for (const auto& bead : chain.beads) paintBead(painter, bead);
  for (const auto& bead : chain.beads) paintPower(painter, bead);
  paintTicks(painter, chain);
  if (chain.beads.empty()) return;
  paintChainFoot(painter, chain);
}

void LoomView::paintChainFoot(QPainter& painter, const LoomLayout::Chain& chain) const {
  painter.setFont(numberFont(0.85));
  painter.setPen(theme().quiet);
  const double line = painter.fontMetrics().height();
  const QRectF words(chain.x - 34, chain.bottom + 2, 68, line);
  painter.drawText(words, Qt::AlignCenter, tr("%1 px").arg(chain.pixels));
  painter.drawText(words.translated(0, line), Qt::AlignCenter, ampsText(chain.amps));
  if (const auto lowest = power_.lowestOf(chain.controller, chain.port)) {
    const bool fades = lowest->volts < lowest->least_v;
    painter.setPen(fades ? theme().wrong : theme().quiet);
    painter.drawText(
        words.translated(0, 2 * line), Qt::AlignCenter,
        tr("%1%2 V").arg(fades ? tr("! ") : QString()).arg(QLocale().toString(lowest->volts, 'f', 1)));
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
  for (std::size_t i = 0; i < bead.injections.size(); ++i) {
    const QPointF at(left + kBand, std::clamp(bead.injections[i], bead.box.top() + 4, bead.box.bottom() - 4));
    painter.setPen(QPen(theme().text, 1.5));
    painter.setBrush(theme().ember);
    constexpr double kRoomForAmps = 66;
    const bool hasRoom = layout_.step() >= kRoomForAmps;
    if (hasRoom) painter.drawLine(at, at + QPointF(6, 0));
    painter.drawEllipse(hasRoom ? at + QPointF(9, 0) : at - QPointF(kBand / 2, 0), 3, 3);
    const auto amps = power_.injection_a(bead.place, static_cast<int>(i));
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

QString LoomView::dragText(const LoomLayout::Chain* chain) const {
  const Bead* bead = draggedBead_ ? beadAt(session_.show(), *draggedBead_) : nullptr;
  const int count = draggedPiece_ ? draggedPiece_->count : bead ? bead->count : 0;
  if (!chain) return tr("%1 px · drop on a port").arg(count);
  const int strings = stringsDragged();
  if (held_ & Qt::ShiftModifier && strings > 1)
    return tr("%1 strings → port %2 and on").arg(strings).arg(chain->port + 1);
  if (held_ & Qt::ControlModifier && draggedBead_)
    return tr("%1 px once more → port %2").arg(count).arg(chain->port + 1);
  QString words = tr("%1 px → port %2").arg(count).arg(chain->port + 1);
  if (strings > 1) words += tr(" · Shift: %1 strings, one port each").arg(strings);
  return words;
}

void LoomView::paintDrag(QPainter& painter) const {
  const auto place = layout_.dropPlace(pointer_);
  const LoomLayout::Chain* chain = place ? layout_.chainOf(place->controller, place->port) : nullptr;
  if (chain) {
    const auto bead = static_cast<std::size_t>(place->bead);
    const double y = bead < chain->beads.size() ? chain->beads[bead].box.top() - 3
                     : chain->beads.empty()     ? chain->top
                                                : chain->bottom;
    painter.setPen(QPen(theme().ember, 3));
    painter.drawLine(QPointF(chain->x - 24, y), QPointF(chain->x + 24, y));
  }
  const QString words = dragText(chain);
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
  for (const auto& chain : layout_.chains())
    if (chain.x > -layout_.step() && chain.x < width() + layout_.step()) paintChain(painter, chain);
  painter.restore();
  paintCards(painter);
  paintTray(painter);
  if (session_.show().controllers.empty()) {
    painter.setPen(theme().quiet);
    painter.drawText(
        rect(), Qt::AlignCenter,
        tr("No controller yet.\n\nDrag a piece from the tray to here for a first one, or add one above."));
  }
  if (draggedPiece_ || draggedBead_) paintDrag(painter);
  if (tool_ != Tool::Move) paintTool(painter);
}

}  // namespace chispa::desk
