// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/parts/responsefields.h"

#include <cmath>

#include "desk/parts/curvefield.h"
#include "desk/parts/named.h"

namespace chispa::desk {
namespace {

constexpr double kLeastPower = 0.1;
constexpr double kMaxPower = 10;
/// Points that a power has when it begins to be drawn.
constexpr int kPointsOfPower = 9;

/// The points to be seen and moved: those that were drawn, with both ends, or some of the power's.
Curve shownCurve(const Response& response) {
  Curve points = response.points;
  if (points.empty()) {
    for (int i = 0; i < kPointsOfPower; ++i) {
      const double at = static_cast<double>(i) / (kPointsOfPower - 1);
      points.push_back({at, response.bareLightOf(at)});
    }
    return points;
  }
  if (points.front().at > 0) points.insert(points.begin(), {0, 0});
  if (points.back().at < 1) points.push_back({1, 1});
  return points;
}

/// A curve never falls: point `moved` takes those along that would be above it before it, or below it behind
/// it.
Curve pushed(Curve points, int moved) {
  if (moved < 0 || moved >= std::ssize(points)) return points;
  const double value = points[static_cast<std::size_t>(moved)].value;
  for (int i = 0; i < std::ssize(points); ++i) {
    double& own = points[static_cast<std::size_t>(i)].value;
    own = i < moved ? std::min(own, value) : std::max(own, value);
  }
  return points;
}

void addCurve(Form& form, const QString& prefix, const ResponseAccess& access) {
  const auto get = [access] { return access.get().value_or(access.otherwise()); };
  const auto& set = access.set;
  auto* field = named(
      new CurveField, (prefix + QStringLiteral("Curve")).toUtf8().constData(), Form::tr("Dimming curve"),
      Form::tr(
          "Light upward over the value sent, to the right. Press to add a point and drag it; a right click "
          "removes one.\nKeys: Page Up and Page Down choose a point, arrows move it, Insert and Delete."));
  QObject::connect(field, &CurveField::changed, field, [get, set, field](const Curve& curve) {
    Response drawn = get();
    drawn.points = pushed(curve, field->held());
    set(Form::tr("dimming curve"), drawn);
  });
  QObject::connect(field, &CurveField::finished, field, access.seal);
  form.addWidget(field, [field, get] { field->showCurve(shownCurve(get())); });
  form.addNumber(
      prefix + "Least", Form::tr("First lit value"), {{}, 0, 127, 1, 1},
      [get]() -> std::optional<double> { return std::round(get().least * 2550) / 10; },
      [get, set](double value) {
        Response changed = get();
        changed.least = value / 255;
        set(Form::tr("smallest value"), changed);
      });
}

/// What was drawn gives way to a power.
void setPower(const ResponseAccess& access, double power) {
  Response changed = access.get().value_or(Response{});
  changed.exponent = power;
  changed.points.clear();
  access.set(Form::tr("response"), changed);
}

}  // namespace

void addResponse(Form& form, const QString& prefix, const ResponseAccess& access) {
  form.addNumber(
      prefix + "Response", Form::tr("Response (gamma)"), {{}, kLeastPower, kMaxPower, 0.1, 2},
      [access]() -> std::optional<double> {
        const auto own = access.get();
        return own && own->points.empty() ? std::optional(own->exponent) : std::nullopt;
      },
      [access](double power) { setPower(access, power); });
  addCurve(form, prefix, access);
}

void addOwnResponse(Form& form, const QString& prefix, const ResponseAccess& access) {
  form.addText(
      prefix + "Response", Form::tr("Response (gamma)"),
      [access]() -> std::optional<QString> {
        const auto own = access.get();
        return !own ? QString() : own->points.empty() ? QString::number(own->exponent) : Form::tr("drawn");
      },
      [access](QString typed) {
        if (typed.trimmed().isEmpty()) return access.set(Form::tr("response"), std::nullopt);
        bool good = false;
        const double power = typed.trimmed().toDouble(&good);
        if (good && power >= kLeastPower && power <= kMaxPower) setPower(access, power);
      });
  addCurve(form, prefix, access);
}

}  // namespace chispa::desk
