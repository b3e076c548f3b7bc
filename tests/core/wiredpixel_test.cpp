// SPDX-License-Identifier: GPL-3.0-or-later
// Where a pixel of a fixture stands on the wire, whichever way round it hangs and however it is grouped.
#include "core/wire/wiredpixel.h"

#include <gtest/gtest.h>

#include "core/edit/planedits.h"
#include "core/edit/wireedits.h"

namespace chispa {
namespace {

class WiredPixels : public testing::Test {
 protected:
  WiredPixels() {
    line_ = addFixture(show_, LineShape{200, 0.02}, {});
    box_ = addController(show_, 2);
  }
  /// "universe : channel" of the pixel's value.
  std::string at(int pixel) const {
    const Patch patch = derivePatch(show_);
    const auto wired = wiredPixel(patch, line_, pixel);
    return wired ? addressText(Protocol::E131, wired->span->universe, wired->channel) : "nowhere";
  }
  void changePort(const std::function<void(Port&)>& change) {
    changeItem(show_.controllers, box_, [&](Controller& c) { change(c.ports.front()); });
  }

  Show show_;
  FixtureId line_;
  ControllerId box_;
};

TEST_F(WiredPixels, AreNowhereUntilTheyHang) {
  EXPECT_EQ(at(0), "nowhere");
}

TEST_F(WiredPixels, FollowEachOtherIntoTheNextUniverse) {
  hang(show_, {line_, 0, 200}, {box_, 0, 0});
  EXPECT_EQ(at(0), "1 : 1");
  EXPECT_EQ(at(1), "1 : 4");
  EXPECT_EQ(at(169), "1 : 508");
  EXPECT_EQ(at(170), "2 : 1");
  EXPECT_EQ(at(200), "nowhere");
}

TEST_F(WiredPixels, CountFromTheOtherEndWhereTheyHangReversed) {
  hang(show_, {line_, 0, 200}, {box_, 0, 0});
  changePort([](Port& port) { port.run.front().reversed = true; });
  EXPECT_EQ(at(199), "1 : 1");
  EXPECT_EQ(at(198), "1 : 4");
  EXPECT_EQ(at(0), "2 : 88");
}

TEST_F(WiredPixels, ShareAValueInGroups) {
  hang(show_, {line_, 0, 200}, {box_, 0, 0});
  changePort([](Port& port) { port.settings.grouping = 3; });
  EXPECT_EQ(at(0), "1 : 1");
  EXPECT_EQ(at(1), "1 : 1") << "not only the first of a group";
  EXPECT_EQ(at(2), "1 : 1");
  EXPECT_EQ(at(3), "1 : 4");
  EXPECT_EQ(at(199), "1 : 199") << "the last group has fewer";
}

}  // namespace
}  // namespace chispa
