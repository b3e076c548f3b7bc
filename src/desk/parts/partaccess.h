// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "desk/parts/form.h"

namespace chispa::desk {

/// A part of the show that rows of a form show and change, wherever it stands.
template <class T>
struct PartAccess {
  /// Nothing if it is gone.
  std::function<std::optional<T>()> get;
  /// Changes it in one step of undo with that name.
  std::function<void(const QString& name, const std::function<void(T&)>& change)> edit;
};

/// What a row shows: `value` of the part.
template <class V, class T, class F>
Form::Get<V> shows(const PartAccess<T>& part, F value) {
  return [get = part.get, value]() -> std::optional<V> {
    const auto now = get();
    return now ? std::optional<V>(value(*now)) : std::nullopt;
  };
}

/// What a row does: `change` of the part with the row's new value.
template <class V, class T, class F>
Form::Set<V> changes(const PartAccess<T>& part, const QString& name, F change) {
  return [edit = part.edit, name, change](V value) { edit(name, [&](T& now) { change(now, value); }); };
}

}  // namespace chispa::desk
