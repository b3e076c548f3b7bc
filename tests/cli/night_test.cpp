// SPDX-License-Identifier: GPL-3.0-or-later
// Nights without a window: the almanac in words, as a process that is killed, as a service that is watched.
#include <csignal>
#include <fstream>
#include <map>
#include <optional>

#include "eventually.h"
#include "temporary.h"
#include <gtest/gtest.h>
#include <nlohmann/json.hpp>
#include <poll.h>
#include <sys/ptrace.h>
#include <sys/resource.h>
#include <sys/socket.h>
#include <sys/un.h>
#include <unistd.h>

#include "cli/run.h"
#include "core/almanac/calendar.h"
#include "core/edit/planedits.h"
#include "core/edit/scoreedits.h"
#include "core/edit/setlistedits.h"
#include "core/edit/wireedits.h"
#include "core/files/showfile.h"
#include "node/node.h"

namespace chispa {
namespace {

using test::eventually;
using test::kDemo;
using test::Ran;
using test::runProgram;
using Json = nlohmann::json;

TEST(CliNights, TonightIsPrintedAsPromised) {
  const Ran ran = test::run("tonight " + kDemo + " --from 2027-12-24 --days 3 --json");
  ASSERT_EQ(ran.status, 0) << ran.out;
  const Json all = Json::parse(ran.out);
  EXPECT_EQ(all["place"]["zone"], "Europe/Zurich");
  EXPECT_TRUE(all["place"]["lat"].is_number() && all["place"]["lon"].is_number());
  ASSERT_EQ(all["nights"].size(), 3u);
  const Json& night = all["nights"][0];
  EXPECT_EQ(night["date"], "2027-12-24");
  for (const char* time : {"sunset", "dusk", "dawn", "sunrise"})
    EXPECT_TRUE(night[time].get<std::string>().ends_with("+01:00")) << time;
  const Json& slot = night["slots"][0];
  EXPECT_EQ(slot["what"], "Winter evening");
  EXPECT_EQ(slot["kind"], "set-list");
  EXPECT_EQ(slot["rule"], "Winter evenings");
  EXPECT_EQ(slot["start"], night["dusk"]);
  EXPECT_EQ(slot["end"], "2027-12-24T22:00:00+01:00");
}

TEST(CliNights, WrongWordsAreToldInWords) {
  EXPECT_EQ(test::run("tonight " + kDemo + " --from 2027-02-30").status, 2);
  const Ran at = test::run("run " + kDemo + " --almanac --silent --seconds 1 --at tomorrow");
  EXPECT_EQ(at.status, 2);
  EXPECT_NE(at.out.find("write it like"), std::string::npos) << at.out;
  const Ran list = test::run("run " + kDemo + " --silent --seconds 1 --set-list Nobody");
  EXPECT_EQ(list.status, 1);
  EXPECT_NE(list.out.find("no set list called “Nobody”"), std::string::npos) << list.out;
}

/// chispa-cli in a process of its own.
class Process {
 public:
  Process(std::vector<std::string> words, const std::map<std::string, std::string>& environment) {
    pid_ = ::fork();
    if (pid_ != 0) return;
    for (const auto& [name, value] : environment) ::setenv(name.c_str(), value.c_str(), 1);
    std::vector<char*> argv;
    const std::string program = std::string(CHISPA_BIN_DIR) + "/chispa-cli";
    words.insert(words.begin(), program);
    for (std::string& word : words) argv.push_back(word.data());
    argv.push_back(nullptr);
    std::freopen("/dev/null", "w", stderr);
    ::execv(program.c_str(), argv.data());
    ::_exit(127);
  }
  ~Process() {
    if (pid_ > 0) end(SIGKILL);
  }
  /// Ends it with `signal`; its status, or 128 and more if the signal did.
  int end(int signal) {
    ::kill(pid_, signal);
    int status = 0;
    ::waitpid(pid_, &status, 0);
    pid_ = 0;
    return WIFSIGNALED(status) ? 128 + WTERMSIG(status) : WEXITSTATUS(status);
  }
  pid_t pid() const { return pid_; }

