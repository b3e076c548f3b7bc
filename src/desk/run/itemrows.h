// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/edit/planedits.h"
#include "desk/parts/form.h"
#include "desk/parts/nameditems.h"
#include "desk/session/session.h"

namespace chispa::desk {

/// Rows over one item of a list of the show.
template <class T, class IdType>
class ItemRows {
 public:
  ItemRows(const Session& session, Items<T> Show::*list, IdType id)
      : session_(session), list_(list), id_(id) {}

  template <class V>
  Form::Get<V> get(std::function<V(const T&)> value) const {
    return [session = session_, list = list_, id = id_, value]() -> std::optional<V> {
      const T* item = chispa::find(session.show().*list, id);
      return item ? std::optional<V>(value(*item)) : std::nullopt;
    };
  }
  template <class V>
  Form::Set<V> set(const QString& name, std::function<void(T&, V)> change) const {
    return [session = session_, list = list_, id = id_, name, change](V value) {
      session.edit(
          name, [&](Show& show) { changeItem(show.*list, id, [&](T& item) { change(item, value); }); },
          name + QStringLiteral("-item"));
    };
  }

 private:
  Session session_;
  Items<T> Show::*list_;
  IdType id_;
};

}  // namespace chispa::desk
