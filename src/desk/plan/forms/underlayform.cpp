// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/edit/planedits.h"
#include "core/show/limits.h"
#include "desk/parts/format.h"
#include "desk/plan/forms/planforms.h"
#include "desk/plan/planview.h"

namespace chispa::desk {

std::unique_ptr<Form> makeUnderlayForm(const Session& session, UnderlayId id, PlanView& plan) {
  auto form = std::make_unique<Form>();
  const auto underlay = [session, id] { return chispa::find(session.show().underlays, id); };
  const auto change = [session, id](const QString& name, std::function<void(Underlay&)> set) {
    session.edit(
        name, [&](Show& show) { changeItem(show.underlays, id, set); }, name + QStringLiteral("-field"));
  };
  const auto number = [&](const QString& key, const QString& label, const Form::Number& range,
                          double Underlay::*member) {
    form->addNumber(
        key, label, range,
        [underlay, member]() -> std::optional<double> { return underlay() ? underlay()->*member : 0; },
        [change, label, member](double v) { change(label, [&](Underlay& u) { u.*member = v; }); });
  };
  form->addTitle(Form::tr("Underlay"), [underlay]() -> std::optional<QString> {
    return underlay() ? text(underlay()->file) : QString();
  });
  form->addText(
      "underlayName", Form::tr("Name"),
      [underlay]() -> std::optional<QString> { return underlay() ? text(underlay()->name) : QString(); },
      [change](QString v) {
        change(Form::tr("rename"), [&](Underlay& u) { u.name = v.trimmed().toStdString(); });
      });
  form->addButton("scaleUnderlay", Form::tr("Scale by two points…"),
                  Form::tr("Drag between two points of the picture, then give their distance"),
                  [&plan] { plan.setTool(PlanTool::Scale); });
  number("underlayScale", Form::tr("Size of a pixel"), {"m", 1e-6, limits::kLargest_m, 0.001, 6},
         &Underlay::scale_m);
  number("underlayTurn", Form::tr("Rotation"), {"°", -360, 360, 1, 1}, &Underlay::turn_deg);
  number("underlayOpacity", Form::tr("Opacity"), {{}, 0, 1, 0.1, 2}, &Underlay::opacity);
  form->addSwitch(
      "underlayVisible", Form::tr("Visible"),
      [underlay]() -> std::optional<bool> { return underlay() && underlay()->isVisible; },
      [change](bool v) { change(Form::tr("visible"), [v](Underlay& u) { u.isVisible = v; }); });
  form->addChoice(
      "underlayFace", Form::tr("Placed against"),
      {Form::tr("the floor"), Form::tr("the front"), Form::tr("the side")},
      [underlay]() -> std::optional<int> { return underlay() ? static_cast<int>(underlay()->face) : 0; },
      [change](int v) {
        change(Form::tr("face of an underlay"), [v](Underlay& u) { u.face = static_cast<UnderlayFace>(v); });
      });
  form->addNote([]() -> std::optional<QString> {
    return Form::tr("Drag it on the plan while it is selected; Delete takes it away.");
  });
  form->addStretch();
  return form;
}

}  // namespace chispa::desk
