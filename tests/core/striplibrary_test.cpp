// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/files/striplibrary.h"

#include <fstream>

#include "temporary.h"
#include <gtest/gtest.h>

#include "core/colour/whitepoint.h"

namespace chispa {
namespace {

TEST(StripLibrary, KeepsTypesByNameForTheNextShow) {
  const test::TemporaryFolder folder;
  const StripLibrary library(folder.path() / "chispa" / "strips.json");
  ASSERT_TRUE(library.read());
  EXPECT_TRUE(library.read()->empty());
  StripType warm, cold;
  warm.name = "Warm reel";
  warm.order = "GRBW";
  warm.white = whiteOfTemperature(2'700);
  warm.ledsPerPixel = 3;
  cold.name = "Cold reel";
  ASSERT_TRUE(library.keep(warm));
  ASSERT_TRUE(library.keep(cold));
  warm.volts = 24;
  ASSERT_TRUE(library.keep(warm));
  const auto read = library.read();
  ASSERT_TRUE(read);
  ASSERT_EQ(read->size(), 2u);
  EXPECT_EQ((*read)[0].name, "Cold reel");
  EXPECT_EQ((*read)[1], warm);
}

TEST(StripLibrary, DoesNotWriteOverWhatItCannotRead) {
  const test::TemporaryFolder folder;
  const auto file = folder.path() / "strips.json";
  std::ofstream(file) << R"({"strip_types":[{"name":"Mine","order":"XYZ"}]})";
  const StripLibrary library(file);
  ASSERT_FALSE(library.read());
  EXPECT_NE(library.read().failure().text().find("strips.json"), std::string::npos);
  EXPECT_FALSE(library.keep(StripType{}));
  std::ifstream in(file);
  const std::string text{std::istreambuf_iterator<char>(in), {}};
  EXPECT_NE(text.find("Mine"), std::string::npos);
}

TEST(WhitePoint, ItsTemperatureIsFoundAgain) {
  for (const double kelvin : {1'900.0, 2'700.0, 3'000.0, 4'000.0, 5'500.0, 6'500.0, 9'000.0}) {
    const auto found = temperatureOfWhite(whiteOfTemperature(kelvin));
    ASSERT_TRUE(found) << kelvin;
    EXPECT_NEAR(*found, kelvin, kelvin * 0.01);
  }
  EXPECT_FALSE(temperatureOfWhite({0.2f, 1, 0.2f})) << "green is no white";
}

}  // namespace
}  // namespace chispa
