// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <cstdint>
#include <functional>
#include <string>
#include <vector>

#include "core/show/show.h"

namespace chispa {

/// The show as it is and as it was: a list of named values. Not thread-safe.
class History {
 public:
  using Edit = std::function<void(Show&)>;

  explicit History(Show first = {});

  const Show& now() const { return steps_[at_].show; }

  /// Applies `edit` to a copy of the present show and makes that the present, forgetting what was undone.
  /// Edits in a row with the same `mergeKey` (a drag, typing in one field) that change a thing in common
  /// become one step; an empty key never merges. Returns false, and adds no step, if the edit changed
  /// nothing.
  bool apply(const std::string& name, const Edit& edit, const std::string& mergeKey = {});
  /// Applies the late end of an edit that the computer went on with: it belongs to the present step if that
  /// has this name and changed a thing in common, however long ago it was, and is a step of its own if not.
  bool complete(const std::string& name, const Edit& edit);
  /// Ends merging: the next edit is a step of its own.
  void seal();

  bool canUndo() const { return at_ > 0; }
  bool canRedo() const { return at_ + 1 < steps_.size(); }
  /// Name of the edit that undo takes back, or redo does again; empty if there is none.
  std::string undoName() const { return canUndo() ? steps_[at_].name : std::string(); }
  std::string redoName() const { return canRedo() ? steps_[at_ + 1].name : std::string(); }
  void undo();
  void redo();

  /// Names of all steps, the oldest first, those that were undone behind the present one. The first step has
  /// no name: it is what was opened, or the oldest that is still known.
  std::vector<std::string> names() const;
  /// Which of the steps is the present one.
  std::size_t position() const { return at_; }
  /// Makes step `position` the present one; the last where there are fewer.
  void goTo(std::size_t position);
  /// Goes back to step `position` and forgets what came behind it: a drag that is called off never was.
  void forgetAfter(std::size_t position);

 private:
  bool take(const std::string& name, const std::string& mergeKey, Show next, bool mayMerge);

  struct Step {
    std::string name;
    std::string mergeKey;
    /// What it changed; see changedThings().
    std::vector<std::uint64_t> things;
    Show show;
  };
  static constexpr std::size_t kMax = 1000;

  std::vector<Step> steps_;
  std::size_t at_ = 0;
};

/// The things that differ between two shows, as numbers that tell them apart, rising: items by their list and
/// id, clips by their own instead of their score's.
std::vector<std::uint64_t> changedThings(const Show& before, const Show& after);

}  // namespace chispa
