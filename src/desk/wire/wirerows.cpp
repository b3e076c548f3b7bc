// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/wire/wirerows.h"

#include "core/edit/planedits.h"
#include "core/show/limits.h"
#include "core/wire/wiresettings.h"
#include "desk/parts/format.h"
#include "desk/parts/responsefields.h"
#include "desk/parts/several.h"

namespace chispa::desk {

Response responseAbove(const Show& show, const WireSettings& port, const Bead& bead) {
  const Fixture* fixture = chispa::find(show.fixtures, bead.fixture);
  return fixture ? resolveWire(stripTypeOf(show, *fixture), *fixture, port, {}).response : Response{};
}

void addSettings(Form& form, const Session& session, const QString& prefix, const SettingsGet& get,
                 const SettingsChange& change, const std::function<Response()>& otherwise) {
  form.addHeading(Form::tr("Overrides"));
  form.addNumber(
      prefix + "Brightness", Form::tr("Brightness"), {"%", 0, 100, 5, 0},
      [get] { return sameOf(get(), [](const WireSettings& s) { return s.brightness.value_or(1) * 100; }); },
      [change](double v) {
        change(Form::tr("brightness"),
               [v](WireSettings& s) { s.brightness = v >= 100 ? std::nullopt : std::optional(v / 100); });
      });
  const auto words = [](const auto& value) { return value ? QString::number(*value) : QString(); };
  form.addText(
      prefix + "Order", Form::tr("Colour order"),
      [get] {
        return sameOf(get(), [](const WireSettings& s) { return s.order ? text(*s.order) : QString(); });
      },
      [change](QString v) {
        const std::string order = v.trimmed().toUpper().toStdString();
        if (order.empty() || isChannelOrder(order))
          change(Form::tr("colour order"),
                 [&](WireSettings& s) { s.order = order.empty() ? std::nullopt : std::optional(order); });
      });
  const auto whole = [&](const QString& key, const QString& label, std::optional<int> WireSettings::*member,
                         int low, int high) {
    form.addText(
        prefix + key, label,
        [get, member, words] {
          return sameOf(get(), [&](const WireSettings& s) { return words(s.*member); });
        },
        [change, label, member, low, high](QString v) {
          bool good = false;
          const int value = v.trimmed().toInt(&good);
          if (v.trimmed().isEmpty() || (good && value >= low && value <= high))
            change(label, [&](WireSettings& s) {
              s.*member = v.trimmed().isEmpty() ? std::nullopt : std::optional(value);
            });
        });
  };
  whole("Grouping", Form::tr("Pixels per value"), &WireSettings::grouping, 1, limits::kMaxGrouped);
  whole("Zigzag", Form::tr("Zigzag every"), &WireSettings::zigzag, 0, limits::kMaxPixelsOfSegment);
  addOwnResponse(
      form, prefix,
      {[get] {
         return sameOf(get(), [](const WireSettings& s) { return s.response; }).value_or(std::nullopt);
       },
       [change](const QString& what, const std::optional<Response>& response) {
         change(what, [&](WireSettings& s) { s.response = response; });
       },
       [session] { session.document.seal(); }, otherwise});
  form.addNote([]() -> std::optional<QString> {
    return Form::tr("Blank: inherited from the port or the strip type.");
  });
}

void addFixedStart(Form& form, const QString& prefix, const std::function<std::optional<FixedStart>()>& get,
                   const std::function<FixedStart()>& now,
                   const std::function<void(std::optional<FixedStart>)>& set) {
  form.addSwitch(
      prefix + "Pinned", Form::tr("Fixed start address"),
      [get]() -> std::optional<bool> { return get().has_value(); },
      [set, now](bool on) { set(on ? std::optional(now()) : std::nullopt); });
  form.addNumber(
      prefix + "PinUniverse", Form::tr("Universe"), {{}, 0, 63999, 1, 0},
      [get, now]() -> std::optional<double> { return get().value_or(now()).universe; },
      [set, get, now](double v) {
        set(FixedStart{static_cast<int>(v), get().value_or(now()).channel});
      });
  form.addNumber(
      prefix + "PinChannel", Form::tr("Channel"), {{}, 1, 512, 1, 0},
      [get, now]() -> std::optional<double> { return get().value_or(now()).channel; },
      [set, get, now](double v) {
        set(FixedStart{get().value_or(now()).universe, static_cast<int>(v)});
      });
}

std::vector<PatchSpan> spansOf(const Show& show, const ChainPlace& place) {
  Patch patch = derivePatch(show);
  std::erase_if(patch.spans, [&](const PatchSpan& span) {
    return show.controllers[static_cast<std::size_t>(span.controller)]->id != place.controller ||
           span.port != place.port || span.bead != place.bead;
  });
  return std::move(patch.spans);
}

FixedStart startOf(const Show& show, ControllerId controller, int port, int bead) {
  const auto spans = spansOf(show, {controller, port, bead});
  return spans.empty() ? FixedStart{} : FixedStart{spans.front().universe, spans.front().channel};
}

}  // namespace chispa::desk
