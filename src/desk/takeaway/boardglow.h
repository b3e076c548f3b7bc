// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <memory>
#include <optional>

#include <QImage>
#include <QTimer>
#include <QWidget>

#include "core/board/player.h"
#include "core/board/write.h"
#include "core/preview/camera.h"
#include "core/preview/glow.h"

namespace chispa::desk {

/// The light of a scene as it was composed and as a board will show it, side by side and in step. UI thread.
class BoardGlow : public QWidget {
  Q_OBJECT
 public:
  explicit BoardGlow(QWidget* parent = nullptr);

  /// Shows scene `scene` of `light`, which was made of these; nothing if `light` is null.
  void show(std::shared_ptr<const Show> show, std::shared_ptr<const CompiledShow> compiled,
            const board::BoardPlan& plan, std::shared_ptr<const board::BoardLight> light, int scene);
  QSize sizeHint() const override;

 protected:
  void paintEvent(QPaintEvent* event) override;
  void resizeEvent(QResizeEvent* event) override;

 private:
  void step();
  QImage draw(const PixelFrame& frame);

  std::shared_ptr<const Show> show_;
  std::shared_ptr<const CompiledShow> compiled_;
  std::shared_ptr<const board::BoardLight> light_;
  std::optional<board::BoardStrip> strip_;
  std::unique_ptr<board::BoardScene> scene_;
  std::unique_ptr<board::BoardPlayer> player_;
  int sceneNumber_ = 0;
  std::uint32_t frame_ = 0;
  /// The pixels of the strip alone.
  PixelMap map_;
  OrbitCamera camera_;
  GlowPainter painter_;
  PixelFrame full_;
  QImage composed_;
  QImage board_;
  QTimer timer_;
};

}  // namespace chispa::desk
