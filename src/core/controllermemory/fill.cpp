// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/controllermemory/fill.h"

#include <algorithm>
#include <cmath>

#include "core/almanac/calendar.h"
#include "core/recording/framepacker.h"

namespace chispa {
namespace {

using Values = std::vector<std::uint8_t>;

constexpr int kFullRate = 40;

SceneId sourceOf(const MemoryScene& scene) {
  return scene.kind == PieceKind::Score ? SceneId(scene.score) : SceneId(scene.look);
}

bool isThere(const Show& show, const MemoryScene& scene) {
  return scene.kind == PieceKind::Score ? find(show.scores, scene.score) != nullptr
                                        : find(show.looks, scene.look) != nullptr;
}

bool needsSun(const MemoryStart& start) {
  return start.contact == 0 && start.at.kind != NightTimeKind::Clock;
}

/// Universes of one controller, and where their values stand among those of all.
struct OwnUniverse {
  int universe = 0;
  int channels = 0;
  std::size_t first = 0;
};
std::vector<OwnUniverse> universesOf(const Patch& patch, int controller) {
  std::vector<OwnUniverse> own;
  for (std::size_t i = 0; i < patch.universes.size(); ++i)
    if (const PatchUniverse& universe = patch.universes[i]; universe.controller == controller)
      own.push_back({universe.universe, universe.channels, i * kUniverseChannels});
  return own;
}

/// The light of one scene as one controller is sent it.
class SceneValues {
 public:
  SceneValues(const Show& show, const CompiledShow& compiled, SceneId source, int controller,
              int framesPerSecond)
      : light_(show, compiled, source),
        packer_(compiled, framesPerSecond, Dither::None),
        own_(universesOf(compiled.patch, controller)) {}

  const SceneLight& light() const { return light_; }
  /// Instants never fall.
  Values at(Micros t) {
    light_.render(t, frame_);
    const Values& all = packer_.pack(frame_);
    Values values;
    for (const OwnUniverse& universe : own_) {
      const auto first = all.begin() + static_cast<std::ptrdiff_t>(universe.first);
      values.insert(values.end(), first, first + universe.channels);
    }
    return values;
  }

 private:
  SceneLight light_;
  FramePacker packer_;
  PixelFrame frame_;
  std::vector<OwnUniverse> own_;
};

/// Leaves out, at both ends of each universe, the channels that are dark throughout.
void trimChannels(const std::vector<OwnUniverse>& own, Protocol protocol, SceneContent& scene) {
  std::size_t first = 0;
  std::vector<std::pair<std::size_t, std::size_t>> kept;
  for (const OwnUniverse& universe : own) {
    const auto count = static_cast<std::size_t>(universe.channels);
    std::size_t low = count, high = 0;
    for (const MemoryStep& step : scene.steps)
      for (std::size_t c = 0; c < count; ++c)
        if (step.values[first + c] != 0) {
          low = std::min(low, c);
          high = std::max(high, c + 1);
        }
    if (low < high) {
      scene.channels.push_back(
          {protocol, universe.universe, static_cast<int>(low) + 1, static_cast<int>(high - low)});
      kept.push_back({first + low, first + high});
    }
    first += count;
  }
  for (MemoryStep& step : scene.steps) {
    Values values;
    for (const auto& [low, high] : kept)
      values.insert(values.end(), step.values.begin() + static_cast<std::ptrdiff_t>(low),
                    step.values.begin() + static_cast<std::ptrdiff_t>(high));
    step.values = std::move(values);
  }
}

class Filler {
 public:
  Filler(const Show& show, const CompiledShow& compiled, int controller, const ControllerMemory& memory,
         const MemoryLimits& limits, const Progress& progress)
      : show_(show),
        compiled_(compiled),
        index_(controller),
        controller_(*show.controllers[static_cast<std::size_t>(controller)]),
        memory_(memory),
        limits_(limits),
        progress_(progress),
        values_(show, compiled.patch, controller) {}

