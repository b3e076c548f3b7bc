// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/music/audio.h"

#include <algorithm>
#include <cmath>
#include <numbers>

#include "core/media/ffmpeg.h"

namespace chispa {
namespace {

constexpr std::size_t kMostFrames = std::size_t{4} * 3600 * AudioClip::kRate;

/// One decoding run over one file.
class Decoder {
 public:
  explicit Decoder(const std::filesystem::path& path) : path_(path.string()) {}

  Result<std::shared_ptr<const AudioClip>> run() {
    if (const Outcome opened = open(); !opened) return opened.failure();
    ffmpeg::Packet packet(av_packet_alloc());
    while (av_read_frame(input_.format.get(), packet.get()) >= 0) {
      // A damaged packet loses its own sound only.
      if (packet->stream_index == input_.stream && avcodec_send_packet(input_.codec.get(), packet.get()) >= 0) takeFrames();
      av_packet_unref(packet.get());
      if (clip_->frames() > kMostFrames) return fail("It is longer than four hours");
    }
    avcodec_send_packet(input_.codec.get(), nullptr);
    takeFrames();
    convert(nullptr, 0);
    if (clip_->samples.empty()) return fail("It holds no sound that can be decoded");
    return std::shared_ptr<const AudioClip>(std::move(clip_));
  }

 private:
  Failure fail(const std::string& what) const {
    return {what + ".", path_, "Choose another file; MP3, AAC, Ogg, FLAC and WAV are read."};
  }

  Outcome open() {
    if (const std::string why = ffmpeg::open(input_, path_, AVMEDIA_TYPE_AUDIO, "The audio file", "sound"); !why.empty()) return fail(why);
    return openResampler();
  }

  Outcome openResampler() {
    AVChannelLayout stereo = AV_CHANNEL_LAYOUT_STEREO;
    AVChannelLayout from = input_.codec->ch_layout;
    if (from.order == AV_CHANNEL_ORDER_UNSPEC) av_channel_layout_default(&from, std::max(1, from.nb_channels));
    SwrContext* raw = nullptr;
    swr_alloc_set_opts2(&raw, &stereo, AV_SAMPLE_FMT_FLT, AudioClip::kRate, &from, input_.codec->sample_fmt,
                        input_.codec->sample_rate, 0, nullptr);
    swr_.reset(raw);
    if (!raw || swr_init(raw) < 0) return fail("The sound's format cannot be converted");
    return Done{};
  }

  void takeFrames() {
    while (avcodec_receive_frame(input_.codec.get(), frame_.get()) >= 0) {
      convert(const_cast<const std::uint8_t**>(frame_->extended_data), frame_->nb_samples);
      av_frame_unref(frame_.get());
    }
  }

  void convert(const std::uint8_t** data, int count) {
    const int room = swr_get_out_samples(swr_.get(), count);
    if (room <= 0) return;
    const std::size_t before = clip_->samples.size();
    clip_->samples.resize(before + static_cast<std::size_t>(room) * AudioClip::kChannels);
    auto* out = reinterpret_cast<std::uint8_t*>(clip_->samples.data() + before);
    const int made = std::max(0, swr_convert(swr_.get(), &out, room, data, count));
    clip_->samples.resize(before + static_cast<std::size_t>(made) * AudioClip::kChannels);
  }

  std::string path_;
  ffmpeg::Input input_;
  ffmpeg::Resampler swr_;
  ffmpeg::Frame frame_{av_frame_alloc()};
  std::shared_ptr<AudioClip> clip_ = std::make_shared<AudioClip>();
};

}  // namespace

Result<std::shared_ptr<const AudioClip>> decodeAudio(const std::filesystem::path& path) {
  std::error_code error;
  if (!std::filesystem::exists(path, error))
    return Failure{"The audio file is not there.", path.string(), "Put it back, or choose the file anew."};
  return Decoder(path).run();
}

void addClick(AudioClip& clip, Micros at, double pitch_hz) {
  constexpr std::size_t kClickFrames = AudioClip::kRate / 100;
  const auto first = static_cast<std::size_t>(at.count() * AudioClip::kRate / 1'000'000);
  for (std::size_t i = 0; i < kClickFrames && first + i < clip.frames(); ++i) {
    const double t = static_cast<double>(i) / AudioClip::kRate;
    const auto sound = static_cast<float>(0.6 * std::sin(2 * std::numbers::pi * pitch_hz * t) * std::exp(-t * 400));
    for (std::size_t c = 0; c < AudioClip::kChannels; ++c) clip.samples[(first + i) * AudioClip::kChannels + c] += sound;
  }
}

std::shared_ptr<const AudioClip> makeClicks(Micros length) {
  constexpr double kPitch_hz = 1800;
  auto clip = std::make_shared<AudioClip>();
  clip->samples.assign(static_cast<std::size_t>(length.count() * AudioClip::kRate / 1'000'000) * AudioClip::kChannels, 0.f);
  for (Micros at{0}; at < length; at += Micros(1'000'000)) addClick(*clip, at, kPitch_hz);
  return clip;
}

namespace {

std::vector<WaveformPeaks::Peak> finestPeaks(const AudioClip& clip) {
  std::vector<WaveformPeaks::Peak> finest;
  for (std::size_t at = 0; at < clip.frames(); at += WaveformPeaks::kFinest) {
    WaveformPeaks::Peak peak{1, -1};
    for (std::size_t i = at; i < std::min(clip.frames(), at + WaveformPeaks::kFinest); ++i) {
      peak.low = std::min(peak.low, clip.mono(i));
      peak.high = std::max(peak.high, clip.mono(i));
    }
    finest.push_back(peak);
  }
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
