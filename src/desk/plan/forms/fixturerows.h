// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <functional>

#include "core/edit/planedits.h"
#include "core/show/finditems.h"
#include "desk/parts/form.h"
#include "desk/session/session.h"

namespace chispa::desk {

/// Rows over several fixtures at once: a value that all have in common, and a change made to all. What a
/// change cannot keep is told before it happens.
class FixtureRows {
 public:
  FixtureRows(Form& form, const Session& session, FixtureIds ids, int segment)
      : form_(form), session_(session), ids_(std::move(ids)), segment_(static_cast<std::size_t>(segment)) {}

  Form& form() { return form_; }
  const Session& session() const { return session_; }

  template <class T>
  Form::Get<T> common(std::function<T(const Fixture&)> value) const {
    return [session = session_, ids = ids_, value]() -> std::optional<T> {
      std::optional<T> all;
      for (const Fixture* fixture : findAll(session.show().fixtures, ids)) {
        const T one = value(*fixture);
        if (all && *all != one) return std::nullopt;
        all = one;
      }
      return all;
    };
  }

  template <class T>
  Form::Set<T> change(const QString& name, std::function<void(const Show&, Fixture&, T)> set) const {
    return [session = session_, ids = ids_, name, set](T value) {
      session.editWithCare(
          name,
          [&](Show& show) {
            Losses losses;
            for (const FixtureId id : ids) {
              const Losses more =
                  changeFixture(show, id, [&](Fixture& fixture) { set(show, fixture, value); });
              losses.insert(losses.end(), more.begin(), more.end());
            }
            return losses;
          },
          name + QStringLiteral("-field"));
    };
  }

  /// A value of the fixture itself.
  template <class T>
  Form::Set<T> changeFixtures(const QString& name, std::function<void(Fixture&, T)> set) const {
    return change<T>(name, [set](const Show&, Fixture& fixture, T value) { set(fixture, value); });
  }

  /// A value of the chosen segment.
  template <class T>
  Form::Get<T> ofSegment(std::function<T(const Segment&)> value) const {
    return common<T>([value, index = segment_](const Fixture& f) {
      return index < f.segments.size() ? value(f.segments[index]) : T{};
    });
  }
  template <class T>
  Form::Set<T> changeSegment(const QString& name,
                             std::function<void(Segment&, const StripType&, T)> set) const {
    return change<T>(name, [set, index = segment_](const Show& show, Fixture& f, T value) {
      if (index < f.segments.size()) set(f.segments[index], stripTypeOf(show, f), value);
    });
  }

  /// Rows of one member of the segment's shape, which is a `S`.
  template <class S, class Member>
  void number(const QString& key, const QString& label, const Form::Number& range, Member S::*member) {
    form_.addNumber(
        key, label, range,
        ofShape<double, S>([member](const S& s) { return static_cast<double>(s.*member); }),
        changeShape<double, S>(label, [member](S& s, double v) { s.*member = static_cast<Member>(v); }));
  }
  template <class S, class Member>
  void choice(const QString& key, const QString& label, const QStringList& words, Member S::*member) {
    form_.addChoice(
        key, label, words, ofShape<int, S>([member](const S& s) { return static_cast<int>(s.*member); }),
        changeShape<int, S>(label, [member](S& s, int v) { s.*member = static_cast<Member>(v); }));
  }
  template <class S>
  void toggle(const QString& key, const QString& label, bool S::*member) {
    form_.addSwitch(key, label, ofShape<bool, S>([member](const S& s) { return s.*member; }),
                    changeShape<bool, S>(label, [member](S& s, bool v) { s.*member = v; }));
  }

  template <class T, class S>
  Form::Get<T> ofShape(std::function<T(const S&)> value) const {
    return ofSegment<T>([value](const Segment& segment) {
      const auto* shape = std::get_if<S>(&segment.shape);
      return shape ? value(*shape) : T{};
    });
  }
  template <class T, class S>
  Form::Set<T> changeShape(const QString& name, std::function<void(S&, T)> set) const {
    return changeSegment<T>(name, [set](Segment& segment, const StripType&, T value) {
      if (auto* shape = std::get_if<S>(&segment.shape)) set(*shape, value);
    });
  }

 private:
  Form& form_;
  Session session_;
  FixtureIds ids_;
  std::size_t segment_;
};

/// Rows of the shape that the chosen segments have in common.
void addShapeRows(FixtureRows& rows, const Shape& shape);

}  // namespace chispa::desk
