// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/boundedjson.h"

#include <algorithm>

namespace chispa {
namespace {

struct Extent {
  int depth = 0;
  std::size_t values = 1;
};

/// How deep brackets are nested, and a bound for the number of values: every one but the first follows a
/// comma, colon or bracket.
Extent extentOf(std::string_view text) {
  Extent extent;
  int depth = 0;
  bool isInText = false;
  for (std::size_t i = 0; i < text.size(); ++i) {
    const char c = text[i];
    if (isInText) {
      if (c == '\\')
        ++i;
      else if (c == '"')
        isInText = false;
      continue;
    }
    if (c == '"') isInText = true;
    if (c == '[' || c == '{') extent.depth = std::max(extent.depth, ++depth);
    if (c == ']' || c == '}') --depth;
    extent.values += c == ',' || c == '[' || c == ':';
  }
  return extent;
}

}  // namespace

Result<nlohmann::ordered_json> parseJson(std::string_view text, const char* what, const std::string& where,
                                         const Sentence& cure) {
  const Extent extent = extentOf(text);
  if (extent.depth > kMaxJsonDepth)
    return Failure{
        sentence("%1 nests its brackets %2 deep; %3 are allowed.", what, extent.depth, kMaxJsonDepth), where,
        cure};
  if (extent.values > kMaxJsonValues)
    return Failure{sentence("%1 holds more than %2 values.", what, kMaxJsonValues), where, cure};
  try {
    return nlohmann::ordered_json::parse(text);
  } catch (const nlohmann::ordered_json::parse_error& error) {
    return Failure{sentence("%1 is damaged at byte %2 of %3.", what, error.byte, text.size()), where, cure};
  } catch (const std::exception& error) {
    return Failure{sentence("%1 is damaged: %2.", what, error.what()), where, cure};
  }
}

int depthOf(const nlohmann::ordered_json& json) {
  if (!json.is_structured()) return 0;
  int deepest = 0;
  for (const auto& child : json) deepest = std::max(deepest, depthOf(child));
  return deepest + 1;
}

}  // namespace chispa
