// SPDX-License-Identifier: GPL-3.0-or-later
// Light that could harm: strobes, single-frame flashes, and what counts them.
#include "core/check/flashes.h"

#include "carousel/carousel.h"
#include <gtest/gtest.h>

#include "core/edit/planedits.h"
#include "core/edit/scoreedits.h"
#include "core/effecttrial.h"
#include "core/render/renderer.h"

namespace chispa {
namespace {

using test::cellsFor;

/// One line, one score with beats at the given instants, and a way to put clips on it.
class OneLine {
 public:
  OneLine() {
    line_ = addFixture(show_, LineShape{40, 0.05}, {});
    zone_ = show_.zones[0]->id;
    palette_ = show_.newId<PaletteId>();
    put(show_.palettes, Palette{palette_, "White", {{0, {255, 255, 255}}}});
    score_ = addScore(show_, "Storm night", "", Micros(12'000'000));
  }
  void beatsEvery(double first_s, double last_s) {
    changeItem(show_.scores, score_, [&](Score& score) {
      MarkLane lane{show_.newId<LaneId>(), "Beats", LaneKind::Beats, {}};
      double t = 0;
      while (t < 12) {
        lane.marks.push_back({show_.newId<MarkId>(), micros(t), {}, {}});
        t += first_s + (last_s - first_s) * t / 12;
      }
      score.lanes.push_back(std::move(lane));
    });
  }
  void strobe(ParamValues params, double speed = 1, Micros start = Micros(0), ZoneId zone = {}) {
    const ClipId id =
        addClip(show_, score_, zone ? zone : zone_, "strobe", palette_, start, Micros(12'000'000) - start);
    changeItem(show_.scores, score_, [&](Score& score) {
      Clip clip = *findClip(score, id);
      clip.params = std::move(params);
      clip.speed = speed;
      clip.fadeIn = clip.fadeOut = Micros(0);
      put(score.clips, clip);
    });
  }
  /// Instants at which the whole line goes from dark to light, at `fps` frames a second.
  std::vector<double> flashes(double fps = 40) const {
    const auto compiled = compile(show_);
    Renderer renderer;
    renderer.prepare(*compiled);
    PixelFrame frame;
    frame.resize(static_cast<std::size_t>(compiled->map->count()));
    std::vector<double> found;
    bool wasLit = false;
    for (int i = 0; i < 12 * fps; ++i) {
      renderer.render(compiled->scores[0], micros(i / fps), frame);
      const bool isLit = frame.g[20] > 0.5f;
      if (isLit && !wasLit) found.push_back(i / fps);
      wasLit = isLit;
    }
    return found;
  }
  static int maxInASecond(const std::vector<double>& at) {
    std::ptrdiff_t most = 0;
    for (const double from : at)
      most = std::max(most, std::count_if(at.begin(), at.end(),
                                          [from](double t) { return t >= from && t < from + 1 - 1e-9; }));
    return static_cast<int>(most);
  }
  std::vector<FlashRun> found() const {
    const auto compiled = compile(show_);
    return findFlashes(*compiled, compiled->scores[0]);
  }

  Show& show() { return show_; }
  ScoreId score() const { return score_; }