  Result<MemoryFill> run() {
    if (values_.count() == 0)
      return Failure{sentence("No pixels hang on “%1”.", controller_.name), {}, "Wire it first."};
    if (Outcome placed = takePlace(); !placed) return placed.failure();
    const auto& scenes = memory_.scenes;
    for (std::size_t i = 0; i < scenes.size(); ++i) {
      done_ = static_cast<double>(i) / static_cast<double>(scenes.size());
      share_ = 1 / static_cast<double>(scenes.size());
      if (!isThere(show_, scenes[i]))
        return Failure{sentence("What scene %1 shall play is gone.", i + 1), controller_.name,
                       "Choose another, or take the scene out."};
      if (!add(scenes[i])) return Failure{};
      for (const MemoryStart& start : scenes[i].starts)
        fill_.content.starts.push_back({static_cast<int>(i) + 1, start});
    }
    for (const MemoryStart& start : memory_.darkens) fill_.content.starts.push_back({0, start});
    fill_.content.name = show_.name;
    fill_.content.atPowerOn = std::min(memory_.atPowerOn, static_cast<int>(scenes.size()));
    return std::move(fill_);
  }

 private:
  Outcome takePlace() {
    const Almanac& almanac = show_.almanac;
    const auto anySun = [](const std::vector<MemoryStart>& starts) {
      return std::any_of(starts.begin(), starts.end(), needsSun);
    };
    const bool needsPlace =
        anySun(memory_.darkens) || std::any_of(memory_.scenes.begin(), memory_.scenes.end(),
                                               [&](const MemoryScene& s) { return anySun(s.starts); });
    if (almanac.zone.empty() && needsPlace)
      return Failure{"The sun shall start scenes, and the show has no place.", controller_.name,
                     "Choose one in Run, in the almanac."};
    if (almanac.zone.empty()) return Done{};
    auto zone = posixZone(almanac.zone);
    if (!zone) return zone.failure();
    fill_.content.place = {almanac.latitude_deg, almanac.longitude_deg, *std::move(zone)};
    return Done{};
  }

  bool add(const MemoryScene& wanted) {
    const SceneId source = sourceOf(wanted);
    // Looked at as often as Chispa sends, however seldom steps begin.
    constexpr int kSent_ms = 1000 / kFullRate;
    const int step_ms = std::max(10, static_cast<int>(std::lround(1000 / memory_.framesPerSecond)));
    const int stride = (step_ms + kSent_ms - 1) / kSent_ms;
    const int frame_ms = step_ms / stride;
    SceneValues lit(show_, compiled_, source, index_, 1000 / frame_ms);
    const CompiledLook* look = lit.light().look();
    const std::int64_t fadeIn_ms =
        look && limits_.fades && !values_.hasWideValues()
            ? std::chrono::duration_cast<std::chrono::milliseconds>(look->fadeIn).count()
            : 0;
    const Micros length = look ? wanted.length : lit.light().length();
    ValueFrames frames{frame_ms, static_cast<std::size_t>(stride), {}};
    const auto count =
        stride * std::max<std::int64_t>(1, length / std::chrono::milliseconds(frame_ms * stride));
    for (std::int64_t i = 0; i < count; ++i) {
      frames.frames.push_back(lit.at(std::chrono::milliseconds(fadeIn_ms + i * frame_ms)));
      if (!tell(0.4 * static_cast<double>(i) / static_cast<double>(count))) return false;
    }
    SceneContent scene;
    scene.name = lit.light().name();
    scene.rounds = wanted.rounds;
    scene.then = wanted.then;
    scene.next = wanted.next <= std::ssize(memory_.scenes) ? wanted.next : 0;
    // Half a value of 16 bits cannot be faded by itself.
    const StepRules rules{memory_.tolerance, limits_.fades && !values_.hasWideValues()};
    scene.steps = findSteps(frames, values_, rules, [this](double share) { return tell(0.4 + 0.4 * share); });
    if (scene.steps.empty()) return false;
    scene.steps.front().fade_ms = fadeIn_ms;
    trimChannels(universesOf(compiled_.patch, index_), controller_.protocol, scene);
    FilledScene filled{source, {}, bytesOf(scene, limits_)};
    if (!judge(scene, source, fadeIn_ms, filled.error)) return false;
    fill_.content.scenes.push_back(std::move(scene));
    fill_.scenes.push_back(filled);
    return true;
  }

