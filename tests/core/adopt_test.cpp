// SPDX-License-Identifier: GPL-3.0-or-later
#include "carousel/carousel.h"
#include <gtest/gtest.h>

#include "core/edit/adoptsetup.h"
#include "core/edit/planedits.h"
#include "core/edit/wireedits.h"
#include "core/render/peakcurrent.h"

namespace chispa {
namespace {

/// A show made of what a controller is set up for wants exactly that of it.
TEST(AdoptSetup, GivesBackTheSettingsThatWereRead) {
  const Show demo = demo::carousel();
  const Patch patch = derivePatch(demo);
  for (int i = 0; i < std::ssize(demo.controllers); ++i) {
    const auto there = portSettings(demo, patch, i);
    Show empty;
    const ControllerId box = addController(empty, 1);
    EXPECT_GT(adoptSetup(empty, box, there), 0);
    auto wanted = portSettings(empty, derivePatch(empty), 0);
    wanted.resize(std::min(wanted.size(), there.size()));
    EXPECT_EQ(wanted, there) << demo.controllers[static_cast<std::size_t>(i)]->name;
  }
}

TEST(AdoptSetup, PinsWhatDoesNotFollow) {
  Show show;
  const ControllerId box = addController(show, 1);
  PortSettings port{3, Protocol::ArtNet, {{20, "RGBW", 2, 9, 101}, {10, "GRB", 0, 40, 1}}};
  EXPECT_EQ(adoptSetup(show, box, {port}), 2);
  const Controller& now = *show.controllers[0];
  ASSERT_EQ(now.ports.size(), 3u);
  EXPECT_EQ(now.protocol, Protocol::ArtNet);
  const auto settings = portSettings(show, derivePatch(show), 0);
  EXPECT_EQ(settings[2].sections[1].universe, 40);
  EXPECT_EQ(settings[2].sections[1].channel, 1);
  EXPECT_EQ(settings[2].sections[0].universe, 9);
  EXPECT_EQ(settings[2].sections[0].channel, 101);
}

TEST(Brightest, IsTheMomentThatDrawsMost) {
  const Show demo = demo::carousel();
  const auto compiled = compile(demo);
  const std::atomic<bool> cancelled{false};
  const auto found = peakCurrentMoment(*compiled, demo.scores[0]->id, cancelled);
  EXPECT_GT(found.amps, 5);
  EXPECT_EQ(found.frame.size(), static_cast<std::size_t>(compiled->map->count()));
  const std::atomic<bool> stopped{true};
  EXPECT_EQ(peakCurrentMoment(*compiled, demo.scores[0]->id, stopped).amps, 0);
}

}  // namespace
}  // namespace chispa
