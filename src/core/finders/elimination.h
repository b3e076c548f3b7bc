// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <algorithm>
#include <functional>
#include <optional>
#include <utility>
#include <vector>

namespace chispa {

/// Finds out what is true by asking: each answer leaves those truths under which it would have been given.
/// The next question is the one whose worst answer leaves the fewest. Once one truth is left, check questions
/// are asked that would tell it from what would be true if one earlier answer had been wrong. Truths and
/// questions are finite, so it always ends.
template <class Truth>
class Elimination {
 public:
  /// What would be seen: the number of the answer to a question under a truth.
  using Seen = std::function<int(const Truth&, int question)>;

  /// Questions 0 … `searching` − 1 narrow down; all of 0 … `questions` − 1 may check.
  Elimination(std::vector<Truth> truths, int searching, int questions, Seen seen)
      : truths_(std::move(truths)),
        wrong_(truths_.size(), 0),
        searching_(searching),
        questions_(questions),
        seen_(std::move(seen)) {}

  /// The question to ask now; nothing if all is said, or nothing can be true any more.
  std::optional<int> next() const {
    if (isContradicted()) return std::nullopt;
    return isDecided() ? best(questions_, 1) : best(searching_, 0);
  }
  /// Takes the answer to a question; an answer that contradicts all before is noticed by isContradicted().
  void answer(int question, int seen) {
    asked_.push_back({question, seen});
    for (std::size_t i = 0; i < truths_.size(); ++i) wrong_[i] += seen_(truths_[i], question) != seen ? 1 : 0;
  }
  /// Takes the last answer back.
  void takeBack() {
    if (asked_.empty()) return;
    const auto [question, seen] = asked_.back();
    asked_.pop_back();
    for (std::size_t i = 0; i < truths_.size(); ++i) wrong_[i] -= seen_(truths_[i], question) != seen ? 1 : 0;
  }

  std::size_t answers() const { return asked_.size(); }
  /// What may still be true.
  std::vector<Truth> left() const {
    std::vector<Truth> all;
    for (std::size_t i = 0; i < truths_.size(); ++i)
      if (wrong_[i] == 0) all.push_back(truths_[i]);
    return all;
  }
  bool isDecided() const { return count(0) == 1; }
  bool isContradicted() const { return count(0) == 0; }

 private:
  std::ptrdiff_t count(int mistakes) const { return std::count(wrong_.begin(), wrong_.end(), mistakes); }
  bool wasAsked(int question) const {
    return std::any_of(asked_.begin(), asked_.end(),
                       [question](const auto& a) { return a.first == question; });
  }
  /// Of the first `questions`, the one that divides the truths with up to `mistakes` wrong answers best;
  /// nothing if none does.
  std::optional<int> best(int questions, int mistakes) const {
    std::optional<int> found;
    std::size_t least = 0;
    for (int question = 0; question < questions; ++question) {
      if (wasAsked(question)) continue;
      const std::size_t worst = worstClass(question, mistakes);
      if (worst == 0 || (found && worst >= least)) continue;
      found = question;
      least = worst;
    }
    return found;
  }
  /// The most truths that one answer to the question would leave; 0 if all would give the same.
  std::size_t worstClass(int question, int mistakes) const {
    std::vector<int> seen;
    for (std::size_t i = 0; i < truths_.size(); ++i)
      if (wrong_[i] <= mistakes) seen.push_back(seen_(truths_[i], question));
    std::sort(seen.begin(), seen.end());
    if (seen.empty() || seen.front() == seen.back()) return 0;
    std::size_t worst = 0;
    for (std::size_t from = 0, at = 0; at <= seen.size(); ++at)
      if (at == seen.size() || seen[at] != seen[from]) worst = std::max(worst, at - std::exchange(from, at));
    return worst;
  }

  std::vector<Truth> truths_;
  std::vector<int> wrong_;
  int searching_;
  int questions_;
  Seen seen_;
  std::vector<std::pair<int, int>> asked_;
};

}  // namespace chispa
