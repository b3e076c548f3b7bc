// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/run/lookpad.h"

#include <cmath>
#include <utility>

#include <QApplication>
#include <QContextMenuEvent>
#include <QDrag>
#include <QMimeData>
#include <QPainter>

#include "core/preview/lookpicture.h"
#include "desk/parts/format.h"
#include "desk/parts/theme.h"
#include "desk/run/setlistlines.h"

namespace chispa::desk {
namespace {

constexpr int kEdge = 2;
constexpr int kFaderHeight = 5;
/// The pointer finds the fader this far around it.
constexpr int kFaderReach = 5;
constexpr double kShown_s = 4;
/// How often a playing pad's picture moves on.
constexpr double kEvery_s = 0.12;
/// Zones of more cells are drawn less often: a column of the picture computes all of them.
constexpr int kManyCells = 2'000;

}  // namespace

LookPad::LookPad(const Session& session, LookId look, QWidget* parent)
    : QAbstractButton(parent), session_(session), look_(look) {
  setObjectName(QStringLiteral("pad-%1").arg(look.value));
  setFocusPolicy(Qt::StrongFocus);
  setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
  refresh();
}

QSize LookPad::sizeHint() const {
  return {textWidth(13), 50 + fontMetrics().height() + 16};
}

QRect LookPad::pictureBox() const {
  return QRect(kEdge, kEdge, width() - 2 * kEdge,
               height() - fontMetrics().height() - 10 - kFaderHeight - kEdge);
}

QRect LookPad::faderBox() const {
  const QRect picture = pictureBox();
  return QRect(picture.left(), picture.bottom() + 1, picture.width(), kFaderHeight);
}

void LookPad::refresh() {
  const Look* look = chispa::find(session_.show().looks, look_);
  if (!look) return;
  setText(desk::text(look->name));
  setAccessibleName(look->key.empty() ? desk::text(look->name)
                                      : tr("%1, key %2").arg(desk::text(look->name), desk::text(look->key)));
  setToolTip(
      tr("%1. A press plays it%2; drag the bar to fade it, the name into a set list; right click for more")
          .arg(desk::text(look->name),
               look->key.empty() ? QString() : tr(" (%1)").arg(desk::text(look->key))));
  follow();
  update();
}

float LookPad::faderNow() const {
  const Look* look = chispa::find(session_.show().looks, look_);
  const engine::LiveSnapshot& live = session_.stage.live();
  return live.state.fader(look_, look ? static_cast<float>(look->level) : 1.f, live.now.t);
}

void LookPad::draw(double elapsed_s) {
  const auto compiled = session_.stage.compiled();
  const CompiledLook* look = compiled ? compiled->live->lookOf(look_) : nullptr;
  if (!look) return;
  const QSize size = pictureBox().size();
  if (size.width() < 8 || size.height() < 8) return;
  // A look with steps shows a whole round of them.
  const double shown_s = look->round.count() > 0 ? std::clamp(seconds(look->round), 1.0, 20.0) : kShown_s;
  const ClipPicture picture = drawLook(*look, elapsed_s, shown_s, size.width() / 2, size.height());
  picture_ = QImage(picture.rgba.data(), picture.width, picture.height, QImage::Format_RGBX8888).copy();
  drawnAt_s_ = elapsed_s;
  drawnOf_ = look;
  update();
}

void LookPad::follow() {
  const engine::LiveSnapshot& live = session_.stage.live();
  const LookPlay* play = live.state.playOf(look_);
  const float presence = play ? play->presence.at(live.now.t) : 0;
  const float fader = faderNow();
  if (presence != presence_ || fader != fader_) {
    presence_ = presence;
    fader_ = fader;
    setProperty("lit", play && !play->isEnding);
    update();
  }
  const auto compiled = session_.stage.compiled();
  const CompiledLook* look = compiled ? compiled->live->lookOf(look_) : nullptr;
  int cells = 0;
  if (look)
    for (const CompiledStave& stave : look->steps.front().staves) cells += stave.cells->count();
  const double elapsed_s = play ? play->elapsedAt(live.now.t) : 0;
  const bool isAnother = look && look != drawnOf_;
  const double every_s = cells > kManyCells ? 8 * kEvery_s : kEvery_s;
  if (isAnother || (play && std::abs(elapsed_s - drawnAt_s_) >= every_s) || (!play && drawnAt_s_ > 0))
    draw(elapsed_s);
}

void LookPad::resizeEvent(QResizeEvent*) {
  drawnOf_ = nullptr;
  follow();
}

void LookPad::press() {
  if (isHeld_) return;
  isHeld_ = true;
  session_.stage.play({LiveEvent::Kind::Press, look_.value, 1});
  session_.selection.select(look_);
}

void LookPad::letGo() {
  if (!std::exchange(isHeld_, false)) return;
  session_.stage.play({LiveEvent::Kind::Release, look_.value, 0});
}

void LookPad::setFader(int x) {
  const QRect box = faderBox();
  const float level =
      std::clamp(static_cast<float>(x - box.left()) / static_cast<float>(box.width()), 0.f, 1.f);
  session_.stage.play({LiveEvent::Kind::Fader, look_.value, level});
}

void LookPad::mousePressEvent(QMouseEvent* event) {
  if (event->button() != Qt::LeftButton) return;
  setFocus(Qt::MouseFocusReason);
  const QRect reach = faderBox().adjusted(0, -kFaderReach, 0, kFaderReach);
  movesFader_ = reach.contains(event->pos());
  if (movesFader_) return setFader(event->pos().x());
  if (mayBeDraggedAt(event->pos()))
    takenAt_ = event->pos();
  else
    press();
}

bool LookPad::mayBeDraggedAt(QPoint at) const {
  const Look* look = chispa::find(session_.show().looks, look_);
  const bool isHeldWhilePressed = look && (look->mode == PadMode::Hold || look->mode == PadMode::Flash);
  return at.y() > faderBox().bottom() + kFaderReach && !isHeldWhilePressed;
}

void LookPad::dragAway() {
  takenAt_.reset();
  auto* carried = new QMimeData;
  carried->setData(QLatin1String(kLookMime), QByteArray::number(look_.value));
  // Belongs to Qt from then on.
  auto* drag = new QDrag(this);
  drag->setMimeData(carried);
  drag->setPixmap(grab());
  drag->exec(Qt::CopyAction);
}

void LookPad::mouseMoveEvent(QMouseEvent* event) {
  if (movesFader_) return setFader(event->pos().x());
  if (takenAt_) {
    if ((event->pos() - *takenAt_).manhattanLength() >= QApplication::startDragDistance()) dragAway();
    return;
  }
  const QRect reach = faderBox().adjusted(0, -kFaderReach, 0, kFaderReach);
  setCursor(reach.contains(event->pos()) ? Qt::SizeHorCursor : Qt::PointingHandCursor);
}

void LookPad::mouseReleaseEvent(QMouseEvent* event) {
  if (event->button() != Qt::LeftButton) return;
  movesFader_ = false;
  if (takenAt_) press();
  takenAt_.reset();
  letGo();
}

void LookPad::keyPressEvent(QKeyEvent* event) {
  const bool isPress = event->key() == Qt::Key_Space || event->key() == Qt::Key_Return;
  if (!isPress) return QAbstractButton::keyPressEvent(event);
  if (!event->isAutoRepeat()) press();
}

void LookPad::keyReleaseEvent(QKeyEvent* event) {
  const bool isPress = event->key() == Qt::Key_Space || event->key() == Qt::Key_Return;
  if (!isPress) return QAbstractButton::keyReleaseEvent(event);
  if (!event->isAutoRepeat()) letGo();
}

void LookPad::focusOutEvent(QFocusEvent* event) {
  // Whatever took the focus away also takes the release of the key.
  letGo();
  QAbstractButton::focusOutEvent(event);
}

void LookPad::contextMenuEvent(QContextMenuEvent* event) {
  session_.selection.select(look_);
  emit asked(event->globalPos());
}

void LookPad::paintEvent(QPaintEvent*) {
  const Look* look = chispa::find(session_.show().looks, look_);
  if (!look) return;
  QPainter painter(this);
  painter.setRenderHint(QPainter::Antialiasing);
  const Theme& t = theme();
  const bool isSelected = session_.selection.now() == Selected(look_);
  painter.setPen(Qt::NoPen);
  painter.setBrush(t.raised);
  painter.drawRoundedRect(rect(), 4, 4);
  const QRect picture = pictureBox();
  painter.fillRect(picture, t.night);
  if (!picture_.isNull()) {
    // What does not play is seen, but not as bright as what does.
    painter.setOpacity(0.55 + 0.45 * static_cast<double>(presence_));
    painter.drawImage(picture, picture_);
    painter.setOpacity(1);
  }
  const QRect fader = faderBox();
  painter.fillRect(fader, t.line);
  QRect level = fader;
  level.setWidth(static_cast<int>(std::lround(fader.width() * static_cast<double>(std::max(0.f, fader_)))));
  painter.fillRect(level, presence_ > 0 ? t.ember : t.quiet);
  const QRect words(picture.left() + 6, fader.bottom() + 1, picture.width() - 12,
                    height() - fader.bottom() - 2);
  const QString key = desk::text(look->key);
  const int keyWidth = key.isEmpty() ? 0 : fontMetrics().horizontalAdvance(key) + 8;
  painter.setPen(t.text);
  painter.drawText(
      words.adjusted(0, 0, -keyWidth, 0), Qt::AlignVCenter | Qt::AlignLeft,
      fontMetrics().elidedText(desk::text(look->name), Qt::ElideRight, words.width() - keyWidth));
  painter.setPen(t.quiet);
  painter.drawText(words, Qt::AlignVCenter | Qt::AlignRight, key);
  painter.setBrush(Qt::NoBrush);
  const bool isLit = presence_ > 0;
  if (isLit || isSelected || hasFocus()) {
    QColor edge = isLit ? t.ember : hasFocus() ? t.text : t.quiet;
    if (isLit) edge.setAlphaF(static_cast<float>(0.35 + 0.65 * static_cast<double>(presence_)));
    painter.setPen(QPen(edge, isLit ? 2 : 1));
    painter.drawRoundedRect(QRectF(rect()).adjusted(1, 1, -1, -1), 4, 4);
  }
}

}  // namespace chispa::desk
