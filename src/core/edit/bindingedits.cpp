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

std::vector<Sentence> describeSource(const BindingSource& source) {
  static constexpr std::array kNotes{"C", "C#", "D", "D#", "E", "F", "F#", "G", "G#", "A", "A#", "B"};
  const auto ofMidi = [&](Sentence what) {
    std::vector<Sentence> parts{std::move(what)};
    if (source.channel > 0) parts.push_back(sentence("channel %1", source.channel));
    if (!source.device.empty()) parts.emplace_back(source.device);
    return parts;
  };
  switch (source.kind) {
    case SourceKind::Note:
      // Note 60 is C4, as most keyboards count.
      return ofMidi(sentence("Note %1", std::string(kNotes[static_cast<std::size_t>(source.number % 12)]) +
                                            std::to_string(source.number / 12 - 1)));
    case SourceKind::Control:
      return ofMidi(sentence("Control %1", source.number));
    case SourceKind::PitchBend:
      return ofMidi("Pitch bend");
    case SourceKind::Program:
      return ofMidi(sentence("Program %1", source.number + 1));
    case SourceKind::Pressure:
      return ofMidi("Pressure");
    case SourceKind::Osc:
      return {sentence("OSC %1", source.address)};
    case SourceKind::Key:
      return {sentence("Key %1", source.address)};
    case SourceKind::Desk:
      return {sentence("Desk, universe %1", addressText(source.protocol, source.universe, source.number))};
    case SourceKind::Fixed:
      return {"Fixed value"};
    case SourceKind::TimeCode:
      return ofMidi("Time code");
  }
  return {};
}

namespace {

Sentence describeChannels(const Show& show, const BindingTarget& target) {
  const Controller* controller = find(show.controllers, target.controller);
  const std::string first =
      (controller ? controller->name + " " : std::string()) +
      addressText(controller ? controller->protocol : Protocol::E131, target.universe, target.channel);
  if (target.every > 1) return sentence("%1 × %2, every %3", first, target.count, target.every);
  return target.count > 1 ? sentence("%1 × %2", first, target.count) : Sentence(first);
}

Sentence describeLook(const Show& show, const BindingTarget& target) {
  const Look* look = find(show.looks, target.look);
  if (!look) return "a look that is gone";
  switch (target.kind) {
    case TargetKind::LookLevel:
      return sentence("level of %1", look->name);
    case TargetKind::Parameter:
      return sentence("%1 of %2", target.parameter, look->name);
    case TargetKind::Speed:
      return sentence("speed of %1", look->name);
    default:
      return look->name;
  }
}

}  // namespace

Sentence describeTarget(const Show& show, const BindingTarget& target) {
  switch (target.kind) {
    case TargetKind::Look:
    case TargetKind::LookLevel:
    case TargetKind::Parameter:
    case TargetKind::Speed:
      return describeLook(show, target);
    case TargetKind::ZoneLevel: {
      const Zone* zone = find(show.zones, target.zone);
      return zone ? sentence("level of %1", zone->name) : Sentence("a zone that is gone");
    }
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
    case TargetKind::Channels:
      return describeChannels(show, target);
  }
  return {};
}

std::string describeBinding(const Show& show, const Binding& binding) {
  if (!binding.name.empty()) return binding.name;
  std::string words;
  for (const Sentence& part : describeSource(binding.source))
    words += (words.empty() ? "" : " · ") + part.text();
  return words + " → " + describeTarget(show, binding.target).text();
}

}  // namespace chispa
