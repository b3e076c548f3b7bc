// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <functional>
#include <vector>

#include "node/settings.h"

namespace chispa::node {

/// A colour as the LED shows it, its white chip added to the three others.
struct Shown {
  int r = 0;
  int g = 0;
  int b = 0;
};

/// Colours of every pixel of a port in chain order, skipped ones included (dark). `byteAt` gives values by
/// universe and channel; `isWrongOrder` plays a strip whose red and green were mixed up.
std::vector<Shown> showPort(const PortSetup& port,
                            const std::function<int(int universe, int channel)>& byteAt, bool isWrongOrder);

}  // namespace chispa::node
