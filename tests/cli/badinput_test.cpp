// SPDX-License-Identifier: GPL-3.0-or-later
// Every command with files that lie: it ends by itself, with a status, and says which file it was.
#include <fstream>
#include <random>
#include <sstream>

#include "temporary.h"
#include <gtest/gtest.h>

#include "cli/run.h"

namespace chispa {
namespace {

using test::kDemo;
using test::Ran;
using test::run;

/// A command that reads a file, which stands where %s is.
class Command : public testing::TestWithParam<const char*> {
 protected:
  Ran runOn(const std::filesystem::path& file) const {
    std::string words = GetParam();
    words.replace(words.find("%s"), 2, "'" + file.string() + "'");
    if (const auto out = words.find("%out"); out != std::string::npos)
      words.replace(out, 4, (folder_.path() / "out").string());
    return run(words);
  }
  std::filesystem::path write(const std::string& name, const std::string& bytes) const {
    std::ofstream(folder_.path() / name, std::ios::binary) << bytes;
    return folder_.path() / name;
  }
  static std::string demoText() {
    std::ostringstream out;
    out << std::ifstream(kDemo, std::ios::binary).rdbuf();
    return out.str();
  }
  void expectRefused(const std::filesystem::path& file) const {
    const Ran ran = runOn(file);
    EXPECT_EQ(ran.status, 1) << file << "\n" << ran.out;
    EXPECT_NE(ran.out.find(file.filename().string()), std::string::npos) << "it says which file: " << ran.out;
  }

  test::TemporaryFolder folder_;
};

TEST_P(Command, RefusesWhatIsNotThereOrNoFile) {
  expectRefused(folder_.path() / "missing.chispa");
  expectRefused(folder_.path());
}

TEST_P(Command, RefusesWhatIsNoShow) {
  expectRefused(write("empty.chispa", ""));
  expectRefused(write("noise.chispa", std::string("\x00\xff\xfe{{{[[[\x01", 10)));
  expectRefused(write("number.chispa", "42"));
  expectRefused(write("list.chispa", "[]"));
  expectRefused(write("other.chispa", R"({"format": "something-else", "version": 1})"));
  expectRefused(write("deep.chispa", std::string(200'000, '[')));
}

TEST_P(Command, RefusesAShowThatIsCutOff) {
  const std::string whole = demoText();
  for (const double share : {0.1, 0.5, 0.99})
    expectRefused(write(
        "cut.chispa", whole.substr(0, static_cast<std::size_t>(static_cast<double>(whole.size()) * share))));
}

// What is damaged inside may still be a show; whatever comes of it, nothing crashes or hangs.
TEST_P(Command, SurvivesADamagedShow) {
  std::mt19937 random(11);
  for (int round = 0; round < 4; ++round) {
    std::string text = demoText();
    for (int i = 0; i < 12; ++i) text[random() % text.size()] = static_cast<char>('0' + random() % 10);
    const Ran ran = runOn(write("damaged.chispa", text));
    EXPECT_LT(ran.status, 3) << ran.status << " " << ran.out.substr(0, 400);
  }
}

INSTANTIATE_TEST_SUITE_P(Verbs, Command,
                         testing::Values("info %s", "check %s --json", "positions %s", "cuts %s", "zones %s",
                                         "patch %s", "frame %s --at 12",
                                         "render %s --out %out.chirec --seconds 0.2",
                                         "push %s --dry-run --wait 0", "memory %s --controller 'Rim box'"),
                         [](const auto& verb) {
                           return std::string(verb.param).substr(0, std::string(verb.param).find(' '));
                         });

TEST(BadMusic, IsRefusedWithItsName) {
  const test::TemporaryFolder folder;
  std::ofstream(folder.path() / "song.ogg") << "OggS this is no music";
  const Ran ran = run("music " + (folder.path() / "song.ogg").string());
  EXPECT_EQ(ran.status, 1);
  EXPECT_NE(ran.out.find("song.ogg"), std::string::npos) << ran.out;
}

TEST(BadRecording, IsRefusedWithItsName) {
  const test::TemporaryFolder folder;
  for (const char* bytes : {"", "chirec", "CHIREC\n{\"version\": 99}"}) {
    std::ofstream(folder.path() / "night.chirec") << bytes;
    const Ran ran = run("play " + (folder.path() / "night.chirec").string() + " --seconds 0.1");
    EXPECT_EQ(ran.status, 1) << ran.out;
    EXPECT_NE(ran.out.find("night.chirec"), std::string::npos) << ran.out;
  }
}

TEST(BadWords, AreAUsageErrorAndNameWhatIsWrong) {
  for (const char* words : {"", "info", "frame x.chispa --at soon", "render x.chispa --out y.mp4 --width 1",
                            "map --frames x --leds 0", "play", "info a b c", "push --nobody"}) {
    const Ran ran = run(words);
    EXPECT_EQ(ran.status, 2) << words << ": " << ran.out;
    EXPECT_FALSE(ran.out.empty());
  }
}

TEST(Output, ThatCannotBeWrittenIsSaid) {
  const Ran ran = run("render " + kDemo + " --seconds 0.1 --out /nowhere/at/all.mp4");
  EXPECT_EQ(ran.status, 1);
  EXPECT_NE(ran.out.find("/nowhere/at/all.mp4"), std::string::npos) << ran.out;
  const Ran kind = run("render " + kDemo + " --seconds 0.1 --out /tmp/all.unknown");
  EXPECT_EQ(kind.status, 1) << kind.out;
}

}  // namespace
}  // namespace chispa
