// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/show/cutlist.h"
#include "core/wire/patch.h"
#include "core/wire/power.h"
#include "desk/parts/format.h"
#include "desk/plan/forms/planforms.h"
#include "desk/wire/powerforms.h"

namespace chispa::desk {

std::unique_ptr<Form> makeShowForm(const Session& session) {
  auto form = std::make_unique<Form>();
  form->addTitle(Form::tr("Show"), []() -> std::optional<QString> {
    return Form::tr("Select something to see its properties.");
  });
  form->addText(
      "showName", Form::tr("Name"),
      [session]() -> std::optional<QString> { return text(session.show().name); },
      [session](QString v) {
        session.edit(Form::tr("rename"), [&](Show& show) { show.name = v.toStdString(); });
      });
  form->addFact(Form::tr("Fixtures"), [session]() -> std::optional<QString> {
    return QString::number(session.show().fixtures.size());
  });
  form->addFact(Form::tr("Pixels"), [session]() -> std::optional<QString> {
    return QString::number(pixelCount(session.show()));
  });
  form->addFact(Form::tr("Zones"), [session]() -> std::optional<QString> {
    return QString::number(session.show().zones.size());
  });
  form->addFact(Form::tr("Universes"), [session]() -> std::optional<QString> {
    return QString::number(derivePatch(session.show()).universes.size());
  });
  form->addHeading(Form::tr("At full white"));
  form->addNote([session]() -> std::optional<QString> {
    QStringList rails;
    for (const auto& [volts, amps] : fullWhiteAmps(session.show()))
      rails << Form::tr("%1 at %2 V").arg(ampsText(amps)).arg(volts);
    return rails.join(QLatin1Char('\n'));
  });
  form->addHeading(Form::tr("To cut"));
  form->addNote([session]() -> std::optional<QString> {
    QStringList lines;
    for (const CutPiece& piece : cutList(session.show())) {
      const StripType* strip = chispa::find(session.show().stripTypes, piece.stripType);
      lines << Form::tr("%1 × %2, %3 px (%4)")
                   .arg(piece.count)
                   .arg(lengthText(piece.length_m))
                   .arg(piece.pixels)
                   .arg(strip ? text(strip->name) : QString());
    }
    return lines.join(QLatin1Char('\n'));
  });
  addSupplies(*form, session);
  form->addStretch();
  return form;
}

}  // namespace chispa::desk
