// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/plan/forms/fixtureform.h"

#include <algorithm>

#include "core/check/cutlist.h"
#include "core/edit/planedits.h"
#include "core/wire/current.h"
#include "core/wire/patch.h"
#include "desk/parts/format.h"
#include "desk/parts/responsefields.h"

namespace chispa::desk {

void FixtureForm::build() {
  addHead();
  addSegments();
  if (const Shape* shape = commonShape()) {
    addStripLengths();
    addShapeRows(rows_, *shape);
  }
  if (isOne()) addSegmentButtons();
  addPlace();
  if (!isOne()) addArrange();
  addRepeat();
  addDimming();
  addFacts();
  form_.addStretch();
}

const Shape* FixtureForm::commonShape() const {
  const Fixture& model = first();
  if (index() >= model.segments.size()) return nullptr;
  const bool same = std::all_of(ids_.begin(), ids_.end(), [&](FixtureId id) {
    const auto& segments = fixture(id)->segments;
    return index() < segments.size() &&
           segments[index()].shape.index() == model.segments[index()].shape.index();
  });
  return same ? &model.segments[index()].shape : nullptr;
}

void FixtureForm::addHead() {
  form_.addTitle(isOne() ? Form::tr("Fixture") : Form::tr("%1 fixtures").arg(ids_.size()),
                 [session = session_, ids = ids_]() -> std::optional<QString> {
                   int pixels = 0;
                   for (const FixtureId id : ids)
                     if (const Fixture* f = chispa::find(session.show().fixtures, id))
                       pixels += pixelCount(*f);
                   return counted(pixels, Form::tr("one pixel"), Form::tr("%1 pixels"));
                 });
  if (isOne())
    form_.addText("fixtureName", Form::tr("Name"),
                  rows_.common<QString>([](const Fixture& f) { return text(f.name); }),
                  rows_.changeFixtures<QString>(Form::tr("rename"), [](Fixture& f, QString v) {
                    if (!v.trimmed().isEmpty()) f.name = v.trimmed().toStdString();
                  }));
  QStringList names;
  std::vector<StripTypeId> types;
  for (const auto& strip : session_.show().stripTypes) {
    names << QStringLiteral("%1 · %2").arg(text(strip->name), text(strip->order));
    types.push_back(strip->id);
  }
  form_.addChoice("stripType", Form::tr("Strip type"), names, rows_.common<int>([types](const Fixture& f) {
    return static_cast<int>(std::find(types.begin(), types.end(), f.stripType) - types.begin());
  }),
                  rows_.changeFixtures<int>(Form::tr("strip type"), [types](Fixture& f, int i) {
                    f.stripType = types.at(static_cast<std::size_t>(i));
                  }));
  form_.addButtons(
      {{"editStrip", Form::tr("Edit strip type…"),
        Form::tr("Colour order, pixels per metre, volts, current and cuts of this strip type"),
        [session = session_, id = ids_.front()] {
          if (const Fixture* f = chispa::find(session.show().fixtures, id))
            session.selection.select(f->stripType);
        }},
       {"newStrip", Form::tr("New type"), Form::tr("A new strip type for what is selected, to be described"),
        [session = session_, ids = ids_] {
          StripTypeId made;
          session.edit(Form::tr("new strip type"), [&](Show& show) { made = addStripType(show, ids); });
          session.selection.select(made);
        }}});
}

void FixtureForm::edit(const QString& name, const std::function<Losses(Show&)>& change) const {
  session_.editWithCare(name, change);
}

void FixtureForm::addDimming() {
  form_.addHeading(Form::tr("Dimming"));
  const auto get = rows_.common<std::optional<Response>>([](const Fixture& f) { return f.response; });
  const auto change = rows_.changeFixtures<std::optional<Response>>(
      Form::tr("dimming curve"), [](Fixture& f, const std::optional<Response>& own) { f.response = own; });
  addOwnResponse(form_, QStringLiteral("fixture"),
                 {[get] { return get().value_or(std::nullopt); },
                  [change](const QString&, const std::optional<Response>& own) { change(own); },
                  [session = session_] { session.document.seal(); },
                  [session = session_, id = ids_.front()] {
                    const Fixture* f = chispa::find(session.show().fixtures, id);
                    return f ? stripTypeOf(session.show(), *f).response : Response{};
                  }});
  form_.addNote([]() -> std::optional<QString> {
    return Form::tr("Blank: inherited from the strip type. A port's or bead's own curve overrides it.");
  });
}

void FixtureForm::addFacts() {
  form_.addHeading(Form::tr("On the wire"));
  if (isOne())
    form_.addNote([session = session_, id = ids_.front()]() -> std::optional<QString> {
      return wiredText(session.show(), id);
    });
  if (isOne())
    form_.addNote([session = session_, id = ids_.front()]() -> std::optional<QString> {
      return reelText(session.show(), id);
    });
  form_.addFact(Form::tr("Strip needed"), [session = session_, ids = ids_]() -> std::optional<QString> {
    double metres = 0;
    for (const FixtureId id : ids)
      if (const Fixture* f = chispa::find(session.show().fixtures, id)) metres += stripLength_m(*f);
    return lengthText(metres);
  });
  form_.addFact(Form::tr("At full white"), [session = session_, ids = ids_]() -> std::optional<QString> {
    double amps = 0;
    for (const FixtureId id : ids)
      if (const Fixture* f = chispa::find(session.show().fixtures, id))
        amps += fullWhite_a(stripTypeOf(session.show(), *f), pixelCount(*f));
    return ampsText(amps);
  });
}

std::optional<QString> FixtureForm::reelText(const Show& show, FixtureId id) {
  const Fixture* fixture = chispa::find(show.fixtures, id);
  const auto off = fixture ? offReel(show, *fixture) : std::nullopt;
  if (!off) return std::nullopt;
  const StripType& strip = stripTypeOf(show, *fixture);
  return Form::tr(
             "⚠ %1 pixels on %2, but “%3” has them on %4. Give it a strip type of %5 pixels per metre, or "
             "%6 pixels; or cut the strip and put wire between, and say so in its type (single, with wire "
             "between).")
      .arg(off->pixels)
      .arg(lengthText(off->length_m), text(strip.name), lengthText(off->reel_m))
      .arg(QString::number(off->pixels / off->length_m, 'g', 4))
      .arg(off->fits);
}

QString FixtureForm::wiredText(const Show& show, FixtureId id) {
  for (const PatchSpan& span : derivePatch(show).spans)
    if (span.fixture == id) {
      const Controller& controller = *show.controllers[static_cast<std::size_t>(span.controller)];
      return Form::tr("%1, port %2 · %3")
          .arg(text(controller.name))
          .arg(span.port + 1)
          .arg(text(addressText(controller.protocol, span.universe, span.channel)));
    }
  return Form::tr("not wired yet");
}

std::unique_ptr<Form> makeFixtureForm(const Session& session, const FixtureIds& ids, PlanView& plan) {
  auto form = std::make_unique<Form>();
  FixtureForm(*form, session, ids, plan).build();
  return form;
}

QString fixtureFormKey(const Session& session, const FixtureIds& ids) {
  QString key =
      QStringLiteral("%1/%2").arg(session.show().stripTypes.size()).arg(session.selection.segment());
  for (const FixtureId id : ids) {
    const Fixture* f = chispa::find(session.show().fixtures, id);
    for (const Segment& segment : f ? f->segments : std::vector<Segment>{})
      key += QChar(static_cast<char16_t>(u'a' + segment.shape.index()));
    if (f && ids.size() == 1)
      key += QString::number(pixelCount(*f)) +
             QString::fromStdString(f->segments.size() > 1 ? f->segments.back().name : std::string());
  }
  return key;
}

}  // namespace chispa::desk
