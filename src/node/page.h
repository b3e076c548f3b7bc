// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <string>

namespace chispa::node {

/// The web page at "/": its strips as they look now, its settings and its faults. It reads the node interface
/// itself.
const std::string& settingsPage();

}  // namespace chispa::node
