// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "link/sender.h"

namespace chispa::link {

/// Stands in for a controller that is not spoken to, or not yet: it takes frames and sends nothing.
class SilentSender final : public ControllerSender {
 public:
  SilentSender(const Controller& controller, std::vector<int> universes)
      : ControllerSender(controller, std::move(universes)) {}

  void send(std::span<const std::uint8_t>, Instant, bool) noexcept override {
    std::fill(which_.begin(), which_.end(), std::uint8_t{0});
  }
  void endInDark(Instant) noexcept override {}
  void takeOver(ControllerSender& before, Instant now) noexcept override { before.endInDark(now); }
};

}  // namespace chispa::link
