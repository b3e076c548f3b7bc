// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/takeaway/boardglow.h"

#include <QPainter>

#include "desk/parts/theme.h"

namespace chispa::desk {
namespace {

constexpr int kPicturesPerSecond = 20;
constexpr int kGap = 10;

}  // namespace

BoardGlow::BoardGlow(QWidget* parent) : QWidget(parent) {
  setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Expanding);
  setMinimumHeight(110);
  connect(&timer_, &QTimer::timeout, this, &BoardGlow::step);
  timer_.setInterval(1000 / kPicturesPerSecond);
}

QSize BoardGlow::sizeHint() const {
  return {textWidth(60), 180};
}

void BoardGlow::show(std::shared_ptr<const Show> show, std::shared_ptr<const CompiledShow> compiled,
                     const board::BoardPlan& plan, std::shared_ptr<const board::BoardLight> light,
                     int scene) {
  scene_.reset();
  player_.reset();
  show_ = std::move(show);
  compiled_ = std::move(compiled);
  light_ = std::move(light);
  timer_.stop();
  composed_ = board_ = {};
  update();
  if (!light_ || scene < 0 || scene >= static_cast<int>(light_->scenes.size())) return;
  auto strip = board::BoardStrip::of(*show_, compiled_->map, plan.runs, light_->options.pixelsPerValue);
  if (!strip) return;
  strip_ = *std::move(strip);
  sceneNumber_ = scene;
  frame_ = 0;
  scene_ = std::make_unique<board::BoardScene>(*show_, *compiled_,
                                               plan.scenes[static_cast<std::size_t>(scene)].scene);
  player_ = std::make_unique<board::BoardPlayer>(light_->data);
  player_->begin(scene);
  map_ = {};
  for (const std::uint32_t pixel : strip_->pixels()) {
    map_.positions.push_back(compiled_->map.positions[pixel]);
    map_.lampSize.push_back(compiled_->map.lampSize[pixel]);
  }
  camera_ = framing(map_.positions, static_cast<double>(width() / 2) / std::max(1, height()));
  timer_.start();
  step();
}

void BoardGlow::resizeEvent(QResizeEvent*) {
  camera_ = framing(map_.positions, static_cast<double>(width() / 2) / std::max(1, height()));
}

QImage BoardGlow::draw(const PixelFrame& frame) {
  const double scale = devicePixelRatioF();
  QImage picture(QSize((width() - kGap) / 2, height()) * scale, QImage::Format_RGBA8888);
  picture.setDevicePixelRatio(scale);
  painter_.paint(map_, frame, camera_, picture.width(), picture.height(), picture.bits());
  return picture;
}

void BoardGlow::step() {
  if (!player_ || width() < 2 * kGap || !isVisible()) return;
  const auto rate = static_cast<std::uint32_t>(light_->options.framesPerSecond);
  auto bytes = player_->frame(frame_);
  if (bytes.empty()) {
    frame_ = 0;
    player_->begin(sceneNumber_);
    bytes = player_->frame(0);
  }
  const Micros t(std::int64_t{frame_} * 1'000'000 / rate);
  frame_ += std::max<std::uint32_t>(1, rate / kPicturesPerSecond);
  scene_->render(t, full_);
  PixelFrame composed, told;
  const auto pixels = strip_->pixels();
  composed.resize(pixels.size());
  told.resize(pixels.size());
  const auto channels = static_cast<std::size_t>(strip_->channels());
  for (std::size_t i = 0; i < pixels.size(); ++i) {
    composed.r[i] = full_.r[pixels[i]];
    composed.g[i] = full_.g[pixels[i]];
    composed.b[i] = full_.b[pixels[i]];
    const Rgb light =
        strip_->lightOf(&bytes[i / static_cast<std::size_t>(strip_->pixelsPerValue()) * channels]);
    told.r[i] = light.r;
    told.g[i] = light.g;
    told.b[i] = light.b;
  }
  composed_ = draw(composed);
  board_ = draw(told);
  update();
}

void BoardGlow::paintEvent(QPaintEvent*) {
  QPainter painter(this);
  const int wide = (width() - kGap) / 2;
  const auto side = [&](int x, const QImage& picture, const QString& words) {
    const QRect place(x, 0, wide, height());
    painter.fillRect(place, theme().night);
    if (!picture.isNull()) painter.drawImage(place, picture);
    painter.setPen(QColor(200, 200, 204));
    painter.drawText(place.adjusted(8, 6, -8, -6), Qt::AlignLeft | Qt::AlignTop, words);
  };
  side(0, composed_, tr("as composed"));
  side(wide + kGap, board_, tr("on the board"));
}

}  // namespace chispa::desk
