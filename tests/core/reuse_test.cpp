// SPDX-License-Identifier: GPL-3.0-or-later
// An edit compiles anew what it changes and nothing else, and plays as if all had been compiled anew.
#include <algorithm>
#include <functional>

#include "carousel/carousel.h"
#include <gtest/gtest.h>

#include "core/edit/planedits.h"
#include "core/edit/scoreedits.h"
#include "core/edit/zoneedits.h"
#include "core/render/compiled.h"
#include "core/render/renderer.h"

namespace chispa {
namespace {

/// All bytes that leave at some instants of each score.
std::vector<std::uint8_t> played(const CompiledShow& show) {
  Renderer renderer;
  renderer.prepare(show);
  PixelFrame frame;
  frame.resize(static_cast<std::size_t>(show.map->count()));
  std::vector<std::uint8_t> values(show.packer->bufferSize());
  std::vector<std::uint8_t> all;
  for (const CompiledScore& score : show.scores)
    for (int i = 1; i < 12; ++i) {
      renderer.render(score, score.length * i / 12, frame);
      show.packer->pack(frame, DitherFrame{}, 1, values);
      all.insert(all.end(), values.begin(), values.end());
    }
  return all;
}

class Reused : public testing::Test {
 protected:
  /// Compiles an edit of the demo upon the demo and alone.
  void edit(const std::function<void(Show&)>& change) {
    change(show_);
    next_ = compile(show_, {}, {}, before_.get());
    EXPECT_EQ(played(*next_), played(*compile(show_)));
  }

  std::size_t sharedLanes() const {
    std::size_t shared = 0;
    const auto& now = next_->scores.front().staves;
    for (const CompiledStave& then : before_->scores.front().staves)
      shared += static_cast<std::size_t>(std::count_if(now.begin(), now.end(), [&](const CompiledStave& one) {
        return one.shared == then.shared && !one.shared->empty();
      }));
    return shared;
  }
  std::size_t lanes() const {
    const auto& all = before_->scores.front().staves;
    return static_cast<std::size_t>(
        std::count_if(all.begin(), all.end(), [](const auto& stave) { return !stave.shared->empty(); }));
  }

  Show show_ = demo::carousel();
  std::shared_ptr<const CompiledShow> before_ = compile(show_);
  std::shared_ptr<const CompiledShow> next_;
};

TEST_F(Reused, ClipsThatGetWeakerCompileTheirLaneAlone) {
  const ScoreId score = show_.scores.front()->id;
  const ZoneId zone = show_.scores.front()->clips.front()->zone;
  edit([&](Show& show) {
    Score changed = *find(show.scores, score);
    for (auto& clip : changed.clips) {
      if (clip->zone != zone || clip->block) continue;
      Clip weaker = *clip;
      weaker.strength *= 0.4;
      clip = std::make_shared<const Clip>(weaker);
    }
    put(show.scores, changed);
  });
  EXPECT_EQ(next_->map, before_->map);
  EXPECT_EQ(next_->packer, before_->packer);
  EXPECT_EQ(sharedLanes(), lanes() - 1);
  EXPECT_NE(played(*next_), played(*before_)) << "what is compared must show the edit";
}

TEST_F(Reused, APaletteCompilesTheLanesThatHaveIt) {
  edit([](Show& show) {
    Palette palette = *show.palettes.front();
    palette.stops.front().colour = {1, 2, 3};
    put(show.palettes, palette);
  });
  EXPECT_LT(sharedLanes(), lanes());
  EXPECT_GT(sharedLanes(), 0U);
}

TEST_F(Reused, AMovedFixtureMovesItsZonesAndKeepsTheWires) {
  const FixtureId moved = show_.fixtures.front()->id;
  edit([&](Show& show) {
    changeItem(show.fixtures, moved, [](Fixture& fixture) { fixture.place.position_m.z += 0.7; });
  });
  EXPECT_NE(next_->map, before_->map);
  EXPECT_EQ(next_->map->positions, compile(show_)->map->positions);
  EXPECT_EQ(next_->packer, before_->packer);
}

TEST_F(Reused, AFixtureBeforeOthersNumbersThemAnew) {
  edit([](Show& show) {
    Fixture one = *show.fixtures.back();
    show.fixtures.insert(show.fixtures.begin(), std::make_shared<const Fixture>(one));
    changeItem(show.fixtures, one.id, [&](Fixture& fixture) { fixture.id = show.newId<FixtureId>(); });
  });
  EXPECT_NE(next_->packer, before_->packer);
}

TEST_F(Reused, AControllerThatDimsIsPackedAnew) {
  edit([](Show& show) {
    changeItem(show.controllers, show.controllers.front()->id,
               [](Controller& box) { box.ports.front().settings.brightness = 0.3; });
  });
  EXPECT_NE(next_->packer, before_->packer);
  EXPECT_EQ(next_->map, before_->map);
}

TEST_F(Reused, OtherFadesAndOtherBarsReachAllClips) {
  edit([](Show& show) { show.light.fades = Evenness::InLight; });
  EXPECT_EQ(sharedLanes(), 0U);
  before_ = next_;
  edit([](Show& show) {
    Score score = *show.scores.front();
    for (MarkLane& lane : score.lanes)
      for (Mark& mark : lane.marks) mark.at += Micros(40'000);
    put(show.scores, score);
  });
  EXPECT_EQ(sharedLanes(), 0U);
}

TEST_F(Reused, StavesInAnotherOrderLieOtherwise) {
  edit([](Show& show) {
    Score score = *show.scores.front();
    std::reverse(score.staves.begin(), score.staves.end());
    put(show.scores, score);
  });
  EXPECT_EQ(sharedLanes(), lanes());
}

TEST_F(Reused, AShowWithoutAnythingInCommonIsCompiledWhole) {
  edit([](Show& show) {
    Show other;
    other.name = "Other";
    addFixture(other, LineShape{30, 0.1}, {0, 0, 0});
    addZone(other, "Z", {other.fixtures.front()->id});
    show = other;
  });
  EXPECT_EQ(next_->map->count(), 30);
}

}  // namespace
}  // namespace chispa
