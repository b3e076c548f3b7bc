// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/render/crewrenderer.h"

#include <random>
#include <thread>

#include "carousel/carousel.h"
#include <gtest/gtest.h>

#include "core/edit/lookedits.h"
#include "core/edit/planedits.h"
#include "core/edit/scoreedits.h"
#include "core/edit/zoneedits.h"

namespace chispa {
namespace {

/// Three hands that do their jobs in an order that chance gives.
class ShuffledCrew final : public Crew {
 public:
  std::size_t hands() const noexcept override { return 3; }

 private:
  void work(std::size_t jobs, Work work) noexcept override {
    std::vector<std::size_t> order(jobs);
    for (std::size_t i = 0; i < jobs; ++i) order[i] = i;
    std::shuffle(order.begin(), order.end(), chance_);
    for (const std::size_t number : order) work.call(work.own, number, chance_() % hands());
  }
  std::mt19937 chance_{7};
};

/// Zones that lie over each other, with layers that blend, an echo, a plane in space, and a zone that has a
/// pixel twice.
Show tangled() {
  Show show;
  const PaletteId palette =
      addPalette(show, "P", {{0, {10, 0, 40}}, {0.5, {255, 80, 0}}, {1, {255, 255, 200}}});
  std::vector<FixtureId> lines;
  for (int i = 0; i < 8; ++i) lines.push_back(addFixture(show, LineShape{5'000, 0.01}, {0, i * 0.1, 0}));
  const std::vector<FixtureId> first(lines.begin(), lines.begin() + 4), last(lines.begin() + 4, lines.end());
  const ZoneId all = addZone(show, "All", lines), left = addZone(show, "Left", first),
               right = addZone(show, "Right", last);
  std::vector<FixtureId> twice = first;
  twice.push_back(first.front());
  const ZoneId doubled = addZone(show, "Twice", twice);
  const ScoreId score = addScore(show, "S", "", Micros(20'000'000));
  const auto clip = [&](ZoneId zone, const char* effect, auto change) {
    const ClipId id = addClip(show, score, zone, effect, palette, Micros(0), Micros(20'000'000));
    changeClip(show, score, id, change);
  };
  const auto plain = [](Clip&) {};
  clip(left, "ribbon", plain);
  clip(right, "comets", plain);
  clip(all, "glints", [](Clip& c) { c.blend = Blend::Multiply; });
  clip(left, "swell", [](Clip& c) { c.params["across"] = std::string("plane"); });
  clip(doubled, "clouds", [](Clip& c) { c.strength = 0.5; });
  clip(right, "rockets", [](Clip& c) { c.blend = Blend::Add; });
  return show;
}

void expectTheSame(const Show& show, Crew& crew) {
  const auto compiled = compile(show);
  Renderer alone;
  alone.prepare(*compiled);
  CrewRenderer together;
  together.prepare(*compiled, crew.hands());
  PixelFrame one, other;
  one.resize(static_cast<std::size_t>(compiled->map->count()));
  other.resize(static_cast<std::size_t>(compiled->map->count()));
  for (const CompiledScore& score : compiled->scores)
    for (double t = 0.3; t < 12; t += 2.7) {
      alone.render(score, micros(t), one);
      together.render(score, micros(t), other, crew);
      ASSERT_EQ(one, other) << t;
    }
}

TEST(CrewRenderer, ComputesBitForBitWhatOneHandDoes) {
  ShuffledCrew crew;
  expectTheSame(tangled(), crew);
  expectTheSame(demo::carousel(), crew);
}

/// Staves that have nothing in common are computed at once, those that lie over each other one after the
/// other.
TEST(CrewRenderer, WavesPartWhereStavesMeet) {
  const auto compiled = compile(tangled());
  const CompiledScore& score = compiled->scores.front();
  ASSERT_EQ(score.waves.front(), 0u);
  for (std::size_t w = 0; w < score.waves.size(); ++w) {
    const std::size_t end = w + 1 < score.waves.size() ? score.waves[w + 1] : score.staves.size();
    std::vector<bool> isLit(static_cast<std::size_t>(compiled->map->count()), false);
    for (std::size_t s = score.waves[w]; s < end; ++s) {
      for (const std::uint32_t pixel : score.staves[s].cells->pixels) EXPECT_FALSE(isLit[pixel]);
      for (const std::uint32_t pixel : score.staves[s].cells->pixels) isLit[pixel] = true;
    }
  }
  EXPECT_GT(score.waves.size(), 1u);
  EXPECT_LT(score.waves.size(), score.staves.size() + 1);
}

/// Light that is cut into tiles needs room for a tile; what is worked out as a whole, for the whole: zones
/// that others show, in scores and in looks.
TEST(CrewRenderer, ThereIsRoomForWhatIsInHandAtOnce) {
  const auto maxOf = [](const char* effect, bool echoes, bool inLook) {
    Show show;
    const PaletteId palette = addPalette(show, "P", {{0, {10, 0, 40}}, {1, {255, 255, 200}}});
    const ZoneId large = addZone(show, "Large", {addFixture(show, LineShape{20'000, 0.01}, {})});
    const ZoneId small = addZone(show, "Small", {addFixture(show, LineShape{50, 0.01}, {1, 0, 0})});
    const ScoreId score = addScore(show, "S", "", Micros(20'000'000));
    addClip(show, score, large, effect, palette, Micros(0), Micros(20'000'000));
    if (echoes && !inLook) {
      const ClipId id = addClip(show, score, small, "echo", palette, Micros(0), Micros(20'000'000));
      changeClip(show, score, id, [&](Clip& c) { c.params["source"] = static_cast<double>(large.value); });
    }
    if (inLook) {
      const LookId id = addLook(show, "L", {small}, echoes ? "echo" : "hold", palette);
      changeItem(show.looks, id, [&](Look& look) {
        Clip changed = *look.steps.front().layers.front();
        changed.params["source"] = static_cast<double>(large.value);
        look.steps.front().layers.front() = std::make_shared<const Clip>(changed);
      });
    }
    return compile(show)->maxCells;
  };
  EXPECT_EQ(maxOf("ribbon", false, false), Renderer::kTile);
  EXPECT_EQ(maxOf("weave", false, false), 20'000u) << "it looks at the zone as a whole";
  EXPECT_EQ(maxOf("ribbon", true, false), 20'000u);
  EXPECT_EQ(maxOf("ribbon", true, true), 20'000u);
  EXPECT_EQ(maxOf("ribbon", false, true), Renderer::kTile);
}

}  // namespace
}  // namespace chispa
