// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <algorithm>
#include <vector>

namespace chispa {

/// Linear light of all pixels of a show at one instant, in the order of PixelMap, 0–1 a channel.
struct PixelFrame {
  std::vector<float> r, g, b;

  void resize(std::size_t pixels) {
    for (auto* channel : {&r, &g, &b}) channel->assign(pixels, 0.f);
  }
  void clear() noexcept {
    for (auto* channel : {&r, &g, &b}) std::fill(channel->begin(), channel->end(), 0.f);
  }
  std::size_t size() const { return r.size(); }
  bool operator==(const PixelFrame&) const = default;
};

}  // namespace chispa
