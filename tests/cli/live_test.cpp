// SPDX-License-Identifier: GPL-3.0-or-later
// Looks, bindings and desks on the command line.
#include <sstream>

#include <gtest/gtest.h>
#include <nlohmann/json.hpp>

#include "cli/run.h"

namespace chispa {
namespace {

using test::kDemo;
using test::Ran;
using test::run;

TEST(CliLive, LooksArePrintedAsJson) {
  const Ran ran = run("looks " + kDemo);
  ASSERT_EQ(ran.status, 0) << ran.out;
  const auto looks = nlohmann::json::parse(ran.out);
  ASSERT_EQ(looks.size(), 12u);
  EXPECT_EQ(looks[3]["name"], "Lantern count");
  EXPECT_EQ(looks[3]["steps"], 3);
  EXPECT_NEAR(looks[3]["seconds"].get<double>(), 2.55, 1e-6);
  EXPECT_EQ(looks[1]["zones"], nlohmann::json::array({"Canopy rim"}));
}

TEST(CliLive, BindingsHaveTheColumnsThatWerePromised) {
  const Ran ran = run("bindings " + kDemo + " --csv");
  ASSERT_EQ(ran.status, 0) << ran.out;
  EXPECT_TRUE(ran.out.starts_with("source,channel,number,target,parameter,low,high,response,name"))
      << ran.out;
  EXPECT_NE(ran.out.find("control,1,9,master,,0.0,1.0,eased,\"Fader 9, master\""), std::string::npos)
      << ran.out;
  EXPECT_EQ(ran.lines(), 8u);
  const auto rows = nlohmann::json::parse(run("bindings " + kDemo + " --json").out);
  EXPECT_EQ(rows.size(), 7u);
  EXPECT_EQ(rows[0]["target"], "level of Canopy rim");
}

/// The lanterns are twelve cells of universe 90, the ribs four cells each of universe 91.
TEST(CliLive, TheDeskSheetListsEveryCell) {
  const Ran ran = run("desk " + kDemo + " --csv");
  ASSERT_EQ(ran.status, 0) << ran.out;
  EXPECT_TRUE(ran.out.starts_with("fixture,zone,cell,universe,channel,channels,format,how")) << ran.out;
  EXPECT_EQ(ran.lines(), 1u + 12 + 48);
  std::istringstream lines(ran.out);
  std::string line;
  int lanterns = 0, ribs = 0;
  while (std::getline(lines, line)) {
    lanterns += line.find(",Lanterns,") != std::string::npos && line.find(",90,") != std::string::npos &&
                line.find(",RGB,multiplies") != std::string::npos;
    ribs += line.find(",Roof ribs,") != std::string::npos && line.find(",91,") != std::string::npos &&
            line.find(",RGB,replaces") != std::string::npos;
  }
  EXPECT_EQ(lanterns, 12);
  EXPECT_EQ(ribs, 48);
}

/// The check hears nothing, and says who listens in vain.
TEST(CliLive, TheDeskCheckTellsWhoListensInVain) {
  const Ran ran = run("desk " + kDemo + " --check --seconds 0.2 --interface 127.0.0.1");
  EXPECT_EQ(ran.status, 1) << ran.out;
  EXPECT_NE(ran.out.find("universe 90 is listened to, and does not arrive"), std::string::npos) << ran.out;
}

TEST(CliLive, ALookPlaysWithoutAWindow) {
  const Ran ran = run("run " + kDemo + " --look \"Quiet rim\" --seconds 0.5 --silent");
  EXPECT_EQ(ran.status, 0) << ran.out;
  const Ran wrong = run("run " + kDemo + " --look Nothing --seconds 0.5 --silent");
  EXPECT_EQ(wrong.status, 1);
  EXPECT_NE(wrong.out.find("no look called"), std::string::npos) << wrong.out;
}

}  // namespace
}  // namespace chispa
