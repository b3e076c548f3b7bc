// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/music/stretch.h"

#include <SoundTouch.h>

#include <algorithm>

namespace chispa {
namespace {

std::size_t samplesOf(Micros time) { return static_cast<std::size_t>(time.count() * AudioClip::kRate / 1'000'000) * AudioClip::kChannels; }

}  // namespace

std::shared_ptr<const AudioClip> stretched(const AudioClip& clip, double rate, const std::atomic<bool>& cancelled) {
  soundtouch::SoundTouch engine;
  engine.setSampleRate(AudioClip::kRate);
  engine.setChannels(AudioClip::kChannels);
  engine.setTempo(rate);
  auto result = std::make_shared<AudioClip>();
  const auto wanted = static_cast<std::size_t>(static_cast<double>(clip.frames()) / rate);
  result->samples.reserve(wanted * AudioClip::kChannels);
  constexpr std::size_t kBlock = 8192;
  std::vector<float> out(kBlock * AudioClip::kChannels);
  const auto take = [&] {
    while (const unsigned made = engine.receiveSamples(out.data(), static_cast<unsigned>(kBlock))) result->samples.insert(result->samples.end(), out.begin(), out.begin() + static_cast<std::ptrdiff_t>(made) * AudioClip::kChannels);
  };
  for (std::size_t frame = 0; frame < clip.frames(); frame += kBlock) {
    if (cancelled.load()) return nullptr;
    engine.putSamples(clip.samples.data() + frame * AudioClip::kChannels, static_cast<unsigned>(std::min(kBlock, clip.frames() - frame)));
    take();
  }
  engine.flush();
  take();
  result->samples.resize(wanted * AudioClip::kChannels, 0.f);
  return result;
}

std::shared_ptr<const AudioClip> shifted(const AudioClip& clip, Micros by) {
  auto result = std::make_shared<AudioClip>();
  if (by.count() >= 0) {
    result->samples.assign(samplesOf(by), 0.f);
    result->samples.insert(result->samples.end(), clip.samples.begin(), clip.samples.end());
  } else {
    const std::size_t cut = std::min(samplesOf(-by), clip.samples.size());
    result->samples.assign(clip.samples.begin() + static_cast<std::ptrdiff_t>(cut), clip.samples.end());
  }
  return result;
}

std::shared_ptr<const AudioClip> withCountIn(const AudioClip* clip, Micros from, const std::vector<Micros>& instants, Micros begins) {
  constexpr double kFirst_hz = 1800;
  constexpr double kOther_hz = 1200;
  auto result = std::make_shared<AudioClip>();
  result->samples.assign(samplesOf(begins), 0.f);
  if (clip) result->samples.insert(result->samples.end(), clip->samples.begin() + static_cast<std::ptrdiff_t>(std::min(samplesOf(std::max(from, Micros(0))), clip->samples.size())), clip->samples.end());
  for (std::size_t i = 0; i < instants.size(); ++i) addClick(*result, std::max(instants[i], Micros(0)), i == 0 ? kFirst_hz : kOther_hz);
  return result;
}

}  // namespace chispa
