// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <csignal>
#include <cstdio>
#include <cstdlib>
#include <filesystem>
#include <map>
#include <string>
#include <vector>

#include "eventually.h"
#include <rtmidi/RtMidi.h>
#include <sys/wait.h>
#include <unistd.h>

namespace chispa::test {

/// A JACK server without a sound card, on a name of its own.
class Jack {
 public:
  Jack() {
    ::setenv("JACK_DEFAULT_SERVER", name_.c_str(), 1);
    child_ = ::fork();
    if (child_ != 0) return;
    std::freopen("/dev/null", "w", stdout);
    std::freopen("/dev/null", "w", stderr);
    ::execlp("jackd", "jackd", "-n", name_.c_str(), "-r", "-d", "dummy", "-p", "128", nullptr);
    ::_exit(127);
  }
  ~Jack() {
    ::kill(child_, SIGTERM);
    ::waitpid(child_, nullptr, 0);
    ::unsetenv("JACK_DEFAULT_SERVER");
  }
  /// False if it cannot run here.
  bool runs() const {
    return eventually([this] {
             if (::waitpid(child_, nullptr, WNOHANG) != 0) return true;
             return std::filesystem::exists("/dev/shm/jack_" + name_ + "_" + std::to_string(::getuid()) +
                                            "_0");
           }) &&
           ::kill(child_, 0) == 0;
  }

 private:
  std::string name_ = "chispa-test-" + std::to_string(::getpid());
  pid_t child_ = 0;
};

/// A surface that is none of ours: a MIDI port of JACK.
class JackSurface {
 public:
  JackSurface() : out_(RtMidi::UNIX_JACK, "Surface"), lamps_(RtMidi::UNIX_JACK, "Surface") {
    out_.setErrorCallback([](RtMidiError::Type, const std::string&, void*) {});
    lamps_.setErrorCallback([](RtMidiError::Type, const std::string&, void*) {});
    out_.openVirtualPort("pads");
    lamps_.openVirtualPort("lamps");
  }
  void control(int number, int value) { send(0xb0, number, value); }
  void note(int number, int velocity) { send(0x90, number, velocity); }
  /// Quarter frames of a time code of 25 frames a second, at the pace of one that runs, for `frames` frames
  /// from `seconds` on.
  void runTimeCode(int seconds, int frames) {
    const auto begun = std::chrono::steady_clock::now();
    for (int quarter = 0; quarter < frames * 4; ++quarter) {
      const int piece = quarter % 8;
      // The label of the frame in which the eight begin.
      const int frame = seconds * 25 + quarter / 8 * 2;
      const std::array<int, 4> parts{frame % 25, frame / 25 % 60, frame / 1500 % 60, frame / 90'000 | 1 << 5};
      const int part = parts[static_cast<std::size_t>(piece / 2)];
      const std::vector<unsigned char> message{
          0xf1, static_cast<unsigned char>(piece << 4 | (piece % 2 ? part >> 4 : part & 15))};
      out_.sendMessage(&message);
      std::this_thread::sleep_until(begun + std::chrono::milliseconds(10) * (quarter + 1));
    }
  }
  /// The newest velocity that came back for the lamp of `number`, or -1.
  int lamp(int number) {
    std::vector<unsigned char> message;
    while (lamps_.getMessage(&message), !message.empty())
      if (message.size() == 3 && (message[0] & 0xf0) == 0x90) told_[message[1]] = message[2];
    const auto found = told_.find(number);
    return found == told_.end() ? -1 : found->second;
  }

 private:
  void send(int status, int first, int second) {
    const std::vector<unsigned char> message{static_cast<unsigned char>(status),
                                             static_cast<unsigned char>(first),
                                             static_cast<unsigned char>(second)};
    out_.sendMessage(&message);
  }

  RtMidiOut out_;
  RtMidiIn lamps_;
  std::map<int, int> told_;
};

}  // namespace chispa::test
