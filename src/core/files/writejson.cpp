// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/files/showjson.h"
#include "core/files/showwriter.h"

namespace chispa {
namespace {

using Json = nlohmann::ordered_json;

class RootWriter {
 public:
  explicit RootWriter(const Show& show) {
    for (const UnreadPart& part : show.unread)
      if (part.index >= 0) unread_.emplace(part.list, &part);
    root_ = {
        {"format", "chispa-show"}, {"version", kShowFormat}, {"name", show.name}, {"next_id", show.nextId}};
  }

  template <class T>
  void list(const char* key, const Items<T>& items, bool mayBeMissing = false) {
    if (mayBeMissing && items.empty() && !unread_.contains(key)) return;
    Json list = Json::array();
    for (const auto& item : items) {
      ShowWriter writer(unread_, key);
      fields::describe(writer, *item);
      list.push_back(std::move(writer).take());
    }
    putBackUnread(list, key, unread_);
    root_[key] = std::move(list);
  }

  /// A member that is one thing by itself; left out while it is plain.
  template <class T>
  void object(const char* key, const T& value) {
    if (value == T{}) return;
    ShowWriter writer(unread_, key);
    fields::describe(writer, value);
    root_[key] = std::move(writer).take();
  }

  /// Members that are unknown to this version, or are no list where one belongs; those must not cover the
  /// list that is there by now.
  void member(const UnreadPart& part) {
    const auto there = root_.find(part.list);
    const bool isTaken = there != root_.end() && !there->empty();
    root_[isTaken ? part.list + " (unread)" : part.list] = Json::parse(part.json, nullptr, false);
  }

  Json take() && { return std::move(root_); }

 private:
  UnreadByList unread_;
  Json root_;
};

}  // namespace

void putBackUnread(Json& list, const std::string& name, const UnreadByList& unread) {
  std::vector<const UnreadPart*> parts;
  const auto [from, to] = unread.equal_range(name);
  for (auto part = from; part != to; ++part) parts.push_back(part->second);
  std::stable_sort(parts.begin(), parts.end(),
                   [](const UnreadPart* a, const UnreadPart* b) { return a->index < b->index; });
  for (const UnreadPart* part : parts) {
    const auto at = std::min<std::size_t>(static_cast<std::size_t>(part->index), list.size());
    list.insert(list.begin() + static_cast<std::ptrdiff_t>(at), Json::parse(part->json, nullptr, false));
  }
}

Json toJson(const Show& show) {
  RootWriter writer(show);
  writer.list("strip_types", show.stripTypes);
  writer.list("fixtures", show.fixtures);
  writer.list("zones", show.zones);
  writer.list("underlays", show.underlays);
  writer.list("supplies", show.supplies);
  writer.list("controllers", show.controllers);
  writer.list("palettes", show.palettes);
  writer.list("scores", show.scores);
  writer.list("blocks", show.blocks, true);
  writer.list("own_effects", show.ownEffects, true);
  writer.list("looks", show.looks, true);
  writer.list("bindings", show.bindings, true);
  writer.list("desk_inputs", show.deskInputs, true);
  writer.list("set_lists", show.setLists, true);
  writer.list("rules", show.rules, true);
  writer.object("almanac", show.almanac);
  writer.object("light", show.light);
  for (const UnreadPart& part : show.unread)
    if (part.index < 0) writer.member(part);
  return std::move(writer).take();
}

std::string showText(const Show& show) {
  return toJson(show).dump(1, ' ', false, Json::error_handler_t::replace) + "\n";
}

}  // namespace chispa
