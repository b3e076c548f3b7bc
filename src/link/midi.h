// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <array>
#include <cstdint>
#include <functional>
#include <memory>
#include <optional>
#include <span>
#include <string>
#include <utility>
#include <vector>

#include "core/base/result.h"
#include "core/show/binding.h"
#include "link/miditimecode.h"

namespace chispa::link {

/// A control of a device, moved to `value` 0–1.
struct ControlHeard {
  BindingSource source;
  float value = 0;
};

/// Turns the messages of one device into controls (MIDI 1.0 Detailed Specification, table I to III). A
/// control 0–31 whose fine half, 32 above it, comes right behind it is of 14 bits; any other is of 7.
class MidiReader {
 public:
  explicit MidiReader(std::string device) : device_(std::move(device)) {}

  /// What a whole message says; nothing if it is damaged or says nothing that can be bound.
  std::optional<ControlHeard> read(std::span<const std::uint8_t> message);
  /// True once for each beat of the MIDI clock (24 ticks), and from its start on.
  bool takeBeat();
  /// Where the time code is, once for each message that tells it.
  std::optional<TimeCode> takeTimeCode() { return std::exchange(timeCode_, std::nullopt); }

 private:
  std::string device_;
  /// The coarse half that came last: channel and control, or none.
  int coarseChannel_ = -1;
  int coarseControl_ = -1;
  int coarseValue_ = 0;
  int ticks_ = 0;
  bool isBeat_ = false;
  TimeCodeReader timeCodeReader_;
  std::optional<TimeCode> timeCode_;
};

/// The message that sets the lamp of a control; empty for what has none.
std::vector<std::uint8_t> lampMessage(const BindingSource& source, int value);

/// A way to a device's messages; closes with its end.
class MidiInput {
 public:
  virtual ~MidiInput() = default;
};
class MidiOutput {
 public:
  virtual ~MidiOutput() = default;
  /// False if the device does not take it any more.
  virtual bool send(std::span<const std::uint8_t> message) = 0;
};

/// The MIDI devices of a machine, by name.
class MidiSystem {
 public:
  /// Called on a thread of the system's; must not wait.
  using Hear = std::function<void(std::span<const std::uint8_t> message)>;

  virtual ~MidiSystem() = default;
  virtual std::vector<std::string> inputs() = 0;
  virtual std::vector<std::string> outputs() = 0;
  virtual Result<std::unique_ptr<MidiInput>> openInput(const std::string& name, Hear hear) = 0;
  virtual Result<std::unique_ptr<MidiOutput>> openOutput(const std::string& name) = 0;
};

/// The output that belongs to the input `input`, as names tell: the one of the same name, the one that says
/// "playback" where the input says "capture", or the only one of a client that has one input; else "".
std::string outputOf(const std::string& input, const std::vector<std::string>& inputs,
                     const std::vector<std::string>& outputs);

/// Devices of ALSA and of JACK, whichever runs, through RtMidi.
std::unique_ptr<MidiSystem> systemMidi();

/// A device that ships with Chispa: what its surface sends is heard like that of any other, and what is sent
/// to it is told.
class SimulatedMidi final : public MidiSystem {
 public:
  static constexpr const char* kName = "Chispa surface";

  std::vector<std::string> inputs() override {
    return isPlugged_ ? std::vector<std::string>{kName} : std::vector<std::string>{};
  }
  std::vector<std::string> outputs() override { return inputs(); }
  Result<std::unique_ptr<MidiInput>> openInput(const std::string& name, Hear hear) override;
  Result<std::unique_ptr<MidiOutput>> openOutput(const std::string& name) override;

  /// As if the surface sent it.
  void send(std::span<const std::uint8_t> message);
  /// Called with what is sent to the surface.
  Hear lamps;
  /// Pulls its plug, or puts it in again.
  void plug(bool in);

 private:
  class Input;
  class Output;
  Input* input_ = nullptr;
  bool isPlugged_ = true;
};

/// The devices of several systems as one.
class JoinedMidi final : public MidiSystem {
 public:
  explicit JoinedMidi(std::vector<std::shared_ptr<MidiSystem>> systems) : systems_(std::move(systems)) {}

  std::vector<std::string> inputs() override { return names(&MidiSystem::inputs); }
  std::vector<std::string> outputs() override { return names(&MidiSystem::outputs); }
  Result<std::unique_ptr<MidiInput>> openInput(const std::string& name, Hear hear) override;
  Result<std::unique_ptr<MidiOutput>> openOutput(const std::string& name) override;

 private:
  std::vector<std::string> names(std::vector<std::string> (MidiSystem::*of)());
  /// The system that has `name` among these.
  MidiSystem* systemOf(const std::string& name, std::vector<std::string> (MidiSystem::*of)());

  std::vector<std::shared_ptr<MidiSystem>> systems_;
};

}  // namespace chispa::link
