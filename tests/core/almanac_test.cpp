// SPDX-License-Identifier: GPL-3.0-or-later
// The sun, the calendar and the rules on it.
#include <array>
#include <cmath>
#include <numbers>
#include <random>

#include <gtest/gtest.h>

#include "core/almanac/nights.h"
#include "core/almanac/nightwords.h"
#include "core/edit/setlistedits.h"

namespace chispa {
namespace {

using namespace std::chrono_literals;
using std::chrono::days;
using std::chrono::hours;
using std::chrono::minutes;

Date day(int year, unsigned month, unsigned day) {
  return Date(
      std::chrono::year_month_day(std::chrono::year(year), std::chrono::month(month), std::chrono::day(day)));
}

/// The height of the sun by another method than the core's: the sun's mean elements and its equation of the
/// centre (Meeus, Astronomical Algorithms, chapter 25, low accuracy: 0.01°), sidereal time by chapter 12.
double heightOfSun(double unix_s, double latitude_deg, double longitude_deg) {
  constexpr double kRad = std::numbers::pi / 180;
  const double d = unix_s / 86'400 + 2440587.5 - 2451545.0;
  const double t = d / 36'525;
  const double mean = 280.46646 + t * (36'000.76983 + t * 0.0003032);
  const double anomaly = (357.52911 + t * (35'999.05029 - t * 0.0001537)) * kRad;
  const double centre = (1.914602 - t * (0.004817 + t * 0.000014)) * std::sin(anomaly) +
                        (0.019993 - t * 0.000101) * std::sin(2 * anomaly) + 0.000289 * std::sin(3 * anomaly);
  const double node = (125.04 - 1934.136 * t) * kRad;
  const double longitude = (mean + centre - 0.00569 - 0.00478 * std::sin(node)) * kRad;
  const double tilt = (23.439291 - t * 0.0130042 + 0.00256 * std::cos(node)) * kRad;
  const double ascension = std::atan2(std::cos(tilt) * std::sin(longitude), std::cos(longitude));
  const double declination = std::asin(std::sin(tilt) * std::sin(longitude));
  const double sidereal = (280.46061837 + 360.98564736629 * d + t * t * 0.000387933 + longitude_deg) * kRad;
  const double latitude = latitude_deg * kRad;
  return std::asin(std::sin(latitude) * std::sin(declination) +
                   std::cos(latitude) * std::cos(declination) * std::cos(sidereal - ascension)) /
         kRad;
}

/// The instant near `about` at which the height passes `wanted`, by small steps and halving.
double passing(double about, double wanted, double latitude, double longitude) {
  double best = about;
  double bestOff = 1e9;
  for (double at = about - 900; at < about + 900; at += 60) {
    const double a = heightOfSun(at, latitude, longitude) - wanted;
    const double b = heightOfSun(at + 60, latitude, longitude) - wanted;
    if (a * b > 0) continue;
    const double found = at + 60 * a / (a - b);
    if (std::abs(found - about) < bestOff) {
      best = found;
      bestOff = std::abs(found - about);
    }
  }
  return bestOff < 1e9 ? best : -1e9;
}

struct Spot {
  const char* name;
  double latitude;
  double longitude;
};
// Made-up places all over the world below 60° of latitude.
constexpr std::array<Spot, 6> kSpots{{{"on the equator", 0.3, 32.5},
                                      {"mild north", 47.2, 8.5},
                                      {"far north", 59.5, -151.5},
                                      {"south", -33.9, 151.2},
                                      {"far south", -54.8, -68.3},
                                      {"by the date line", -16.5, 179.9}}};

double secondsOf(const std::optional<Instant>& at) {
  return at ? static_cast<double>(at->time_since_epoch().count()) : -1e12;
}

TEST(Sun, AgreesWithAnotherMethodOnEveryDayOfTwoYears) {
  double worst = 0;
  for (const Spot& spot : kSpots)
    for (Date date = day(2027, 1, 1); date < day(2029, 1, 1); date += days(1)) {
      const SunTimes sun = sunOn(date, spot.latitude, spot.longitude);
      ASSERT_EQ(sun.horizon, SunDay::Passes) << spot.name << " " << dateText(date);
      const auto compare = [&](const std::optional<Instant>& at, double height) {
        ASSERT_TRUE(at) << spot.name << " " << dateText(date);
        const double own = secondsOf(at);
        const double other = passing(own, height, spot.latitude, spot.longitude);
        worst = std::max(worst, std::abs(own - other));
        ASSERT_LE(std::abs(own - other), 60) << spot.name << " " << dateText(date) << " " << height;
      };
      compare(sun.sunrise, -0.833);
      compare(sun.sunset, -0.833);
      if (sun.twilight == SunDay::Passes) {
        compare(sun.dusk, -6);
        compare(sun.dawn, -6);
      }
    }
  RecordProperty("worst_s", std::to_string(worst));
}

TEST(Sun, EventsOfADayAreInOrderAroundItsNoon) {
  std::mt19937 chance(3);
  std::uniform_real_distribution<double> latitude(-89.9, 89.9), longitude(-180, 180);
  for (int i = 0; i < 2'000; ++i) {
    const Date date = day(2020, 1, 1) + days(static_cast<int>(chance() % 10'000));
    const SunTimes sun = sunOn(date, latitude(chance), longitude(chance));
    std::vector<Instant> order;
    for (const auto& one : {sun.dawn, sun.sunrise, std::optional(sun.noon), sun.sunset, sun.dusk})
      if (one) order.push_back(*one);
    EXPECT_TRUE(std::is_sorted(order.begin(), order.end())) << dateText(date);
    EXPECT_LE(order.back() - order.front(), 24h + 2min);
  }
}

TEST(Sun, PolarDayAndNightAreSaid) {
  const SunTimes summer = sunOn(day(2027, 6, 21), 70, 20);
  EXPECT_EQ(summer.horizon, SunDay::StaysAbove);
  EXPECT_FALSE(summer.sunset);
  const SunTimes winter = sunOn(day(2027, 12, 21), 70, 20);
  EXPECT_EQ(winter.horizon, SunDay::StaysBelow);
  EXPECT_EQ(winter.twilight, SunDay::Passes) << "it dawns, though the sun does not rise";
  EXPECT_EQ(sunOn(day(2027, 12, 21), 80, 20).twilight, SunDay::StaysBelow);
  const SunTimes white = sunOn(day(2027, 6, 21), 61, 25);
  EXPECT_EQ(white.horizon, SunDay::Passes);
  EXPECT_EQ(white.twilight, SunDay::StaysAbove);
}

TEST(Calendar, BothClockChangesAreRight) {
  const TimeZone zone = *TimeZone::named("Europe/Madrid");
  const Date spring = day(2027, 3, 28), autumn = day(2027, 10, 31);
  EXPECT_EQ(rfc3339(zone.instantOf(spring, minutes(119)), zone), "2027-03-28T01:59:00+01:00");
  EXPECT_EQ(rfc3339(zone.instantOf(spring, minutes(150)), zone), "2027-03-28T03:00:00+02:00")
      << "the hour that is missing";
  EXPECT_EQ(rfc3339(zone.instantOf(autumn, minutes(150)), zone), "2027-10-31T02:30:00+02:00")
      << "of the hour that comes twice, the first";
  EXPECT_EQ(rfc3339(zone.instantOf(autumn, minutes(180)), zone), "2027-10-31T03:00:00+01:00");
  EXPECT_FALSE(TimeZone::named("Moon/Crater"));
}

TEST(Calendar, DaysAreReadStrictly) {
  EXPECT_TRUE(parseDay("02-29"));
  EXPECT_TRUE(parseDay("2028-02-29"));
  for (const char* no :
       {"2027-02-29", "13-01", "00-10", "2027-4-01", "24.12.", "", "2027-04-31", "x027-04-01"})
    EXPECT_FALSE(parseDay(no)) << no;
  const TimeZone utc = TimeZone::utc();
  EXPECT_EQ(rfc3339(*parseLocal("2027-06-01T21:04:05", utc), utc), "2027-06-01T21:04:05+00:00");
  EXPECT_EQ(rfc3339(*parseLocal("2027-06-01 21:04", utc), utc), "2027-06-01T21:04:00+00:00");
  for (const char* no : {"2027-06-01", "2027-06-01T25:00", "2027-06-01T21:04:61", "2027-06-01T21:04:05x"})
    EXPECT_FALSE(parseLocal(no, utc)) << no;
}

TEST(Calendar, TheZoneTableGivesPlaces) {
  const auto cities = citiesOfZoneTable();
  ASSERT_GT(cities.size(), 300u);
  for (const City& city : cities) {
    EXPECT_TRUE(TimeZone::named(city.zone)) << city.zone;
    EXPECT_LE(std::abs(city.latitude_deg), 90) << city.name;
    EXPECT_LE(std::abs(city.longitude_deg), 180) << city.name;
  }
  const auto lisbon =
      std::find_if(cities.begin(), cities.end(), [](const City& c) { return c.zone == "Europe/Lisbon"; });
  ASSERT_NE(lisbon, cities.end());
  EXPECT_NEAR(lisbon->latitude_deg, 38.72, 0.01);
  EXPECT_NEAR(lisbon->longitude_deg, -9.13, 0.01);
}

/// A show at a made-up place with three looks and rules of them.
class Rules : public testing::Test {
 protected:
  Rules() {
    show_.almanac = {"Somewhere", 41.4, 2.2, "Europe/Madrid", {}};
    for (const char* name : {"A", "B", "C"}) {
      Look look;
      look.id = show_.newId<LookId>();
      look.name = name;
      put(show_.looks, look);
    }
  }
  RuleId add(const char* look, NightTime from, NightTime until, RuleDays on = {}, int priority = 0) {
    const RuleId id = addRule(show_, look);
    changeItem(show_.rules, id, [&](Rule& rule) {
      rule.kind = PieceKind::Look;
      rule.look = findNamed(show_.looks, look)->id;
      rule.from = from;
      rule.until = until;
      rule.days = std::move(on);
      rule.priority = priority;
    });
    return id;
  }
  static RuleDays onlyOn(const char* day) { return {127, {}, {}, {day}, {}}; }
  static NightTime clock(int hour, int minute = 0) { return {NightTimeKind::Clock, hour * 60 + minute}; }
  NightPlan plan() const { return *NightPlan::of(show_); }
  /// "A 21:00–22:00, B 22:00–00:30" of a night.
  std::string said(Date date) const {
    const NightPlan all = plan();
    std::string words;
    for (const Slot& slot : all.slotsOf(date, 1))
      words += (words.empty() ? "" : ", ") + whatOf(show_, *all.rule(slot.rule)) + " " +
               clockText(slot.start, all.zone()) + "–" + clockText(slot.end, all.zone());
    return words;
  }

  Show show_;
};

TEST_F(Rules, PastMidnightIsOneNight) {
  add("A", clock(21), clock(0, 30));
  EXPECT_EQ(said(day(2027, 7, 1)), "A 21:00–00:30");
  const NightPlan all = plan();
  EXPECT_EQ(all.nightOf(all.zone().instantOf(day(2027, 7, 2), minutes(15))), day(2027, 7, 1));
  const Moment moment = all.at(all.zone().instantOf(day(2027, 7, 2), minutes(15)));
  ASSERT_TRUE(moment.slot);
  EXPECT_EQ(moment.slot->night, day(2027, 7, 1));
}

TEST_F(Rules, TheHigherPriorityPlaysAndTheOtherGoesOnAfterIt) {
  add("A", clock(20), clock(23));
  add("B", clock(21), clock(22), {}, 5);
  EXPECT_EQ(said(day(2027, 7, 1)), "A 20:00–21:00, B 21:00–22:00, A 22:00–23:00");
  const Moment moment = plan().at(plan().zone().instantOf(day(2027, 7, 1), 21h + 30min));
  ASSERT_EQ(moment.verdicts.size(), 2u);
  EXPECT_EQ(moment.verdicts[0].why, "“B” goes before it");
  EXPECT_TRUE(moment.verdicts[1].plays);
}

TEST_F(Rules, OfTwoAlikeTheFirstPlays) {
  add("A", clock(20), clock(22));
  add("B", clock(21), clock(23));
  EXPECT_EQ(said(day(2027, 7, 1)), "A 20:00–22:00, B 22:00–23:00");
  moveRule(show_, show_.rules[1]->id, 0);
  EXPECT_EQ(said(day(2027, 7, 1)), "A 20:00–21:00, B 21:00–23:00");
}

TEST_F(Rules, ADayRuleIsOfItsOwnDay) {
  add("A", clock(8), clock(18));
  const auto slots = plan().slotsOf(day(2027, 7, 1), 1);
  ASSERT_EQ(slots.size(), 1u);
  EXPECT_EQ(rfc3339(slots[0].start, plan().zone()), "2027-07-01T08:00:00+02:00");
  EXPECT_EQ(rfc3339(slots[0].end, plan().zone()), "2027-07-01T18:00:00+02:00");
  EXPECT_TRUE(plan().at(plan().zone().instantOf(day(2027, 7, 1), 9h)).slot);
}

TEST_F(Rules, EarlyHoursAreOfTheNightBefore) {
  add("A", clock(4), {NightTimeKind::Dawn, 0}, onlyOn("2027-12-24"));
  const auto slots = plan().slotsOf(day(2027, 12, 24), 1);
  ASSERT_EQ(slots.size(), 1u);
  EXPECT_EQ(rfc3339(slots[0].start, plan().zone()), "2027-12-25T04:00:00+01:00");
}

TEST_F(Rules, OffsetsFromTheSunCount) {
  add("A", {NightTimeKind::Sunset, -20}, {NightTimeKind::Dusk, 30});
  const Night night = plan().nights(day(2027, 7, 1), 1)[0];
  ASSERT_EQ(night.nightSlots.size(), 1u);
  EXPECT_EQ(*night.sunset - night.nightSlots[0].start, 20min);
  EXPECT_EQ(night.nightSlots[0].end - *night.dusk, 30min);
}

TEST_F(Rules, DaysOfTheWeekSpansAndExceptions) {
  add("A", clock(20), clock(21), {0b1100000, "11-28", "01-06", {}, {"12-25", "2028-01-01"}});
  const auto holds = [&](int y, unsigned m, unsigned d) { return !said(day(y, m, d)).empty(); };
  EXPECT_TRUE(holds(2027, 11, 28)) << "a Sunday, the first day";
  EXPECT_FALSE(holds(2027, 11, 27)) << "a Saturday before it";
  EXPECT_FALSE(holds(2027, 11, 29)) << "a Monday";
  EXPECT_FALSE(holds(2027, 12, 25)) << "each year excepted";
  EXPECT_FALSE(holds(2028, 1, 1)) << "excepted once";
  EXPECT_TRUE(holds(2028, 1, 2));
  EXPECT_FALSE(holds(2028, 1, 8));
  EXPECT_TRUE(holds(2029, 1, 6)) << "over every new year";
  EXPECT_EQ(describeDays(show_.rules[0]->days),
            "Sat, Sun, from 28 November to 6 January, not on 25 December, 1 January 2028");
}

TEST_F(Rules, LeapDaysAreDays) {
  add("A", clock(20), clock(21), onlyOn("02-29"));
  EXPECT_EQ(said(day(2028, 2, 29)), "A 20:00–21:00");
  EXPECT_EQ(plan().slotsOf(day(2027, 1, 1), 365 + 366).size(), 1u);
}

TEST_F(Rules, ThePolarSummerIsSaidNotGuessed) {
  show_.almanac = {"Up there", 70, 20, "Europe/Oslo", {}};
  add("A", {NightTimeKind::Dusk, 0}, clock(2));
  EXPECT_EQ(said(day(2027, 6, 21)), "");
  const Moment moment = plan().at(plan().zone().instantOf(day(2027, 6, 21), 23h));
  EXPECT_EQ(moment.verdicts[0].why, "it does not get dark that day");
}

TEST_F(Rules, AnHourMoreAndAnHourLessAtTheClockChanges) {
  add("A", clock(22), clock(4));
  const auto length = [&](Date date) {
    const auto slots = plan().slotsOf(date, 1);
    return slots.size() == 1 ? slots[0].end - slots[0].start : std::chrono::seconds(0);
  };
  EXPECT_EQ(length(day(2027, 3, 26)), 6h);
  EXPECT_EQ(length(day(2027, 3, 27)), 5h);
  EXPECT_EQ(length(day(2027, 10, 30)), 7h);
}

/// Whatever the rules: slots do not overlap, lie where the windows of their rules lie, and at any instant no
/// rule that holds goes before the one that plays.
TEST_F(Rules, HoldAsPropertiesOfRandomAlmanacs) {
  std::mt19937 chance(11);
  const auto number = [&](int low, int high) {
    return low + static_cast<int>(chance() % static_cast<unsigned>(high - low + 1));
  };
  const auto time = [&]() -> NightTime {
    const auto kind = static_cast<NightTimeKind>(number(0, 4));
    return {kind, kind == NightTimeKind::Clock ? number(0, 1439) : number(-90, 90)};
  };
  for (int round = 0; round < 60; ++round) {
    show_.rules.clear();
    for (int i = number(1, 6); i > 0; --i)
      add(i % 2 ? "A" : "B", time(), time(), {number(1, 127), {}, {}, {}, {}}, number(-1, 1));
    const NightPlan all = plan();
    const Date first = day(2027, 3, 20) + days(number(0, 300));
    const auto slots = all.slotsOf(first, 9);
    for (std::size_t i = 0; i < slots.size(); ++i) {
      EXPECT_LT(slots[i].start, slots[i].end);
      if (i > 0) {
        EXPECT_LE(slots[i - 1].end, slots[i].start);
      }
      EXPECT_TRUE(holdsOn(all.rule(slots[i].rule)->days, slots[i].night));
      const Moment moment = all.at(slots[i].start + (slots[i].end - slots[i].start) / 2);
      ASSERT_TRUE(moment.slot);
      EXPECT_EQ(*moment.slot, slots[i]) << "asked for a night or for an instant, the answer is the same";
      for (const Verdict& verdict : moment.verdicts)
        if (verdict.start < verdict.end && verdict.start <= slots[i].start && slots[i].end <= verdict.end) {
          EXPECT_LE(all.rule(verdict.rule)->priority, all.rule(slots[i].rule)->priority);
        }
    }
  }
}

}  // namespace
}  // namespace chispa
