// SPDX-License-Identifier: GPL-3.0-or-later
#include "link/setupstore.h"

#include <fstream>
#include <thread>

#include "temporary.h"
#include <gtest/gtest.h>
#include <nlohmann/json.hpp>

namespace chispa::link {
namespace {

Controller at(const std::string& host, int port = 8090) {
  Controller controller;
  controller.host = host;
  controller.setupPort = port;
  return controller;
}

std::string settings(int pixels) {
  return toJson(std::vector<PortSettings>{{1, Protocol::E131, {{pixels, "GRB", 0, 1, 1}}}}).dump();
}

class Store : public testing::Test {
 protected:
  test::TemporaryFolder folder_;
  SetupStore store_{folder_.path() / "setups"};
};

TEST_F(Store, GivesBackTheNewestFirst) {
  const Controller box = at("127.0.0.9");
  EXPECT_TRUE(store_.keptOf(box).empty()) << "before anything was kept";
  for (const int pixels : {10, 20, 30}) {
    ASSERT_TRUE(store_.keep(box, settings(pixels)));
    std::this_thread::sleep_for(std::chrono::milliseconds(3));
  }
  const auto kept = store_.keptOf(box);
  ASSERT_EQ(kept.size(), 3u);
  EXPECT_EQ(kept[0].ports[0].sections[0].pixels, 30);
  EXPECT_EQ(kept[2].ports[0].sections[0].pixels, 10);
  EXPECT_EQ(kept[0].when.size(), std::string("2026-11-23 14:05:09").size());
}

TEST_F(Store, KeepsControllersApartByAddressAndPort) {
  ASSERT_TRUE(store_.keep(at("127.0.0.9"), settings(10)));
  EXPECT_TRUE(store_.keptOf(at("127.0.0.90")).empty()) << "an address that begins alike is another";
  EXPECT_TRUE(store_.keptOf(at("127.0.0.9", 8091)).empty());
  EXPECT_EQ(store_.keptOf(at("127.0.0.9")).size(), 1u);
}

TEST_F(Store, NamesThatAreNoFileNamesStayInItsFolder) {
  const Controller sly = at("../../etc/box");
  ASSERT_TRUE(store_.keep(sly, settings(5)));
  EXPECT_EQ(store_.keptOf(sly).size(), 1u);
  EXPECT_FALSE(std::filesystem::exists(folder_.path() / "etc"));
  for (const auto& entry : std::filesystem::recursive_directory_iterator(folder_.path()))
    EXPECT_TRUE(!entry.is_regular_file() || entry.path().parent_path() == folder_.path() / "setups")
        << entry.path();
}

TEST_F(Store, LeavesOutWhatCannotBeRead) {
  const Controller box = at("127.0.0.9");
  ASSERT_TRUE(store_.keep(box, settings(10)));
  const auto file = store_.keptOf(box)[0].file;
  std::ofstream(file.parent_path() / (file.stem().string() + "9.json")) << "{ not settings";
  ASSERT_EQ(store_.keptOf(box).size(), 1u);
}

TEST_F(Store, SaysThatItCannotKeepAndSoNothingIsWritten) {
  std::ofstream(folder_.path() / "file") << "in the way";
  const SetupStore blocked(folder_.path() / "file" / "setups");
  const Outcome kept = blocked.keep(at("127.0.0.9"), settings(1));
  ASSERT_FALSE(kept);
  EXPECT_NE(kept.failure().text().find("nothing was written"), std::string::npos) << kept.failure().text();
}

}  // namespace
}  // namespace chispa::link
