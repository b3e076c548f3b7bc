// SPDX-License-Identifier: GPL-3.0-or-later
#include <csignal>

#include "capture.h"
#include "eventually.h"
#include "run.h"
#include "temporary.h"
#include <gtest/gtest.h>
#include <httplib.h>
#include <nlohmann/json.hpp>

#include "core/edit/memoryedits.h"
#include "core/files/showfile.h"
#include "node/interface.h"

namespace chispa {
namespace {

using test::runProgram;

/// The demo with the booth's looks for its memory, and a simulated controller in its place.
class CliMemory : public testing::Test {
 protected:
  void SetUp() override {
    const auto loaded = loadShow(test::kDemo);
    ASSERT_TRUE(loaded);
    Show changed = *loaded;
    Show* const show = &changed;
    Controller box = *show->controllers.front();
    box.host = address_;
    box.setupPort = 8090;
    box_ = box.name;
    put(show->controllers, box);
    for (const char* look : {"Quiet rim", "Lanterns"})
      if (const Look* found = findNamed(show->looks, look)) addMemoryScene(*show, box.id, found->id);
    if (show->controllers.front()->memory.scenes.empty())
      addMemoryScene(*show, box.id, show->looks.front()->id);
    changeMemory(*show, box.id, [](ControllerMemory& m) { m.scenes.front().length = Micros(3'000'000); });
    file_ = (folder_.path() / "show.chispa").string();
    ASSERT_TRUE(saveShow(file_, *show));
  }
  void start(node::NodeOptions options) {
    options.listen = address_;
    node_.emplace(std::move(options));
    http_.emplace(*node_);
    std::string why;
    ASSERT_TRUE(http_->start(address_, 8090, why)) << why;
  }
  /// What `--json` prints, behind what is said of the demo's missing music.
  nlohmann::json told() {
    const std::string out = memory("--json").out;
    return nlohmann::json::parse(out.substr(std::min(out.find('{'), out.size())));
  }
  test::Ran memory(const std::string& words) {
    return runProgram("chispa-cli", "memory " + file_ + " --controller '" + box_ + "' " + words,
                      "XDG_STATE_HOME=" + folder_.path().string());
  }

  std::string address_ = test::loopbackAddress(13);
  test::TemporaryFolder folder_;
  std::string box_;
  std::string file_;
  std::optional<node::Node> node_;
  std::optional<node::Interface> http_;
};

TEST_F(CliMemory, IsComparedFilledAndPutBack) {
  start({});
  ASSERT_EQ(memory("--json").status, 0);
  const auto json = told();
  EXPECT_TRUE(json["fits"]);
  EXPECT_FALSE(json["clock_set"]);
  EXPECT_GE(json["scenes"].size(), 1u);
  EXPECT_EQ(json["scenes"][0]["seconds"], 4) << "a second to fade in, and three of its light";
  EXPECT_LE(json["scenes"][0]["loss_delta_e"], 1);
  EXPECT_FALSE(json["differences"].empty());
  EXPECT_TRUE(node_->sceneNames().empty()) << "nothing is written unasked";
  const auto written = memory("--write");
  EXPECT_EQ(written.status, 0) << written.out;
  EXPECT_NE(written.out.find("written and read back"), std::string::npos);
  EXPECT_EQ(node_->sceneNames().size(), json["scenes"].size());
  EXPECT_NE(memory("").out.find("nothing differs"), std::string::npos);
  EXPECT_EQ(memory("--play 1").status, 0);
  EXPECT_EQ(node_->shownScene(), 1);
  // Nothing was there before, so nothing was kept; after another it is.
  EXPECT_NE(memory("--restore").out.find("Nothing is kept"), std::string::npos);
  EXPECT_EQ(memory("--write --fit").status, 0);
  const auto restored = memory("--restore");
  EXPECT_EQ(restored.status, 0) << restored.out;
  EXPECT_NE(restored.out.find("back to what it held on"), std::string::npos) << restored.out;
}

TEST_F(CliMemory, SaysWhatIsWrong) {
  EXPECT_NE(memory("").out.find("does not answer"), std::string::npos);
  node::NodeOptions options;
  options.memory->bytes = 40;
  start(options);
  const auto small = memory("--write");
  EXPECT_EQ(small.status, 1);
  EXPECT_NE(small.out.find("of 40"), std::string::npos) << small.out;
  EXPECT_TRUE(node_->sceneNames().empty());
  EXPECT_EQ(memory("--write --restore").status, 2);
  EXPECT_EQ(memory("--play 9000").status, 2);
  const auto nobody =
      runProgram("chispa-cli", "memory " + file_ + " --controller Nobody", "XDG_STATE_HOME=/nowhere");
  EXPECT_EQ(nobody.status, 1);
  EXPECT_NE(nobody.out.find("Nobody"), std::string::npos);
}

/// The program itself, by its own clock: it plays at the time, and its memory is of the size it was given.
TEST_F(CliMemory, TheSimulatedControllerPlaysByItsOwnClock) {
  const auto loaded = loadShow(file_);
  ASSERT_TRUE(loaded);
  Show changed = *loaded;
  Show* const show = &changed;
  const ControllerId id = show->controllers.front()->id;
  changeMemory(*show, id, [](ControllerMemory& m) {
    m.scenes.front().starts = {{0, {NightTimeKind::Clock, 19 * 60}, {}}};
  });
  show->almanac.zone = "UTC";
  ASSERT_TRUE(saveShow(file_, *show));
  const auto started =
      test::shell(CHISPA_BIN_DIR "/chispa-node --listen " + address_ +
                  " --http 8090 --memory scenes=3,contacts=1 --clock-speed 60 > /dev/null 2>&1 & echo $!");
  const int node = std::stoi(started.out);
  ASSERT_TRUE(test::eventually([&] { return memory("--json").status == 0; }));
  EXPECT_EQ(memory("--write").status, 0);
  httplib::Client client(address_, 8090);
  const auto set = client.Put("/clock", "{\"utc\":\"2026-12-24T18:59:00Z\"}", "application/json");
  ASSERT_TRUE(set);
  EXPECT_NE(set->body.find("18:59:0"), std::string::npos) << set->body;
  const auto playing = [&] { return told()["playing"].get<int>(); };
  EXPECT_TRUE(test::eventually([&] { return playing() == 1; }));
  ::kill(node, SIGTERM);
}

}  // namespace
}  // namespace chispa
