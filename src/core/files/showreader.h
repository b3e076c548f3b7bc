// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <algorithm>
#include <functional>
#include <memory>
#include <set>
#include <unordered_set>

#include "core/base/utf8.h"
#include "core/files/fieldreader.h"
#include "core/files/oldwords.h"
#include "core/show/showfields.h"

namespace chispa {

/// The visitor of core/show/showfields.h that fills members from JSON. What is missing keeps its value; what
/// is wrong throws FieldError, except in loose lists, whose bad elements go to `unread` and leave their
/// neighbours alone.
class ShowReader {
 public:
  using Json = FieldReader::Json;

  /// `path` leads to the object from the root: "scores/12".
  ShowReader(const Json& object, std::vector<UnreadPart>& unread, std::string path = {})
      : in_(object), unread_(unread), path_(std::move(path)) {}

  template <class Tag>
  void id(const char* key, Id<Tag>& value, const Id<Tag>* = nullptr) {
    value = Id<Tag>{in_.whole<std::uint32_t>(key, 0, limits::kLargestId, value.value)};
    if (std::string_view(key) == "id") ownId_ = value.value;
  }
  void text(const char* key, std::string& value, const std::string* = nullptr) {
    value = in_.text(key, value);
    require(value.size() <= limits::kMaxText, std::string(key) + " is longer than any text");
  }
  void effect(const char* key, std::string& value) {
    text(key, value);
    value = keyOfToday(value);
  }
  void flag(const char* key, bool& value, const bool* = nullptr) { value = in_.flag(key, value); }
  template <class T>
  void number(const char* key, T& value, double low, double high, const T* = nullptr) {
    value = static_cast<T>(in_.number(key, low, high, static_cast<double>(value)));
  }
  template <class Int>
  void whole(const char* key, Int& value, std::type_identity_t<Int> low, std::type_identity_t<Int> high,
             const Int* = nullptr) {
    value = in_.whole<Int>(key, low, high, value);
  }
  void time(const char* key, Micros& value, const Micros* = nullptr) {
    value = Micros(in_.whole<std::int64_t>(key, 0, limits::kDay_us, value.count()));
  }
  void offset(const char* key, Micros& value, const Micros* = nullptr) {
    value = Micros(in_.whole<std::int64_t>(key, -limits::kDay_us, limits::kDay_us, value.count()));
  }
  template <class E>
  void word(const char* key, E& value, const E* = nullptr) {
    value = in_.word(key, value);
  }
  void vector(const char* key, Vec3& value, double most) {
    if (in_.member(key)) value = in_.vector(key, most);
  }
  void colour(const char* key, Srgb8& value) { value = colourOf(in_.text(key)); }
  void points(const char* key, std::vector<Vec3>& values, double most) { values = in_.points(key, most); }

