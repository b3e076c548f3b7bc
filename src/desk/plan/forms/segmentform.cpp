// SPDX-License-Identifier: GPL-3.0-or-later
// The rows of the fixture's form about the chosen segment.
#include <algorithm>

#include "core/edit/segmentedits.h"
#include "core/shape/order.h"
#include "core/show/limits.h"
#include "desk/parts/format.h"
#include "desk/plan/forms/fixtureform.h"
#include "desk/plan/forms/stripwalk.h"
#include "desk/plan/shapeword.h"

namespace chispa::desk {

void FixtureForm::addSegments() {
  const Segment* segment = index() < first().segments.size() ? &first().segments[index()] : nullptr;
  if (!segment) return;
  form_.addHeading(Form::tr("Segment: %1").arg(shapeWord(segment->shape)));
  if (first().segments.size() < 2) return;
  QStringList names;
  for (std::size_t i = 0; i < first().segments.size(); ++i)
    names << QStringLiteral("%1 · %2").arg(i + 1).arg(text(first().segments[i].name));
  form_.addChoice(
      "segment", Form::tr("Segment"), names,
      [session = session_]() -> std::optional<int> { return session.selection.segment(); },
      [session = session_](int v) { session.selection.chooseSegment(v); });
  form_.addText("segmentName", Form::tr("Segment name"),
                rows_.ofSegment<QString>([](const Segment& s) { return text(s.name); }),
                rows_.changeSegment<QString>(Form::tr("rename"), [](Segment& s, const StripType&, QString v) {
                  if (!v.trimmed().isEmpty()) s.name = v.trimmed().toStdString();
                }));
}

void FixtureForm::addStripLengths() {
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

void FixtureForm::addSegmentButtons() {
  const FixtureId id = ids_.front();
  form_.addSwitch("segmentReversed", Form::tr("Reverse the data"),
                  rows_.ofSegment<bool>([](const Segment& s) { return s.reversed; }),
                  rows_.changeSegment<bool>(Form::tr("reverse a segment"),
                                            [](Segment& s, const StripType&, bool v) { s.reversed = v; }));
  form_.addNumber(
      "walkPixel", Form::tr("Walk: pixel"), {{}, 0, static_cast<double>(pixelCount(first())), 1, 0},
      [session = session_]() -> std::optional<double> { return session.selection.pixel().value_or(-1) + 1; },
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
  addCutting(id);
  addNumbering(id);
}

void FixtureForm::addCutting(FixtureId id) {
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
        {{"segmentEarlier", Form::tr("Earlier"), Form::tr("Move this segment one place earlier in the data"),
          [this_ = *this, id] { this_.shift(id, -1); }},
         {"segmentLater", Form::tr("Later"), Form::tr("Move this segment one place later in the data"),
          [this_ = *this, id] { this_.shift(id, 1); }},
         {"removeSegment", Form::tr("Remove"), Form::tr("Remove the segment from the fixture"),
          [this_ = *this, id] {
            this_.edit(Form::tr("remove a segment"),
                       [&](Show& show) { return removeSegment(show, id, this_.index()); });
            this_.session_.selection.chooseSegment(0);
          }}});
}

void FixtureForm::addNumbering(FixtureId id) {
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

void FixtureForm::split(FixtureId id) const {
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

void FixtureForm::shift(FixtureId id, int by) const {
  const int to = segment_ + by;
  const Fixture* f = chispa::find(session_.show().fixtures, id);
  if (!f || to < 0 || to >= std::ssize(f->segments)) return;
  edit(Form::tr("move a segment"), [&](Show& show) {
    moveSegment(show, id, index(), static_cast<std::size_t>(to));
    return Losses{};
  });
  session_.selection.chooseSegment(to);
}

}  // namespace chispa::desk
