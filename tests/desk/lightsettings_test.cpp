// SPDX-License-Identifier: GPL-3.0-or-later
#include "scorewindow.h"
#include <QCheckBox>

#include "core/edit/wireedits.h"

// How light is made, as it is chosen in the window.

namespace chispa::desk {
namespace {

class LightSettingsTest : public ScoreWindowTest {
 protected:
  void click(const char* box) {
    the<QCheckBox>(box)->click();
    QCoreApplication::processEvents();
  }
};

TEST_F(LightSettingsTest, FadesAndTheMasterGoEvenlyToTheEyeOrInLight) {
  window_.showWorkspace(Workspace::Plan);
  selection_.clear();
  const auto levelAtHalf = [&] {
    settle();
    stage_.player().output().setMaster(0.5f);
    EXPECT_TRUE(eventually([&] { return stage_.player().output().lightLevel() > 0; }));
    return stage_.player().output().lightLevel();
  };
  EXPECT_TRUE(eventually([&] { return std::abs(levelAtHalf() - 0.184f) < 0.001f; }));
  choose("fadesEven", QStringLiteral("in light"));
  EXPECT_EQ(show().light.fades, Evenness::InLight);
  EXPECT_TRUE(eventually([&] { return std::abs(levelAtHalf() - 0.5f) < 0.001f; }));
  trigger("undo");
  EXPECT_EQ(show().light.fades, Evenness::ToTheEye);
}

TEST_F(LightSettingsTest, AControllerIsSentPlainValuesAndMoreFrames) {
  window_.showWorkspace(Workspace::Wire);
  const ControllerId id = show().controllers.front()->id;
  const auto box = [&] { return *chispa::find(show().controllers, id); };
  selection_.select(id);
  EXPECT_TRUE(the<QCheckBox>("dithers")->isChecked());
  click("dithers");
  EXPECT_FALSE(box().dithers);
  setNumber("mostFrames", 60);
  EXPECT_EQ(box().maxFramesPerSecond, 60);
  trigger("undo");
  trigger("undo");
  EXPECT_TRUE(box().dithers);
  EXPECT_EQ(box().maxFramesPerSecond, 0);
}

TEST_F(LightSettingsTest, AStripShowsEachColourAsBrightAsItCan) {
  window_.showWorkspace(Workspace::Plan);
  const StripTypeId id = show().stripTypes.front()->id;
  selection_.select(id);
  click("stripBrightest");
  EXPECT_TRUE(chispa::find(show().stripTypes, id)->isBrightest);
  trigger("undo");
  EXPECT_FALSE(chispa::find(show().stripTypes, id)->isBrightest);
}

TEST_F(LightSettingsTest, APaletteGoesAlongTheHue) {
  const PaletteId id = show().palettes.front()->id;
  selection_.select(id);
  const auto path = [&] { return chispa::find(show().palettes, id)->path; };
  choose("palettePath", QStringLiteral("along the hue"));
  EXPECT_EQ(path(), PalettePath::ShorterHue);
  choose("palettePath", QStringLiteral("the long way round"));
  EXPECT_EQ(path(), PalettePath::LongerHue);
  trigger("undo");
  trigger("undo");
  EXPECT_EQ(path(), PalettePath::Straight);
}

TEST_F(LightSettingsTest, ScrubbingIsHeardUnlessItIsSwitchedOff) {
  EXPECT_TRUE(stage_.hearsScrubbing());
  trigger("hearScrubbing");
  EXPECT_FALSE(stage_.hearsScrubbing());
  EXPECT_FALSE(the<QAction>("hearScrubbing")->isChecked());
  trigger("hearScrubbing");
  EXPECT_TRUE(stage_.hearsScrubbing());
}

/// The light picture shows light as it is meant, or as the strips show it: those that hang nowhere are dark
/// then.
TEST_F(LightSettingsTest, LightIsShownAsMeantOrAsTheStripsShowIt) {
  stage_.seek(Micros(20'000'000));
  settle();
  EXPECT_TRUE(eventually([&] {
    const auto& r = stage_.frame().r;
    return std::any_of(r.begin(), r.end(), [](float light) { return light > 0.1f; });
  }));
  ASSERT_FALSE(stage_.showsAsStrips());
  EXPECT_EQ(&stage_.seenFrame(), &stage_.frame());
  trigger("showAsStrips");
  EXPECT_TRUE(stage_.showsAsStrips());
  EXPECT_TRUE(the<QAction>("showAsStrips")->isChecked());
  const PixelFrame seen = stage_.seenFrame();
  ASSERT_EQ(seen.size(), stage_.frame().size());
  double meant = 0, apart = 0;
  for (std::size_t i = 0; i < seen.size(); ++i) {
    meant += static_cast<double>(stage_.frame().g[i]);
    apart += std::abs(static_cast<double>(stage_.frame().g[i] - seen.g[i]));
  }
  EXPECT_GT(apart, 0);
  EXPECT_LT(apart, 0.2 * meant) << "much the same light";
  document_.apply(QStringLiteral("unwire"), [](Show& s) { s.controllers.clear(); });
  settle();
  EXPECT_TRUE(eventually([&] {
    const auto& g = stage_.seenFrame().g;
    return std::all_of(g.begin(), g.end(), [](float light) { return light == 0; });
  })) << "nothing hangs anywhere";
  trigger("showAsStrips");
  EXPECT_FALSE(stage_.showsAsStrips());
}

}  // namespace
}  // namespace chispa::desk
