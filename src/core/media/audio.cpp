// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/media/audio.h"

#include <algorithm>
#include <cmath>
#include <numbers>

#include "core/base/ffmpeg.h"
#include "core/media/audiostore.h"

namespace chispa {
namespace {

constexpr std::size_t kMaxFrames = std::size_t{24} * 3600 * AudioClip::kRate;

/// One decoding run over one file.
class Decoder {
 public:
  Decoder(const std::filesystem::path& path, const Progress& progress)
      : path_(path.string()), input_(path_), progress_(progress) {}

  Result<std::shared_ptr<const AudioClip>> run() {
    input_.isCancelled = [this] { return isCancelled(); };
    if (const std::string why = ffmpeg::open(input_, AVMEDIA_TYPE_AUDIO, "The audio file", "sound");
        !why.empty())
      return fail(why);
    ffmpeg::FrameReader frames(input_);
    while (failure_.empty()) {
      const AVFrame* frame = frames.next();
      if (!frame) break;
      take(*frame);
      if (store_.frames() > kMaxFrames) failure_ = "It is longer than 24 hours";
    }
    if (wasCancelled_) return fail("Reading it was cancelled.");
    if (failure_.empty()) drain();
    if (!failure_.empty()) return fail(failure_);
    if (store_.frames() == 0) return fail("It holds no sound that can be decoded.");
    return store_.take();
  }

 private:
  Failure fail(Sentence what) const {
    return {std::move(what), path_, "Choose another file; MP3, AAC, Ogg, FLAC and WAV are read."};
  }

  /// Asked by FFmpeg between its reads.
  bool isCancelled() {
    if (!progress_) return false;
    const AVFormatContext* format = input_.format.get();
    const double whole_s =
        format && format->duration > 0 ? static_cast<double>(format->duration) / AV_TIME_BASE : 0;
    const double share =
        whole_s > 0 ? std::min(1.0, static_cast<double>(store_.frames()) / AudioClip::kRate / whole_s) : 0;
    wasCancelled_ = wasCancelled_ || !progress_(share);
    return wasCancelled_;
  }

  /// What a frame says of itself; joined files change it on the way.
  struct Format {
    int rate = 0;
    AVSampleFormat samples = AV_SAMPLE_FMT_NONE;
    int channels = 0;
    std::uint64_t mask = 0;
    bool operator==(const Format&) const = default;
  };
  static Format formatOf(const AVFrame& frame) {
    return {frame.sample_rate, static_cast<AVSampleFormat>(frame.format), frame.ch_layout.nb_channels,
            frame.ch_layout.order == AV_CHANNEL_ORDER_NATIVE ? frame.ch_layout.u.mask : 0};
  }

  bool openResampler(const AVFrame& frame) {
    AVChannelLayout stereo = AV_CHANNEL_LAYOUT_STEREO;
    AVChannelLayout from = {};
    if (frame.ch_layout.order == AV_CHANNEL_ORDER_UNSPEC)
      av_channel_layout_default(&from, std::max(1, frame.ch_layout.nb_channels));
    else
      av_channel_layout_copy(&from, &frame.ch_layout);
    SwrContext* raw = nullptr;
    swr_alloc_set_opts2(&raw, &stereo, AV_SAMPLE_FMT_FLT, AudioClip::kRate, &from,
                        static_cast<AVSampleFormat>(frame.format), frame.sample_rate, 0, nullptr);
    av_channel_layout_uninit(&from);
    swr_.reset(raw);
    return raw && swr_init(raw) >= 0;
  }

  void take(const AVFrame& frame) {
    if (const Format format = formatOf(frame); format != format_) {
      drain();
      format_ = format;
      if (!openResampler(frame)) swr_.reset();
    }
    // Frames of a kind that cannot be converted are left out, as damaged ones are.
    convert(const_cast<const std::uint8_t**>(frame.extended_data), frame.nb_samples);
  }

  /// What the resampler still holds.
  void drain() { convert(nullptr, 0); }

  void convert(const std::uint8_t** data, int count) {
    const int room = swr_ ? swr_get_out_samples(swr_.get(), count) : 0;
    if (room <= 0) return;
    made_.resize(static_cast<std::size_t>(room) * AudioClip::kChannels);
    auto* out = reinterpret_cast<std::uint8_t*>(made_.data());
    const int made = std::max(0, swr_convert(swr_.get(), &out, room, data, count));
    if (!store_.add(std::span(made_).first(static_cast<std::size_t>(made) * AudioClip::kChannels)))
      failure_ = "There is no room for its sound in /var/tmp";
  }

