// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/music/stretch.h"

#include <algorithm>

#include <SoundTouch.h>

#include "core/media/audiostore.h"

namespace chispa {
namespace {

/// One clip behind another: silence, clicks or nothing, and then a clip from one of its frames on.
class Joined final : public AudioClip {
 public:
  Joined(AudioBuffer before, std::shared_ptr<const AudioClip> clip, std::size_t from)
      : before_(std::move(before)), clip_(std::move(clip)), from_(from) {}

  std::size_t frames() const override {
    return before_.frames() + (clip_ && clip_->frames() > from_ ? clip_->frames() - from_ : 0);
  }
  void read(std::ptrdiff_t first, std::span<float> out) const override {
    const auto early = std::clamp<std::ptrdiff_t>(static_cast<std::ptrdiff_t>(before_.frames()) - first, 0,
                                                  static_cast<std::ptrdiff_t>(out.size() / kChannels));
    const auto ahead = static_cast<std::size_t>(early) * kChannels;
    before_.read(first, out.first(ahead));
    const auto rest = out.subspan(ahead);
    if (clip_)
      clip_->read(
          first + early - static_cast<std::ptrdiff_t>(before_.frames()) + static_cast<std::ptrdiff_t>(from_),
          rest);
    else
      std::fill(rest.begin(), rest.end(), 0.f);
  }

 private:
  AudioBuffer before_;
  std::shared_ptr<const AudioClip> clip_;
  std::size_t from_;
};

AudioBuffer silence(Micros length) {
  AudioBuffer buffer;
  buffer.samples.assign(
      static_cast<std::size_t>(std::max<std::ptrdiff_t>(0, framesOf(length))) * AudioClip::kChannels, 0.f);
  return buffer;
}

std::size_t frameAt(Micros time) {
  return static_cast<std::size_t>(std::max<std::ptrdiff_t>(0, framesOf(time)));
}

}  // namespace

std::shared_ptr<const AudioClip> stretched(const AudioClip& clip, double rate,
                                           const std::atomic<bool>& cancelled) {
  soundtouch::SoundTouch engine;
  engine.setSampleRate(AudioClip::kRate);
  engine.setChannels(AudioClip::kChannels);
  engine.setTempo(rate);
  AudioStore result;
  const auto wanted = static_cast<std::size_t>(static_cast<double>(clip.frames()) / rate);
  std::vector<float> block(AudioClip::kBlock * AudioClip::kChannels);
  const auto take = [&] {
    bool hasRoom = true;
    while (const unsigned made =
               engine.receiveSamples(block.data(), static_cast<unsigned>(AudioClip::kBlock)))
      hasRoom = result.add(std::span(block).first(made * std::size_t{AudioClip::kChannels})) && hasRoom;
    return hasRoom;
  };
  for (std::size_t frame = 0; frame < clip.frames(); frame += AudioClip::kBlock) {
    if (cancelled.load()) return nullptr;
    const std::size_t count = std::min(AudioClip::kBlock, clip.frames() - frame);
    clip.read(static_cast<std::ptrdiff_t>(frame), std::span(block).first(count * AudioClip::kChannels));
    engine.putSamples(block.data(), static_cast<unsigned>(count));
    if (!take()) return nullptr;
  }
  engine.flush();
  if (!take()) return nullptr;
  return result.take(wanted);
}

std::shared_ptr<const AudioClip> shifted(std::shared_ptr<const AudioClip> clip, Micros by) {
  if (by.count() == 0) return clip;
  return std::make_shared<Joined>(silence(by), std::move(clip), frameAt(-by));
}

std::shared_ptr<const AudioClip> withCountIn(std::shared_ptr<const AudioClip> clip, Micros from,
                                             const std::vector<Micros>& instants, Micros begins) {
  constexpr double kFirst_hz = 1800;
  constexpr double kOther_hz = 1200;
  AudioBuffer before = silence(begins);
  for (std::size_t i = 0; i < instants.size(); ++i)
    addClick(before, std::max(instants[i], Micros(0)), i == 0 ? kFirst_hz : kOther_hz);
  return std::make_shared<Joined>(std::move(before), std::move(clip), frameAt(from));
}

}  // namespace chispa
