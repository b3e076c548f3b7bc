// SPDX-License-Identifier: GPL-3.0-or-later
// What the set-up interface, the window and tests ask of a node, and tell it.
#include "node/node.h"

namespace chispa::node {
namespace {

std::string hexColour(Shown c) {
  char text[8];
  std::snprintf(text, sizeof text, "#%02x%02x%02x", static_cast<unsigned>(c.r & 255),
                static_cast<unsigned>(c.g & 255), static_cast<unsigned>(c.b & 255));
  return text;
}

}  // namespace

std::vector<PortSetup> Node::settings() const {
  const std::scoped_lock lock(mutex_);
  return ports_;
}

void Node::setSettings(std::vector<PortSetup> ports) {
  const std::scoped_lock lock(mutex_);
  ports_ = std::move(ports);
}

Faults Node::faults() const {
  const std::scoped_lock lock(mutex_);
  return cable_.faults();
}

void Node::setFaults(const Faults& faults) {
  const std::scoped_lock lock(mutex_);
  cable_.setFaults(faults, std::chrono::steady_clock::now());
}

bool Node::isSilent() const {
  const std::scoped_lock lock(mutex_);
  return cable_.isSilent(std::chrono::steady_clock::now());
}

std::string Node::name() const {
  const std::scoped_lock lock(mutex_);
  return options_.name;
}

bool Node::showsMemory() const {
  constexpr auto kDataLasts = std::chrono::milliseconds(2500);
  if (!memory_ || memory_->isEmpty()) return false;
  return !heardAt_ || std::chrono::steady_clock::now() - *heardAt_ > kDataLasts;
}

nlohmann::ordered_json Node::memory() {
  const std::scoped_lock lock(mutex_);
  memory_->advance(now_ms());
  return memory_->toJson(now_ms());
}

Node::Filled Node::fillMemory(Content content) {
  const std::scoped_lock lock(mutex_);
  const Faults& faults = cable_.faults();
  const auto strikes = [&](int scene) {
    return scene > 0 && static_cast<int>(content.scenes.size()) >= scene;
  };
  if (strikes(faults.powerFailsAfterScene)) {
    // It starts again without the clock that ran on its power, and hears nothing until then.
    memory_.emplace(*options_.memory);
    memory_->setSpeed(options_.clockSpeed, now_ms());
    memory_->spoil();
    Faults next = faults;
    next.powerFailsAfterScene = 0;
    next.silent_s = 1;
    cable_.setFaults(next, std::chrono::steady_clock::now());
    return Filled::PowerFailed;
  }
  if (strikes(faults.memoryFailsAfterScene)) return Filled::MemoryFailed;
  memory_->fill(std::move(content), now_ms());
  memory_->advance(now_ms());
  return Filled::Taken;
}

void Node::setClock(UtcMillis utc) {
  const std::scoped_lock lock(mutex_);
  memory_->setClock(utc, now_ms());
  memory_->advance(now_ms());
}

void Node::playScene(int scene) {
  const std::scoped_lock lock(mutex_);
  memory_->play(scene, now_ms());
  memory_->advance(now_ms());
}

bool Node::pressContact(int contact) {
  const std::scoped_lock lock(mutex_);
  return memory_->press(contact, now_ms());
}

std::vector<std::string> Node::sceneNames() const {
  const std::scoped_lock lock(mutex_);
  return memory_ ? memory_->sceneNames() : std::vector<std::string>();
}

int Node::shownScene() const {
  const std::scoped_lock lock(mutex_);
  return showsMemory() ? memory_->playing() : 0;
}

std::vector<Shown> Node::shown(const PortSetup& port) const {
  const std::scoped_lock lock(mutex_);
  const bool isOwn = showsMemory();
  return showPort(
      port,
      [&](int universe, int channel) {
        return isOwn ? memory_->valueAt(port.protocol, universe, channel)
                     : universes_.valueAt(port.protocol, universe, channel);
      },
      cable_.faults().hasWrongOrder);
}

std::string Node::light() const {
  std::string bytes;
  const auto add = [&bytes](int value) { bytes.push_back(static_cast<char>(value & 255)); };
  for (const PortSetup& port : settings()) {
    const auto leds = shown(port);
    const int count = static_cast<int>(std::min<std::size_t>(leds.size(), 65'535));
    for (const int value : {port.port >> 8, port.port, count >> 8, count}) add(value);
    for (int i = 0; i < count; ++i)
      for (const int value : {leds[static_cast<std::size_t>(i)].r, leds[static_cast<std::size_t>(i)].g,
                              leds[static_cast<std::size_t>(i)].b})
        add(value);
  }
  return bytes;
}

nlohmann::json Node::state() const {
  const auto ports = settings();
  nlohmann::json root = {{"name", name()}, {"listen", options_.listen}, {"ports_in_all", options_.ports}};
  root["settings"] = toJson(ports);
  root["faults"] = toJson(faults());
  root["ports"] = nlohmann::json::array();
  for (const PortSetup& port : ports) {
    auto colours = nlohmann::json::array();
    for (const Shown colour : shown(port)) colours.push_back(hexColour(colour));
    root["ports"].push_back({{"port", port.port}, {"shows", std::move(colours)}});
  }
  const std::scoped_lock lock(mutex_);
  root["universes"] = universes_.toJson();
  return root;
}

}  // namespace chispa::node
