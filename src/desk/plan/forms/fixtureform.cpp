// SPDX-License-Identifier: GPL-3.0-or-later
#include <algorithm>

#include "core/check/cutlist.h"
#include "core/edit/arrange.h"
#include "core/edit/segmentedits.h"
#include "core/shape/order.h"
#include "core/show/limits.h"
#include "core/wire/current.h"
#include "core/wire/patch.h"
#include "desk/parts/format.h"
#include "desk/parts/responsefields.h"
#include "desk/plan/forms/fixturerows.h"
#include "desk/plan/forms/planforms.h"
#include "desk/plan/forms/stripwalk.h"
#include "desk/plan/planview.h"

namespace chispa::desk {
namespace {

/// Builds the form from what all selected fixtures have in common.
class FixtureForm {
 public:
  FixtureForm(Form& form, const Session& session, FixtureIds ids, PlanView& plan)
      : form_(form),
        session_(session),
        ids_(std::move(ids)),
        plan_(plan),
        segment_(session.selection.segment()),
        rows_(form, session, ids_, segment_) {}

  void build() {
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

 private:
  bool isOne() const { return ids_.size() == 1; }
  const Fixture* fixture(FixtureId id) const { return chispa::find(session_.show().fixtures, id); }
  const Fixture& first() const { return *fixture(ids_.front()); }
  std::size_t index() const { return static_cast<std::size_t>(segment_); }

  /// The shape of the chosen segment, if all fixtures have one of its kind there.
  const Shape* commonShape() const {
    const Fixture& model = first();
    if (index() >= model.segments.size()) return nullptr;
    const bool same = std::all_of(ids_.begin(), ids_.end(), [&](FixtureId id) {
      const auto& segments = fixture(id)->segments;
      return index() < segments.size() &&
             segments[index()].shape.index() == model.segments[index()].shape.index();
    });
    return same ? &model.segments[index()].shape : nullptr;
  }

  void addHead() {
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
    form_.addButtons({{"editStrip", Form::tr("Edit strip type…"),
                       Form::tr("Colour order, pixels per metre, volts, current and cuts of this strip type"),
                       [session = session_, id = ids_.front()] {
                         if (const Fixture* f = chispa::find(session.show().fixtures, id))
                           session.selection.select(f->stripType);
                       }},
                      {"newStrip", Form::tr("New type"),
                       Form::tr("A new strip type for what is selected, to be described"),
                       [session = session_, ids = ids_] {
                         StripTypeId made;
                         session.edit(Form::tr("new strip type"),
                                      [&](Show& show) { made = addStripType(show, ids); });
                         session.selection.select(made);
                       }}});
  }

  void addSegments() {
    const Segment* segment = index() < first().segments.size() ? &first().segments[index()] : nullptr;
    if (!segment) return;
    const QString kind = QString::fromUtf8(shapeName(segment->shape).data());
    form_.addHeading(Form::tr("Segment: %1").arg(kind));
    if (first().segments.size() < 2) return;
    QStringList names;
    for (std::size_t i = 0; i < first().segments.size(); ++i)
      names << QStringLiteral("%1 · %2").arg(i + 1).arg(text(first().segments[i].name));
    form_.addChoice(
        "segment", Form::tr("Segment"), names,
        [session = session_]() -> std::optional<int> { return session.selection.segment(); },
        [session = session_](int v) { session.selection.chooseSegment(v); });
    form_.addText(
        "segmentName", Form::tr("Segment name"),
        rows_.ofSegment<QString>([](const Segment& s) { return text(s.name); }),
        rows_.changeSegment<QString>(Form::tr("rename"), [](Segment& s, const StripType&, QString v) {
          if (!v.trimmed().isEmpty()) s.name = v.trimmed().toStdString();
        }));
  }

  /// Any two of pixels, length and pitch give the third.
  void addStripLengths() {
    const Segment& model = first().segments[index()];
    if (!hasFreeCount(model)) return;
    const auto follows = [&plan = plan_] { return plan.follows(); };
    const bool isGrid = std::holds_alternative<GridShape>(model.shape);
    form_.addNumber("pixels", isGrid ? Form::tr("Pixels of a strip") : Form::tr("Pixels"),
                    {{}, 1, limits::kMaxPixelsOfSegment, 1, 0},
                    rows_.ofSegment<double>([](const Segment& s) { return runPixels(s); }),
                    rows_.changeSegment<double>(Form::tr("pixels"),
                                                [follows](Segment& s, const StripType& strip, double v) {
                                                  setRunPixels(s, static_cast<int>(v), strip, follows());
                                                }));
    form_.addNumber("perMetre", Form::tr("Pixels per metre"), {{}, 0.01, 10'000, 1, 2},
                    rows_.ofSegment<double>([](const Segment& s) { return 1 / std::max(1e-6, pitch_m(s)); }),
                    rows_.changeSegment<double>(Form::tr("pixels per metre"),
                                                [follows](Segment& s, const StripType& strip, double v) {
                                                  setPitch(s, 1 / v, strip, follows());
                                                }));
    if (hasFreeLength(model)) {
      form_.addNumber("length", Form::tr("Length"), {"m", 0.001, limits::kLargest_m, 0.05, 3},
                      rows_.ofSegment<double>([](const Segment& s) { return runLength_m(s); }),
                      rows_.changeSegment<double>(Form::tr("length"),
                                                  [follows](Segment& s, const StripType& strip, double v) {
                                                    setRunLength(s, v, strip, follows());
                                                  }));
      form_.addChoice(
          "follows", Form::tr("Adjusts"),
          {Form::tr("the length"), Form::tr("the pixels"), Form::tr("pixels per metre")},
          [&plan = plan_]() -> std::optional<int> { return static_cast<int>(plan.follows()); },
          [&plan = plan_](int v) { plan.setFollows(static_cast<Follows>(v)); });
    } else {
      form_.addFact(Form::tr("Length"), [get = rows_.ofSegment<double>([](const Segment& s) {
                      return runLength_m(s);
                    })]() -> std::optional<QString> {
        const auto metres = get();
        return metres ? std::optional(lengthText(*metres)) : std::nullopt;
      });
    }
    form_.addNote([session = session_, id = ids_.front(), i = index()]() -> std::optional<QString> {
      const Fixture* f = chispa::find(session.show().fixtures, id);
      if (!f || i >= f->segments.size()) return std::nullopt;
      const StripType& strip = stripTypeOf(session.show(), *f);
      const int cut = strip.pixelsPerCut;
      const int count = runPixels(f->segments[i]);
      if (cut <= 1) return std::nullopt;
      if (count % cut == 0)
        return Form::tr("%1 can be cut every %2 pixels; counts come out so.").arg(text(strip.name)).arg(cut);
      return Form::tr("%1 can be cut every %2 pixels: not after %3, but after %4 or %5.")
          .arg(text(strip.name))
          .arg(cut)
          .arg(count)
          .arg(count / cut * cut)
          .arg((count / cut + 1) * cut);
    });
  }

  void edit(const QString& name, const std::function<Losses(Show&)>& change) const {
    session_.editWithCare(name, change);
  }

  void addSegmentButtons() {
    const FixtureId id = ids_.front();
    form_.addSwitch("segmentReversed", Form::tr("Reverse the data"),
                    rows_.ofSegment<bool>([](const Segment& s) { return s.reversed; }),
                    rows_.changeSegment<bool>(Form::tr("reverse a segment"),
                                              [](Segment& s, const StripType&, bool v) { s.reversed = v; }));
    form_.addNumber(
        "walkPixel", Form::tr("Walk: pixel"), {{}, 0, static_cast<double>(pixelCount(first())), 1, 0},
        [session = session_]() -> std::optional<double> {
          return session.selection.pixel().value_or(-1) + 1;
        },
        [session = session_](double v) {
          session.selection.choosePixel(v < 1 ? std::nullopt : std::optional(static_cast<int>(v) - 1));
        });
    form_.addWidget(new StripWalk(session_, id));
    form_.addNote([session = session_, id]() -> std::optional<QString> {
      const Fixture* f = chispa::find(session.show().fixtures, id);
      const auto pixel = session.selection.pixel();
      if (!f || !pixel || *pixel >= pixelCount(*f))
        return Form::tr("Step along the strip here, or on the plan with [ and ].");
      const std::size_t s = segmentOf(*f, *pixel);
      return Form::tr("Pixel %1 of %2, %3 along it.")
          .arg(*pixel - firstPixelOf(*f, s) + 1)
          .arg(text(f->segments[s].name))
          .arg(lengthText((*pixel - firstPixelOf(*f, s) + 0.5) * pitch_m(f->segments[s])));
    });
    form_.addButtons(
        {{"splitSegment", Form::tr("Split"), Form::tr("Cut the segment in front of the walked pixel"),
          [this_ = *this, id] { this_.split(id); }},
         {"joinSegment", Form::tr("Join next"), Form::tr("Make one segment of this and the next"),
          [this_ = *this, id] {
            this_.edit(Form::tr("join segments"), [&](Show& show) {
              joinSegments(show, id, this_.index());
              return Losses{};
            });
          }},
         {"nextSegment", Form::tr("Draw next"),
          Form::tr("What is drawn next becomes a segment of this fixture"),
          [&plan = plan_, id] { plan.continueFixture(id); }}});
    if (first().segments.size() > 1)
      form_.addButtons(
          {{"segmentEarlier", Form::tr("Earlier"),
            Form::tr("Move this segment one place earlier in the data"),
            [this_ = *this, id] { this_.shift(id, -1); }},
           {"segmentLater", Form::tr("Later"), Form::tr("Move this segment one place later in the data"),
            [this_ = *this, id] { this_.shift(id, 1); }},
           {"removeSegment", Form::tr("Remove"), Form::tr("Remove the segment from the fixture"),
            [this_ = *this, id] {
              this_.edit(Form::tr("remove a segment"),
                         [&](Show& show) { return removeSegment(show, id, this_.index()); });
              this_.session_.selection.chooseSegment(0);
            }}});
    form_.addButtons({{"numberNearest", Form::tr("By neighbour"),
                       Form::tr("Number the pixels from neighbour to neighbour; the segment becomes points"),
                       [this_ = *this, id] {
                         this_.edit(Form::tr("number pixels"), [&](Show& show) {
                           renumberSegment(show, id, this_.index(),
                                           nearestOrder(positions(
                                               chispa::find(show.fixtures, id)->segments[this_.index()])));
                           return Losses{};
                         });
                       }},
                      {"numberByStroke", Form::tr("Draw the order"),
                       Form::tr("Number the pixels by drawing through them; the segment becomes points"),
                       [&plan = plan_] { plan.setTool(PlanTool::Number); }}});
  }

  void split(FixtureId id) const {
    const auto pixel = session_.selection.pixel();
    const Fixture* f = chispa::find(session_.show().fixtures, id);
    if (!f) return;
    // Without a walked pixel it is cut in the middle.
    const std::size_t s = pixel ? segmentOf(*f, *pixel) : index();
    const int at = pixel ? *pixel - firstPixelOf(*f, s) : pixelCount(f->segments[s]) / 2;
    edit(Form::tr("split a segment"), [&](Show& show) {
      splitSegment(show, id, s, at);
      return Losses{};
    });
  }

  void shift(FixtureId id, int by) const {
    const int to = segment_ + by;
    const Fixture* f = chispa::find(session_.show().fixtures, id);
    if (!f || to < 0 || to >= std::ssize(f->segments)) return;
    edit(Form::tr("move a segment"), [&](Show& show) {
      moveSegment(show, id, index(), static_cast<std::size_t>(to));
      return Losses{};
    });
    session_.selection.chooseSegment(to);
  }

  void addPlace() {
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
          rows_.changeFixtures<double>(
              labels[i], [axis = axis](Fixture& f, double v) { f.place.position_m.*axis = v; }));
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

  Form::Button alignButton(const QString& key, const QString& label, const QString& tip, bool across,
                           Align align) {
    return {key, label, tip, [session = session_, ids = ids_, &plan = plan_, tip, across, align] {
              const Vec3 axis = across ? plan.projection().right() : plan.projection().up();
              session.edit(tip, [&](Show& show) { alignFixtures(show, ids, axis, align); });
            }};
  }

  Form::Button axisButton(const QString& key, const QString& label, const QString& tip, bool across,
                          void (*change)(Show&, const FixtureIds&, Vec3)) {
    return {key, label, tip, [session = session_, ids = ids_, &plan = plan_, tip, across, change] {
              const Vec3 axis = across ? plan.projection().right() : plan.projection().up();
              session.edit(tip, [&](Show& show) { change(show, ids, axis); });
            }};
  }

  void addArrange() {
    form_.addHeading(Form::tr("Arrange, as seen on the plan"));
    form_.addButtons(
        {alignButton("alignLeft", Form::tr("Left"), Form::tr("Left ends in line"), true, Align::Low),
         alignButton("alignCentre", Form::tr("Middle"), Form::tr("Middles in line, one above the other"),
                     true, Align::Middle),
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
                         session.edit(Form::tr("join fixtures"),
                                      [&](Show& show) { joinFixtures(show, ids); });
                         session.selection.select(FixtureIds{ids.front()});
                       }}});
  }

