// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/effect/effect.h"
#include "desk/parts/form.h"
#include "desk/parts/format.h"
#include "desk/score/clipaccess.h"
#include "desk/session/session.h"

namespace chispa::desk {

/// Rows over clips, wherever they stand.
class ClipRows {
 public:
  ClipRows(Form& form, const Session& session, std::shared_ptr<const ClipAccess> clips)
      : form_(form), session_(session), clips_(std::move(clips)) {}

  template <class T>
  Form::Get<T> common(std::function<T(const Clip&)> value) const {
    return [session = session_, clips = clips_, value]() -> std::optional<T> {
      std::optional<T> all;
      clips->each(session.show(), [&, isFirst = true](const Clip& clip) mutable {
        const T one = value(clip);
        const bool isSame = isFirst || all == one;
        isFirst = false;
        all = isSame ? std::optional<T>(one) : std::nullopt;
        return isSame;
      });
      return all;
    };
  }

  template <class T>
  Form::Set<T> change(const QString& name, std::function<void(Clip&, T)> set) const {
    return [session = session_, clips = clips_, name, set](T value) {
      session.edit(
          name, [&](Show& show) { clips->change(show, [&](Clip& c) { set(c, value); }); },
          name + QStringLiteral("-field"));
    };
  }

  void time(const QString& key, const QString& label, double low_s, Micros Clip::*member) {
    form_.addNumber(key, label, {"s", low_s, 86'400, 0.1, 3},
                    common<double>([member](const Clip& c) { return seconds(c.*member); }),
                    change<double>(label, [member](Clip& c, double v) { c.*member = micros(v); }));
  }

  /// The row, or the editor, of one of the effect's parameters.
  void param(const ParamSpec& spec);
  /// How the parameter moves over the clip; nothing for one that cannot.
  void motion(const std::string& key, const QString& label, double low, double high,
              const std::vector<std::pair<std::string, QString>>& others);

  const Session& session() const { return session_; }
  const std::shared_ptr<const ClipAccess>& clips() const { return clips_; }
  Form& form() const { return form_; }

 private:
  /// Limits of a motion that is there, and the points of its curve.
  void addMotionRows(const std::string& key, const QString& label, double low, double high,
                     const std::function<const Motion*(const Clip&)>& get);

  Form& form_;
  Session session_;
  std::shared_ptr<const ClipAccess> clips_;
};

}  // namespace chispa::desk
