// SPDX-License-Identifier: GPL-3.0-or-later
// The rows of the fixture's form about where it stands: place, arranging, repeating.
#include "core/edit/segmentedits.h"
#include "core/show/limits.h"
#include "desk/parts/format.h"
#include "desk/plan/forms/fixtureform.h"

namespace chispa::desk {

void FixtureForm::addPlace() {
  const Form::Number metres{"m", -limits::kLargest_m, limits::kLargest_m, 0.05, 3};
  const Form::Number turn{"°", -360, 360, 5, 2};
  const std::pair<QString, double Vec3::*> axes[] = {{"X", &Vec3::x}, {"Y", &Vec3::y}, {"Z", &Vec3::z}};
  if (first().segments.size() > 1) {
    form_.addHeading(Form::tr("The segment's place in the fixture"));
    for (const auto& [name, axis] : axes)
      form_.addNumber(
          "segment" + name, name.toLower(), metres,
          rows_.ofSegment<double>([axis = axis](const Segment& s) { return s.place.position_m.*axis; }),
          rows_.changeSegment<double>(
              Form::tr("place of a segment"),
              [axis = axis](Segment& s, const StripType&, double v) { s.place.position_m.*axis = v; }));
    for (const auto& [name, axis] : axes)
      form_.addNumber(
          "segmentTurn" + name, Form::tr("Rotation about %1").arg(name.toLower()), turn,
          rows_.ofSegment<double>([axis = axis](const Segment& s) { return s.place.rotation_deg.*axis; }),
          rows_.changeSegment<double>(
              Form::tr("turn of a segment"),
              [axis = axis](Segment& s, const StripType&, double v) { s.place.rotation_deg.*axis = v; }));
  }
  form_.addHeading(Form::tr("Place"));
  const QString labels[] = {Form::tr("Across (x)"), Form::tr("Away (y)"), Form::tr("Height (z)")};
  for (int i = 0; i < 3; ++i) {
    const auto [name, axis] = axes[i];
    form_.addNumber(
        "position" + name, labels[i], metres,
        rows_.common<double>([axis = axis](const Fixture& f) { return f.place.position_m.*axis; }),
        rows_.changeFixtures<double>(labels[i],
                                     [axis = axis](Fixture& f, double v) { f.place.position_m.*axis = v; }));
  }
  for (const auto& [name, axis] : axes) {
    const QString label = Form::tr("Rotation about %1").arg(name.toLower());
    form_.addNumber("rotation" + name, label, turn, rows_.common<double>([axis = axis](const Fixture& f) {
      return f.place.rotation_deg.*axis;
    }),
                    rows_.changeFixtures<double>(
                        label, [axis = axis](Fixture& f, double v) { f.place.rotation_deg.*axis = v; }));
  }
  form_.addText("fixtureGroup", Form::tr("Group"),
                rows_.common<QString>([](const Fixture& f) { return text(f.group); }),
                rows_.changeFixtures<QString>(
                    Form::tr("group"), [](Fixture& f, QString v) { f.group = v.trimmed().toStdString(); }));
}

Form::Button FixtureForm::alignButton(const QString& key, const QString& label, const QString& tip,
                                      bool across, Align align) {
  return {key, label, tip, [session = session_, ids = ids_, &plan = plan_, tip, across, align] {
            const Vec3 axis = across ? plan.projection().right() : plan.projection().up();
            session.edit(tip, [&](Show& show) { alignFixtures(show, ids, axis, align); });
          }};
}

Form::Button FixtureForm::axisButton(const QString& key, const QString& label, const QString& tip,
                                     bool across, void (*change)(Show&, const FixtureIds&, Vec3)) {
  return {key, label, tip, [session = session_, ids = ids_, &plan = plan_, tip, across, change] {
            const Vec3 axis = across ? plan.projection().right() : plan.projection().up();
            session.edit(tip, [&](Show& show) { change(show, ids, axis); });
          }};
}

void FixtureForm::addArrange() {
  form_.addHeading(Form::tr("Arrange, as seen on the plan"));
  form_.addButtons(
      {alignButton("alignLeft", Form::tr("Left"), Form::tr("Left ends in line"), true, Align::Low),
       alignButton("alignCentre", Form::tr("Middle"), Form::tr("Middles in line, one above the other"), true,
                   Align::Middle),
       alignButton("alignRight", Form::tr("Right"), Form::tr("Right ends in line"), true, Align::High)});
  form_.addButtons(
      {alignButton("alignBottom", Form::tr("Bottom"), Form::tr("Lower ends in line"), false, Align::Low),
       alignButton("alignLevel", Form::tr("Level"), Form::tr("Middles in line, side by side"), false,
                   Align::Middle),
       alignButton("alignTop", Form::tr("Top"), Form::tr("Upper ends in line"), false, Align::High)});
  form_.addButtons(
      {axisButton("distributeAcross", Form::tr("Spread ↔"),
                  Form::tr("Middles at equal distances from left to right"), true, distributeFixtures),
       axisButton("distributeUp", Form::tr("Spread ↕"),
                  Form::tr("Middles at equal distances from bottom to top"), false, distributeFixtures)});
  form_.addButtons({{"joinFixtures", Form::tr("Merge into one"),
                     Form::tr("Data runs through them in the order in which they are selected"),
                     [session = session_, ids = ids_] {
                       session.edit(Form::tr("join fixtures"), [&](Show& show) { joinFixtures(show, ids); });
                       session.selection.select(FixtureIds{ids.front()});
                     }}});
}

void FixtureForm::addRepeat() {
  struct Repeat {
    double count = 12;
    double first_deg = 0;
    double sweep_deg = 360;
    double step_m = 0.5;
  };
  auto repeat = std::make_shared<Repeat>();
  const auto field = [&](const QString& key, const QString& label, const Form::Number& range,
                         double Repeat::*member) {
    form_.addNumber(
        key, label, range, [repeat, member]() -> std::optional<double> { return (*repeat).*member; },
        [repeat, member](double v) { (*repeat).*member = v; });
  };
  form_.addHeading(Form::tr("Repeat"));
  field("repeatCount", Form::tr("Total count"), {{}, 2, 500, 1, 0}, &Repeat::count);
  field("repeatFirst", Form::tr("Start angle"), {"°", -360, 360, 15, 2}, &Repeat::first_deg);
  field("repeatSweep", Form::tr("Sweep"), {"°", -360, 360, 15, 1}, &Repeat::sweep_deg);
  field("repeatStep", Form::tr("Spacing"), {"m", -100, 100, 0.1, 3}, &Repeat::step_m);
  form_.addButtons(
      {{"repeatAround", Form::tr("Around the origin"), Form::tr("Copies around the plan's origin"),
        [session = session_, ids = ids_, repeat] {
          session.edit(Form::tr("repeat around"), [&](Show& show) {
            turnAround(show, ids, {}, repeat->first_deg);
            duplicateAround(show, ids, static_cast<int>(repeat->count), {}, repeat->sweep_deg);
          });
        }},
       {"repeatRow", Form::tr("In a row"), Form::tr("Copies to the right, as seen on the plan"),
        [session = session_, ids = ids_, repeat, &plan = plan_] {
          session.edit(Form::tr("repeat in a row"), [&](Show& show) {
            duplicateInRow(show, ids, static_cast<int>(repeat->count),
                           plan.projection().right() * repeat->step_m);
          });
        }}});
  form_.addButtons(
      {axisButton("mirrorAcross", Form::tr("Mirror ↔"), Form::tr("Left becomes right"), true, mirrorFixtures),
       axisButton("mirrorUp", Form::tr("Mirror ↕"), Form::tr("Bottom becomes top"), false, mirrorFixtures)});
  if (isOne() && first().segments.size() > 1)
    form_.addButton("separateSegments", Form::tr("A fixture for each segment"),
                    Form::tr("Zones and wiring keep their pixels"), [session = session_, id = ids_.front()] {
                      session.edit(Form::tr("separate segments"),
                                   [&](Show& show) { separateSegments(show, id); });
                    });
}

}  // namespace chispa::desk
