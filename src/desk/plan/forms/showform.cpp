// SPDX-License-Identifier: GPL-3.0-or-later
#include <algorithm>

#include <QListWidget>
#include <QMenu>
#include <QToolButton>

#include "core/check/cutlist.h"
#include "core/edit/planedits.h"
#include "core/files/striplibrary.h"
#include "core/wire/patch.h"
#include "core/wire/power.h"
#include "desk/parts/cuttext.h"
#include "desk/parts/format.h"
#include "desk/parts/language.h"
#include "desk/parts/named.h"
#include "desk/plan/forms/planforms.h"
#include "desk/plan/stripkindsdialog.h"
#include "desk/wire/powerforms.h"
#include "link/userfolders.h"

namespace chispa::desk {

namespace {

/// All strip types with how often each is used; a click opens one, and those that are kept for all shows can
/// be taken into this one.
void addStripTypes(Form& form, const Session& session) {
  form.addHeading(Form::tr("Strip types"));
  auto* list = named(new QListWidget, "stripTypes", Form::tr("Strip types"),
                     Form::tr("What fixtures are made of; Enter or a click opens one"));
  list->setMaximumHeight(120);
  const auto open = [session](const QListWidgetItem* item) {
    session.selection.select(StripTypeId{item->data(Qt::UserRole).toUInt()});
  };
  QObject::connect(list, &QListWidget::itemClicked, list, open);
  QObject::connect(list, &QListWidget::itemActivated, list, open);
  form.addWidget(list, [session, list] {
    const QSignalBlocker quiet(list);
    list->clear();
    const auto& fixtures = session.show().fixtures;
    for (const auto& strip : session.show().stripTypes) {
      const auto used = std::count_if(fixtures.begin(), fixtures.end(),
                                      [&](const auto& f) { return f->stripType == strip->id; });
      auto* row = new QListWidgetItem(QStringLiteral("%1 · %2 · %3")
                                          .arg(text(strip->name), text(strip->order),
                                               counted(used, Form::tr("1 fixture"), Form::tr("%1 fixtures"))),
                                      list);
      row->setData(Qt::UserRole, strip->id.value);
    }
  });
  auto* own = named(new QToolButton, "ownStrips", Form::tr("Add one of your own"),
                    Form::tr("Strip types that you keep for all shows"));
  own->setText(Form::tr("From my strip types"));
  own->setMenu(new QMenu(own));
  own->setPopupMode(QToolButton::InstantPopup);
  QObject::connect(own->menu(), &QMenu::aboutToShow, own, [session, own] {
    own->menu()->clear();
    const auto kept = StripLibrary(link::stripLibraryFile()).read();
    if (!kept || kept->empty()) {
      own->menu()
          ->addAction(kept ? Form::tr("Nothing was kept yet") : said(kept.failure().what))
          ->setEnabled(false);
      return;
    }
    for (const StripType& strip : *kept)
      own->menu()->addAction(text(strip.name), own, [session, strip] {
        StripTypeId made;
        session.edit(Form::tr("add a strip type"), [&](Show& show) { made = takeStripType(show, strip); });
        session.selection.select(made);
      });
  });
  form.addWidget(own);
  form.addButton(QStringLiteral("stripLibrary"), Form::tr("Kinds of strip…"),
                 Form::tr("Common strips with their volts, currents and colours, to be searched"),
                 [session, &form] {
                   auto* dialog = new StripKindsDialog(session, form.window());
                   dialog->setAttribute(Qt::WA_DeleteOnClose);
                   dialog->open();
                 });
}

/// What fades and the master go evenly in.
void addFades(Form& form, const Session& session) {
  form.addHeading(Form::tr("Fades and the master"));
  form.addChoice(
      "fadesEven", Form::tr("Even"), {Form::tr("to the eye"), Form::tr("in light")},
      [session]() -> std::optional<int> { return static_cast<int>(session.show().light.fades); },
      [session](int v) {
        session.edit(Form::tr("course of fades"),
                     [v](Show& show) { show.light.fades = static_cast<Evenness>(v); });
      });
  form.addNote([session]() -> std::optional<QString> {
    return session.show().light.fades == Evenness::ToTheEye
               ? Form::tr("Half way, a fade looks half as bright; the master too. That is 18 % of the light.")
               : Form::tr("Half way, half the light is there. It looks three quarters as bright.");
  });
}

/// What is set for every port of every controller in one go.
void addAllPorts(Form& form, const Session& session) {
  if (session.show().controllers.empty()) return;
  form.addHeading(Form::tr("All ports of all controllers"));
  form.addNumber(
      "allBrightness", Form::tr("Brightness"), {"%", 0, 100, 5, 0},
      [session]() -> std::optional<double> {
        std::optional<double> common;
        for (const auto& controller : session.show().controllers)
          for (const Port& port : controller->ports) {
            const double own = port.settings.brightness.value_or(1) * 100;
            if (common && *common != own) return std::nullopt;
            common = own;
          }
        return common;
      },
      [session](double percent) {
        session.edit(
            Form::tr("brightness of all ports"),
            [percent](Show& show) {
              for (const auto& controller : std::vector(show.controllers.begin(), show.controllers.end()))
                changeItem(show.controllers, controller->id, [percent](Controller& c) {
                  for (Port& port : c.ports) port.settings.brightness = percent / 100;
                });
            },
            QStringLiteral("all-brightness"));
      });
}

}  // namespace

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
    return QStringLiteral("%L1").arg(session.show().fixtures.size());
  });
  form->addFact(Form::tr("Pixels"), [session]() -> std::optional<QString> {
    return QStringLiteral("%L1").arg(pixelCount(session.show()));
  });
  form->addFact(Form::tr("Zones"), [session]() -> std::optional<QString> {
    return QStringLiteral("%L1").arg(session.show().zones.size());
  });
  form->addFact(Form::tr("Universes"), [session]() -> std::optional<QString> {
    return QStringLiteral("%L1").arg(derivePatch(session.show()).universes.size());
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
      lines << Form::tr("%1 (%2)").arg(cutText(piece), strip ? text(strip->name) : QString());
    }
    return lines.join(QLatin1Char('\n'));
  });
  addStripTypes(*form, session);
  addFades(*form, session);
  addSupplies(*form, session);
  addAllPorts(*form, session);
  form->addStretch();
  return form;
}

}  // namespace chispa::desk
