// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/almanac/nights.h"

#include <algorithm>

#include "core/setlist/setlistwalk.h"

namespace chispa {
namespace {

using namespace std::chrono;

constexpr int kNoon_min = 12 * 60;

/// Of the evening rather than of the morning.
bool isOfEvening(const NightTime& time) {
  return time.kind == NightTimeKind::Clock
             ? time.minutes >= kNoon_min
             : time.kind == NightTimeKind::Sunset || time.kind == NightTimeKind::Dusk;
}

bool isOfSun(const NightTime& time) {
  return time.kind != NightTimeKind::Clock;
}

/// Why the sun gives no such time that day.
std::string whyNoSun(const NightTime& time, const SunTimes& sun) {
  const bool isTwilight = time.kind == NightTimeKind::Dusk || time.kind == NightTimeKind::Dawn;
  const SunDay day = isTwilight ? sun.twilight : sun.horizon;
  if (isTwilight)
    return day == SunDay::StaysAbove ? "it does not get dark that day" : "it stays dark that day";
  return day == SunDay::StaysAbove ? "the sun does not set that day" : "the sun does not rise that day";
}

bool holdsIn(const RuleDays& days, CalendarDay day) {
  const auto from = parseDay(days.first);
  const auto to = parseDay(days.last);
  const bool ofEveryYear = (from && from->year == 0) || (to && to->year == 0);
  if (ofEveryYear) day.year = 0;
  const bool isAfter = !from || day >= *from;
  const bool isBefore = !to || day <= *to;
  // Over the new year.
  if (from && to && ofEveryYear && *from > *to) return isAfter || isBefore;
  return isAfter && isBefore;
}

bool isAmong(const std::vector<std::string>& texts, const CalendarDay& day) {
  return std::any_of(texts.begin(), texts.end(), [&](const std::string& text) {
    const auto one = parseDay(text);
    return one && one->month == day.month && one->day == day.day && (one->year == 0 || one->year == day.year);
  });
}

}  // namespace

bool holdsOn(const RuleDays& days, Date date) {
  const CalendarDay day = calendarDay(date);
  const unsigned weekday = std::chrono::weekday(date).iso_encoding() - 1;
  if (isAmong(days.except, day)) return false;
  if (!days.only.empty()) return isAmong(days.only, day);
  return (days.weekdays >> weekday & 1) != 0 && holdsIn(days, day);
}

NightPlan::NightPlan(const Show& show, TimeZone zone)
    : rules_(show.rules), place_(show.almanac), zone_(zone), sun_(std::make_shared<SunTable>(show.almanac)) {}

Result<NightPlan> NightPlan::of(const Show& show) {
  if (show.almanac.zone.empty()) return NightPlan(show, TimeZone::utc());
  auto zone = TimeZone::named(show.almanac.zone);
  if (!zone) return zone.failure();
  return NightPlan(show, *zone);
}

SunTimes NightPlan::SunTable::on(Date date) {
  // Some years are kept; who asks for more asks anew.
  constexpr std::size_t kMaxDays = 2'000;
  const std::scoped_lock lock(mutex_);
  if (days_.size() > kMaxDays) days_.clear();
  const auto known = days_.find(date);
  return known != days_.end() ? known->second
                              : days_.emplace(date, sunOn(date, latitude_deg_, longitude_deg_)).first->second;
}

std::optional<Instant> NightPlan::instantOf(const NightTime& time, Date date) const {
  if (!isOfSun(time)) return zone_.instantOf(date, minutes(time.minutes));
  const SunTimes sun = sun_->on(date);
  const std::optional<Instant>& at = time.kind == NightTimeKind::Sunset ? sun.sunset
                                     : time.kind == NightTimeKind::Dusk ? sun.dusk
                                     : time.kind == NightTimeKind::Dawn ? sun.dawn
                                                                        : sun.sunrise;
  return at ? std::optional(*at + minutes(time.minutes)) : std::nullopt;
}

/// The evening of a night lies on its own date, the morning on the next. What begins in the morning and ends
/// past noon lies on its own date altogether.
NightPlan::Window NightPlan::windowOf(std::size_t index, Date date) const {
  const Rule& rule = *rules_[index];
  Window window{{}, {}, date, index, {}};
  if (rule.isOff)
    window.why = "it is switched off";
  else if (!holdsOn(rule.days, date))
    window.why = "it does not hold on this day";
  if (!window.why.empty()) return window;
  const bool fromEvening = isOfEvening(rule.from);
  const bool untilEvening = isOfEvening(rule.until);
  const Date fromDate = fromEvening || untilEvening ? date : date + days(1);
  const auto start = instantOf(rule.from, fromDate);
  Date untilDate = untilEvening ? date : date + days(1);
  auto end = instantOf(rule.until, untilDate);
  // Until a clock time that has passed when it begins: that of the day after.
  if (start && end && *end <= *start && !isOfSun(rule.until))
    end = instantOf(rule.until, untilDate += days(1));
  if (!start || !end) {
    const bool isFrom = !start;
    window.why = whyNoSun(isFrom ? rule.from : rule.until, sun_->on(isFrom ? fromDate : untilDate));
  } else if (*end <= *start) {
    window.why =
        "it would end before it begins: " + clockText(*start, zone_) + " to " + clockText(*end, zone_);
  } else {
    window.start = *start;
    window.end = *end;
  }
  return window;
}

std::vector<NightPlan::Window> NightPlan::windows(Date first, int count) const {
  std::vector<Window> all;
  for (int i = 0; i < count; ++i)
    for (std::size_t rule = 0; rule < rules_.size(); ++rule)
      if (Window window = windowOf(rule, first + days(i)); window.why.empty())
        all.push_back(std::move(window));
  return all;
}

bool NightPlan::goesBefore(std::size_t a, std::size_t b) const {
  return rules_[a]->priority != rules_[b]->priority ? rules_[a]->priority > rules_[b]->priority : a < b;
}

/// From edge to edge, the highest of the windows that are open.
std::vector<Slot> NightPlan::laid(const std::vector<Window>& windows) const {
  std::vector<Instant> edges;
  for (const Window& window : windows) edges.insert(edges.end(), {window.start, window.end});
  std::sort(edges.begin(), edges.end());
  edges.erase(std::unique(edges.begin(), edges.end()), edges.end());
  std::vector<const Window*> coming;
  for (const Window& window : windows) coming.push_back(&window);
  std::sort(coming.begin(), coming.end(),
            [](const Window* a, const Window* b) { return a->start < b->start; });
  std::vector<Slot> slots;
  std::vector<const Window*> open;
  std::size_t next = 0;
  for (std::size_t i = 0; i + 1 < edges.size(); ++i) {
    while (next < coming.size() && coming[next]->start <= edges[i]) open.push_back(coming[next++]);
    std::erase_if(open, [&](const Window* window) { return window->end <= edges[i]; });
    if (open.empty()) continue;
    const Window& top =
        **std::min_element(open.begin(), open.end(), [this](const Window* a, const Window* b) {
          return a->rule != b->rule ? goesBefore(a->rule, b->rule) : a->start < b->start;
        });
    const Slot slot{edges[i], edges[i + 1], top.night, rules_[top.rule]->id};
    const bool goesOn = !slots.empty() && slots.back().end == slot.start && slots.back().rule == slot.rule &&
                        slots.back().night == slot.night;
    if (goesOn)
      slots.back().end = slot.end;
    else
      slots.push_back(slot);
  }
  return slots;
}

std::vector<Slot> NightPlan::slotsOf(Date first, int count) const {
  std::vector<Slot> all;
  for (const Night& night : nights(first, count))
    all.insert(all.end(), night.nightSlots.begin(), night.nightSlots.end());
  std::sort(all.begin(), all.end(), [](const Slot& a, const Slot& b) { return a.start < b.start; });
  return all;
}

std::vector<Night> NightPlan::nights(Date first, int count) const {
  std::vector<Night> nights;
  for (int i = 0; i < count; ++i) {
    const Date date = first + days(i);
    const SunTimes evening = sun_->on(date);
    const SunTimes morning = sun_->on(date + days(1));
    nights.push_back({date, evening.sunset, evening.dusk, morning.dawn, morning.sunrise, {}, {}});
  }
  const auto nightOf = [&](Date date) {
    const auto index = (date - first).count();
    return index >= 0 && index < count ? &nights[static_cast<std::size_t>(index)] : nullptr;
  };
  // Those of the nights around may reach into these.
  const auto around = windows(first - days(2), count + 4);
  for (const Window& window : around)
    if (Night* night = nightOf(window.night))
      night->alone.push_back({window.start, window.end, window.night, rules_[window.rule]->id});
  for (const Slot& slot : laid(around))
    if (Night* night = nightOf(slot.night)) night->nightSlots.push_back(slot);
  return nights;
}

Date NightPlan::nightOf(Instant instant) const {
  const LocalTime local = zone_.localOf(instant);
  return local.time < minutes(kNoon_min) ? local.date - days(1) : local.date;
}

Moment NightPlan::at(Instant instant) const {
  Moment moment;
  const Date night = nightOf(instant);
  for (const Slot& slot : laid(windows(night - days(2), 6))) {
    if (slot.start <= instant && instant < slot.end) moment.slot = slot;
    if (slot.start > instant && slot.start < instant + days(2) &&
        (!moment.next || slot.start < moment.next->start))
      moment.next = slot;
  }
  for (std::size_t i = 0; i < rules_.size(); ++i) {
    Window window = windowOf(i, night);
    // A rule of the day after may have begun already: it goes past noon.
    if (!(window.why.empty() && window.start <= instant && instant < window.end))
      if (Window later = windowOf(i, night + days(1));
          later.why.empty() && later.start <= instant && instant < later.end)
        window = later;
    Verdict verdict{rules_[i]->id, window.start, window.end, false, window.why};
    const bool isOpen = window.why.empty() && window.start <= instant && instant < window.end;
    verdict.plays = isOpen && moment.slot && moment.slot->rule == rules_[i]->id;
    if (verdict.plays)
      verdict.why = "it plays from " + clockText(window.start, zone_) + " to " + clockText(window.end, zone_);
    else if (isOpen)
      verdict.why = "“" + (moment.slot ? rule(moment.slot->rule)->name : std::string()) + "” goes before it";
    else if (window.why.empty())
      verdict.why =
          "it plays from " + clockText(window.start, zone_) + " to " + clockText(window.end, zone_) + " only";
    moment.verdicts.push_back(std::move(verdict));
  }
  return moment;
}

std::string whatOf(const Show& show, const Rule& rule) {
  return rule.kind == PieceKind::Silence ? "dark"
                                         : nameOfPlayed(show, rule.kind, rule.score, rule.look, rule.list);
}

}  // namespace chispa
