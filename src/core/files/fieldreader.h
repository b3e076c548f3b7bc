// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <cmath>
#include <limits>
#include <stdexcept>
#include <string>

#include <nlohmann/json.hpp>

#include "core/files/names.h"

namespace chispa {

/// Thrown inside the loader only: what of a part makes no sense.
struct FieldError : std::runtime_error {
  using std::runtime_error::runtime_error;
};

/// Reads members of one JSON object, checked: a missing member takes the fallback, a wrong one throws
/// FieldError.
class FieldReader {
 public:
  using Json = nlohmann::ordered_json;

  explicit FieldReader(const Json& object) : object_(object) {
    if (!object.is_object()) throw FieldError("is not an object");
  }

  const Json* member(const char* key) const {
    const auto found = object_.find(key);
    return found == object_.end() ? nullptr : &*found;
  }

  std::string text(const char* key, const std::string& fallback = {}) const {
    const Json* value = member(key);
    if (!value) return fallback;
    if (!value->is_string()) throw FieldError(std::string(key) + " is not a text");
    return value->get<std::string>();
  }

  bool flag(const char* key, bool fallback) const {
    const Json* value = member(key);
    if (!value) return fallback;
    if (!value->is_boolean()) throw FieldError(std::string(key) + " is neither true nor false");
    return value->get<bool>();
  }

  double number(const char* key, double low, double high, double fallback) const {
    const Json* value = member(key);
    return value ? numberOf(*value, key, low, high) : fallback;
  }

  template <class Int>
  Int whole(const char* key, Int low, Int high, Int fallback) const {
    const Json* value = member(key);
    if (!value) return fallback;
    if (!value->is_number_integer()) throw FieldError(std::string(key) + " is not a whole number");
    const double wide = value->get<double>();
    if (wide < static_cast<double>(low) || wide > static_cast<double>(high))
      throw FieldError(std::string(key) + " is out of range");
    return value->get<Int>();
  }

  template <class E>
  E word(const char* key, E fallback) const {
    const std::string name = text(key);
    if (name.empty()) return fallback;
    const auto value = namedValue<E>(name);
    if (!value) throw FieldError(std::string(key) + " \"" + name + "\" is unknown to this version");
    return *value;
  }

  Vec3 vector(const char* key, double most) const {
    const Json* value = member(key);
    if (!value) return {};
    if (!value->is_array() || value->size() != 3)
      throw FieldError(std::string(key) + " is not three numbers");
    return {numberOf((*value)[0], key, -most, most), numberOf((*value)[1], key, -most, most),
            numberOf((*value)[2], key, -most, most)};
  }

  /// A list of points of three numbers each.
  std::vector<Vec3> points(const char* key, double most) const {
    std::vector<Vec3> all;
    each(key, [&](const Json& point) {
      if (!point.is_array() || point.size() != 3)
        throw FieldError(std::string(key) + " holds something else than three numbers");
      all.push_back({numberOf(point[0], key, -most, most), numberOf(point[1], key, -most, most),
                     numberOf(point[2], key, -most, most)});
    });
    return all;
  }

  /// Calls `read(element)` for each element of the list `key`.
  template <class F>
  void each(const char* key, F read) const {
    const Json* list = member(key);
    if (!list) return;
    if (!list->is_array()) throw FieldError(std::string(key) + " is not a list");
    for (const Json& element : *list) read(element);
  }

 private:
  static double numberOf(const Json& value, const char* key, double low, double high) {
    if (!value.is_number()) throw FieldError(std::string(key) + " is not a number");
    const double number = value.get<double>();
    if (!(number >= low && number <= high)) throw FieldError(std::string(key) + " is out of range");
    return number;
  }

  const Json& object_;
};

}  // namespace chispa
