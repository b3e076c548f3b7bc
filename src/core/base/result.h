// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <cassert>
#include <string>
#include <utility>
#include <variant>

#include "core/base/sentence.h"

namespace chispa {

/// Why something expected to fail did: what happened, where (a file, a name, an address), and what the user
/// can do about it.
struct Failure {
  Sentence what;
  std::string where;
  Sentence cure;

  /// In English, one sentence a line, for stderr.
  std::string text() const;
  bool operator==(const Failure&) const = default;
};

/// A value or the reason why there is none. Never throws across a module's border.
template <class T>
class [[nodiscard]] Result {
 public:
  Result(T value) : held_(std::move(value)) {}
  Result(Failure failure) : held_(std::move(failure)) {}

  explicit operator bool() const { return std::holds_alternative<T>(held_); }
  const T& operator*() const& { return value(); }
  T&& operator*() && { return std::move(std::get<T>(held_)); }
  const T* operator->() const { return &value(); }
  const T& value() const {
    assert(*this);
    return std::get<T>(held_);
  }
  const Failure& failure() const {
    assert(!*this);
    return std::get<Failure>(held_);
  }

 private:
  std::variant<T, Failure> held_;
};

/// Success without a value.
struct Done {};
using Outcome = Result<Done>;

}  // namespace chispa
