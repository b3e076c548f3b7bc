// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/edit/bindingedits.h"

#include <algorithm>
#include <array>

#include "core/edit/lookedits.h"
#include "core/show/limits.h"
#include "core/wire/patch.h"

namespace chispa {

BindingId addBinding(Show& show, const BindingSource& source, const BindingTarget& target) {
  Binding binding;
  binding.id = show.newId<BindingId>();
  binding.source = source;
  binding.target = target;
  const BindingId id = binding.id;
  put(show.bindings, std::move(binding));
  return id;
}

void deleteBinding(Show& show, BindingId id) {
  remove(show.bindings, id);
}

namespace {

/// The item `by` places behind `id`, or null.
template <class T, class IdType>
const T* later(const Items<T>& items, IdType id, int by) {
  const auto at = std::find_if(items.begin(), items.end(), [id](const auto& item) { return item->id == id; });
  if (at == items.end()) return nullptr;
  const std::ptrdiff_t place = at - items.begin() + by;
  return place >= 0 && place < std::ssize(items) ? items[static_cast<std::size_t>(place)].get() : nullptr;
}

/// "/fader/3" and 2 make "/fader/5"; false if there is no number at its end.
bool advanceAddress(std::string& address, int by) {
  const auto last = address.find_last_not_of("0123456789");
  const std::string digits = address.substr(last == std::string::npos ? 0 : last + 1);
  if (digits.empty() || digits.size() > 8) return false;
  address = address.substr(0, address.size() - digits.size()) + std::to_string(std::stoi(digits) + by);
  return true;
}

bool advance(BindingSource& source, int by) {
  switch (source.kind) {
    case SourceKind::Note:
    case SourceKind::Control:
    case SourceKind::Program:
      source.number += by;
      return source.number >= 0 && source.number <= 127;
    case SourceKind::PitchBend:
    case SourceKind::Pressure:
      source.channel += by;
      return source.channel >= 1 && source.channel <= 16;
    case SourceKind::Desk:
      source.number += by;
      return source.number >= 1 && source.number <= kUniverseChannels;
    case SourceKind::Osc:
      return advanceAddress(source.address, by);
    case SourceKind::Key: {
      const auto& keys = padKeys();
      const auto at = std::find(keys.begin(), keys.end(), source.address);
      const std::ptrdiff_t place = at - keys.begin() + by;
      if (at == keys.end() || place < 0 || place >= std::ssize(keys)) return false;
      source.address = keys[static_cast<std::size_t>(place)];
      return true;
    }
    case SourceKind::Fixed:
    case SourceKind::TimeCode:
      return false;
  }
  return false;
}

bool advance(const Show& show, BindingTarget& target, int by) {
  switch (target.kind) {
    case TargetKind::Look:
    case TargetKind::LookLevel:
    case TargetKind::Parameter:
    case TargetKind::Speed: {
      const Look* next = later(show.looks, target.look, by);
      if (next) target.look = next->id;
      return next != nullptr;
    }
    case TargetKind::ZoneLevel: {
      const Zone* next = later(show.zones, target.zone, by);
      if (next) target.zone = next->id;
      return next != nullptr;
    }
    case TargetKind::Channels:
      target.channel += by;
      return target.channel >= 1 && target.channel <= kUniverseChannels;
    default:
      // There is only one of these.
      return false;
  }
}

}  // namespace

std::vector<BindingId> copyAlong(Show& show, BindingId id, const CopyAlong& along) {
  std::vector<BindingId> copies;
  const Binding* found = find(show.bindings, id);
  if (!found) return copies;
  const Binding first = *found;
  for (int i = 1; i <= along.count && show.bindings.size() < limits::kMaxBindings; ++i) {
    Binding copy = first;
    copy.name.clear();
    if (!advance(copy.source, i * along.sourceStep)) break;
    const bool isMaster = along.endsInMaster && i == along.count;
    if (isMaster)
      copy.target = {};
    else if (!advance(show, copy.target, i * along.targetStep))
      break;
    copy.id = show.newId<BindingId>();
    copies.push_back(copy.id);
    put(show.bindings, std::move(copy));
  }
  return copies;
}

std::string describeSource(const BindingSource& source) {
  static constexpr std::array kNotes{"C", "C#", "D", "D#", "E", "F", "F#", "G", "G#", "A", "A#", "B"};
  const auto ofMidi = [&](std::string what) {
    if (source.channel > 0) what += " · channel " + std::to_string(source.channel);
    return source.device.empty() ? what : what + " · " + source.device;
  };
  const std::string number = std::to_string(source.number);
  switch (source.kind) {
    case SourceKind::Note:
      // Note 60 is C4, as most keyboards count.
      return ofMidi("Note " + std::string(kNotes[static_cast<std::size_t>(source.number % 12)]) +
                    std::to_string(source.number / 12 - 1));
    case SourceKind::Control:
      return ofMidi("Control " + number);
    case SourceKind::PitchBend:
      return ofMidi("Pitch bend");
    case SourceKind::Program:
      return ofMidi("Program " + std::to_string(source.number + 1));
    case SourceKind::Pressure:
      return ofMidi("Pressure");
    case SourceKind::Osc:
      return "OSC " + source.address;
    case SourceKind::Key:
      return "Key " + source.address;
    case SourceKind::Desk:
      return "Desk, universe " + addressText(source.protocol, source.universe, source.number);
    case SourceKind::Fixed:
      return "Fixed value";
    case SourceKind::TimeCode:
      return ofMidi("Time code");
  }
  return {};
}

std::string describeTarget(const Show& show, const BindingTarget& target) {
  const auto look = [&] {
    const Look* found = find(show.looks, target.look);
    return found ? found->name : std::string("a look that is gone");
  };
  switch (target.kind) {
    case TargetKind::Look:
      return look();
    case TargetKind::LookLevel:
      return "level of " + look();
    case TargetKind::ZoneLevel: {
      const Zone* zone = find(show.zones, target.zone);
      return "level of " + (zone ? zone->name : std::string("a zone that is gone"));
    }
    case TargetKind::Parameter:
      return target.parameter + " of " + look();
    case TargetKind::Speed:
      return "speed of " + look();
    case TargetKind::Master:
      return "master";
    case TargetKind::Blackout:
      return "blackout";
    case TargetKind::Light:
      return "light on and off";
    case TargetKind::Play:
      return "play and pause";
    case TargetKind::Stop:
      return "back to the beginning";
    case TargetKind::GoTo:
      return "go to an instant";
    case TargetKind::Tempo:
      return "tempo";
    case TargetKind::Reset:
      return "reset";
    case TargetKind::SetListOn:
      return "on in the set list";
    case TargetKind::SetListBack:
      return "back in the set list";
    case TargetKind::Follow:
      return "the score follows";
    case TargetKind::Channels: {
      const Controller* controller = find(show.controllers, target.controller);
      std::string words =
          (controller ? controller->name + " " : std::string()) +
          addressText(controller ? controller->protocol : Protocol::E131, target.universe, target.channel);
      if (target.count > 1) words += " × " + std::to_string(target.count);
      if (target.every > 1) words += ", every " + std::to_string(target.every);
      return words;
    }
  }
  return {};
}

std::string describeBinding(const Show& show, const Binding& binding) {
  return binding.name.empty() ? describeSource(binding.source) + " → " + describeTarget(show, binding.target)
                              : binding.name;
}

}  // namespace chispa
