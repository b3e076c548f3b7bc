// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <algorithm>
#include <cmath>
#include <memory>
#include <unordered_set>

#include "core/base/listchange.h"
#include "core/base/utf8.h"
#include "core/show/showfields.h"

namespace chispa {

/// The visitor of core/show/showfields.h that looks whether every member is within its limits. It keeps the
/// first reason why not.
class FieldCheck {
 public:
  FieldCheck() = default;
  /// Of clips that stand in `soundClips` too, a list that was found to be sound, nothing but the ids is
  /// looked at. It must outlive this.
  explicit FieldCheck(const Items<Clip>* soundClips) : soundClips_(soundClips) {}

  /// Why there is something in it that a show may not hold; empty if all is well.
  const std::string& reason() const { return reason_; }

  template <class Tag>
  void id(const char* key, const Id<Tag>& value, const Id<Tag>* = nullptr) {
    require(value.value <= limits::kLargestId, key, kOutOfRange);
  }
  void text(const char* key, const std::string& value, const std::string* = nullptr) {
    require(value.size() <= limits::kMaxText, key, " is longer than any text");
    require(isUtf8(value), key, " is no text in UTF-8");
  }
  void effect(const char* key, const std::string& value) { text(key, value); }
  void flag(const char*, const bool&, const bool* = nullptr) {}
  template <class T>
  void number(const char* key, const T& value, double low, double high, const T* = nullptr) {
    require(value >= static_cast<T>(low) && value <= static_cast<T>(high), key, kOutOfRange);
  }
  template <class Int>
  void whole(const char* key, const Int& value, std::type_identity_t<Int> low, std::type_identity_t<Int> high,
             const Int* = nullptr) {
    require(value >= low && value <= high, key, kOutOfRange);
  }
  void time(const char* key, const Micros& value, const Micros* = nullptr) {
    whole(key, value.count(), std::int64_t{0}, limits::kDay_us);
  }
  void offset(const char* key, const Micros& value, const Micros* = nullptr) {
    whole(key, value.count(), -limits::kDay_us, limits::kDay_us);
  }
  template <class E>
  void word(const char*, const E&, const E* = nullptr) {}
  void vector(const char* key, const Vec3& value, double most) {
    for (const double part : {value.x, value.y, value.z}) number(key, part, -most, most);
  }
  void colour(const char*, const Srgb8&) {}
  void points(const char* key, const std::vector<Vec3>& values, double most) {
    for (const Vec3& point : values) vector(key, point, most);
  }
  void texts(const char* key, const std::vector<std::string>& values,
             const std::vector<std::string>* = nullptr) {
    require(values.size() <= limits::kMaxOfList, key, " is longer than any list");
    for (const std::string& value : values) text(key, value);
  }
  void wholes(const char* key, const std::vector<int>& values, int low, int high) {
    for (const int value : values) whole(key, value, low, high);
  }
  void gridCells(const char* key, const std::vector<GridCell>& cells, int rows, int columns) {
    for (const GridCell& cell : cells)
      require(cell.row >= 0 && cell.row < rows && cell.column >= 0 && cell.column < columns, key,
              kOutOfRange);
    require(std::adjacent_find(cells.begin(), cells.end(),
                               [](const GridCell& a, const GridCell& b) { return !(a < b); }) == cells.end(),
            key, " are not in order");
  }
  template <class Tag>
  void ids(const char* key, const std::vector<Id<Tag>>& values) {
    std::unordered_set<std::uint32_t> seen;
    for (const auto& value : values) {
      id(key, value);
      require(seen.insert(value.value).second, key, " has something twice");
    }
  }
  template <class T, class F>
  void maybe(const char* key, const std::optional<T>& value, F describeValue) {
    if (value) describeValue(*this, key, *value);
  }
  template <class T>
  void object(const char*, const T& value, const T* = nullptr) {
    fields::describe(*this, value);
  }
  void response(const char*, const Response& value) { fields::describe(*this, value); }
  void shape(const char*, const Shape& shape) {
    std::visit([this](const auto& s) { fields::describe(*this, s); }, shape);
  }
  template <class T>
  void list(const char* key, const std::vector<T>& values, const std::vector<T>* = nullptr) {
    require(values.size() <= limits::kMaxOfList, key, " is longer than any list");
    for (const T& value : values) fields::describe(*this, value);
  }
  template <class T>
  void placedList(const char* key, const std::vector<T>& values, const std::vector<T>* = nullptr) {
    list(key, values);
  }
  template <class T>
  void unwiredList(const char* key, const std::vector<T>& values) {
    std::unordered_set<std::uint32_t> seen;
    require(values.size() <= limits::kMaxOfList, key, " is longer than any list");
    const auto [first, end] = newIn(values);
    for (std::size_t i = first; i < end; ++i) {
      const auto& item = fields::itemOf(values[i]);
      fields::describe(*this, item);
      require(item.id && seen.insert(item.id.value).second, key, " has two with one id");
    }
    if (seen.empty()) return;
    for (std::size_t i = 0; i < values.size(); ++i)
      require((i >= first && i < end) || !seen.contains(fields::itemOf(values[i]).id.value), key,
              " has two with one id");
  }
  void params(const char* key, const ParamValues& values) {
    for (const auto& [name, value] : values) {
      text(key, name);
      if (const auto* words = std::get_if<std::string>(&value)) text(key, *words);
      if (const auto* number = std::get_if<double>(&value)) require(std::isfinite(*number), key, kOutOfRange);
    }
  }
  template <class T>
  void named(const char* key, const std::map<std::string, T>& values) {
    for (const auto& [name, value] : values) {
      text(key, name);
      fields::describe(*this, value);
    }
  }
  void require(bool holds, const std::string& reason) {
    if (!holds && reason_.empty()) reason_ = reason;
  }
  template <class T, class M>
  void inOrder(const char* key, const std::vector<T>& values, M T::*member) {
    require(std::is_sorted(values.begin(), values.end(),
                           [member](const T& a, const T& b) { return a.*member < b.*member; }),
            key, " are not in order");
  }

 private:
  /// From where to where a list is not as it was when it was sound.
  template <class T>
  std::pair<std::size_t, std::size_t> newIn(const std::vector<T>& values) const {
    if constexpr (std::is_same_v<std::vector<T>, Items<Clip>>)
      if (soundClips_) {
        const ListChange change = changeBetween(*soundClips_, values);
        return {change.first, change.endAfter};
      }
    return {0, values.size()};
  }

  static constexpr const char* kOutOfRange = " is out of range";

  /// Words are only made where something is wrong: thousands of clips are looked at.
  void require(bool holds, const char* key, const char* what) {
    if (!holds && reason_.empty()) reason_ = std::string(key) + what;
  }

  const Items<Clip>* soundClips_ = nullptr;
  std::string reason_;
};

}  // namespace chispa
