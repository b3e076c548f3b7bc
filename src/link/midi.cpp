// SPDX-License-Identifier: GPL-3.0-or-later
#include "link/midi.h"

#include <algorithm>
#include <string_view>
#include <utility>

namespace chispa::link {
namespace {

constexpr int kTicksPerBeat = 24;

enum Status : std::uint8_t {
  kNoteOff = 0x80,
  kNoteOn = 0x90,
  kControl = 0xb0,
  kProgram = 0xc0,
  kPressure = 0xd0,
  kBend = 0xe0,
  kClock = 0xf8,
  kStart = 0xfa,
};

}  // namespace

std::optional<ControlHeard> MidiReader::read(std::span<const std::uint8_t> message) {
  if (message.empty()) return std::nullopt;
  if (message[0] == kStart) ticks_ = 0;
  if (message[0] == kClock) {
    isBeat_ = ticks_ % kTicksPerBeat == 0;
    ticks_ = (ticks_ + 1) % kTicksPerBeat;
  }
  timeCode_ = timeCodeReader_.read(message);
  const int status = message[0] & 0xf0;
  const bool isShort = status == kProgram || status == kPressure;
  if (message[0] < 0x80 || message[0] >= 0xf0 || message.size() < (isShort ? 2u : 3u)) return std::nullopt;
  // Half a message, or one with status bytes among its data, is damaged.
  if (message[1] > 127 || (!isShort && message[2] > 127)) return std::nullopt;
  ControlHeard heard;
  heard.source.device = device_;
  heard.source.channel = (message[0] & 0x0f) + 1;
  heard.source.number = message[1];
  const int value = isShort ? message[1] : message[2];
  heard.value = static_cast<float>(value) / 127.f;
  const int before = std::exchange(coarseControl_, -1);
  switch (status) {
    case kNoteOff:
      heard.source.kind = SourceKind::Note;
      heard.value = 0;
      return heard;
    case kNoteOn:
      heard.source.kind = SourceKind::Note;
      return heard;
    case kControl:
      heard.source.kind = SourceKind::Control;
      if (before >= 0 && before + 32 == message[1] && coarseChannel_ == heard.source.channel) {
        heard.source.number = before;
        heard.value = static_cast<float>(coarseValue_ * 128 + value) / 16383.f;
      } else if (message[1] < 32) {
        coarseControl_ = message[1];
        coarseChannel_ = heard.source.channel;
        coarseValue_ = value;
      }
      return heard;
    case kProgram:
      heard.source.kind = SourceKind::Program;
      heard.value = 1;
      return heard;
    case kPressure:
      heard.source.kind = SourceKind::Pressure;
      heard.source.number = 0;
      return heard;
    case kBend:
      heard.source.kind = SourceKind::PitchBend;
      heard.source.number = 0;
      heard.value = static_cast<float>(message[2] * 128 + message[1]) / 16383.f;
      return heard;
    default:
      return std::nullopt;
  }
}

bool MidiReader::takeBeat() {
  return std::exchange(isBeat_, false);
}

namespace {

/// JACK names a port "client:port", and numbers clients of one name: "client-01:port".
std::string clientOf(const std::string& port) {
  std::string client = port.substr(0, port.find(':'));
  const auto dash = client.rfind('-');
  if (dash != std::string::npos && client.find_first_not_of("0123456789", dash + 1) == std::string::npos)
    client.resize(dash);
  return client;
}

}  // namespace

std::string outputOf(const std::string& input, const std::vector<std::string>& inputs,
                     const std::vector<std::string>& outputs) {
  const auto isOutput = [&](const std::string& name) {
    return std::find(outputs.begin(), outputs.end(), name) != outputs.end();
  };
  if (isOutput(input)) return input;
  constexpr std::string_view kIn = "capture";
  if (const auto at = input.find(kIn); at != std::string::npos)
    if (std::string other = std::string(input).replace(at, kIn.size(), "playback"); isOutput(other))
      return other;
  const std::string client = clientOf(input);
  const auto isOwn = [&](const std::string& name) { return clientOf(name) == client; };
  if (std::count_if(inputs.begin(), inputs.end(), isOwn) != 1 ||
      std::count_if(outputs.begin(), outputs.end(), isOwn) != 1)
    return {};
  return *std::find_if(outputs.begin(), outputs.end(), isOwn);
}

std::vector<std::uint8_t> lampMessage(const BindingSource& source, int value) {
  const auto channel = static_cast<std::uint8_t>(std::max(1, source.channel) - 1);
  const auto number = static_cast<std::uint8_t>(source.number & 127);
  const auto level = static_cast<std::uint8_t>(value & 127);
  if (source.kind == SourceKind::Note) return {static_cast<std::uint8_t>(kNoteOn | channel), number, level};
  if (source.kind == SourceKind::Control)
    return {static_cast<std::uint8_t>(kControl | channel), number, level};
  return {};
}

class SimulatedMidi::Input final : public MidiInput {
 public:
  Input(SimulatedMidi& owner, Hear heard) : hear(std::move(heard)), owner_(&owner) { owner.input_ = this; }
  ~Input() override {
    if (owner_) owner_->input_ = nullptr;
  }
  void leave() { owner_ = nullptr; }

