// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <string>
#include <string_view>

namespace chispa {

/// True if `text` is well-formed UTF-8 (RFC 3629 §4: no overlong forms, no surrogates, nothing above
/// U+10FFFF).
bool isUtf8(std::string_view text);

/// `text` with each byte that belongs to no well-formed character replaced by U+FFFD; well-formed text stays
/// as it is.
std::string asUtf8(std::string_view text);

}  // namespace chispa
