// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <algorithm>
#include <chrono>
#include <memory>

#include "core/controllermemory/fill.h"
#include "desk/takeaway/pairglow.h"

namespace chispa::desk {

/// A scene as it was composed, and as a controller plays its steps.
class MemoryPair {
 public:
  MemoryPair(std::shared_ptr<const Show> show, std::shared_ptr<const CompiledShow> compiled,
             std::shared_ptr<const MemoryFill> fill, std::size_t scene, int controller)
      : show_(std::move(show)),
        compiled_(std::move(compiled)),
        fill_(std::move(fill)),
        light_(*show_, *compiled_, fill_->scenes[scene].source),
        values_(*show_, compiled_->patch, controller),
        scene_(scene),
        controller_(controller) {}

  std::vector<std::uint32_t> pixels() const {
    std::vector<std::uint32_t> all;
    for (std::size_t i = 0; i < values_.count(); ++i) all.push_back(values_.pixelOf(*compiled_->map, i));
    return all;
  }
  void fill(std::int64_t n, const std::vector<std::uint32_t>& pixels, PixelFrame& composed,
            PixelFrame& shown) {
    const SceneContent& content = fill_->content.scenes[scene_];
    const std::int64_t round_ms = std::max<std::int64_t>(1, content.length_ms());
    const std::int64_t t_ms = n * 1000 / PairGlow::kPicturesPerSecond % round_ms;
    light_.render(std::chrono::milliseconds(t_ms), full_);
    const auto told = spreadValues(compiled_->patch, controller_, content, valuesAt(content, t_ms));
    for (std::size_t i = 0; i < pixels.size(); ++i) {
      setLight(composed, i, lightOfPixel(full_, pixels[i]));
      setLight(shown, i, values_.lightOf(told, i));
    }
  }

 private:
  std::shared_ptr<const Show> show_;
  std::shared_ptr<const CompiledShow> compiled_;
  std::shared_ptr<const MemoryFill> fill_;
  SceneLight light_;
  ValueLight values_;
  std::size_t scene_;
  int controller_;
  PixelFrame full_;
};

}  // namespace chispa::desk
