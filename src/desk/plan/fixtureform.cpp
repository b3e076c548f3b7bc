// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/plan/fixtureform.h"

#include <QRegularExpression>

#include "core/edit/planedits.h"
#include "core/edit/strip.h"
#include "core/edit/zoneedits.h"
#include "core/show/limits.h"
#include "core/wire/current.h"
#include "core/wire/patch.h"
#include "core/wire/power.h"
#include "desk/parts/format.h"

namespace chispa::desk {
namespace {

/// Rows over several fixtures at once: a value that all have in common, and a change made to all.
class FixtureRows {
 public:
  FixtureRows(Form& form, const Session& session, FixtureIds ids) : form_(form), session_(session), ids_(std::move(ids)) {}

  template <class T>
  Form::Get<T> common(std::function<T(const Fixture&)> value) const {
    return [session = session_, ids = ids_, value]() -> std::optional<T> {
      std::optional<T> all;
      for (const FixtureId id : ids) {
        const Fixture* fixture = chispa::find(session.show().fixtures, id);
        if (!fixture) continue;
        const T one = value(*fixture);
        if (all && *all != one) return std::nullopt;
        all = one;
      }
      return all;
    };
  }

  template <class T>
  Form::Set<T> change(const QString& name, std::function<void(Fixture&, T)> set) const {
    return [session = session_, ids = ids_, name, set](T value) {
      session.edit(name, [&](Show& show) {
        for (const FixtureId id : ids) changeFixture(show, id, [&](Fixture& fixture) { set(fixture, value); });
      }, name + QStringLiteral("-field"));
    };
  }

  void number(const QString& key, const QString& label, const Form::Number& range, std::function<double(const Fixture&)> get,
              std::function<void(Fixture&, double)> set) {
    form_.addNumber(key, label, range, common<double>(std::move(get)), change<double>(label, std::move(set)));
  }

  /// A number of the first segment's shape, if that is a `S`.
  template <class S, class Member>
  void shapeNumber(const QString& key, const QString& label, const Form::Number& range, Member S::*member) {
    number(key, label, range,
           [member](const Fixture& f) { const auto* s = std::get_if<S>(&f.segments[0].shape); return s ? static_cast<double>(s->*member) : 0; },
           [member](Fixture& f, double v) { if (auto* s = std::get_if<S>(&f.segments[0].shape)) s->*member = static_cast<Member>(v); });
  }

  Form& form() { return form_; }

