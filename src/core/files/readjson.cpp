// SPDX-License-Identifier: GPL-3.0-or-later
#include <set>

#include "core/base/boundedjson.h"
#include "core/files/showjson.h"
#include "core/files/showreader.h"
#include "core/rules/admission.h"

namespace chispa {
namespace {

using Json = nlohmann::ordered_json;

/// Reads the lists of a file into a show. Elements that make no sense, or must not be in a show together with
/// those before, go to Show::unread.
class RootReader {
 public:
  RootReader(const Json& root, Show& show) : root_(root), show_(show) {}

  template <class T>
  void list(const char* key, Items<T>& items) {
    known_.insert(key);
    const auto list = root_.find(key);
    if (list == root_.end()) return;
    if (!list->is_array()) {
      show_.unread.push_back({key, -1, list->dump(), "is not a list"});
      return;
    }
    int index = 0;
    for (const Json& element : *list) {
      const std::size_t before = show_.unread.size();
      try {
        T item;
        ShowReader reader(element, show_.unread, key);
        fields::describe(reader, item);
        if (items.size() >= limits::kMaxOfList) throw FieldError("is one too many");
        if (const std::string why = admission_.refuse(item); !why.empty()) throw FieldError(why);
        items.push_back(std::make_shared<const T>(std::move(item)));
      } catch (const std::exception& error) {
        show_.unread.resize(before);
        show_.unread.push_back({key, index, element.dump(), error.what()});
      }
      ++index;
    }
  }

  /// A member that is one thing by itself; one that makes no sense goes to Show::unread and stays as it was.
  template <class T>
  void object(const char* key, T& value) {
    known_.insert(key);
    const auto json = root_.find(key);
    if (json == root_.end()) return;
    try {
      T read;
      ShowReader reader(*json, show_.unread, key);
      fields::describe(reader, read);
      value = std::move(read);
    } catch (const std::exception& error) {
      show_.unread.push_back({key, -1, json->dump(), error.what()});
    }
  }

  void keepUnknownMembers() {
    for (const auto& [key, value] : root_.items())
      if (!known_.contains(key))
        show_.unread.push_back({key, -1, value.dump(), "is unknown to this version"});
  }

 private:
  const Json& root_;
  Show& show_;
  Admission admission_;
  std::set<std::string> known_ = {"format", "version", "name", "next_id"};
};

/// The largest number used as an id anywhere in `json`; new ids must lie above it, whatever the file says.
/// Far ones do not count.
std::uint32_t largestId(const Json& json) {
  std::uint32_t largest = 0;
  if (json.is_object()) {
    const auto id = json.find("id");
    if (id != json.end() && id->is_number_unsigned() && id->get<std::uint64_t>() < limits::kFirstFarId)
      largest = id->get<std::uint32_t>();
  }
  if (json.is_structured())
    for (const Json& child : json) largest = std::max(largest, largestId(child));
  return largest;
}

/// What new things are numbered from.
std::uint32_t nextIdOf(const Json& root) {
  const auto said = root.find("next_id");
  const bool isUsable =
      said != root.end() && said->is_number_unsigned() && said->get<std::uint64_t>() < limits::kFirstFarId;
  return std::max({1u, largestId(root) + 1, isUsable ? said->get<std::uint32_t>() : 1u});
}

Result<Show> readRoot(const Json& root, const std::string& where) {
  const auto format = root.is_object() ? root.find("format") : root.end();
  if (!root.is_object() || format == root.end() || *format != "chispa-show")
    return Failure{"This is not a Chispa show.", where, "Choose a file whose name ends in .chispa."};
  const FieldReader in(root);
  const int version = in.whole<int>("version", 1, 1'000'000, 1);
  if (version > kShowFormat)
    return Failure{sentence("The show was saved by a newer Chispa (format %1; this one reads up to %2).",
                            version, kShowFormat),
                   where, "Update Chispa, or open an older copy of the show."};
  Show show;
  show.name = in.text("name");
  RootReader reader(root, show);
  reader.list("strip_types", show.stripTypes);
  reader.list("fixtures", show.fixtures);
  reader.list("zones", show.zones);
  reader.list("underlays", show.underlays);
  reader.list("supplies", show.supplies);
  reader.list("controllers", show.controllers);
  reader.list("palettes", show.palettes);
  reader.list("blocks", show.blocks);
  reader.list("scores", show.scores);
  reader.list("own_effects", show.ownEffects);
  reader.list("looks", show.looks);
  reader.list("bindings", show.bindings);
  reader.list("desk_inputs", show.deskInputs);
  reader.list("set_lists", show.setLists);
  reader.list("rules", show.rules);
  reader.object("almanac", show.almanac);
  reader.object("light", show.light);
  reader.keepUnknownMembers();
  show.nextId = nextIdOf(root);
  return show;
}

}  // namespace

Result<Show> parseShow(const std::string& text, const std::string& where) {
  const auto root =
      parseJson(text, "The show", where, "Open a backup, or the copy that Chispa keeps of unsaved work.");
  return root ? showOfJson(*root, where) : root.failure();
}

Result<Show> showOfJson(const Json& root, const std::string& where) {
  try {
    return readRoot(root, where);
  } catch (const std::exception& error) {
    return Failure{sentence("The show is damaged: %1.", error.what()), where, "Open a backup."};
  }
}

}  // namespace chispa
