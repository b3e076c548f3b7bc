// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <string_view>

namespace chispa::board {

/// The files of kit/ as they are written to a board's folder.
extern const std::string_view kPlayerHeader;
extern const std::string_view kPlayerSource;
extern const std::string_view kExample8;
extern const std::string_view kExample32;

}  // namespace chispa::board