 private:
  Form& form_;
  Session session_;
  FixtureIds ids_;
};

void addStripRows(FixtureRows& rows, const Session& session) {
  QStringList names;
  std::vector<StripTypeId> types;
  for (const auto& strip : session.show().stripTypes) {
    names << QStringLiteral("%1 · %2").arg(text(strip->name), text(strip->order));
    types.push_back(strip->id);
  }
  rows.form().addChoice("stripType", Form::tr("Strip type"), names,
                        rows.common<int>([types](const Fixture& f) {
                          return static_cast<int>(std::find(types.begin(), types.end(), f.stripType) - types.begin());
                        }),
                        rows.change<int>(Form::tr("strip type"), [types](Fixture& f, int i) { f.stripType = types.at(static_cast<std::size_t>(i)); }));
}

void addStripButtons(Form& form, const Session& session, const FixtureIds& ids) {
  form.addButton("editStrip", Form::tr("What this strip type is…"), Form::tr("Colour order, pixels per metre, volts and current"), [session, ids] {
    if (const Fixture* fixture = find(session.show().fixtures, ids.front())) session.selection.select(fixture->stripType);
  });
  form.addButton("newStrip", Form::tr("Another strip type…"), Form::tr("A new strip type for what is selected, to be described"), [session, ids] {
    StripTypeId made;
    session.edit(Form::tr("new strip type"), [&](Show& show) { made = addStripType(show, ids); });
    session.selection.select(made);
  });
}

void addLineRows(FixtureRows& rows) {
  rows.shapeNumber("pixels", Form::tr("Pixels"), {{}, 1, limits::kMostPixelsOfSegment, 1, 0}, &LineShape::count);
}

void addArcRows(FixtureRows& rows) {
  rows.shapeNumber("pixels", Form::tr("Pixels"), {{}, 1, limits::kMostPixelsOfSegment, 1, 0}, &ArcShape::count);
  rows.shapeNumber("radius", Form::tr("Radius"), {"m", 0.001, 1000, 0.05, 3}, &ArcShape::radius_m);
  rows.shapeNumber("arcStart", Form::tr("Starts at"), {"°", -360, 360, 5, 1}, &ArcShape::start_deg);
  rows.shapeNumber("arcSweep", Form::tr("Goes round"), {"°", -360, 360, 5, 1}, &ArcShape::sweep_deg);
}

void addGridRows(FixtureRows& rows) {
  rows.shapeNumber("columns", Form::tr("Columns"), {{}, 1, 2000, 1, 0}, &GridShape::columns);
  rows.shapeNumber("rows", Form::tr("Rows"), {{}, 1, 2000, 1, 0}, &GridShape::rows);
  rows.shapeNumber("columnPitch", Form::tr("Column pitch"), {"m", 0.001, 100, 0.001, 4}, &GridShape::columnPitch_m);
  rows.shapeNumber("rowPitch", Form::tr("Row pitch"), {"m", 0.001, 100, 0.001, 4}, &GridShape::rowPitch_m);
  const auto grid = [](const Fixture& f) { const auto* g = std::get_if<GridShape>(&f.segments[0].shape); return g ? *g : GridShape{}; };
  rows.form().addChoice("startCorner", Form::tr("Data starts"),
                        {Form::tr("bottom left"), Form::tr("bottom right"), Form::tr("top left"), Form::tr("top right")},
                        rows.common<int>([grid](const Fixture& f) { return static_cast<int>(grid(f).start); }),
                        rows.change<int>(Form::tr("data start"), [](Fixture& f, int v) { if (auto* g = std::get_if<GridShape>(&f.segments[0].shape)) g->start = static_cast<Corner>(v); }));
  rows.form().addChoice("gridRuns", Form::tr("Data runs"), {Form::tr("along rows"), Form::tr("along columns")},
                        rows.common<int>([grid](const Fixture& f) { return static_cast<int>(grid(f).runs); }),
                        rows.change<int>(Form::tr("data run"), [](Fixture& f, int v) { if (auto* g = std::get_if<GridShape>(&f.segments[0].shape)) g->runs = static_cast<GridRuns>(v); }));
  rows.form().addSwitch("serpentine", Form::tr("Serpentine"),
                        rows.common<bool>([grid](const Fixture& f) { return grid(f).serpentine; }),
                        rows.change<bool>(Form::tr("serpentine"), [](Fixture& f, bool v) { if (auto* g = std::get_if<GridShape>(&f.segments[0].shape)) g->serpentine = v; }));
}

const Form::Number kRadius{"m", 0, 1000, 0.05, 3};
const Form::Number kAngle{"°", -360, 360, 5, 1};
const Form::Number kPixels{{}, 1, limits::kMostPixelsOfSegment, 1, 0};

/// Which way the data runs in strings; `words` are those of forth, back and serpentine.
template <class S>
void addWay(FixtureRows& rows, const QStringList& words) {
  rows.form().addChoice("stringWay", Form::tr("Data runs"), words,
                        rows.common<int>([](const Fixture& f) { const auto* s = std::get_if<S>(&f.segments[0].shape); return s ? static_cast<int>(s->way) : 0; }),
                        rows.change<int>(Form::tr("data run"), [](Fixture& f, int v) { if (auto* s = std::get_if<S>(&f.segments[0].shape)) s->way = static_cast<StringWay>(v); }));
}

void addPathRows(FixtureRows& rows) {
  rows.shapeNumber("pixels", Form::tr("Pixels"), kPixels, &PathShape::count);
  rows.form().addSwitch("smooth", Form::tr("Smooth corners"),
                        rows.common<bool>([](const Fixture& f) { const auto* s = std::get_if<PathShape>(&f.segments[0].shape); return s && s->smooth; }),
                        rows.change<bool>(Form::tr("smooth corners"), [](Fixture& f, bool v) { if (auto* s = std::get_if<PathShape>(&f.segments[0].shape)) s->smooth = v; }));
}

void addSpiralRows(FixtureRows& rows) {
  rows.shapeNumber("pixels", Form::tr("Pixels"), kPixels, &SpiralShape::count);
  rows.shapeNumber("turns", Form::tr("Turns"), {{}, -1000, 1000, 0.5, 2}, &SpiralShape::turns);
  rows.shapeNumber("startRadius", Form::tr("Radius at the start"), kRadius, &SpiralShape::startRadius_m);
  rows.shapeNumber("endRadius", Form::tr("Radius at the end"), kRadius, &SpiralShape::endRadius_m);
  rows.shapeNumber("rise", Form::tr("Rises"), {"m", -1000, 1000, 0.1, 3}, &SpiralShape::rise_m);
}

void addConeRows(FixtureRows& rows) {
  rows.shapeNumber("strings", Form::tr("Strings"), {{}, 1, 1000, 1, 0}, &ConeShape::strings);
  rows.shapeNumber("perString", Form::tr("Pixels a string"), {{}, 1, 2000, 1, 0}, &ConeShape::perString);
  rows.shapeNumber("bottomRadius", Form::tr("Radius at the foot"), kRadius, &ConeShape::bottomRadius_m);
  rows.shapeNumber("topRadius", Form::tr("Radius at the top"), kRadius, &ConeShape::topRadius_m);
  rows.shapeNumber("coneHeight", Form::tr("Height"), {"m", -1000, 1000, 0.1, 3}, &ConeShape::height_m);
  rows.shapeNumber("arcStart", Form::tr("First string at"), kAngle, &ConeShape::start_deg);
  rows.shapeNumber("arcSweep", Form::tr("Goes round"), kAngle, &ConeShape::sweep_deg);
  addWay<ConeShape>(rows, {Form::tr("upward"), Form::tr("downward"), Form::tr("up and down in turn")});
}

void addSpokesRows(FixtureRows& rows) {
  rows.shapeNumber("strings", Form::tr("Spokes"), {{}, 1, 1000, 1, 0}, &SpokesShape::spokes);
  rows.shapeNumber("perString", Form::tr("Pixels a spoke"), {{}, 1, 2000, 1, 0}, &SpokesShape::perSpoke);
  rows.shapeNumber("innerRadius", Form::tr("Inner radius"), kRadius, &SpokesShape::innerRadius_m);
  rows.shapeNumber("outerRadius", Form::tr("Outer radius"), kRadius, &SpokesShape::outerRadius_m);
  rows.shapeNumber("arcStart", Form::tr("First spoke at"), kAngle, &SpokesShape::start_deg);
  rows.shapeNumber("arcSweep", Form::tr("Goes round"), kAngle, &SpokesShape::sweep_deg);
  addWay<SpokesShape>(rows, {Form::tr("outward"), Form::tr("inward"), Form::tr("out and in in turn")});
}

/// "24, 16, 8" → {24, 16, 8}; empty if something else stands there.
std::vector<int> readCounts(const QString& words) {
  std::vector<int> counts;
  int sum = 0;
  for (const QString& word : words.split(QRegularExpression(QStringLiteral("[,; ]+")), Qt::SkipEmptyParts)) {
    bool good = false;
    counts.push_back(word.toInt(&good));
    if (!good || counts.back() < 1 || counts.back() > limits::kMostPixelsOfSegment || (sum += counts.back()) > limits::kMostPixelsOfSegment) return {};
  }
  return counts;
}

void addRingsRows(FixtureRows& rows) {
  const auto rings = [](const Fixture& f) { const auto* s = std::get_if<RingsShape>(&f.segments[0].shape); return s ? *s : RingsShape{}; };
  rows.form().addText("ringCounts", Form::tr("Pixels, from inside"), rows.common<QString>([rings](const Fixture& f) {
    QStringList words;
    for (const int count : rings(f).counts) words << QString::number(count);
    return words.join(QStringLiteral(", "));
  }), rows.change<QString>(Form::tr("ring pixels"), [](Fixture& f, QString v) {
    const auto counts = readCounts(v);
    if (auto* s = std::get_if<RingsShape>(&f.segments[0].shape); s && !counts.empty()) s->counts = counts;
  }));
  rows.shapeNumber("innerRadius", Form::tr("Inner radius"), kRadius, &RingsShape::innerRadius_m);
  rows.shapeNumber("outerRadius", Form::tr("Outer radius"), kRadius, &RingsShape::outerRadius_m);
  rows.shapeNumber("arcStart", Form::tr("Starts at"), kAngle, &RingsShape::start_deg);
  rows.form().addSwitch("outsideIn", Form::tr("Data begins outside"), rows.common<bool>([rings](const Fixture& f) { return rings(f).outsideIn; }),
                        rows.change<bool>(Form::tr("data start"), [](Fixture& f, bool v) { if (auto* s = std::get_if<RingsShape>(&f.segments[0].shape)) s->outsideIn = v; }));
}

/// Rows of the shape that the fixtures have in common.
void addShapeRows(FixtureRows& rows, const Shape& shape) {
  static constexpr void (*kRows[])(FixtureRows&) = {addLineRows, addGridRows, addArcRows, addPathRows, addRingsRows, addSpiralRows, addConeRows, addSpokesRows, nullptr};
  static_assert(std::size(kRows) == std::variant_size_v<Shape>);
  if (kRows[shape.index()]) kRows[shape.index()](rows);
}

void addPitchRows(FixtureRows& rows) {
  rows.number("perMetre", Form::tr("Pixels per metre"), {{}, 0.01, 10'000, 1, 2},
              [](const Fixture& f) { return 1 / pitch_m(f.segments[0]); },
              [](Fixture& f, double v) { setPitch(f.segments[0], 1 / v); });
  rows.number("length", Form::tr("Length"), {"m", 0.001, limits::kLargest_m, 0.05, 3},
              [](const Fixture& f) {
                const auto* grid = std::get_if<GridShape>(&f.segments[0].shape);
                const int side = !grid ? 1 : grid->runs == GridRuns::AlongRows ? grid->rows : grid->columns;
                return stripLength_m(f.segments[0].shape) / side;
              },
              [](Fixture& f, double v) { setLength(f.segments[0], v); });
}

void addPlaceRows(FixtureRows& rows) {
  rows.form().addHeading(Form::tr("Place"));
  const Form::Number metres{"m", -limits::kLargest_m, limits::kLargest_m, 0.05, 3};
  const Form::Number degrees{"°", -360, 360, 5, 1};
  const std::pair<QString, double Vec3::*> axes[] = {{"X", &Vec3::x}, {"Y", &Vec3::y}, {"Z", &Vec3::z}};
  const QString labels[] = {Form::tr("Across (x)"), Form::tr("Away (y)"), Form::tr("Height (z)")};
  for (int i = 0; i < 3; ++i) {
    const auto [name, axis] = axes[i];
    rows.number("position" + name, labels[i], metres, [axis = axis](const Fixture& f) { return f.place.position_m.*axis; },
                [axis = axis](Fixture& f, double v) { f.place.position_m.*axis = v; });
  }
  for (const auto& [name, axis] : axes)
    rows.number("rotation" + name, Form::tr("Turned about %1").arg(name.toLower()), degrees,
                [axis = axis](const Fixture& f) { return f.place.rotation_deg.*axis; },
                [axis = axis](Fixture& f, double v) { f.place.rotation_deg.*axis = v; });
}

/// Copies in a row or around a centre, in one step.
void addRepeat(Form& form, const Session& session, const FixtureIds& ids) {
  struct Repeat {
    double count = 12;
    double sweep_deg = 360;
    double step_m = 0.5;
  };
  auto repeat = std::make_shared<Repeat>();
  const auto field = [&](const QString& key, const QString& label, const Form::Number& range, double Repeat::*member) {
    form.addNumber(key, label, range, [repeat, member]() -> std::optional<double> { return (*repeat).*member; }, [repeat, member](double v) { (*repeat).*member = v; });
  };
  form.addHeading(Form::tr("Repeat"));
  field("repeatCount", Form::tr("How many in all"), {{}, 2, 500, 1, 0}, &Repeat::count);
  field("repeatSweep", Form::tr("Over"), {"°", -360, 360, 15, 1}, &Repeat::sweep_deg);
  form.addButton("repeatAround", Form::tr("Around the origin"), Form::tr("Copies around the plan's zero point"), [session, ids, repeat] {
    session.edit(Form::tr("repeat around"), [&](Show& show) { duplicateAround(show, ids, static_cast<int>(repeat->count), {}, repeat->sweep_deg); });
  });
  field("repeatStep", Form::tr("Apart"), {"m", -100, 100, 0.1, 3}, &Repeat::step_m);
  form.addButton("repeatRow", Form::tr("In a row"), Form::tr("Copies to the right"), [session, ids, repeat] {
    session.edit(Form::tr("repeat in a row"), [&](Show& show) { duplicateInRow(show, ids, static_cast<int>(repeat->count), {repeat->step_m, 0, 0}); });
  });
}

/// "port 2 of Rim box · universe 2 : 1" of a fixture's first pixel on the wire.
QString wiredText(const Show& show, FixtureId id) {
  for (const PatchSpan& span : derivePatch(show).spans)
    if (span.fixture == id)
      return Form::tr("%1, port %2 · %3").arg(text(show.controllers[static_cast<std::size_t>(span.controller)]->name)).arg(span.port + 1).arg(text(addressText(span.universe, span.channel)));
  return Form::tr("not wired yet");
}

}  // namespace

std::unique_ptr<Form> makeFixtureForm(const Session& session, const FixtureIds& ids) {
  auto form = std::make_unique<Form>();
  const Fixture& first = *chispa::find(session.show().fixtures, ids.front());
  FixtureRows rows(*form, session, ids);
  const bool one = ids.size() == 1;
  form->addTitle(one ? Form::tr("Fixture") : Form::tr("%1 fixtures").arg(ids.size()), [session, ids]() -> std::optional<QString> {
    int pixels = 0;
    for (const FixtureId id : ids)
      if (const Fixture* f = chispa::find(session.show().fixtures, id)) pixels += pixelCount(*f);
    return Form::tr("%1 pixels").arg(pixels);
  });
  if (one)
    form->addText("fixtureName", Form::tr("Name"), rows.common<QString>([](const Fixture& f) { return text(f.name); }),
                  rows.change<QString>(Form::tr("rename"), [](Fixture& f, QString v) { if (!v.trimmed().isEmpty()) f.name = v.trimmed().toStdString(); }));
  addStripRows(rows, session);
  addStripButtons(*form, session, ids);
  const bool sameShape = std::all_of(ids.begin(), ids.end(), [&](FixtureId id) {
    return chispa::find(session.show().fixtures, id)->segments[0].shape.index() == first.segments[0].shape.index();
  });
  if (sameShape) {
    form->addHeading(Form::tr("%1 — %2").arg(text(first.segments[0].name), QString::fromUtf8(shapeName(first.segments[0].shape).data())));
    addShapeRows(rows, first.segments[0].shape);
    if (hasFreeLength(first.segments[0])) addPitchRows(rows);
  }
  addPlaceRows(rows);
  addRepeat(*form, session, ids);
  form->addHeading(Form::tr("On the wire"));
  if (one) form->addNote([session, id = ids.front()]() -> std::optional<QString> { return wiredText(session.show(), id); });
  form->addFact(Form::tr("Strip needed"), [session, ids]() -> std::optional<QString> {
    double metres = 0;
    for (const FixtureId id : ids)
      if (const Fixture* f = chispa::find(session.show().fixtures, id)) metres += stripLength_m(*f);
    return lengthText(metres);
  });
  form->addFact(Form::tr("At full white"), [session, ids]() -> std::optional<QString> {
    double amps = 0;
    for (const FixtureId id : ids) {
      const Fixture* f = chispa::find(session.show().fixtures, id);
      if (!f) continue;
      amps += fullWhite_a(stripTypeOf(session.show(), *f), pixelCount(*f));
    }
    return ampsText(amps);
  });
  form->addStretch();
  return form;
}

std::unique_ptr<Form> makeStripTypeForm(const Session& session, StripTypeId id) {
  auto form = std::make_unique<Form>();
  const auto get = [session, id] { return find(session.show().stripTypes, id); };
  const auto change = [session, id](const QString& name, std::function<void(StripType&)> set) {
    session.edit(name, [&](Show& show) { changeItem(show.stripTypes, id, set); }, name + QStringLiteral("-field"));
  };
  const auto number = [&](const QString& key, const QString& label, const Form::Number& range, double StripType::*member) {
    form->addNumber(key, label, range, [get, member]() -> std::optional<double> { return get() ? get()->*member : 0; },
                    [change, label, member](double v) { change(label, [&](StripType& s) { s.*member = v; }); });
  };
  form->addTitle(Form::tr("Strip type"), [session, id]() -> std::optional<QString> {
    const auto& all = session.show().fixtures;
    const auto used = std::count_if(all.begin(), all.end(), [id](const auto& f) { return f->stripType == id; });
    return counted(used, Form::tr("one fixture is made of it"), Form::tr("%1 fixtures are made of it"));
  });
  form->addText("stripName", Form::tr("Name"), [get]() -> std::optional<QString> { return get() ? text(get()->name) : QString(); },
                [change](QString v) { if (!v.trimmed().isEmpty()) change(Form::tr("rename"), [&](StripType& s) { s.name = v.trimmed().toStdString(); }); });
  form->addText("stripOrder", Form::tr("Colour order"), [get]() -> std::optional<QString> { return get() ? text(get()->order) : QString(); },
                [change](QString v) { if (isChannelOrder(v.trimmed().toUpper().toStdString())) change(Form::tr("colour order"), [&](StripType& s) { s.order = v.trimmed().toUpper().toStdString(); }); });
  form->addNote([]() -> std::optional<QString> { return Form::tr("The letters R, G, B and W, each once, as the strip takes them: GRB, RGBW, W …"); });
  number("stripPerMetre", Form::tr("Pixels per metre"), {{}, 0.01, 10'000, 1, 2}, &StripType::pixelsPerMetre);
  number("stripVolts", Form::tr("Volts"), {"V", 0.1, 400, 1, 1}, &StripType::volts);
  number("stripCurrent", Form::tr("Current of a channel"), {"mA", 0, 100'000, 1, 1}, &StripType::channel_ma);
  number("stripResponse", Form::tr("Response"), {{}, 0.1, 10, 0.1, 2}, &StripType::response);
  form->addNote([]() -> std::optional<QString> { return Form::tr("Response 1: light in proportion to the value, as plain strips do. 2.2: the controller bends it already."); });
  form->addStretch();
  return form;
}

std::unique_ptr<Form> makeZoneForm(const Session& session, ZoneId id) {
  auto form = std::make_unique<Form>();
  const auto zone = [session, id] { return chispa::find(session.show().zones, id); };
  const auto change = [session, id](const QString& name, std::function<void(Zone&)> set) {
    session.edit(name, [&](Show& show) { changeItem(show.zones, id, set); }, name);
  };
  form->addTitle(Form::tr("Zone"), [session, zone]() -> std::optional<QString> {
    if (!zone()) return QString();
    const ZoneCells cells = cellsOf(session.show(), mapPixels(session.show()), *zone());
    return Form::tr("%1 cells · %2 columns × %3 rows").arg(cells.count()).arg(cells.columns).arg(cells.rows);
  });
  form->addText("zoneName", Form::tr("Name"), [zone]() -> std::optional<QString> { return zone() ? text(zone()->name) : QString(); },
                [change](QString v) { if (!v.trimmed().isEmpty()) change(Form::tr("rename"), [&](Zone& z) { z.name = v.trimmed().toStdString(); }); });
  form->addChoice("zoneLayout", Form::tr("Cells lie"), {Form::tr("in one line"), Form::tr("string by string"), Form::tr("as grids in a row")},
                  [zone]() -> std::optional<int> { return zone() ? static_cast<int>(zone()->layout) : 0; },
                  [change](int v) { change(Form::tr("zone layout"), [&](Zone& z) { z.layout = static_cast<ZoneLayout>(v); }); });
  form->addNumber("pixelsPerCell", Form::tr("Pixels a cell"), {{}, 0, 1000, 1, 0},
                  [zone]() -> std::optional<double> { return zone() ? zone()->pixelsPerCell : 1; },
                  [change](double v) { change(Form::tr("pixels a cell"), [&](Zone& z) { z.pixelsPerCell = static_cast<int>(v); }); });
  form->addNote([]() -> std::optional<QString> { return Form::tr("0 pixels a cell makes each part one cell."); });
  form->addHeading(Form::tr("Divide and order"));
  form->addButton("reverseZone", Form::tr("Turn the order round"), Form::tr("Its last cell plays first"), [session, id] {
    session.edit(Form::tr("turn a zone round"), [&](Show& show) { reverseZone(show, id); });
  });
  form->addButton("zoneEachPart", Form::tr("A zone for each part"), Form::tr("Numbered zones, one a part: post 1, post 2 …"), [session, id] {
    session.edit(Form::tr("a zone for each part"), [&](Show& show) { zoneForEachPart(show, id); });
  });
  QStringList names;
  std::vector<ZoneId> others;
  for (const auto& other : session.show().zones) {
    if (other->id == id) continue;
    names << text(other->name);
    others.push_back(other->id);
  }
  form->addChoice("combineZone", Form::tr("Combine with"), names, []() -> std::optional<int> { return std::nullopt; }, [session, id, others](int v) {
    ZoneId made;
    session.edit(Form::tr("combine zones"), [&](Show& show) { made = combineZones(show, id, others.at(static_cast<std::size_t>(v))); });
    session.selection.select(made);
  });
  form->addHeading(Form::tr("Made of, in playing order"));
  form->addNote([session, zone]() -> std::optional<QString> {
    QStringList parts;
    for (const ZonePart& part : zone() ? zone()->parts : std::vector<ZonePart>{}) {
      const Fixture* fixture = chispa::find(session.show().fixtures, part.fixture);
      if (!fixture) continue;
      QString line = text(fixture->name);
      if (part.segment && *part.segment < std::ssize(fixture->segments)) line += QStringLiteral(" · ") + text(fixture->segments[static_cast<std::size_t>(*part.segment)].name);
      if (part.reversed) line += Form::tr(", backwards");
      parts << line;
    }
    return parts.join(QLatin1Char('\n'));
  });
  form->addStretch();
  return form;
}

std::unique_ptr<Form> makeShowForm(const Session& session) {
  auto form = std::make_unique<Form>();
  form->addTitle(Form::tr("Show"), []() -> std::optional<QString> { return Form::tr("Select something to see its properties."); });
  form->addText("showName", Form::tr("Name"), [session]() -> std::optional<QString> { return text(session.show().name); },
                [session](QString v) { session.edit(Form::tr("rename"), [&](Show& show) { show.name = v.toStdString(); }); });
  form->addFact(Form::tr("Fixtures"), [session]() -> std::optional<QString> { return QString::number(session.show().fixtures.size()); });
  form->addFact(Form::tr("Pixels"), [session]() -> std::optional<QString> { return QString::number(pixelCount(session.show())); });
  form->addFact(Form::tr("Zones"), [session]() -> std::optional<QString> { return QString::number(session.show().zones.size()); });
  form->addFact(Form::tr("Universes"), [session]() -> std::optional<QString> { return QString::number(derivePatch(session.show()).universes.size()); });
  form->addHeading(Form::tr("At full white"));
  form->addNote([session]() -> std::optional<QString> {
    QStringList rails;
    for (const auto& [volts, amps] : fullWhiteAmps(session.show())) rails << Form::tr("%1 at %2 V").arg(ampsText(amps)).arg(volts);
    return rails.join(QLatin1Char('\n'));
  });
  form->addStretch();
  return form;
}

}  // namespace chispa::desk
