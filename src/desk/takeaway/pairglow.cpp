// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/takeaway/pairglow.h"

#include <QPainter>

#include "desk/parts/theme.h"

namespace chispa::desk {
namespace {

constexpr int kGap = 10;

}  // namespace

PairGlow::PairGlow(const QString& where, QWidget* parent) : QWidget(parent), where_(where) {
  setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Expanding);
  setMinimumHeight(110);
  connect(&timer_, &QTimer::timeout, this, &PairGlow::step);
  timer_.setInterval(1000 / kPicturesPerSecond);
}

QSize PairGlow::sizeHint() const {
  return {textWidth(60), 180};
}

void PairGlow::clear() {
  timer_.stop();
  source_ = {};
  composedPicture_ = shownPicture_ = {};
  update();
}

void PairGlow::show(PixelMap map, Source source) {
  clear();
  map_ = std::move(map);
  source_ = std::move(source);
  picture_ = 0;
  const auto pixels = static_cast<std::size_t>(map_.count());
  composed_.resize(pixels);
  shown_.resize(pixels);
  camera_ = framing(map_.positions, static_cast<double>(width() / 2) / std::max(1, height()));
  timer_.start();
  step();
}

void PairGlow::resizeEvent(QResizeEvent*) {
  camera_ = framing(map_.positions, static_cast<double>(width() / 2) / std::max(1, height()));
}

QImage PairGlow::draw(const PixelFrame& frame) {
  const double scale = devicePixelRatioF();
  QImage picture(QSize((width() - kGap) / 2, height()) * scale, QImage::Format_RGBA8888);
  picture.setDevicePixelRatio(scale);
  painter_.paint(map_, frame, camera_, picture.width(), picture.height(), picture.bits());
  return picture;
}

void PairGlow::step() {
  if (!source_ || width() < 2 * kGap || !isVisible()) return;
  source_(picture_++, composed_, shown_);
  composedPicture_ = draw(composed_);
  shownPicture_ = draw(shown_);
  update();
}

void PairGlow::paintEvent(QPaintEvent*) {
  QPainter painter(this);
  const int wide = (width() - kGap) / 2;
  const auto side = [&](int x, const QImage& picture, const QString& words) {
    const QRect place(x, 0, wide, height());
    painter.fillRect(place, theme().night);
    if (!picture.isNull()) painter.drawImage(place, picture);
    painter.setPen(QColor(200, 200, 204));
    painter.drawText(place.adjusted(8, 6, -8, -6), Qt::AlignLeft | Qt::AlignTop, words);
  };
  side(0, composedPicture_, tr("as composed"));
  side(wide + kGap, shownPicture_, where_);
}

PixelMap partOfMap(const PixelMap& map, const std::vector<std::uint32_t>& pixels) {
  PixelMap part;
  for (const std::uint32_t pixel : pixels) {
    part.positions.push_back(map.positions[pixel]);
    part.lampSize.push_back(map.lampSize[pixel]);
  }
  return part;
}

}  // namespace chispa::desk
