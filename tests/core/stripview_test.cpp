// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/preview/stripview.h"

#include <gtest/gtest.h>

#include "core/edit/planedits.h"
#include "core/edit/wireedits.h"
#include "core/files/stripkinds.h"

namespace chispa {
namespace {

/// Ten pixels of a kind of strip on a controller, and two that hang nowhere.
class SeenStrip : public testing::Test {
 protected:
  const PixelFrame& seen(const StripType& strip, Rgb meant, float master = 1) {
    show_ = {};
    StripType own = strip;
    own.id = show_.newId<StripTypeId>();
    put(show_.stripTypes, own);
    const FixtureId line = addFixture(show_, LineShape{12, 0.1}, {});
    changeItem(show_.fixtures, line, [&](Fixture& f) { f.stripType = own.id; });
    hang(show_, {line, 0, 10}, {addController(show_, 1), 0, 0});
    if (edit_) edit_(show_);
    compiled_ = compile(show_);
    view_.emplace(show_, *compiled_);
    PixelFrame frame;
    frame.resize(12);
    for (std::size_t i = 0; i < 12; ++i) {
      frame.r[i] = meant.r;
      frame.g[i] = meant.g;
      frame.b[i] = meant.b;
    }
    return view_->seen(frame, master);
  }

  Show show_;
  std::function<void(Show&)> edit_;
  std::shared_ptr<const CompiledShow> compiled_;
  std::optional<StripView> view_;
};

StripType plainStrip(double exponent) {
  StripType strip;
  strip.order = "GRB";
  strip.response = {exponent};
  strip.chips.reset();
  return strip;
}

/// A colour that is between the strip's steps is the mean of what is sent for it; what is not wired is dark.
TEST_F(SeenStrip, ShowsTheMeanOfWhatIsSent) {
  for (const double exponent : {1.0, 2.2}) {
    const PixelFrame& light = seen(plainStrip(exponent), {0.4f, 0.1f, 0.02f});
    float r = 0, g = 0, b = 0;
    for (std::size_t i = 0; i < 10; ++i) {
      r += light.r[i] / 10;
      g += light.g[i] / 10;
      b += light.b[i] / 10;
    }
    EXPECT_NEAR(r, 0.4f, 2e-3f) << exponent;
    EXPECT_NEAR(g, 0.1f, 2e-3f) << exponent;
    EXPECT_NEAR(b, 0.02f, 2e-3f) << exponent;
    EXPECT_EQ(light.r[10], 0);
  }
}

/// Chips that are known show a colour as it is meant; a strip without green light cannot, whatever it is
/// told.
TEST_F(SeenStrip, HasTheColoursOfItsChips) {
  for (const StripKind& kind : stripKinds()) {
    if (kind.strip.order.size() < 3 || !kind.strip.chips) continue;
    const PixelFrame& light = seen(kind.strip, {0.3f, 0.25f, 0.2f});
    EXPECT_NEAR(light.r[4], 0.3f, 0.01f) << kind.strip.name;
    EXPECT_NEAR(light.g[4], 0.25f, 0.01f) << kind.strip.name;
    EXPECT_NEAR(light.b[4], 0.2f, 0.01f) << kind.strip.name;
  }
  StripType narrow = plainStrip(1);
  narrow.chips = ChipColours{};
  narrow.chips->green = {0.35, 0.45};
  const PixelFrame& light = seen(narrow, {0, 0.5f, 0});
  EXPECT_GT(light.r[4], 0.05f) << "its green is a yellowish one";
}

TEST_F(SeenStrip, IsAsBrightAsMasterAndPortLetIt) {
  EXPECT_NEAR(seen(plainStrip(1), {0.8f, 0.8f, 0.8f}, 0.5f).r[2], 0.4f, 3e-3f);
  edit_ = [](Show& show) {
    changeItem(show.controllers, show.controllers.front()->id,
               [](Controller& c) { c.ports.front().settings.brightness = 0.25; });
  };
  EXPECT_NEAR(seen(plainStrip(1), {0.8f, 0.8f, 0.8f}).r[2], 0.2f, 3e-3f);
}

}  // namespace
}  // namespace chispa