  void addRepeat() {
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
    form_.addButtons({axisButton("mirrorAcross", Form::tr("Mirror ↔"), Form::tr("Left becomes right"), true,
                                 mirrorFixtures),
                      axisButton("mirrorUp", Form::tr("Mirror ↕"), Form::tr("Bottom becomes top"), false,
                                 mirrorFixtures)});
    if (isOne() && first().segments.size() > 1)
      form_.addButton(
          "separateSegments", Form::tr("A fixture for each segment"),
          Form::tr("Zones and wiring keep their pixels"), [session = session_, id = ids_.front()] {
            session.edit(Form::tr("separate segments"), [&](Show& show) { separateSegments(show, id); });
          });
  }

  /// Its own dimming curve, where it is not its strip type's.
  void addDimming() {
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

  void addFacts() {
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

  /// Where LEDs do not stand as their reel has them, and what may be done.
  static std::optional<QString> reelText(const Show& show, FixtureId id) {
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

  /// "port 2 of Rim box · universe 2 : 1" of a fixture's first pixel on the wire.
  static QString wiredText(const Show& show, FixtureId id) {
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

  Form& form_;
  Session session_;
  FixtureIds ids_;
  PlanView& plan_;
  int segment_;
  FixtureRows rows_;
};

}  // namespace

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