 private:
  pid_t pid_ = 0;
};

/// A strip on a node, two scores in one colour each, and a rule for every evening from 21:00 to 21:30.
class CliNight : public testing::Test {
 protected:
  CliNight() {
    startNode();
    show_.name = "Fair";
    show_.almanac = {"Somewhere", 41.4, 2.2, "Europe/Madrid", {}};
    StripType rgb;
    rgb.id = show_.newId<StripTypeId>();
    rgb.order = "RGB";
    put(show_.stripTypes, rgb);
    const FixtureId strip = addFixture(show_, LineShape{4, 0.1}, {});
    const ControllerId box = addController(show_, 1);
    changeItem(show_.controllers, box, [&](Controller& c) { c.host = address_; });
    hang(show_, {strip, 0, 4}, {box, 0, 0});
    const SetListId list = addSetList(show_, "Evening");
    for (const auto& [name, colour] :
         {std::pair{"Red", Srgb8{255, 0, 0}}, std::pair{"Blue", Srgb8{0, 0, 255}}}) {
      const Micros length{600'000'000};
      const ScoreId score = addScore(show_, name, "", length);
      addClip(show_, score, show_.zones.front()->id, "hold", addPalette(show_, name, {{0, colour}}),
              Micros(0), length);
      insertLines(show_, list, 99, {lineOf(score)});
    }
    const RuleId rule = addRule(show_, "Evenings");
    changeItem(show_.rules, rule, [](Rule& r) {
      r.from = {NightTimeKind::Clock, 21 * 60};
      r.until = {NightTimeKind::Clock, 21 * 60 + 30};
    });
    save();
  }
  void startNode() {
    node_.emplace(node::NodeOptions{"Box", 1, address_, {}, {}});
    std::string why;
    EXPECT_TRUE(node_->start(why)) << why;
    node_->setSettings({{1, "e131", {{4, "RGB", 0, 1, 1}}}});
  }
  void save() { ASSERT_TRUE(saveShow(file(), show_)); }
  std::filesystem::path file() const { return folder_.path() / "fair.chispa"; }
  std::map<std::string, std::string> environment() const {
    return {{"XDG_STATE_HOME", folder_.path().string()}};
  }
  std::string lit() const { return node_->state()["ports"][0]["shows"][0]; }
  bool shows(const std::string& what) {
    return eventually([&] {
      const std::string now = lit();
      return now == (what == "red" ? "#ff0000" : what == "blue" ? "#0000ff" : "#000000");
    });
  }
  std::vector<std::string> words(const std::string& at, int speed) const {
    return {"run", file().string(), "--almanac", "--silent", "--at", at, "--speed", std::to_string(speed)};
  }
  Json nights() const {
    const Ran ran =
        runProgram("chispa-cli", "nights --last 30 --json", "XDG_STATE_HOME=" + folder_.path().string());
    EXPECT_EQ(ran.status, 0) << ran.out;
    return Json::parse(ran.out);
  }

