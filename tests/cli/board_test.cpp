// SPDX-License-Identifier: GPL-3.0-or-later
#include <algorithm>
#include <filesystem>
#include <fstream>

#include "run.h"
#include "temporary.h"
#include <gtest/gtest.h>
#include <nlohmann/json.hpp>

namespace chispa {
namespace {

using Json = nlohmann::json;
using test::run;

const std::string kBoard = "board " + test::kDemo + " ";

Json jsonOf(const test::Ran& ran) {
  return Json::parse(ran.out.substr(0, ran.out.rfind('}') + 1));
}

TEST(CliBoard, TellsWhatItTakesAsJson) {
  const test::Ran ran = run(kBoard + "--look 'Quiet rim' --on 'Canopy rim' --fps 20 --size --json");
  EXPECT_EQ(ran.status, 0) << ran.out;
  const Json json = jsonOf(ran);
  EXPECT_GT(json["flash_bytes"], 5000);
  EXPECT_LT(json["flash_bytes"], 32768);
  EXPECT_GT(json["ram_bytes"], 900);
  EXPECT_TRUE(json["fits"]);
  ASSERT_EQ(json["scenes"].size(), 1u);
  const Json& scene = json["scenes"][0];
  EXPECT_EQ(scene["name"], "Quiet rim");
  EXPECT_EQ(scene["kind"], "program");
  EXPECT_GT(scene["bytes"], 100);
  EXPECT_LT(scene["bytes"], 2048) << "hours of light in two kilobytes";
  EXPECT_EQ(scene["seconds"], 0);
  EXPECT_LT(scene["loss_delta_e"], 1);
  EXPECT_EQ(scene["parts"][0]["effects"], "Swell");
}

TEST(CliBoard, WritesTheFilesOnceItFits) {
  const test::TemporaryFolder folder;
  const std::string out = (folder.path() / "board").string();
  const std::string waltz = kBoard + "--score 'The Slow Round' --on Lanterns --out " + out;
  const test::Ran large = run(waltz);
  EXPECT_EQ(large.status, 1);
  EXPECT_NE(large.out.find("64 colours a part: "), std::string::npos) << large.out;
  EXPECT_NE(large.out.find("nothing was written"), std::string::npos) << large.out;
  EXPECT_FALSE(std::filesystem::exists(out));
  const test::Ran small = run(waltz + " --fps 20 --colours 64");
  EXPECT_EQ(small.status, 0) << small.out;
  for (const char* name : {"light.h", "player.h", "player.c", "example-8bit.c", "README.md"})
    EXPECT_TRUE(std::filesystem::exists(folder.path() / "board" / name)) << name;
}

TEST(CliBoard, SaysWhatIsWrong) {
  const auto expectSaid = [](const std::string& words, int status, const std::string& said) {
    const test::Ran ran = run(words);
    EXPECT_EQ(ran.status, status) << words;
    EXPECT_NE(ran.out.find(said), std::string::npos) << ran.out;
  };
  expectSaid(kBoard, 1, "no score and no look is chosen");
  expectSaid(kBoard + "--look Nothing", 1, "no look “Nothing”");
  expectSaid(kBoard + "--score Nothing", 1, "Nothing");
  expectSaid(kBoard + "--look Hearth --on Nowhere", 1, "no fixture and no zone “Nowhere”");
  expectSaid(kBoard + "--look 'Work light'", 1, "are of different strips");
  expectSaid(kBoard + "--look Hearth --fps 0", 2, "--fps");
  expectSaid(kBoard + "--look Hearth --on 'Post 1' --fps 15 --out /proc/nowhere", 1, "/proc/nowhere");
  expectSaid(kBoard + "--look Hearth --on 'Post 1' --flash 1024 --ram 64 --size", 1, "RAM: it takes");
}

TEST(CliRender, WritesPlainDataAndSetLists) {
  const test::TemporaryFolder folder;
  const std::string out = (folder.path() / "light").string();
  const std::string render = "render " + test::kDemo + " ";
  const test::Ran table =
      run(render + "--seconds 1 --fps 10 --on 'Post 1' --on Lanterns --out " + out + ".csv");
  EXPECT_EQ(table.status, 0) << table.out;
  std::ifstream lines(out + ".csv");
  std::string heading, row;
  std::getline(lines, heading);
  int rows = 0;
  while (std::getline(lines, row)) ++rows;
  EXPECT_EQ(rows, 10);
  EXPECT_EQ(std::count(heading.begin(), heading.end(), ','), 1 + 3 * (32 + 72));
  EXPECT_EQ(run(render + "--seconds 1 --universes --out " + out + ".rgb").status, 0);
  EXPECT_TRUE(std::filesystem::exists(out + ".rgb.json"));
  EXPECT_EQ(run(render + "--seconds 1 --out " + out + ".png").status, 0);
  EXPECT_EQ(run(render + "--seconds 1 --on Nowhere --out " + out + ".csv").status, 1);
  EXPECT_EQ(run(render + "--seconds 1 --universes --out " + out + ".png").status, 1);
  // A recording tells whether it suits a show.
  ASSERT_EQ(run(render + "--seconds 1 --out " + out + ".chirec").status, 0);
  const test::Ran same = run("play " + out + ".chirec --check " + test::kDemo);
  EXPECT_EQ(same.status, 0) << same.out;
  EXPECT_NE(same.out.find("suits this show"), std::string::npos);
  EXPECT_EQ(run(render + "--set-list Nothing --out " + out + "2.chirec").status, 1);
  EXPECT_EQ(run(render + "--set-list 'Fair evening' --out " + out + ".mp4").status, 1);
}

}  // namespace
}  // namespace chispa