  void texts(const char* key, std::vector<std::string>& values, const std::vector<std::string>* = nullptr) {
    values.clear();
    in_.each(key, [&](const Json& value) {
      if (!value.is_string()) throw FieldError(std::string(key) + " holds something else than texts");
      values.push_back(value.get<std::string>());
    });
    require(values.size() <= limits::kMaxOfList, std::string(key) + " is longer than any list");
  }
  void wholes(const char* key, std::vector<int>& values, int low, int high) {
    values.clear();
    in_.each(key, [&](const Json& value) {
      if (!value.is_number_integer() || value.get<double>() < low || value.get<double>() > high)
        throw FieldError(std::string(key) + " holds something else than numbers of pixels");
      values.push_back(value.get<int>());
    });
  }
  void gridCells(const char* key, std::vector<GridCell>& cells, int rows, int columns) {
    std::set<GridCell> all;
    in_.each(key, [&](const Json& cell) {
      if (!cell.is_array() || cell.size() != 2 || !cell[0].is_number_integer() ||
          !cell[1].is_number_integer())
        throw FieldError("a hole is not a row and a column");
      const double row = cell[0].get<double>(), column = cell[1].get<double>();
      if (row < 0 || row >= rows || column < 0 || column >= columns)
        throw FieldError("a hole lies outside the grid");
      all.insert({cell[0].get<int>(), cell[1].get<int>()});
    });
    cells.assign(all.begin(), all.end());
  }
  /// Ids of other things, each once.
  template <class Tag>
  void ids(const char* key, std::vector<Id<Tag>>& values) {
    int index = 0;
    std::unordered_set<std::uint32_t> seen;
    in_.each(key, [&](const Json& value) {
      const bool isId = value.is_number_unsigned() && value.get<std::uint64_t>() <= limits::kLargestId;
      if (isId && seen.insert(value.get<std::uint32_t>()).second)
        values.push_back(Id<Tag>{value.get<std::uint32_t>()});
      else
        unread_.push_back({pathOf(key), index, value.dump(), isId ? "stands there twice" : "is no id"});
      ++index;
    });
  }
  template <class T, class F>
  void maybe(const char* key, std::optional<T>& value, F describeValue) {
    if (in_.member(key)) describeValue(*this, key, value.emplace());
  }
  template <class T>
  void object(const char* key, T& value, const T* = nullptr) {
    if (const Json* json = in_.member(key)) read(*json, value);
  }
  void response(const char* key, Response& value) {
    const Json* json = in_.member(key);
    if (json && json->is_object())
      read(*json, value);
    else
      number(key, value.exponent, 0.1, 10.0);
  }
  void shape(const char* key, Shape& value) {
    const Json* json = in_.member(key);
    if (!json) throw FieldError("a segment has no " + std::string(key));
    const std::string kind = FieldReader(*json).text("kind");
    if (!readShape(*json, kind, value, std::make_index_sequence<std::variant_size_v<Shape>>()))
      throw FieldError("shape \"" + kind + "\" is unknown to this version");
  }
  template <class T>
  void list(const char* key, std::vector<T>& values, const std::vector<T>* = nullptr) {
    if (in_.member(key)) values.clear();
    in_.each(key, [&](const Json& element) {
      T value{};
      read(element, value);
      values.push_back(std::move(value));
    });
    require(values.size() <= limits::kMaxOfList, std::string(key) + " is longer than any list");
  }
  /// A list whose elements have no id, but lists that may be unread in part: they are known by their place.
  template <class T>
  void placedList(const char* key, std::vector<T>& values, const std::vector<T>* = nullptr) {
    if (in_.member(key)) values.clear();
    in_.each(key, [&](const Json& element) {
      T value{};
      ShowReader reader(element, unread_, pathOf(key) + "/" + std::to_string(values.size()));
      fields::describe(reader, value);
      values.push_back(std::move(value));
    });
    require(values.size() <= limits::kMaxOfList, std::string(key) + " is longer than any list");
  }
  /// A list whose elements have ids and do not depend on one another's places.
  template <class T>
  void unwiredList(const char* key, std::vector<T>& values) {
    const std::string path = pathOf(key);
    std::unordered_set<std::uint32_t> ids;
    int index = 0;
    in_.each(key, [&](const Json& element) {
      const std::size_t before = unread_.size();
      try {
        fields::ItemOf<T> value{};
        ShowReader reader(element, unread_, path);
        fields::describe(reader, value);
        if (!value.id) throw FieldError("has no id");
        if (!ids.insert(value.id.value).second)
          throw FieldError("has the id " + std::to_string(value.id.value) + ", which another has");
        if (values.size() >= limits::kMaxOfList) throw FieldError("is one too many");
        values.push_back(made<T>(std::move(value)));
      } catch (const std::exception& error) {
        unread_.resize(before);
        unread_.push_back({path, index, element.dump(), error.what()});
      }
      ++index;
    });
  }
  void params(const char* key, ParamValues& values) {
    const Json* json = objectOf(key);
    if (!json) return;
    for (const auto& [name, value] : json->items()) values[name] = paramOf(value);
  }
  template <class T>
  void named(const char* key, std::map<std::string, T>& values) {
    const Json* json = objectOf(key);
    if (!json) return;
    for (const auto& [name, value] : json->items()) read(value, values[name]);
  }
  void require(bool holds, const std::string& reason) {
    if (!holds) throw FieldError(reason);
  }
  template <class T, class M>
  void inOrder(const char*, std::vector<T>& values, M T::*member) {
    std::stable_sort(values.begin(), values.end(),
                     [member](const T& a, const T& b) { return a.*member < b.*member; });
  }

 private:
  template <class To, class T>
  static To made(T value) {
    if constexpr (std::same_as<To, T>)
      return value;
    else
      return std::make_shared<const T>(std::move(value));
  }

  std::string pathOf(const char* key) const {
    return path_.empty() ? key : path_ + "/" + std::to_string(ownId_) + "/" + key;
  }

  template <class T>
  void read(const Json& json, T& value) {
    ShowReader reader(json, unread_, path_);
    fields::describe(reader, value);
  }

  template <std::size_t... index>
  bool readShape(const Json& json, const std::string& kind, Shape& shape, std::index_sequence<index...>) {
    return (... || (kind == shapeName(Shape(std::in_place_index<index>)) &&
                    (read(json, shape.emplace<index>()), true)));
  }

  const Json* objectOf(const char* key) const {
    const Json* json = in_.member(key);
    if (json && !json->is_object()) throw FieldError(std::string(key) + " is not an object");
    return json;
  }
  static Srgb8 colourOf(const std::string& text) {
    const auto colour = parseHex(text);
    if (!colour) throw FieldError("colour \"" + text + "\" is not of the form #rrggbb");
    return *colour;
  }
  static ParamValue paramOf(const Json& json) {
    if (json.is_number()) return json.get<double>();
    if (json.is_boolean()) return json.get<bool>();
    if (json.is_string()) return json.get<std::string>();
    return colourOf(FieldReader(json).text("colour"));
  }

  FieldReader in_;
  std::vector<UnreadPart>& unread_;
  std::string path_;
  std::uint32_t ownId_ = 0;
};

}  // namespace chispa
