// SPDX-License-Identifier: GPL-3.0-or-later
// Controllers whose light comes late, brought into step with the others: judged by the nodes' own time
// stamps.
#include <cmath>

#include "window.h"

#include "core/edit/planedits.h"
#include "core/edit/scoreedits.h"
#include "core/edit/wireedits.h"
#include "node/node.h"

namespace chispa::desk {
namespace {

constexpr int kLag_ms = 150;
constexpr Micros kFlash{150'000};
constexpr int kFlashes = 40;

/// Two strips on two controllers, one of which shows light 150 ms after it has come.
class InStep : public WindowTest {
 protected:
  InStep()
      : prompt_({"Prompt", 1, test::loopbackAddress(10), {}}),
        slow_({"Slow", 1, test::loopbackAddress(11), {}}) {
    std::string why;
    EXPECT_TRUE(prompt_.start(why)) << why;
    EXPECT_TRUE(slow_.start(why)) << why;
    for (node::Node* node : {&prompt_, &slow_}) node->setSettings({{1, "e131", {{10, "GRB", 0, 1, 1}}}});
    node::Faults lag;
    lag.delay_ms = kLag_ms;
    slow_.setFaults(lag);
    document_.apply(QStringLiteral("build"), [this](Show& s) {
      StripType type;
      type.id = s.newId<StripTypeId>();
      type.name = "Strip";
      put(s.stripTypes, type);
      std::vector<ZonePart> parts;
      for (const int last : {10, 11}) {
        const FixtureId strip =
            addFixture(s, LineShape{10, 0.1}, {static_cast<double>(last), 0, 0}, {}, type.id);
        const ControllerId box = addController(s, 1);
        changeItem(s.controllers, box, [last](Controller& c) {
          c.host = test::loopbackAddress(last);
          c.firstUniverse = 1;
        });
        hang(s, {strip, 0, 10}, {box, 0, 0});
        parts.push_back({strip, std::nullopt, false});
        boxes_.push_back(box);
      }
      Zone zone;
      zone.id = s.newId<ZoneId>();
      zone.name = "Both";
      zone.parts = parts;
      put(s.zones, zone);
      const PaletteId white = s.newId<PaletteId>();
      put(s.palettes, Palette{white, "White", {{0, {255, 255, 255}}}});
      score_ = addScore(s, "Flashes", {}, kFlash * (2 * kFlashes + 20));
      for (int i = 0; i < kFlashes; ++i)
        addClip(s, score_, zone.id, "hold", white, kFlash * (2 * i + 10), kFlash);
    });
    settle();
  }

  /// The instants at which a node became bright, in microseconds, as they are seen.
  struct Rises {
    node::Node& node;
    std::int64_t last = 0;
    std::vector<std::int64_t> at = {};

    void look() {
      const auto state = node.state();
      if (state["universes"].empty()) return;
      const auto changed = state["universes"][0]["changed_us"].get<std::int64_t>();
      const bool isLit = state["ports"][0]["shows"][0] != "#000000";
      if (changed == last || !isLit) return;
      last = changed;
      at.push_back(changed);
    }
  };

  /// How much later the slow node becomes bright than the prompt one, in the middle of all flashes, ms.
  double behind_ms() {
    stage_.openScore(score_);
    stage_.seek(Micros(0));
    stage_.switchLight(true);
    settle();
    stage_.play();
    Rises prompt{prompt_}, slow{slow_};
    EXPECT_TRUE(eventually([&] {
      prompt.look();
      slow.look();
      return prompt.at.size() >= kFlashes / 2 && slow.at.size() >= kFlashes / 2;
    }));
    stage_.pause();
    std::vector<double> off;
    for (const std::int64_t at : prompt.at) {
      const auto nearest = *std::min_element(slow.at.begin(), slow.at.end(), [at](auto a, auto b) {
        return std::abs(a - at) < std::abs(b - at);
      });
      off.push_back(static_cast<double>(nearest - at) / 1000);
    }
    std::sort(off.begin(), off.end());
    return off[off.size() / 2];
  }

  node::Node prompt_, slow_;
  std::vector<ControllerId> boxes_;
  ScoreId score_;
};

TEST_F(InStep, ALagOf150MillisecondsIsMadeUpForToFive) {
  EXPECT_GT(std::abs(behind_ms()), 100) << "as it comes it is late";
  window_.showWorkspace(Workspace::Wire);
  selection_.select(boxes_[1]);
  settle();
  setNumber("delay", -kLag_ms);
  settle();
  EXPECT_LE(std::abs(behind_ms()), 5);
  trigger("undo");
  EXPECT_EQ(find(show().controllers, boxes_[1])->delay_ms, 0);
}

}  // namespace
}  // namespace chispa::desk
