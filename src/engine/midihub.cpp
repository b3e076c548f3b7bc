// SPDX-License-Identifier: GPL-3.0-or-later
#include "engine/midihub.h"

#include <algorithm>
#include <utility>

namespace chispa::engine {

struct MidiHub::Device {
  explicit Device(const std::string& name_) : name(name_), reader(name_) {}

  std::string name;
  link::MidiReader reader;
  bool codeRuns = false;
  std::unique_ptr<link::MidiOutput> output;
  /// Last: it must end before what it fills.
  std::unique_ptr<link::MidiInput> input;
};

MidiHub::MidiHub(std::shared_ptr<link::MidiSystem> system, Event event, Heard heard)
    : system_(std::move(system)), event_(std::move(event)), heard_(std::move(heard)) {}

MidiHub::~MidiHub() = default;

void MidiHub::take(Device& device, std::span<const std::uint8_t> message) {
  const std::scoped_lock lock(mutex_);
  const auto heard = device.reader.read(message);
  if (device.reader.takeBeat()) event_({LiveEvent::Kind::Tap, 0, 0});
  if (const auto code = device.reader.takeTimeCode()) {
    event_(timeCodeEvent(device.name, code->at, code->runs));
    // It can be learnt as it begins to run.
    if (code->runs && !std::exchange(device.codeRuns, code->runs))
      heard_({{.kind = SourceKind::TimeCode, .device = device.name}, 1});
    device.codeRuns = code->runs;
  }
  if (!heard) return;
  event_(controlEvent(heard->source, heard->value));
  // A program is chosen, never let go.
  if (heard->source.kind == SourceKind::Program) event_(controlEvent(heard->source, 0));
  heard_(*heard);
}

void MidiHub::refresh() {
  troubles_.clear();
  const auto there = system_->inputs();
  const auto outputs = system_->outputs();
  const auto isIn = [](const std::vector<std::string>& names, const std::string& name) {
    return std::find(names.begin(), names.end(), name) != names.end();
  };
  std::erase_if(devices_, [&](const auto& entry) { return !isIn(there, entry.first); });
  for (const std::string& name : there) {
    if (devices_.contains(name)) continue;
    auto device = std::make_unique<Device>(name);
    auto input = system_->openInput(
        name, [this, raw = device.get()](std::span<const std::uint8_t> message) { take(*raw, message); });
    if (!input) {
      troubles_.push_back(input.failure().text());
      continue;
    }
    device->input = *std::move(input);
    if (const std::string lamps = link::outputOf(name, there, outputs); !lamps.empty())
      if (auto output = system_->openOutput(lamps)) device->output = *std::move(output);
    devices_.emplace(name, std::move(device));
  }
  // What a fresh device shows is not known; others may have missed a message, or forgotten theirs.
  lamps_.clear();
}

std::vector<std::string> MidiHub::devices() const {
  std::vector<std::string> names;
  for (const auto& [name, device] : devices_) names.push_back(name);
  return names;
}

std::vector<std::string> MidiHub::missing(const Show& show) const {
  std::vector<std::string> names;
  for (const auto& binding : show.bindings) {
    const std::string& name = binding->source.device;
    if (binding->source.isMidi() && !name.empty() && !devices_.contains(name) &&
        std::find(names.begin(), names.end(), name) == names.end())
      names.push_back(name);
  }
  return names;
}

void MidiHub::light(const Show& show, const LiveState& state) {
  for (const auto& binding : show.bindings) {
    if (!binding->lamp.isSent || !binding->source.isMidi()) continue;
    const bool isLook = binding->target.kind == TargetKind::Look;
    const BindingState* own = state.stateOf(binding->id);
    const bool isPlaying = isLook ? state.isLit(binding->target.look) : own && own->isPressed;
    const bool isThere = !isLook || find(show.looks, binding->target.look);
    const int value = isPlaying ? binding->lamp.playing : isThere ? binding->lamp.on : binding->lamp.off;
    const auto known = lamps_.find(binding->id);
    if (known != lamps_.end() && known->second == value) continue;
    const auto message = link::lampMessage(binding->source, value);
    if (message.empty()) continue;
    lamps_[binding->id] = value;
    for (const auto& [name, device] : devices_)
      if (device->output && (binding->source.device.empty() || binding->source.device == name))
        device->output->send(message);
  }
}

}  // namespace chispa::engine
