// SPDX-License-Identifier: GPL-3.0-or-later
#include <QListWidget>

#include "core/edit/lookedits.h"
#include "core/edit/planedits.h"
#include "core/effect/effect.h"
#include "desk/parts/format.h"
#include "desk/parts/language.h"
#include "desk/parts/named.h"
#include "desk/run/itemrows.h"
#include "desk/run/runforms.h"

namespace chispa::desk {
namespace {

using LookRows = ItemRows<Look, LookId>;

/// The step that the inspector speaks of.
std::size_t stepOf(const Session& session, const Look& look) {
  return std::min(static_cast<std::size_t>(std::max(0, session.selection.segment())), look.steps.size() - 1);
}

/// A time of that step.
void addStepTime(Form& form, const LookRows& rows, const Session& session, const QString& key,
                 const QString& label, Micros LookStep::*member) {
  form.addNumber(key, label, {"s", 0, 3'600, 0.1, 2}, rows.get<double>([session, member](const Look& look) {
    return seconds(look.steps[stepOf(session, look)].*member);
  }),
                 rows.set<double>(label, [session, member](Look& look, double v) {
                   look.steps[stepOf(session, look)].*member = micros(v);
                 }));
}

void addPad(Form& form, const LookRows& rows) {
  form.addHeading(Form::tr("Pad"));
  QStringList keys{Form::tr("none")};
  for (const std::string& key : padKeys()) keys << text(key);
  form.addChoice("lookKey", Form::tr("Key"), keys, rows.get<int>([](const Look& look) {
    const auto& all = padKeys();
    const auto found = std::find(all.begin(), all.end(), look.key);
    return found == all.end() ? 0 : static_cast<int>(found - all.begin()) + 1;
  }),
                 rows.set<int>(Form::tr("key"), [](Look& look, int v) {
                   look.key = v <= 0 ? std::string() : padKeys().at(static_cast<std::size_t>(v) - 1);
                 }));
  form.addChoice(
      "lookMode", Form::tr("A press"),
      {Form::tr("hold"), Form::tr("toggle"), Form::tr("flash"), Form::tr("only this")},
      rows.get<int>([](const Look& look) { return static_cast<int>(look.mode); }),
      rows.set<int>(Form::tr("pad"), [](Look& look, int v) { look.mode = static_cast<PadMode>(v); }));
  form.addNumber("lookLevel", Form::tr("Level"), {"%", 0, 100, 5, 0},
                 rows.get<double>([](const Look& look) { return look.level * 100; }),
                 rows.set<double>(Form::tr("level"), [](Look& look, double v) { look.level = v / 100; }));
  const auto time = [&](const char* key, const QString& label, Micros Look::*member) {
    form.addNumber(QLatin1String(key), label, {"s", 0, 600, 0.1, 2},
                   rows.get<double>([member](const Look& look) { return seconds(look.*member); }),
                   rows.set<double>(label, [member](Look& look, double v) { look.*member = micros(v); }));
  };
  time("lookFadeIn", Form::tr("Fade in"), &Look::fadeIn);
  time("lookFadeOut", Form::tr("Fade out"), &Look::fadeOut);
  form.addChoice("lookFades", Form::tr("Fades"),
                 {Form::tr("linear"), Form::tr("smooth"), Form::tr("ease in"), Form::tr("ease out")},
                 rows.get<int>([](const Look& look) { return static_cast<int>(look.fadeShape); }),
                 rows.set<int>(Form::tr("fades"),
                               [](Look& look, int v) { look.fadeShape = static_cast<FadeShape>(v); }));
}

void addSteps(Form& form, const LookRows& rows, const Session& session, LookId id) {
  form.addHeading(Form::tr("Steps"));
  const Look* own = chispa::find(session.show().looks, id);
  if (own->hasSteps()) {
    QStringList names;
    for (std::size_t i = 0; i < own->steps.size(); ++i)
      names << Form::tr("step %1 of %2").arg(i + 1).arg(own->steps.size());
    form.addChoice("lookStep", Form::tr("Edited"), names, rows.get<int>([session](const Look& look) {
      return static_cast<int>(stepOf(session, look));
    }),
                   [session](int v) { session.selection.chooseSegment(v); });
    addStepTime(form, rows, session, "stepHold", Form::tr("Hold"), &LookStep::hold);
    addStepTime(form, rows, session, "stepFade", Form::tr("Fade into it"), &LookStep::fade);
  }
  std::vector<Form::Button> buttons;
  buttons.push_back(
      {"addStep", Form::tr("Add step"), Form::tr("Adds a step like this one behind it"), [session, id] {
         const Look* look = chispa::find(session.show().looks, id);
         if (!look) return;
         const std::size_t step = stepOf(session, *look);
         session.edit(Form::tr("add a step"), [=](Show& show) { addStep(show, id, step); });
         session.selection.chooseSegment(static_cast<int>(step) + 1);
       }});
  if (own->hasSteps())
    buttons.push_back(
        {"deleteStep", Form::tr("Delete step"), Form::tr("Deletes the step that is edited"), [session, id] {
           const Look* look = chispa::find(session.show().looks, id);
           if (!look) return;
           const std::size_t step = stepOf(session, *look);
           session.edit(Form::tr("delete a step"), [=](Show& show) { deleteStep(show, id, step); });
         }});
  form.addButtons(buttons);
  if (!own->hasSteps()) return;
  form.addNumber(
      "lookRounds", Form::tr("Rounds"), {Form::tr("0 = for ever"), 0, 10'000, 1, 0},
      rows.get<double>([](const Look& look) { return look.rounds; }),
      rows.set<double>(Form::tr("rounds"), [](Look& look, double v) { look.rounds = static_cast<int>(v); }));
  form.addSwitch("lookFirstFades", Form::tr("First step fades in again"),
                 rows.get<bool>([](const Look& look) { return look.firstFades; }),
                 rows.set<bool>(Form::tr("first fade"), [](Look& look, bool v) { look.firstFades = v; }));
  form.addChoice(
      "lookEnd", Form::tr("Then"),
      {Form::tr("the last step stays"), Form::tr("another look"), Form::tr("back to what was lit")},
      rows.get<int>([](const Look& look) { return static_cast<int>(look.end); }),
      rows.set<int>(Form::tr("what follows"), [](Look& look, int v) { look.end = static_cast<LookEnd>(v); }));
  if (own->end != LookEnd::GoOn) return;
  Items<Look> others = session.show().looks;
  remove(others, id);
  const NamedItems<Look> looks(others);
  form.addChoice(
      "lookNext", Form::tr("Which"), looks.names,
      rows.get<int>([looks](const Look& look) { return looks.placeOf(look.next); }),
      rows.set<int>(Form::tr("what follows"), [looks](Look& look, int v) { look.next = looks.idAt(v); }));
}

void addLayerChoice(Form& form, const Session& session, LookId id) {
  QStringList zones{Form::tr("Add one on …")};
  std::vector<ZoneId> ids;
  for (const auto& zone : session.show().zones) {
    zones << text(zone->name);
    ids.push_back(zone->id);
  }
  form.addChoice(
      "addLayerOn", Form::tr("Add layer"), zones, [] { return std::optional(0); },
      [session, id, ids](int v) {
        if (v <= 0) return;
        const Look* look = chispa::find(session.show().looks, id);
        if (!look) return;
        const std::size_t step = stepOf(session, *look);
        const auto& palettes = session.show().palettes;
        session.edit(Form::tr("add a layer"), [&](Show& show) {
          addLayer(show, id, step, ids.at(static_cast<std::size_t>(v) - 1), "comets",
                   palettes.empty() ? PaletteId{} : palettes.front()->id);
        });
      });
}

/// The layers of the step, the top one first; Enter or a double click opens one.
void addLayers(Form& form, const Session& session, LookId id) {
  form.addHeading(Form::tr("Layers"));
  auto* list = named(new QListWidget, "lookLayers", Form::tr("Layers"),
                     Form::tr("The top one first. Double click one to change it; Delete removes it"));
  const auto fill = [session, id, list] {
    const Look* look = chispa::find(session.show().looks, id);
    if (!look) return;
    const QSignalBlocker quiet(list);
    const int row = list->currentRow();
    list->clear();
    const auto& layers = look->steps[stepOf(session, *look)].layers;
    for (auto layer = layers.rbegin(); layer != layers.rend(); ++layer) {
      const Zone* zone = chispa::find(session.show().zones, (*layer)->zone);
      const Effect* effect = findEffect((*layer)->effect);
      auto* item = new QListWidgetItem(Form::tr("%1 on %2")
                                           .arg(effect ? said(effect->name) : text((*layer)->effect),
                                                zone ? text(zone->name) : QStringLiteral("?")));
      item->setData(Qt::UserRole, (*layer)->id.value);
      list->addItem(item);
    }
    list->setCurrentRow(std::min(row, list->count() - 1));
    list->setFixedHeight(
        std::clamp(list->count(), 2, 7) * (list->sizeHintForRow(0) > 0 ? list->sizeHintForRow(0) : 24) + 6);
  };
  QObject::connect(list, &QListWidget::itemActivated, &form, [session, id](QListWidgetItem* item) {
    session.selection.select(LayerChoice{id, ClipId{item->data(Qt::UserRole).toUInt()}});
  });
  form.addWidget(list, fill);
  fill();
  const auto chosen = [list]() -> ClipId {
    const QListWidgetItem* item = list->currentItem();
    return item ? ClipId{item->data(Qt::UserRole).toUInt()} : ClipId{};
  };
  form.addButtons(
      {{"openLayer", Form::tr("Edit"), Form::tr("Effect, palette and all that the layer can be told"),
        [session, id, chosen] {
          if (const ClipId layer = chosen()) session.selection.select(LayerChoice{id, layer});
        }},
       {"deleteLayer", Form::tr("Delete"), Form::tr("Removes the layer from the look"),
        [session, id, chosen] {
          const ClipId layer = chosen();
          session.edit(Form::tr("delete a layer"), [=](Show& show) { deleteLayer(show, id, layer); });
        }}});
  addLayerChoice(form, session, id);
}

}  // namespace

std::unique_ptr<Form> makeLookForm(const Session& session, LookId id) {
  auto form = std::make_unique<Form>();
  const LookRows rows(session, &Show::looks, id);
  form->addTitle(Form::tr("Look"), rows.get<QString>([](const Look& look) {
    return look.hasSteps()
               ? Form::tr("%1 steps, %2 a round").arg(look.steps.size()).arg(timeText(roundOf(look)))
               : Form::tr("lit until it is ended");
  }));
  form->addText("lookName", Form::tr("Name"),
                rows.get<QString>([](const Look& look) { return text(look.name); }),
                rows.set<QString>(Form::tr("rename a look"),
                                  [](Look& look, QString v) { look.name = v.toStdString(); }));
  addLayers(*form, session, id);
  addPad(*form, rows);
  addSteps(*form, rows, session, id);
  form->addStretch();
  return form;
}

QString lookFormKey(const Session& session, LookId id) {
  const Look* look = chispa::find(session.show().looks, id);
  if (!look) return {};
  QString key = QStringLiteral("%1/%2/").arg(look->steps.size()).arg(static_cast<int>(look->end));
  for (const auto& one : session.show().looks) key += text(one->name) + QLatin1Char('|');
  for (const auto& zone : session.show().zones) key += text(zone->name) + QLatin1Char('|');
  return key;
}

}  // namespace chispa::desk
