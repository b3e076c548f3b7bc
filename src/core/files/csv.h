// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <string>

namespace chispa {

/// A text as one field of a table: quoted where RFC 4180 asks for it.
inline std::string csvField(const std::string& text) {
  if (text.find_first_of(",\"\n") == std::string::npos) return text;
  std::string quoted = "\"";
  for (const char c : text) quoted += c == '"' ? std::string("\"\"") : std::string(1, c);
  return quoted + "\"";
}

}  // namespace chispa
