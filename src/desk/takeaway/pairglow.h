// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <functional>

#include <QImage>
#include <QTimer>
#include <QWidget>

#include "core/base/frame.h"
#include "core/colour/rgb.h"
#include "core/preview/camera.h"
#include "core/preview/glow.h"

namespace chispa::desk {

/// Light as it was composed and as something else will show it, side by side and in step. UI thread.
class PairGlow : public QWidget {
  Q_OBJECT
 public:
  static constexpr int kPicturesPerSecond = 20;
  /// Fills both with the light of picture `n`, a pixel for each of the map's.
  using Source = std::function<void(std::int64_t n, PixelFrame& composed, PixelFrame& shown)>;

  /// `where` says what shows it: "on the board".
  explicit PairGlow(const QString& where, QWidget* parent = nullptr);

  /// Shows `source` from its beginning, on these pixels.
  void show(PixelMap map, Source source);
  void clear();
  QSize sizeHint() const override;

 protected:
  void paintEvent(QPaintEvent* event) override;
  void resizeEvent(QResizeEvent* event) override;

 private:
  void step();
  QImage draw(const PixelFrame& frame);

  QString where_;
  PixelMap map_;
  Source source_;
  std::int64_t picture_ = 0;
  OrbitCamera camera_;
  GlowPainter painter_;
  PixelFrame composed_;
  PixelFrame shown_;
  QImage composedPicture_;
  QImage shownPicture_;
  QTimer timer_;
};

inline Rgb lightOfPixel(const PixelFrame& frame, std::size_t pixel) {
  return {frame.r[pixel], frame.g[pixel], frame.b[pixel]};
}
inline void setLight(PixelFrame& frame, std::size_t pixel, Rgb light) {
  frame.r[pixel] = light.r;
  frame.g[pixel] = light.g;
  frame.b[pixel] = light.b;
}

/// The part of `map` that `pixels` are, in their order.
PixelMap partOfMap(const PixelMap& map, const std::vector<std::uint32_t>& pixels);

}  // namespace chispa::desk
