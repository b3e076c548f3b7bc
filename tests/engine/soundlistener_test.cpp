// SPDX-License-Identifier: GPL-3.0-or-later
// What is heard reaches the light of looks: level, beats, and nothing once listening ends.
#include "engine/soundlistener.h"

#include <cmath>
#include <cstdlib>
#include <filesystem>
#include <thread>

#include "temporary.h"
#include <gtest/gtest.h>
#include <signal.h>
#include <sys/wait.h>
#include <unistd.h>

#include "engine/forbidden.h"
#include "engine/sound.h"
#include "engine/soundinput.h"

namespace chispa::engine {
namespace {

/// Ten milliseconds of a tone.
std::vector<float> tone(float loud, double hz = 440) {
  std::vector<float> mono(480);
  for (std::size_t i = 0; i < mono.size(); ++i)
    mono[i] =
        loud * static_cast<float>(std::sin(2 * 3.14159265 * hz * static_cast<double>(i) / AudioClip::kRate));
  return mono;
}

/// The latest that is in the box once `condition` holds for it; fails after a minute.
template <class Condition>
const HeardNow& eventually(HeardBox& box, Condition condition) {
  for (int n = 0; n < 60'000; ++n) {
    const HeardNow& now = box.latest();
    if (condition(now)) return now;
    std::this_thread::sleep_for(std::chrono::milliseconds(1));
  }
  ADD_FAILURE() << "it never came";
  return box.latest();
}

TEST(SoundListener, PutsWhatIsHeardIntoTheBoxAndEndsWithIt) {
  const auto box = makeHeardBox();
  EXPECT_FALSE(box->latest().isOn) << "nothing is listened to before";
  {
    SoundListener listener(box, std::make_shared<SteadyClock>());
    for (int n = 0; n < 20; ++n) listener.take(tone(0));
    for (int n = 0; n < 5; ++n) listener.take(tone(0.5f));
    const HeardNow& heard = eventually(*box, [](const HeardNow& now) { return now.music.loudness > 0.5f; });
    EXPECT_TRUE(heard.isOn);
    EXPECT_GT(heard.at.count(), 0);
    EXPECT_GT(heard.music.features.level.back(), 0);
    // −9 dB of 60.
    EXPECT_NEAR(heard.music.loudness, 0.85f, 0.03f);
  }
  EXPECT_FALSE(box->latest().isOn);
}

TEST(SoundListener, TheMeterShowsTheLoudness) {
  SoundListener listener(makeHeardBox(), std::make_shared<SteadyClock>());
  listener.take(tone(1));
  for (int n = 0; n < 60'000 && listener.meter().loudness < 0.9f; ++n)
    std::this_thread::sleep_for(std::chrono::milliseconds(1));
  EXPECT_GT(listener.meter().loudness, 0.9f);
  EXPECT_EQ(listener.meter().tempo_bpm, 0) << "no beat is known yet";
}

/// A sound server of the test's own, without sound cards: one output that nobody hears.
class SoundServer {
 public:
  SoundServer() {
    const std::string socket = (folder_.path() / "pulse").string();
    setenv("PULSE_SERVER", ("unix:" + socket).c_str(), 1);
    setenv("PULSE_RUNTIME_PATH", folder_.path().c_str(), 1);
    child_ = fork();
    if (child_ == 0) {
      const std::string protocol = "module-native-protocol-unix auth-anonymous=1 socket=" + socket;
      execlp("pulseaudio", "pulseaudio", "-n", "--daemonize=no", "--exit-idle-time=-1", "--use-pid-file=no",
             "--log-target=null", "-L", "module-null-sink sink_name=nobody", "-L", protocol.c_str(),
             static_cast<char*>(nullptr));
      _exit(127);
    }
    for (int n = 0; n < 2'000 && !std::filesystem::exists(socket); ++n)
      std::this_thread::sleep_for(std::chrono::milliseconds(5));
  }
  ~SoundServer() {
    stop();
    unsetenv("PULSE_SERVER");
    unsetenv("PULSE_RUNTIME_PATH");
  }
  void stop() {
    if (child_ <= 0) return;
    kill(child_, SIGKILL);
    waitpid(child_, nullptr, 0);
    child_ = 0;
  }

 private:
  test::TemporaryFolder folder_;
  pid_t child_ = 0;
};

/// What the computer plays is heard, and a server that goes is known to be gone.
TEST(SoundInput, HearsWhatTheComputerPlaysUntilTheServerGoes) {
#if !CHISPA_COUNTS_FORBIDDEN
  GTEST_SKIP() << "PulseAudio's library is not built for sanitizers";
#endif
  SoundServer server;
  const auto sources = soundSources();
  ASSERT_TRUE(sources) << sources.failure().text();
  ASSERT_EQ(sources->size(), 1u);
  EXPECT_TRUE(sources->front().isOwnSound);
  const auto box = makeHeardBox();
  SoundListener listener(box, std::make_shared<SteadyClock>());
  const auto input =
      openSoundInput(sources->front().name, [&](std::span<const float> mono) { listener.take(mono); });
  ASSERT_TRUE(input) << input.failure().text();
  EXPECT_FALSE((*input)->isLost());
  std::string whyNot;
  const auto sound = openPulse(whyNot);
  ASSERT_EQ(whyNot, "");
  sound->play(makeClicks(Micros(5'000'000)), Micros(0));
  const HeardNow& heard = eventually(*box, [](const HeardNow& now) {
    return now.isOn && !now.music.features.onsets[MusicFeatures::kRanges - 2].empty();
  });
  EXPECT_TRUE(heard.isOn);
  server.stop();
  for (int n = 0; n < 10'000 && !(*input)->isLost(); ++n)
    std::this_thread::sleep_for(std::chrono::milliseconds(1));
  EXPECT_TRUE((*input)->isLost());
}

/// True once what `sound` plays is heard.
bool isHeard(Sound& sound) {
  for (int n = 0; n < 10'000; ++n) {
    if (sound.heard()) return true;
    std::this_thread::sleep_for(std::chrono::milliseconds(1));
  }
  return false;
}

/// Sound goes through the device that was chosen; one that is not there any more gives way to the desktop's,
/// and is tried again at the next play.
TEST(SoundDevice, IsChosenAndGivesWayWhereItIsGone) {
#if !CHISPA_COUNTS_FORBIDDEN
  GTEST_SKIP() << "PulseAudio's library is not built for sanitizers";
#endif
  SoundServer server;
  const auto devices = soundDevices();
  ASSERT_TRUE(devices) << devices.failure().text();
  ASSERT_EQ(devices->size(), 1u);
  EXPECT_EQ(devices->front().name, "nobody");
  EXPECT_FALSE(devices->front().title.empty());
  std::string whyNot;
  const auto sound = openPulse(whyNot);
  ASSERT_EQ(whyNot, "");
  for (const char* device : {"nobody", "an.usb.device.that.was.unplugged", "nobody", ""}) {
    sound->setDevice(device);
    sound->play(makeClicks(Micros(5'000'000)), Micros(0));
    EXPECT_TRUE(isHeard(*sound)) << "through “" << device << "”";
    sound->stop();
  }
}

TEST(SoundDevice, WithoutAServerSaysWhy) {
  setenv("PULSE_SERVER", "unix:/nowhere/pulse", 1);
  const auto devices = soundDevices();
  unsetenv("PULSE_SERVER");
  ASSERT_FALSE(devices);
  EXPECT_NE(devices.failure().text().find("pulseaudio --start"), std::string::npos)
      << devices.failure().text();
}

TEST(SoundInput, WithoutASourceOfThatNameSaysWhy) {
  const auto input = openSoundInput("no such source", [](std::span<const float>) {});
  ASSERT_FALSE(input);
  EXPECT_FALSE(input.failure().text().empty());
}

}  // namespace
}  // namespace chispa::engine
