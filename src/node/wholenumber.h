// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <stdexcept>
#include <string>

#include <nlohmann/json.hpp>

namespace chispa::node {

/// The whole number `value`, from `low` to `high`; throws with `what` in its words if it is anything else.
/// Numbers of any size may stand in JSON: they are compared before they are converted.
inline int wholeNumber(const nlohmann::json& value, int low, int high, const char* what) {
  if (!value.is_number()) throw std::runtime_error(std::string(what) + " is not a number");
  const double number = value.get<double>();
  if (!(number >= low && number <= high)) throw std::runtime_error(std::string(what) + " is out of range");
  return static_cast<int>(number);
}

/// The member `key` of `json`, or `fallback` if it is missing.
inline int wholeNumber(const nlohmann::json& json, const char* key, int low, int high, int fallback) {
  const auto found = json.find(key);
  return found == json.end() ? fallback : wholeNumber(*found, low, high, key);
}

}  // namespace chispa::node
