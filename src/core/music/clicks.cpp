// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/music/clicks.h"

#include <algorithm>

namespace chispa {
namespace {

constexpr Micros kClickLength{10'000};

/// The sound of one click.
AudioBuffer clickOf(double pitch_hz) {
  AudioBuffer click;
  click.samples.assign(static_cast<std::size_t>(framesOf(kClickLength)) * AudioClip::kChannels, 0.f);
  addClick(click, Micros(0), pitch_hz);
  return click;
}

class Clicked final : public AudioClip {
 public:
  Clicked(std::shared_ptr<const AudioClip> clip, const BeatMarks& marks) : clip_(std::move(clip)) {
    for (const Micros beat : marks.beats)
      clicks_.push_back({framesOf(beat), std::binary_search(marks.bars.begin(), marks.bars.end(), beat)});
  }

  std::size_t frames() const override { return clip_->frames(); }
  void read(std::ptrdiff_t first, std::span<float> out) const override {
    clip_->read(first, out);
    const auto count = static_cast<std::ptrdiff_t>(out.size() / kChannels);
    const auto length = static_cast<std::ptrdiff_t>(first_.frames());
    auto click = std::lower_bound(clicks_.begin(), clicks_.end(), first - length,
                                  [](const Click& c, std::ptrdiff_t at) { return c.at < at; });
    for (; click != clicks_.end() && click->at < first + count; ++click) {
      const AudioBuffer& sound = click->beginsBar ? first_ : other_;
      for (std::ptrdiff_t i = std::max<std::ptrdiff_t>(0, first - click->at); i < length; ++i) {
        const std::ptrdiff_t at = click->at + i - first;
        if (at >= count) break;
        for (std::ptrdiff_t c = 0; c < kChannels; ++c)
          out[static_cast<std::size_t>(at * kChannels + c)] +=
              sound.samples[static_cast<std::size_t>(i * kChannels + c)];
      }
    }
  }

 private:
  struct Click {
    std::ptrdiff_t at;
    bool beginsBar;
  };

  std::shared_ptr<const AudioClip> clip_;
  std::vector<Click> clicks_;
  AudioBuffer first_ = clickOf(1800);
  AudioBuffer other_ = clickOf(1200);
};

}  // namespace

std::shared_ptr<const AudioClip> withClicks(std::shared_ptr<const AudioClip> clip, const BeatMarks& marks) {
  if (!clip || marks.beats.empty()) return clip;
  return std::make_shared<Clicked>(std::move(clip), marks);
}

}  // namespace chispa
