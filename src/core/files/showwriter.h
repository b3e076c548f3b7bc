// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <charconv>
#include <map>
#include <memory>

#include <nlohmann/json.hpp>

#include "core/files/names.h"
#include "core/show/showfields.h"

namespace chispa {

/// Parts that could not be read, by the list they stood in.
using UnreadByList = std::multimap<std::string, const UnreadPart*>;

/// Puts the parts that stood in `list` back where they stood.
void putBackUnread(nlohmann::ordered_json& json, const std::string& list, const UnreadByList& unread);

/// The visitor of core/show/showfields.h that writes members as JSON, in the order of their description.
/// Members that have a plain value and hold it are left out.
class ShowWriter {
 public:
  using Json = nlohmann::ordered_json;

  explicit ShowWriter(const UnreadByList& unread, std::string path = {})
      : unread_(unread), path_(std::move(path)) {}
  Json take() && { return std::move(json_); }

  template <class Tag>
  void id(const char* key, const Id<Tag>& value, const Id<Tag>* plain = nullptr) {
    if (std::string_view(key) == "id") ownId_ = value.value;
    put(key, value, plain, [](Id<Tag> id) { return Json(id.value); });
  }
  void text(const char* key, const std::string& value, const std::string* plain = nullptr) {
    put(key, value, plain);
  }
  void effect(const char* key, const std::string& value) { text(key, value); }
  void flag(const char* key, const bool& value, const bool* plain = nullptr) { put(key, value, plain); }
  template <class T>
  void number(const char* key, const T& value, double, double, const T* plain = nullptr) {
    put(key, value, plain, shortest<T>);
  }
  template <class Int>
  void whole(const char* key, const Int& value, std::type_identity_t<Int>, std::type_identity_t<Int>,
             const Int* plain = nullptr) {
    put(key, value, plain);
  }
  void time(const char* key, const Micros& value, const Micros* plain = nullptr) {
    put(key, value, plain, [](Micros t) { return Json(t.count()); });
  }
  void offset(const char* key, const Micros& value, const Micros* plain = nullptr) {
    time(key, value, plain);
  }
  template <class E>
  void word(const char* key, const E& value, const E* plain = nullptr) {
    put(key, value, plain, [](E e) { return Json(nameOf(e)); });
  }
  void vector(const char* key, const Vec3& value, double) { json_[key] = triple(value); }
  void colour(const char* key, const Srgb8& value) { json_[key] = hexText(value); }
  void points(const char* key, const std::vector<Vec3>& values, double) {
    Json list = Json::array();
    for (const Vec3& point : values) list.push_back(triple(point));
    json_[key] = std::move(list);
  }
  void texts(const char* key, const std::vector<std::string>& values,
             const std::vector<std::string>* plain = nullptr) {
    put(key, values, plain);
  }
  void wholes(const char* key, const std::vector<int>& values, int, int) { json_[key] = values; }
  void gridCells(const char* key, const std::vector<GridCell>& cells, int, int) {
    for (const GridCell& cell : cells) json_[key].push_back({cell.row, cell.column});
  }
  template <class Tag>
  void ids(const char* key, const std::vector<Id<Tag>>& values) {
    Json list = Json::array();
    for (const auto& id : values) list.push_back(id.value);
    finish(key, std::move(list));
  }
  template <class T, class F>
  void maybe(const char* key, const std::optional<T>& value, F describeValue) {
    if (value) describeValue(*this, key, *value);
  }
  template <class T>
  void object(const char* key, const T& value, const T* plain = nullptr) {
    put(key, value, plain, [this](const T& v) { return written(v); });
  }
  void response(const char* key, const Response& value) {
    json_[key] = value.isPower() ? shortest(value.exponent) : written(value);
  }
  void shape(const char* key, const Shape& shape) {
    json_[key] = std::visit(
        [&](const auto& s) {
          ShowWriter writer(unread_);
          writer.json_["kind"] = shapeName(shape);
          fields::describe(writer, s);
          return std::move(writer).take();
        },
        shape);
  }
  template <class T>
  void list(const char* key, const std::vector<T>& values, const std::vector<T>* plain = nullptr) {
    if (plain && values == *plain) return;
    Json list = Json::array();
    for (const T& value : values) list.push_back(written(value));
    json_[key] = std::move(list);
  }
  template <class T>
  void placedList(const char* key, const std::vector<T>& values, const std::vector<T>* plain = nullptr) {
    if (plain && values == *plain) return;
    Json list = Json::array();
    for (const T& value : values) {
      ShowWriter writer(unread_, pathOf(key) + "/" + std::to_string(list.size()));
      fields::describe(writer, value);
      list.push_back(std::move(writer).take());
    }
    json_[key] = std::move(list);
  }
  template <class T>
  void unwiredList(const char* key, const std::vector<T>& values) {
    const std::string path = pathOf(key);
    Json list = Json::array();
    for (const T& value : values) {
      ShowWriter writer(unread_, path);
      fields::describe(writer, fields::itemOf(value));
      list.push_back(std::move(writer).take());
    }
    finish(key, std::move(list));
  }
  void params(const char* key, const ParamValues& values) {
    Json all = Json::object();
    for (const auto& [name, value] : values) all[name] = paramJson(value);
    json_[key] = std::move(all);
  }
  template <class T>
  void named(const char* key, const std::map<std::string, T>& values) {
    for (const auto& [name, value] : values) json_[key][name] = written(value);
  }
  void require(bool, const std::string&) {}
  template <class T, class M>
  void inOrder(const char*, const std::vector<T>&, M T::*) {}

 private:
  static constexpr auto kAsItIs = [](const auto& value) { return Json(value); };

  template <class T, class F = decltype(kAsItIs)>
  void put(const char* key, const T& value, const T* plain, F json = kAsItIs) {
    if (!plain || !(value == *plain)) json_[key] = json(value);
  }
  template <class T>
  Json written(const T& value) const {
    ShowWriter writer(unread_, path_);
    fields::describe(writer, value);
    return std::move(writer).take();
  }
  std::string pathOf(const char* key) const {
    return path_.empty() ? key : path_ + "/" + std::to_string(ownId_) + "/" + key;
  }
  void finish(const char* key, Json list) {
    if (!unread_.empty()) putBackUnread(list, pathOf(key), unread_);
    json_[key] = std::move(list);
  }
  /// The double with the fewest digits that is read back as the same value.
  template <class T>
  static Json shortest(T value) {
    if constexpr (std::same_as<T, float>) {
      char digits[32];
      const auto end = std::to_chars(digits, digits + sizeof digits, value).ptr;
      double wide = 0;
      std::from_chars(digits, end, wide);
      return wide;
    } else {
      return value;
    }
  }
  static Json triple(const Vec3& v) { return Json::array({v.x, v.y, v.z}); }
  static Json paramJson(const ParamValue& value) {
    if (const auto* colour = std::get_if<Srgb8>(&value)) return {{"colour", hexText(*colour)}};
    if (const auto* number = std::get_if<double>(&value)) return *number;
    if (const auto* on = std::get_if<bool>(&value)) return *on;
    return std::get<std::string>(value);
  }

  const UnreadByList& unread_;
  std::string path_;
  std::uint32_t ownId_ = 0;
  Json json_ = Json::object();
};

}  // namespace chispa
