// SPDX-License-Identifier: GPL-3.0-or-later
#include <algorithm>
#include <cstdlib>
#include <filesystem>

#include <rtmidi/RtMidi.h>
#include <unistd.h>

#include "link/midi.h"

namespace chispa::link {
namespace {

/// RtMidi would print its warnings: a system that does not run is no error here.
void hush(RtMidiError::Type, const std::string&, void*) {}

Failure failed(const std::string& name, const RtMidiError& error) {
  return {sentence("The MIDI device “%1” cannot be opened (%2).", name, error.getMessage()),
          {},
          "See whether another program has it, or plug it in again."};
}

constexpr const char* kClient = "Chispa";
constexpr unsigned kQueue = 1024;

/// JACK's default server has its socket there while it runs; PipeWire's, which takes its place, in the user's
/// folder.
bool jackRuns() {
  const char* named = std::getenv("JACK_DEFAULT_SERVER");
  const std::string socket =
      std::string("/dev/shm/jack_") + (named ? named : "default") + "_" + std::to_string(::getuid()) + "_0";
  const char* folder = std::getenv("XDG_RUNTIME_DIR");
  return std::filesystem::exists(socket) ||
         (folder && std::filesystem::exists(std::filesystem::path(folder) / "pipewire-0"));
}

/// Whether a system is there. Those that are not would write to the terminal when they are asked.
bool runs(RtMidi::Api api) {
  if (api == RtMidi::LINUX_ALSA) return std::filesystem::exists("/dev/snd/seq");
  if (api == RtMidi::UNIX_JACK) return jackRuns();
  return true;
}

/// ALSA puts the numbers of a device behind its name; they change when it is plugged in again.
std::string steadyName(std::string name) {
  const auto blank = name.find_last_of(' ');
  if (blank == std::string::npos) return name;
  const std::string tail = name.substr(blank + 1);
  const bool isNumbers = !tail.empty() && tail.find_first_not_of("0123456789:") == std::string::npos &&
                         tail.find(':') != std::string::npos;
  return isNumbers ? name.substr(0, blank) : name;
}

class RtInput final : public MidiInput {
 public:
  using Hear = MidiSystem::Hear;

  RtInput(RtMidi::Api api, unsigned port, Hear hear) : hear_(std::move(hear)), in_(api, kClient, kQueue) {
    in_.setErrorCallback(hush);
    // Sensing says nothing here; the clock does, and time code in whole is a system exclusive message.
    in_.ignoreTypes(false, false, true);
    in_.setCallback(&RtInput::heard, this);
    in_.openPort(port, "in");
  }

 private:
  static void heard(double, std::vector<unsigned char>* message, void* own) {
    if (message) static_cast<RtInput*>(own)->hear_(*message);
  }

  Hear hear_;
  RtMidiIn in_;
};

class RtOutput final : public MidiOutput {
 public:
  RtOutput(RtMidi::Api api, unsigned port) : out_(api, kClient) {
    out_.setErrorCallback(hush);
    out_.openPort(port, "out");
  }
  bool send(std::span<const std::uint8_t> message) override {
    try {
      out_.sendMessage(message.data(), message.size());
      return true;
    } catch (const RtMidiError&) {
      return false;
    }
  }

 private:
  RtMidiOut out_;
};

/// The systems that RtMidi knows here, each asked anew: one may be started later.
template <class Client>
class Ports {
 public:
  struct Port {
    RtMidi::Api api;
    unsigned number;
    std::string name;
  };
  static std::vector<Port> all() {
    std::vector<RtMidi::Api> systems;
    RtMidi::getCompiledApi(systems);
    std::vector<Port> ports;
    for (const RtMidi::Api api : systems) {
      if (api == RtMidi::RTMIDI_DUMMY) continue;
      if (!runs(api)) continue;
      try {
        Client client(api, kClient);
        client.setErrorCallback(hush);
        for (unsigned i = 0; i < client.getPortCount(); ++i) {
          std::string name = steadyName(client.getPortName(i));
          // Its own ports would hear themselves.
          if (!name.starts_with(kClient)) ports.push_back({api, i, std::move(name)});
        }
      } catch (const RtMidiError&) {
        // This system does not run here.
      }
    }
    return ports;
  }
  static std::vector<std::string> names() {
    std::vector<std::string> all_;
    for (Port& port : all()) all_.push_back(std::move(port.name));
    return all_;
  }
};

class RtSystem final : public MidiSystem {
 public:
  std::vector<std::string> inputs() override { return Ports<RtMidiIn>::names(); }
  std::vector<std::string> outputs() override { return Ports<RtMidiOut>::names(); }

  Result<std::unique_ptr<MidiInput>> openInput(const std::string& name, Hear hear) override {
    return open<MidiInput, RtInput, RtMidiIn>(name, std::move(hear));
  }
  Result<std::unique_ptr<MidiOutput>> openOutput(const std::string& name) override {
    return open<MidiOutput, RtOutput, RtMidiOut>(name);
  }

 private:
  template <class Face, class Own, class Client, class... Args>
  static Result<std::unique_ptr<Face>> open(const std::string& name, Args... args) {
    const auto ports = Ports<Client>::all();
    const auto port = std::find_if(ports.begin(), ports.end(), [&](const auto& p) { return p.name == name; });
    if (port == ports.end())
      return Failure{sentence("There is no MIDI device called “%1”.", name),
                     {},
                     "Plug it in and switch it on; it is taken up then."};
    try {
      return std::unique_ptr<Face>(std::make_unique<Own>(port->api, port->number, std::move(args)...));
    } catch (const RtMidiError& error) {
      return failed(name, error);
    }
  }
};

}  // namespace

std::unique_ptr<MidiSystem> systemMidi() {
  return std::make_unique<RtSystem>();
}

}  // namespace chispa::link