  /// Plays a round as the controller will, and compares.
  bool judge(const SceneContent& scene, SceneId source, std::int64_t fadeIn_ms, LightError& error) {
    constexpr std::int64_t kMaxSamples = 400;
    SceneValues full(show_, compiled_, source, index_, kFullRate);
    const std::int64_t span_ms = scene.length_ms() - fadeIn_ms;
    const std::int64_t samples = std::clamp<std::int64_t>(span_ms * kFullRate / 1000, 1, kMaxSamples);
    for (std::int64_t i = 0; i < samples; ++i) {
      const std::int64_t t_ms = fadeIn_ms + span_ms * i / samples;
      const Values shown = spreadValues(compiled_.patch, index_, scene, valuesAt(scene, t_ms));
      const LightError now = errorOf(values_, shown, full.at(std::chrono::milliseconds(t_ms)));
      error.mean += now.mean / static_cast<double>(samples);
      error.most = std::max(error.most, now.most);
      if (!tell(0.8 + 0.2 * static_cast<double>(i) / static_cast<double>(samples))) return false;
    }
    return true;
  }

  bool tell(double share) { return !progress_ || progress_(done_ + share_ * share); }

  const Show& show_;
  const CompiledShow& compiled_;
  int index_;
  const Controller& controller_;
  const ControllerMemory& memory_;
  const MemoryLimits& limits_;
  const Progress& progress_;
  ValueLight values_;
  MemoryFill fill_;
  double done_ = 0;
  double share_ = 1;
};

int indexOf(const Show& show, ControllerId id) {
  const auto found = std::find_if(show.controllers.begin(), show.controllers.end(),
                                  [id](const auto& controller) { return controller->id == id; });
  return found == show.controllers.end() ? -1 : static_cast<int>(found - show.controllers.begin());
}

}  // namespace

Result<MemoryFill> fillMemory(const Show& show, const CompiledShow& compiled, ControllerId controller,
                              const ControllerMemory& memory, const MemoryLimits& limits,
                              const Progress& progress) {
  const int index = indexOf(show, controller);
  if (index < 0) return Failure{"The controller is gone.", {}, "Choose another."};
  return Filler(show, compiled, index, memory, limits, progress).run();
}

Result<FittingFill> fitMemory(const Show& show, const CompiledShow& compiled, ControllerId controller,
                              const ControllerMemory& memory, const MemoryLimits& limits,
                              const Progress& progress) {
  constexpr double kLadder[] = {0, 0.5, 1, 1.5, 2, 3, 4, 6, 8, 12, 20};
  ControllerMemory tried = memory;
  std::vector<std::string> excesses;
  for (const double tolerance : kLadder) {
    tried.tolerance = tolerance;
    auto fill = fillMemory(show, compiled, controller, tried, limits, progress);
    if (!fill) return fill.failure();
    excesses = excessesOf(fill->content, limits);
    if (excesses.empty()) return FittingFill{tolerance, *std::move(fill)};
  }
  return Failure{sentence("Even with a loss that everybody sees it does not fit: %1.", excesses.front()),
                 {},
                 "Take scenes out, or shorten looks."};
}

Values spreadValues(const Patch& patch, int controller, const SceneContent& scene,
                    std::span<const std::uint8_t> values) {
  Values all;
  std::vector<std::pair<int, std::size_t>> firsts;
  for (const OwnUniverse& universe : universesOf(patch, controller)) {
    firsts.push_back({universe.universe, all.size()});
    all.resize(all.size() + static_cast<std::size_t>(universe.channels), 0);
  }
  std::size_t taken = 0;
  for (const MemoryChannels& block : scene.channels) {
    const auto found = std::find_if(firsts.begin(), firsts.end(),
                                    [&](const auto& first) { return first.first == block.universe; });
    const auto count = static_cast<std::size_t>(block.count);
    if (found != firsts.end())
      for (std::size_t c = 0; c < count; ++c) {
        const std::size_t at = found->second + static_cast<std::size_t>(block.channel - 1) + c;
        if (at < all.size() && taken + c < values.size()) all[at] = values[taken + c];
      }
    taken += count;
  }
  return all;
}

}  // namespace chispa