 private:
  Show show_;
  FixtureId line_;
  ZoneId zone_;
  PaletteId palette_;
  ScoreId score_;
};

TEST(Strobe, KeepsItsPromiseWhateverTheMusicDoes) {
  struct Case {
    double first_s, last_s, rate, speed;
    bool byBeat;
  };
  for (const Case& c :
       {Case{0.5, 0.5, 3, 1, true}, Case{0.4, 0.3, 3, 1, true}, Case{0.30, 0.36, 2.9, 1, true},
        Case{1.0, 0.2, 3, 1, true}, Case{0.45, 0.45, 3, 4, true}, Case{0.45, 0.45, 3, 6, false},
        Case{0.7, 0.7, 3, 1, false}}) {
    OneLine fresh;
    fresh.beatsEvery(c.first_s, c.last_s);
    fresh.strobe({{"rate", c.rate}, {"sync", c.byBeat}, {"flash", 0.2}}, c.speed);
    const auto at = fresh.flashes();
    EXPECT_LE(OneLine::maxInASecond(at), 3) << c.first_s << " to " << c.last_s << " × " << c.speed;
    EXPECT_GE(at.size(), 3u) << "it flashes at all";
    EXPECT_TRUE(fresh.found().empty());
  }
}

TEST(Strobe, KeepsOnePeriodForItsWholeClip) {
  OneLine line;
  line.beatsEvery(0.41, 0.41);
  line.strobe({{"rate", 2.0}, {"sync", true}, {"flash", 0.1}});
  const auto at = line.flashes(200);
  ASSERT_GT(at.size(), 4u);
  for (std::size_t i = 2; i < at.size(); ++i) EXPECT_NEAR(at[i] - at[i - 1], at[1] - at[0], 0.011);
}

TEST(Strobes, ThatTogetherFlashTooOftenAreAProblemWithItsPlace) {
  OneLine line;
  line.strobe({{"rate", 3.0}, {"sync", false}, {"flash", 0.3}}, 1, Micros(4'000'000));
  EXPECT_TRUE(line.found().empty()) << "one is within the budget";
  addFixture(line.show(), LineShape{40, 0.05}, {0, 1, 0});
  line.strobe({{"rate", 2.0}, {"sync", false}, {"flash", 0.1}}, 1, Micros(4'000'000) + Micros(160'000),
              line.show().zones[1]->id);
  const auto compiled = compile(line.show());
  const auto problems = flashProblems(line.show(), *compiled);
  ASSERT_FALSE(problems.empty());
  EXPECT_NE(problems[0].where.text().find("Storm night, at 0:0"), std::string::npos)
      << problems[0].where.text();
  EXPECT_EQ(problems[0].place, ProblemPlace(line.score()));
  EXPECT_FALSE(problems[0].cure.text().empty());
}

TEST(FlashCounter, CountsPairsOfOpposingChanges) {
  const auto run = [](auto light) {
    FlashCounter counter(std::vector<float>(100, 1.f));
    PixelFrame frame;
    frame.resize(100);
    int most = 0;
    for (int i = 0; i < 120; ++i) {
      for (std::size_t p = 0; p < 100; ++p) frame.r[p] = frame.g[p] = frame.b[p] = light(i, p);
      most = std::max(most, counter.add(Micros(i * 25'000), frame));
    }
    return most;
  };
  EXPECT_EQ(run([](int i, std::size_t) { return i % 8 < 4 ? 1.f : 0.f; }), 5) << "five a second";
  EXPECT_EQ(run([](int i, std::size_t) { return i % 20 < 10 ? 1.f : 0.f; }), 2);
  EXPECT_EQ(run([](int i, std::size_t p) { return p < 20 && i % 8 < 4 ? 1.f : 0.f; }), 0)
      << "a fifth of the light is below the area";
  EXPECT_EQ(run([](int i, std::size_t) { return i % 8 < 4 ? 0.95f : 0.84f; }), 0)
      << "the darker of the two is bright";
  EXPECT_EQ(run([](int i, std::size_t) { return i % 8 < 4 ? 0.29f : 0.2f; }), 0) << "the change is too small";
  EXPECT_EQ(
      run([](int i, std::size_t p) { return (p + static_cast<std::size_t>(i) * 7) % 20 < 10 ? 1.f : 0.f; }),
      0)
      << "light that only moves does not flash";
}

TEST(Demo, DoesNotFlashMoreThanIsSafe) {
  const Show show = demo::carousel();
  for (const Problem& problem : flashProblems(show, *compile(show)))
    ADD_FAILURE() << problem.where.text() << ": " << problem.what.text();
}

/// Just before a whole number of turns, beats and bars, every cell is as it was a little before or as it will
/// be a little after: nothing stands out for one frame.
class WholeTurns : public testing::TestWithParam<const Effect*> {};

TEST_P(WholeTurns, BringNoFlashOfOneFrame) {
  const Effect& effect = *GetParam();
  for (const Shape& shape : {Shape(LineShape{60, 0.1}), Shape(GridShape{16, 8, 0.1, 0.1})}) {
    const ZoneCells cells = cellsFor(shape);
    const auto lightAt = [&](double turns) {
      return test::run(effect, cells, turns, {}, {}, [&](EffectInput& in) {
        in.t_s = in.beats = in.bars = turns;
        in.beatInBar = 0;
        in.length_s = 1000;
      });
    };
    for (int whole = 1; whole <= 24; ++whole)
      for (const double part : {0.0, 0.25, 0.5, 1 / 3.0, 0.9}) {
        // Doubles whose part behind the point is nearer to 1 than a float can say.
        const double at = (whole + part) * (1 - 1e-10);
        const LightBuffer before = lightAt(at - 2e-4), now = lightAt(at), after = lightAt(at + 2e-4);
        for (std::size_t i = 0; i < now.size(); ++i) {
          const float low = std::min(before.a[i], after.a[i]), high = std::max(before.a[i], after.a[i]);
          ASSERT_GE(now.a[i], low - 0.06f) << effect.key << " at " << whole + part << ", cell " << i;
          ASSERT_LE(now.a[i], high + 0.06f) << effect.key << " at " << whole + part << ", cell " << i;
        }
      }
  }
}

std::vector<const Effect*> all() {
  std::vector<const Effect*> pointers;
  for (const Effect& effect : effects()) pointers.push_back(&effect);
  return pointers;
}

INSTANTIATE_TEST_SUITE_P(Registry, WholeTurns, testing::ValuesIn(all()), [](const auto& one) {
  std::string name = one.param->key;
  std::erase(name, '-');
  return name;
});

/// Two staves over the same pixels; the upper one's clip has the blend.
class StaveBlending : public testing::Test {
 protected:
  Srgb8 over(Blend blend, Srgb8 below, Srgb8 above, double strength = 1, int pixel = 3) {
    Show show;
    const FixtureId line = addFixture(show, LineShape{8, 0.1}, {});
    const ZoneId lower = show.zones[0]->id;
    Zone cells{show.newId<ZoneId>(), "Pairs", {{line, std::nullopt}}, ZoneLayout::Strand, 2};
    put(show.zones, cells);
    const ScoreId score = addScore(show, "S", "", Micros(1'000'000));
    const auto place = [&](ZoneId zone, Srgb8 colour, Blend how, double much) {
      const PaletteId palette = show.newId<PaletteId>();
      put(show.palettes, Palette{palette, "P", {{0, colour}}});
      const ClipId id = addClip(show, score, zone, "hold", palette, Micros(0), Micros(1'000'000));
      changeItem(show.scores, score, [&](Score& s) {
        Clip clip = *findClip(s, id);
        clip.blend = how;
        clip.strength = much;
        clip.fadeIn = clip.fadeOut = Micros(0);
        put(s.clips, clip);
        s.staves = {cells.id, lower};
      });
    };
    place(lower, below, Blend::Normal, 1);
    place(cells.id, above, blend, strength);
    const auto compiled = compile(show);
    Renderer renderer;
    renderer.prepare(*compiled);
    PixelFrame frame;
    frame.resize(8);
    renderer.render(compiled->scores[0], Micros(500'000), frame);
    const auto i = static_cast<std::size_t>(pixel);
    return toSrgb8({frame.r[i], frame.g[i], frame.b[i]});
  }
};

TEST_F(StaveBlending, ReachesAllThatLiesBelow) {
  const Srgb8 red{255, 0, 0}, green{0, 255, 0}, white{255, 255, 255}, black{0, 0, 0}, yellow{255, 255, 0};
  EXPECT_EQ(over(Blend::Normal, red, green), green);
  EXPECT_EQ(over(Blend::Multiply, red, white), red) << "white leaves what is below";
  EXPECT_EQ(over(Blend::Multiply, yellow, green), green);
  EXPECT_EQ(over(Blend::Add, red, green), yellow);
  EXPECT_EQ(over(Blend::Screen, red, green), yellow);
  EXPECT_EQ(over(Blend::Lighten, red, green), yellow);
  EXPECT_EQ(over(Blend::Mask, red, black), black) << "dark hides what is below";
  EXPECT_EQ(over(Blend::Mask, red, white), red);
  EXPECT_EQ(over(Blend::CutOut, white, green), green) << "it shows where it is bright below";
  EXPECT_EQ(over(Blend::CutOut, black, green), black);
  EXPECT_EQ(over(Blend::Multiply, red, black, 0), red) << "without strength nothing happens";
}

}  // namespace
}  // namespace chispa