  test::TemporaryFolder folder_;
  std::string address_ = test::loopbackAddress(9);
  std::optional<node::Node> node_;
  Show show_;
};

/// Killed without warning it is back in the right piece, and light ends dark.
TEST_F(CliNight, KilledItIsBackInTheRightPieceAndEndsDark) {
  {
    Process run(words("2027-07-01T20:59:50", 10), environment());
    ASSERT_TRUE(shows("red"));
    EXPECT_EQ(run.end(SIGKILL), 128 + SIGKILL);
  }
  // Ten minutes and a half into the night the second score plays.
  Process again(words("2027-07-01T21:10:30", 1), environment());
  EXPECT_TRUE(shows("blue")) << lit();
  EXPECT_EQ(again.end(SIGTERM), 0);
  EXPECT_TRUE(shows("dark")) << "it leaves no light behind: " << lit();
}

/// Two weeks at 600 times the speed, the days left out: each night a process of its own, a node that is away
/// for some of them, one kill in the middle. Every slot is played, light ends dark, the log says all of it.
TEST_F(CliNight, TwoWeeksInFastMotion) {
  const Date first = *parseDate("2027-10-25");
  for (int night = 0; night < 14; ++night) {
    const std::string date = dateText(first + std::chrono::days(night));
    if (night == 4) node_.reset();
    if (night == 6) startNode();
    const bool isDead = night == 4 || night == 5;
    if (night == 8) {
      Process killed(words(date + "T20:58:00", 600), environment());
      ASSERT_TRUE(eventually([&] { return lit() != "#000000"; }));
      killed.end(SIGKILL);
    }
    Process run(words(date + (night == 8 ? "T21:05:00" : "T20:58:00"), 600), environment());
    if (!isDead) {
      ASSERT_TRUE(eventually([&] { return lit() != "#000000"; })) << date;
      ASSERT_TRUE(shows("dark")) << date;
    }
    ASSERT_TRUE(eventually([&] {
      const Json all = nights();
      return !all.empty() && all.back()["night"] == date &&
             std::any_of(all.back()["events"].begin(), all.back()["events"].end(),
                         [](const Json& event) { return event["kind"] == "dark"; });
    })) << date;
    EXPECT_EQ(run.end(SIGTERM), 0);
  }
  const Json all = nights();
  ASSERT_EQ(all.size(), 14u);
  for (std::size_t night = 0; night < 14; ++night) {
    std::string pieces;
    int slots = 0, lost = 0;
    for (const Json& event : all[night]["events"]) {
      if (event["kind"] == "slot") ++slots;
      if (event["kind"] == "lost") ++lost;
      if (event["kind"] == "piece") pieces += event["what"].get<std::string>() + " ";
    }
    EXPECT_EQ(slots, night == 8 ? 2 : 1) << night;
    EXPECT_TRUE(pieces.starts_with("Red ")) << pieces;
    EXPECT_NE(pieces.find("Blue"), std::string::npos) << night << ": " << pieces;
    EXPECT_EQ(lost > 0, night == 4 || night == 5) << night;
    EXPECT_GT(all[night]["light_hours"].get<double>(), 0.3) << night;
  }
}

TEST_F(CliNight, AShowThatIsSavedAnewIsTakenUp) {
  Process run(words("2027-07-01T21:01:00", 1), environment());
  ASSERT_TRUE(shows("red"));
  changeItem(show_.palettes, findNamed(show_.palettes, "Red")->id, [](Palette& palette) {
    palette.stops = {{0, {0, 0, 255}}};
  });
  save();
  EXPECT_TRUE(shows("blue")) << lit();
  std::ofstream(file()) << "half a show";
  const auto tellsOfShows = [&] {
    const Json events = nights().back()["events"];
    return std::count_if(events.begin(), events.end(),
                         [](const Json& event) { return event["kind"] == "show"; });
  };
  EXPECT_TRUE(eventually([&] { return tellsOfShows() >= 2; }));
  EXPECT_EQ(tellsOfShows(), 2) << nights().back().dump(1);
  EXPECT_TRUE(shows("blue")) << "what cannot be read changes nothing";
  EXPECT_EQ(run.end(SIGTERM), 0);
}

/// The clock of the computer is set back by an hour in the night, and forward again.
TEST_F(CliNight, TheClockIsSetBackAndForward) {
  const auto clock = folder_.path() / "clock";
  const TimeZone zone = *TimeZone::named(show_.almanac.zone);
  const auto setTo = [&](const char* time) {
    const auto now = std::chrono::floor<std::chrono::seconds>(std::chrono::system_clock::now());
    std::ofstream(clock.string() + ".new") << (*parseLocal(time, zone) - now).count();
    std::filesystem::rename(clock.string() + ".new", clock);
  };
  setTo("2027-07-01T21:01:00");
  auto own = environment();
  own["LD_PRELOAD"] = std::string(CHISPA_BIN_DIR) + "/libfaults_clock.so";
  // The address sanitizer wants to be the first library.
  own["ASAN_OPTIONS"] = "verify_asan_link_order=0";
  own["CHISPA_CLOCK_FILE"] = clock.string();
  Process run({"run", file().string(), "--almanac", "--silent"}, own);
  ASSERT_TRUE(shows("red")) << lit();
  setTo("2027-07-01T20:01:00");
  EXPECT_TRUE(shows("dark")) << "it is before its time again: " << lit();
  setTo("2027-07-01T21:15:00");
  EXPECT_TRUE(shows("blue")) << "and then a quarter of an hour into it: " << lit();
  EXPECT_EQ(run.end(SIGTERM), 0);
  EXPECT_NE(nights().dump().find("it was set back by 3"), std::string::npos) << nights().dump(1);
}

/// No file grows any more, as on a full disk: the night goes on without its log.
TEST_F(CliNight, ADiskThatIsFullDoesNotHoldUpTheNight) {
  {
    Process first(words("2027-07-01T21:01:00", 1), environment());
    ASSERT_TRUE(shows("red"));
    first.end(SIGTERM);
  }
  std::signal(SIGXFSZ, SIG_IGN);
  rlimit before{};
  ::getrlimit(RLIMIT_FSIZE, &before);
  const rlimit full{4'096, before.rlim_max};
  ::setrlimit(RLIMIT_FSIZE, &full);
  Process run(words("2027-07-02T20:59:50", 60), environment());
  ::setrlimit(RLIMIT_FSIZE, &before);
  EXPECT_TRUE(shows("red")) << lit();
  EXPECT_TRUE(shows("blue")) << lit();
  EXPECT_TRUE(shows("dark")) << lit();
  EXPECT_EQ(run.end(SIGTERM), 0);
}

/// Kilobytes that a process has in memory.
long residentOf(pid_t process) {
  std::ifstream in("/proc/" + std::to_string(process) + "/status");
  for (std::string line; std::getline(in, line);)
    if (line.starts_with("VmRSS:")) return std::stol(line.substr(6));
  return 0;
}

/// A night in real time: a few seconds here, an hour in `./run trust` (CHISPA_SOAK_S). All pieces play in
/// their order, the light is never dark in between, and memory does not grow.
TEST_F(CliNight, ItPlaysOnInRealTime) {
  const char* wanted = std::getenv("CHISPA_SOAK_S");
  const int seconds = wanted ? std::stoi(wanted) : 6;
  for (const char* name : {"Red", "Blue"})
    changeItem(show_.scores, findNamed(show_.scores, name)->id,
               [](Score& score) { score.length = Micros(500'000); });
  changeItem(show_.setLists, show_.setLists.front()->id, [](SetList& list) { list.rounds = 0; });
  changeItem(show_.rules, show_.rules.front()->id, [](Rule& rule) { rule.until.minutes = 23 * 60; });
  save();
  Process run(words("2027-07-01T21:00:00", 1), environment());
  ASSERT_TRUE(shows("red"));
  const auto end = std::chrono::steady_clock::now() + std::chrono::seconds(seconds);
  long early = 0;
  int dark = 0;
  for (int i = 0; std::chrono::steady_clock::now() < end; ++i) {
    if (lit() == "#000000") ++dark;
    if (i == 20) early = residentOf(run.pid());
    ::usleep(100'000);
  }
  EXPECT_EQ(dark, 0);
  EXPECT_LT(residentOf(run.pid()) - early, 16'384);
  EXPECT_EQ(run.end(SIGTERM), 0);
  std::vector<std::string> pieces;
  const Json all = nights();
  for (const Json& event : all.back()["events"])
    if (event["kind"] == "piece") pieces.push_back(event["what"]);
  EXPECT_GE(std::ssize(pieces), seconds);
  for (std::size_t i = 0; i < pieces.size(); ++i) EXPECT_EQ(pieces[i], i % 2 ? "Blue" : "Red") << i;
  std::printf("%d s of a night, %zu pieces\n", seconds, pieces.size());
}

/// The socket that systemd would listen at.
class NotifySocket {
 public:
  explicit NotifySocket(const std::filesystem::path& path)
      : fd_(::socket(AF_UNIX, SOCK_DGRAM | SOCK_CLOEXEC, 0)) {
    sockaddr_un address{};
    address.sun_family = AF_UNIX;
    path.string().copy(address.sun_path, sizeof address.sun_path - 1);
    EXPECT_EQ(::bind(fd_, reinterpret_cast<const sockaddr*>(&address), sizeof address), 0);
  }
  ~NotifySocket() { ::close(fd_); }
  /// True once `word` has come, within the time.
  bool hears(const std::string& word, int most_ms) {
    const auto end = std::chrono::steady_clock::now() + std::chrono::milliseconds(most_ms);
    for (;;) {
      const auto left = std::chrono::ceil<std::chrono::milliseconds>(end - std::chrono::steady_clock::now());
      pollfd one{fd_, POLLIN, 0};
      if (left.count() <= 0 || ::poll(&one, 1, static_cast<int>(left.count())) != 1) return false;
      char text[512];
      const ssize_t size = ::recv(fd_, text, sizeof text, 0);
      if (std::string(text, static_cast<std::size_t>(std::max<ssize_t>(0, size))).find(word) !=
          std::string::npos)
        return true;
    }
  }
  void forget() {
    char text[512];
    while (::recv(fd_, text, sizeof text, MSG_DONTWAIT) > 0) {
    }
  }

 private:
  int fd_;
};

/// The thread of a process that is called `name`; 0 if there is none.
pid_t threadCalled(pid_t process, const std::string& name) {
  std::error_code gone;
  for (const auto& entry :
       std::filesystem::directory_iterator("/proc/" + std::to_string(process) + "/task", gone)) {
    std::string own;
    std::getline(std::ifstream(entry.path() / "comm") >> std::ws, own);
    if (own == name) return std::stoi(entry.path().filename());
  }
  return 0;
}

/// The service manager hears that all is well as long as frames leave, and no longer when the output is held.
TEST_F(CliNight, TheWatchdogIsFedByTheOutputAlone) {
  NotifySocket socket(folder_.path() / "notify");
  auto own = environment();
  own["NOTIFY_SOCKET"] = (folder_.path() / "notify").string();
  own["WATCHDOG_USEC"] = "10000000";
  Process run(words("2027-07-01T21:01:00", 1), own);
  EXPECT_TRUE(socket.hears("READY=1", 10'000));
  EXPECT_TRUE(socket.hears("WATCHDOG=1", 5'000));
  const pid_t output = threadCalled(run.pid(), "chispa-output");
  ASSERT_NE(output, 0);
  if (::ptrace(PTRACE_SEIZE, output, nullptr, nullptr) != 0) GTEST_SKIP() << "no thread may be held here";
  ASSERT_EQ(::ptrace(PTRACE_INTERRUPT, output, nullptr, nullptr), 0);
  int status = 0;
  ASSERT_EQ(::waitpid(output, &status, __WALL), output);
  socket.forget();
  // The one that was due when it was stopped may still come.
  socket.hears("WATCHDOG=1", 1'500);
  EXPECT_FALSE(socket.hears("WATCHDOG=1", 4'000)) << "nothing leaves, and it says that all is well";
  ASSERT_EQ(::ptrace(PTRACE_DETACH, output, nullptr, nullptr), 0);
  EXPECT_TRUE(socket.hears("WATCHDOG=1", 5'000));
  EXPECT_EQ(run.end(SIGTERM), 0);
  EXPECT_TRUE(socket.hears("STOPPING=1", 2'000));
}

TEST_F(CliNight, TheUnitIsOneThatSystemdTakes) {
  const Ran ran = runProgram("chispa-cli", "install-service '" + file().string() + "'",
                             "XDG_CONFIG_HOME='" + folder_.path().string() + "'");
  ASSERT_EQ(ran.status, 0) << ran.out;
  EXPECT_NE(ran.out.find("systemctl --user enable --now chispa"), std::string::npos) << ran.out;
  const auto unit = folder_.path() / "systemd/user/chispa.service";
  ASSERT_TRUE(std::filesystem::exists(unit));
  if (std::system("command -v systemd-analyze >/dev/null") != 0) GTEST_SKIP() << "systemd is not installed";
  const std::string command = "XDG_RUNTIME_DIR='" + folder_.path().string() +
                              "' systemd-analyze verify --user '" + unit.string() + "' 2>&1";
  std::FILE* pipe = ::popen(command.c_str(), "r");
  std::string said;
  char text[512];
  while (std::fgets(text, sizeof text, pipe)) said += text;
  EXPECT_EQ(::pclose(pipe), 0) << said;
  EXPECT_EQ(said.find("chispa.service"), std::string::npos) << said;
}

}  // namespace
}  // namespace chispa
