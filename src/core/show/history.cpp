// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/show/history.h"

namespace chispa {

History::History(Show first) {
  steps_.push_back({{}, {}, std::move(first)});
}

bool History::apply(const std::string& name, const Edit& edit, const std::string& mergeKey) {
  Show next = now();
  edit(next);
  if (next == now()) return false;
  steps_.resize(at_ + 1, Step{});
  const bool merges = !mergeKey.empty() && canUndo() && steps_[at_].mergeKey == mergeKey;
  if (merges) {
    steps_[at_].show = std::move(next);
    return true;
  }
  steps_.push_back({name, mergeKey, std::move(next)});
  if (steps_.size() > kMost) steps_.erase(steps_.begin());
  at_ = steps_.size() - 1;
  return true;
}

void History::seal() {
  steps_[at_].mergeKey.clear();
}

void History::undo() {
  if (!canUndo()) return;
  seal();
  --at_;
  seal();
}

void History::redo() {
  if (!canRedo()) return;
  ++at_;
  seal();
}

}  // namespace chispa
