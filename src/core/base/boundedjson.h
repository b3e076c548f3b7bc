// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <string_view>

#include <nlohmann/json.hpp>

#include "core/base/result.h"

namespace chispa {

/// How deep brackets may be nested in a file, and how many values it may hold.
inline constexpr int kMaxJsonDepth = 64;
inline constexpr std::size_t kMaxJsonValues = 20'000'000;

/// JSON from outside, kept within kMaxJsonDepth and kMaxJsonValues before any memory is taken for it,
/// so that neither the stack nor the heap can be exhausted by it. `what` is the subject of the failure's
/// sentence: "The show".
Result<nlohmann::ordered_json> parseJson(std::string_view text, const char* what, const std::string& where,
                                         const Sentence& cure);

/// Brackets that are open at the deepest place of `json`: 1 for a list of numbers.
int depthOf(const nlohmann::ordered_json& json);

}  // namespace chispa