  Hear hear;

 private:
  SimulatedMidi* owner_;
};

class SimulatedMidi::Output final : public MidiOutput {
 public:
  explicit Output(SimulatedMidi& owner) : owner_(owner) {}
  bool send(std::span<const std::uint8_t> message) override {
    if (owner_.isPlugged_ && owner_.lamps) owner_.lamps(message);
    return owner_.isPlugged_;
  }

 private:
  SimulatedMidi& owner_;
};

namespace {

Failure noDevice(const std::string& name) {
  return {sentence("There is no MIDI device called “%1”.", name),
          {},
          "Plug it in and switch it on; it is taken up then."};
}

}  // namespace

Result<std::unique_ptr<MidiInput>> SimulatedMidi::openInput(const std::string& name, Hear hear) {
  if (!isPlugged_ || name != kName) return noDevice(name);
  return std::unique_ptr<MidiInput>(std::make_unique<Input>(*this, std::move(hear)));
}

Result<std::unique_ptr<MidiOutput>> SimulatedMidi::openOutput(const std::string& name) {
  if (!isPlugged_ || name != kName) return noDevice(name);
  return std::unique_ptr<MidiOutput>(std::make_unique<Output>(*this));
}

void SimulatedMidi::send(std::span<const std::uint8_t> message) {
  if (isPlugged_ && input_) input_->hear(message);
}

void SimulatedMidi::plug(bool in) {
  isPlugged_ = in;
  if (in || !input_) return;
  input_->leave();
  input_ = nullptr;
}

std::vector<std::string> JoinedMidi::names(std::vector<std::string> (MidiSystem::*of)()) {
  std::vector<std::string> all;
  for (const auto& system : systems_)
    for (std::string& name : (system.get()->*of)()) all.push_back(std::move(name));
  return all;
}

MidiSystem* JoinedMidi::systemOf(const std::string& name, std::vector<std::string> (MidiSystem::*of)()) {
  for (const auto& system : systems_)
    for (const std::string& one : (system.get()->*of)())
      if (one == name) return system.get();
  return nullptr;
}

Result<std::unique_ptr<MidiInput>> JoinedMidi::openInput(const std::string& name, Hear hear) {
  MidiSystem* system = systemOf(name, &MidiSystem::inputs);
  return system ? system->openInput(name, std::move(hear)) : noDevice(name);
}

Result<std::unique_ptr<MidiOutput>> JoinedMidi::openOutput(const std::string& name) {
  MidiSystem* system = systemOf(name, &MidiSystem::outputs);
  return system ? system->openOutput(name) : noDevice(name);
}

}  // namespace chispa::link