  std::string path_;
  ffmpeg::Input input_;
  const Progress& progress_;
  ffmpeg::Resampler swr_;
  Format format_;
  AudioStore store_;
  std::vector<float> made_;
  std::string failure_;
  bool wasCancelled_ = false;
};

}  // namespace

void AudioBuffer::read(std::ptrdiff_t first, std::span<float> out) const {
  const auto count = static_cast<std::ptrdiff_t>(frames());
  const std::ptrdiff_t from = std::clamp<std::ptrdiff_t>(first, 0, count);
  const std::ptrdiff_t to =
      std::clamp<std::ptrdiff_t>(first + static_cast<std::ptrdiff_t>(out.size() / kChannels), from, count);
  std::fill(out.begin(), out.end(), 0.f);
  std::copy(samples.begin() + from * kChannels, samples.begin() + to * kChannels,
            out.begin() + (from - first) * kChannels);
}

Result<std::shared_ptr<const AudioClip>> decodeAudio(const std::filesystem::path& path,
                                                     const Progress& progress) {
  std::error_code error;
  if (!std::filesystem::exists(path, error))
    return Failure{"The audio file is not there.", path.string(), "Put it back, or choose the file anew."};
  return Decoder(path, progress).run();
}

void addClick(AudioBuffer& clip, Micros at, double pitch_hz) {
  constexpr std::size_t kClickFrames = AudioClip::kRate / 100;
  const auto first = static_cast<std::size_t>(at.count() * AudioClip::kRate / 1'000'000);
  for (std::size_t i = 0; i < kClickFrames && first + i < clip.frames(); ++i) {
    const double t = static_cast<double>(i) / AudioClip::kRate;
    const auto sound =
        static_cast<float>(0.6 * std::sin(2 * std::numbers::pi * pitch_hz * t) * std::exp(-t * 400));
    for (std::size_t c = 0; c < AudioClip::kChannels; ++c)
      clip.samples[(first + i) * AudioClip::kChannels + c] += sound;
  }
}

std::shared_ptr<const AudioClip> makeClicks(Micros length) {
  constexpr double kPitch_hz = 1800;
  auto clip = std::make_shared<AudioBuffer>();
  clip->samples.assign(
      static_cast<std::size_t>(length.count() * AudioClip::kRate / 1'000'000) * AudioClip::kChannels, 0.f);
  for (Micros at{0}; at < length; at += Micros(1'000'000)) addClick(*clip, at, kPitch_hz);
  return clip;
}

namespace {

std::vector<WaveformPeaks::Peak> finestPeaks(const AudioClip& clip) {
  std::vector<WaveformPeaks::Peak> finest;
  static_assert(AudioClip::kBlock % WaveformPeaks::kFinest == 0);
  eachMonoBlock(clip, [&](std::span<const float> block, std::size_t) {
    for (std::size_t at = 0; at < block.size(); at += WaveformPeaks::kFinest) {
      const auto part = block.subspan(at, std::min(WaveformPeaks::kFinest, block.size() - at));
      const auto [low, high] = std::minmax_element(part.begin(), part.end());
      finest.push_back({*low, *high});
    }
  });
  return finest;
}

}  // namespace

WaveformPeaks::WaveformPeaks(const AudioClip& clip) : WaveformPeaks(finestPeaks(clip)) {}

WaveformPeaks::WaveformPeaks(std::vector<Peak> finest) {
  levels_.push_back(std::move(finest));
  while (levels_.back().size() > kCoarser) {
    const std::vector<Peak>& fine = levels_.back();
    std::vector<Peak> coarse;
    for (std::size_t at = 0; at < fine.size(); at += kCoarser) {
      Peak peak = fine[at];
      for (std::size_t i = at; i < std::min(fine.size(), at + kCoarser); ++i)
        peak = {std::min(peak.low, fine[i].low), std::max(peak.high, fine[i].high)};
      coarse.push_back(peak);
    }
    levels_.push_back(std::move(coarse));
  }
}

WaveformPeaks::Peak WaveformPeaks::between(Micros from, Micros to) const {
  if (levels_.empty() || levels_[0].empty()) return {};
  double first = std::max(0.0, seconds(from) * AudioClip::kRate / kFinest);
  double last = std::max(first, seconds(to) * AudioClip::kRate / kFinest);
  std::size_t level = 0;
  for (; level + 1 < levels_.size() && last - first > kCoarser; ++level) {
    first /= kCoarser;
    last /= kCoarser;
  }
  const auto& bins = levels_[level];
  const auto begin = static_cast<std::size_t>(first);
  if (begin >= bins.size()) return {};
  Peak peak = bins[begin];
  for (std::size_t i = begin; i <= std::min(static_cast<std::size_t>(last), bins.size() - 1); ++i)
    peak = {std::min(peak.low, bins[i].low), std::max(peak.high, bins[i].high)};
  return peak;
}

}  // namespace chispa
