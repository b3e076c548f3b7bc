// SPDX-License-Identifier: GPL-3.0-or-later
#include "carousel/carousel.h"

#include "core/edit/setlistedits.h"

namespace chispa::demo {
namespace {

using namespace std::chrono_literals;

/// Makes the carousel's set lists and rules.
class NightMaker {
 public:
  explicit NightMaker(Show& show) : show_(show) {}

  SetListItem look(const char* name, Micros length, Micros fade = 2s) const {
    SetListItem line = lineOf(findNamed(show_.looks, name)->id);
    line.length = length;
    line.fade = fade;
    return line;
  }
  SetListItem waltz() const {
    SetListItem line = lineOf(findNamed(show_.scores, "The Slow Round")->id);
    line.fade = 1500ms;
    return line;
  }
  SetListId list(const char* name, const std::vector<SetListItem>& lines, bool isShuffled = false) {
    const SetListId id = addSetList(show_, name);
    insertLines(show_, id, 0, lines);
    changeItem(show_.setLists, id, [&](SetList& list) {
      list.rounds = 0;
      list.isShuffled = isShuffled;
    });
    return id;
  }
  template <class F>
  void rule(const char* name, F fill) {
    changeItem(show_.rules, addRule(show_, name), fill);
  }

 private:
  Show& show_;
};

}  // namespace

void addNights(Show& show) {
  NightMaker nights(show);
  const SetListId fair = nights.list(
      "Fair evening",
      {nights.look("Dusk glow", 2min), nights.waltz(), nights.look("Lantern count", 20s), nights.waltz(),
       nights.look("Turn of colours", 1min), nights.look("Full fair", 90s), nights.look("Welcome", 24s)});
  const SetListId winter =
      nights.list("Winter evening",
                  {nights.look("Hearth", 5min, 4s), nights.look("Quiet rim", 3min, 4s),
                   nights.look("Sea", 4min, 4s), nights.look("Turn of colours", 2min, 4s)},
                  true);
  // A place of its own under a real sun.
  show.almanac = {"Lantern Fair ground", 47.05, 7.6, "Europe/Zurich", {}};
  nights.rule("Fair", [&](Rule& rule) {
    rule.list = fair;
    rule.days = {127, "06-12", "08-22", {}, {"07-05"}};
    rule.from = {NightTimeKind::Dusk, -20};
    rule.until = {NightTimeKind::Clock, 30};
    rule.priority = 2;
  });
  nights.rule("Weekends", [&](Rule& rule) {
    rule.kind = PieceKind::Score;
    rule.score = findNamed(show.scores, "The Slow Round")->id;
    rule.days = {0b1110000, "04-01", "10-31", {}, {}};
    rule.from = {NightTimeKind::Dusk, 0};
    rule.until = {NightTimeKind::Clock, 23 * 60};
  });
  nights.rule("Winter evenings", [&](Rule& rule) {
    rule.list = winter;
    rule.days = {127, "11-28", "01-06", {}, {}};
    rule.from = {NightTimeKind::Dusk, 0};
    rule.until = {NightTimeKind::Clock, 22 * 60};
  });
  nights.rule("Winter mornings", [&](Rule& rule) {
    rule.kind = PieceKind::Look;
    rule.look = findNamed(show.looks, "Quiet rim")->id;
    rule.days = {0b0011111, "11-28", "01-06", {}, {"12-25", "12-26"}};
    rule.from = {NightTimeKind::Clock, 6 * 60 + 30};
    rule.until = {NightTimeKind::Sunrise, 0};
  });
}

}  // namespace chispa::demo
