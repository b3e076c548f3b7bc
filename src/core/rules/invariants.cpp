// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/rules/invariants.h"

#include "core/rules/admission.h"
#include "core/rules/fieldcheck.h"

namespace chispa {
namespace {

class Inspection {
 public:
  Inspection(const Show& show, const Show* before) : show_(show), before_(before) {}

  std::optional<Failure> run() {
    const bool samePixels = isSame(&Show::fixtures);
    members(&Show::stripTypes, "strip types");
    members(&Show::fixtures, "fixtures");
    members(&Show::zones, "zones");
    members(&Show::underlays, "underlays");
    members(&Show::supplies, "supplies");
    members(&Show::controllers, "controllers");
    members(&Show::palettes, "palettes");
    members(&Show::blocks, "blocks");
    members(&Show::scores, "scores");
    members(&Show::ownEffects, "effects of your own");
    members(&Show::looks, "looks");
    members(&Show::bindings, "bindings");
    members(&Show::deskInputs, "zones that listen to a desk");
    members(&Show::setLists, "set lists");
    members(&Show::rules, "rules of the almanac");
    part("the almanac", show_.almanac);
    part("the light's settings", show_.light);
    together(&Show::stripTypes, true);
    // Fixtures must be known to add up what zones and ports take of them.
    if (!samePixels || !isSame(&Show::zones) || !isSame(&Show::controllers)) {
      together(&Show::fixtures, false);
      together(&Show::zones, false);
      together(&Show::controllers, false);
    }
    together(&Show::underlays, true);
    together(&Show::supplies, true);
    together(&Show::palettes, true);
    if (!isSame(&Show::blocks) || !isSame(&Show::scores)) {
      together(&Show::blocks, false);
      together(&Show::scores, false);
    }
    together(&Show::ownEffects, true);
    together(&Show::looks, true);
    together(&Show::bindings, true);
    together(&Show::deskInputs, true);
    together(&Show::setLists, true);
    together(&Show::rules, true);
    if (!isUtf8(show_.name)) note("the show", "its name is no text in UTF-8");
    return std::move(broken_);
  }

 private:
  template <class T>
  bool isSame(Items<T> Show::*list) const {
    return before_ && show_.*list == before_->*list;
  }

  /// Each item by itself; those that the show had before are known to be sound.
  template <class T>
  void members(Items<T> Show::*list, const char* name) {
    if (broken_ || isSame(list)) return;
    if ((show_.*list).size() > limits::kMaxOfList)
      note(name, "there are more than " + std::to_string(limits::kMaxOfList));
    std::unordered_set<const T*> known;
    if (before_)
      for (const auto& item : before_->*list) known.insert(item.get());
    for (const auto& item : show_.*list) {
      if (known.contains(item.get())) continue;
      FieldCheck check(soundClips(list, *item));
      fields::describe(check, *item);
      if (!check.reason().empty()) return note(item->name, check.reason());
    }
  }

  /// The clips that an item of the list had before.
  template <class T>
  const Items<Clip>* soundClips(Items<T> Show::*list, const T& item) const {
    if constexpr (requires { item.clips; })
      if (const T* old = before_ ? find(before_->*list, item.id) : nullptr) return &old->clips;
    return nullptr;
  }

  template <class T>
  void part(const char* name, const T& part) {
    FieldCheck check;
    fields::describe(check, part);
    if (!check.reason().empty()) note(name, check.reason());
  }

  template <class T>
  void together(Items<T> Show::*list, bool mayBeKnown) {
    if (broken_ || (mayBeKnown && isSame(list))) return;
    for (const auto& item : show_.*list)
      if (const std::string why = admission_.refuse(*item); !why.empty())
        return note(item->name, "it " + why);
  }

  void note(const std::string& where, const std::string& why) {
    if (!broken_)
      broken_ = Failure{sentence("This goes beyond what a show may hold: %1.", why), where,
                        "Choose a smaller number, or divide the show."};
  }

  const Show& show_;
  const Show* before_;
  Admission admission_;
  std::optional<Failure> broken_;
};

}  // namespace

std::optional<Failure> brokenInvariant(const Show& show, const Show* before) {
  return Inspection(show, before).run();
}

}  // namespace chispa
