// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <string>

#include <nlohmann/json_fwd.hpp>

#include "core/base/result.h"
#include "core/show/show.h"

namespace chispa {

/// Version of the format that this program writes, and the newest that it reads. docs/show-format.md
/// describes it.
inline constexpr int kShowFormat = 1;

/// The show as JSON with members in a stable order; parts that could not be read stand where they stood.
nlohmann::ordered_json toJson(const Show& show);
std::string showText(const Show& show);

/// Reads a show. A part that makes no sense is kept in Show::unread; only a text that is no show, or a newer
/// format, is a failure. `where` names the source in the failure.
Result<Show> parseShow(const std::string& text, const std::string& where);
/// The same of JSON that was parsed within the limits of core/base/boundedjson.h.
Result<Show> showOfJson(const nlohmann::ordered_json& root, const std::string& where);

}  // namespace chispa
