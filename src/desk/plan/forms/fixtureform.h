// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/edit/arrange.h"
#include "desk/plan/forms/fixturerows.h"
#include "desk/plan/forms/planforms.h"
#include "desk/plan/planview.h"

namespace chispa::desk {

/// Builds the form from what all selected fixtures have in common. The rows of the chosen segment stand in
/// segmentform.cpp, those of its place in placeform.cpp. UI thread.
class FixtureForm {
 public:
  FixtureForm(Form& form, const Session& session, FixtureIds ids, PlanView& plan)
      : form_(form),
        session_(session),
        ids_(std::move(ids)),
        plan_(plan),
        segment_(session.selection.segment()),
        rows_(form, session, ids_, segment_) {}

  /// Fills the form; once.
  void build();

 private:
  bool isOne() const { return ids_.size() == 1; }
  const Fixture* fixture(FixtureId id) const { return chispa::find(session_.show().fixtures, id); }
  const Fixture& first() const { return *fixture(ids_.front()); }
  std::size_t index() const { return static_cast<std::size_t>(segment_); }

  /// The shape of the chosen segment, if all fixtures have one of its kind there.
  const Shape* commonShape() const;
  void addHead();
  void addSegments();

  /// Any two of pixels, length and pitch give the third.
  void addStripLengths();
  /// An edit that may lose something, which is told first.
  void edit(const QString& name, const std::function<Losses(Show&)>& change) const;
  void addSegmentButtons();
  void addCutting(FixtureId id);
  void addNumbering(FixtureId id);
  /// At the walked pixel, or in the middle.
  void split(FixtureId id) const;
  /// Moves the chosen segment along the data.
  void shift(FixtureId id, int by) const;
  void addPlace();
  Form::Button alignButton(const QString& key, const QString& label, const QString& tip, bool across,
                           Align align);
  Form::Button axisButton(const QString& key, const QString& label, const QString& tip, bool across,
                          void (*change)(Show&, const FixtureIds&, Vec3));
  void addArrange();
  void addRepeat();

  /// Its own dimming curve, where it is not its strip type's.
  void addDimming();
  void addFacts();

  /// Where LEDs do not stand as their reel has them, and what may be done.
  static std::optional<QString> reelText(const Show& show, FixtureId id);

  /// "port 2 of Rim box · universe 2 : 1" of a fixture's first pixel on the wire.
  static QString wiredText(const Show& show, FixtureId id);

  Form& form_;
  Session session_;
  FixtureIds ids_;
  PlanView& plan_;
  int segment_;
  FixtureRows rows_;
};

}  // namespace chispa::desk
