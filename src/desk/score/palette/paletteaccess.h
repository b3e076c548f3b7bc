// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <functional>

#include <QString>

#include "core/edit/planedits.h"
#include "desk/session/session.h"

namespace chispa::desk {

/// One palette of the show, fetched and changed where it lives. Outlived by the session.
class PaletteAccess {
 public:
  PaletteAccess(const Session& session, PaletteId id) : session_(session), id_(id) {}

  /// As it is now; empty if it is gone.
  Palette get() const {
    const Palette* palette = chispa::find(session_.show().palettes, id_);
    return palette ? *palette : Palette{};
  }
  /// One named edit; edits with the same `mergeKey` that follow each other become one.
  void change(const QString& name, const std::function<void(Palette&)>& edit,
              const QString& mergeKey = {}) const {
    session_.edit(
        name, [&](Show& show) { changeItem(show.palettes, id_, edit); }, mergeKey);
  }
  /// What comes next is a step of its own.
  void seal() const { session_.document.seal(); }
  const Session& session() const { return session_; }
  PaletteId id() const { return id_; }

 private:
  Session session_;
  PaletteId id_;
};

}  // namespace chispa::desk
