// SPDX-License-Identifier: GPL-3.0-or-later
#include <filesystem>
#include <fstream>
#include <sstream>

#include "run.h"
#include "temporary.h"
#include <gtest/gtest.h>
#include <nlohmann/json.hpp>

namespace chispa {
namespace {

using test::kDemo;
using test::Ran;
using test::run;
using test::runProgram;

const std::string kOffscreen = "QT_QPA_PLATFORM=offscreen XDG_RUNTIME_DIR=/tmp";

TEST(AllPrograms, NameWrongWordsAndThatIsAMatterOfUsage) {
  const Ran verb = run("whistle " + kDemo);
  EXPECT_EQ(verb.status, 2);
  EXPECT_NE(verb.out.find("whistle"), std::string::npos) << verb.out;
  const Ran option = run("info --whistle " + kDemo);
  EXPECT_EQ(option.status, 2);
  EXPECT_NE(option.out.find("--whistle"), std::string::npos) << option.out;
  for (const char* program : {"chispa-node", "chispa"}) {
    const Ran ran = runProgram(program, "--whistle", kOffscreen);
    EXPECT_EQ(ran.status, 2) << program;
    EXPECT_NE(ran.out.find("whistle"), std::string::npos) << ran.out;
  }
  EXPECT_EQ(run("").status, 2);
}

TEST(AllPrograms, TellTheirVersion) {
  for (const char* program : {"chispa-cli", "chispa-node", "chispa"}) {
    const Ran ran = runProgram(program, "--version", kOffscreen);
    EXPECT_EQ(ran.status, 0) << program;
    EXPECT_NE(ran.out.find(std::string(program) + " "), std::string::npos) << ran.out;
  }
}

/// The fields of a line of CSV in which nothing is quoted.
std::vector<std::string> fieldsOf(const std::string& line) {
  std::vector<std::string> fields;
  std::istringstream in(line);
  for (std::string field; std::getline(in, field, ',');) fields.push_back(field);
  return fields;
}

/// A table is the same as JSON: objects with the columns' names, numbers as numbers.
TEST(CommandTables, AreTheSameAsJson) {
  const std::vector<std::pair<std::string, std::string>> tables{
      {"positions " + kDemo, "fixture,segment,pixel,x_m,y_m,z_m"},
      {"zones " + kDemo + " --zone Lanterns", "zone,cell,row,column,fixture,pixel"},
      {"patch " + kDemo, "controller,host,protocol,port,fixture,pixel,universe,channel,channels,order"},
      {"cuts " + kDemo, "strip_type,length_mm,pixels,count,fixtures"},
      {"frame " + kDemo + " --at 12", "fixture,pixel,r,g,b"},
      {"bindings " + kDemo, "source,channel,number,target,parameter,low,high,response,name"},
      {"desk " + kDemo, "fixture,zone,cell,universe,channel,channels,format,how"}};
  for (const auto& [words, columns] : tables) {
    const Ran csv = run(words + " --csv");
    const Ran json = run(words + " --json");
    ASSERT_EQ(csv.status, 0) << words;
    ASSERT_EQ(json.status, 0) << words;
    // More columns may follow those that are promised, never precede them.
    EXPECT_EQ(csv.out.rfind(columns, 0), 0u) << words << ": " << csv.out.substr(0, 120);
    const auto list = nlohmann::json::parse(json.out, nullptr, false);
    ASSERT_TRUE(list.is_array()) << words << json.out.substr(0, 200);
    ASSERT_EQ(list.size() + 1, csv.lines()) << words;
    if (list.empty()) continue;
    const auto names = fieldsOf(csv.out.substr(0, csv.out.find('\n')));
    std::istringstream rows(csv.out);
    std::string line;
    std::getline(rows, line);
    std::getline(rows, line);
    const auto fields = fieldsOf(line);
    if (line.find('"') != std::string::npos) continue;
    for (std::size_t i = 0; i < fields.size(); ++i) {
      ASSERT_TRUE(list[0].contains(names[i])) << words << " " << names[i];
      const auto& value = list[0][names[i]];
      if (value.is_string()) {
        EXPECT_EQ(value.get<std::string>(), fields[i]) << words;
      } else if (value.is_number()) {
        EXPECT_NEAR(value.get<double>(), std::stod(fields[i]), 1e-9) << words;
      }
    }
  }
}

TEST(CommandWords, AFilmEndsWhereItIsTold) {
  const test::TemporaryFolder folder;
  const std::string out = (folder.path() / "part.chirec").string();
  const Ran ran = run("render " + kDemo + " --from 2 --to 3.5 --out " + out);
  EXPECT_EQ(ran.status, 0) << ran.out;
  EXPECT_NE(ran.out.find("60 frames"), std::string::npos) << ran.out;
  EXPECT_EQ(run("render " + kDemo + " --from 3 --to 2 --out " + out).status, 1);
  EXPECT_EQ(run("render " + kDemo + " --to 3 --seconds 1 --out " + out).status, 2);
}

TEST(CommandWords, PlayingToNobodyFailsIfSomebodyIsRequired) {
  const std::string words = "play " + kDemo + " --silent --seconds 0.5";
  EXPECT_EQ(run(words).status, 0);
  const Ran required = run(words + " --require");
  EXPECT_EQ(required.status, 1);
  EXPECT_NE(required.out.find("No controller ever answered"), std::string::npos) << required.out;
  const Ran json = runProgram("chispa-cli", words + " --json 2>/dev/null");
  EXPECT_NE(json.out.find("\"frames\""), std::string::npos) << json.out;
}

/// The manual pages are made of what the programs say of themselves; `./run man` writes them anew.
TEST(AllPrograms, HaveManualPagesThatSayWhatTheySay) {
  const test::TemporaryFolder folder;
  const Ran made =
      test::shell(CHISPA_SOURCE_DIR "/packaging/man/make " CHISPA_BIN_DIR " " + folder.path().string());
  ASSERT_EQ(made.status, 0) << made.out;
  const auto contentOf = [](const std::filesystem::path& path) {
    std::ifstream in(path);
    return std::string{std::istreambuf_iterator<char>(in), {}};
  };
  for (const char* page : {"chispa.1", "chispa-cli.1", "chispa-node.1"}) {
    const std::string now = contentOf(folder.path() / page);
    EXPECT_GT(now.size(), 500u) << page;
    EXPECT_EQ(now, contentOf(std::filesystem::path(CHISPA_SOURCE_DIR) / "packaging/man" / page))
        << page << " is old: ./run man";
  }
}

}  // namespace
}  // namespace chispa
