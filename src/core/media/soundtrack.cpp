// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/media/soundtrack.h"

#include <algorithm>

namespace chispa {
namespace {

constexpr int kFramesWhereAnyNumberIsTaken = 1024;
constexpr std::int64_t kBitsPerSecond = 192'000;
constexpr std::int64_t kChannels = AudioClip::kChannels;

}  // namespace

std::optional<SoundTrack> SoundTrack::open(AVFormatContext* format, const std::vector<const char*>& encoders,
                                           std::shared_ptr<const AudioClip> clip, Micros from) {
  for (const char* name : encoders) {
    const AVCodec* found = avcodec_find_encoder_by_name(name);
    if (!found || !found->sample_fmts) continue;
    SoundTrack track;
    track.codec_.reset(avcodec_alloc_context3(found));
    AVCodecContext& codec = *track.codec_;
    codec.sample_fmt = found->sample_fmts[0];
    codec.sample_rate = AudioClip::kRate;
    codec.bit_rate = kBitsPerSecond;
    codec.time_base = {1, AudioClip::kRate};
    av_channel_layout_default(&codec.ch_layout, AudioClip::kChannels);
    if (format->oformat->flags & AVFMT_GLOBALHEADER) codec.flags |= AV_CODEC_FLAG_GLOBAL_HEADER;
    if (avcodec_open2(&codec, found, nullptr) < 0) continue;
    SwrContext* raw = nullptr;
    if (swr_alloc_set_opts2(&raw, &codec.ch_layout, codec.sample_fmt, AudioClip::kRate, &codec.ch_layout,
                            AV_SAMPLE_FMT_FLT, AudioClip::kRate, 0, nullptr) < 0)
      continue;
    track.converter_.reset(raw);
    track.frame_->format = codec.sample_fmt;
    track.frame_->nb_samples = codec.frame_size > 0 ? codec.frame_size : kFramesWhereAnyNumberIsTaken;
    track.frame_->sample_rate = AudioClip::kRate;
    av_channel_layout_copy(&track.frame_->ch_layout, &codec.ch_layout);
    if (swr_init(raw) < 0 || av_frame_get_buffer(track.frame_.get(), 0) < 0) continue;
    track.stream_ = avformat_new_stream(format, nullptr);
    track.stream_->time_base = codec.time_base;
    avcodec_parameters_from_context(track.stream_->codecpar, &codec);
    track.format_ = format;
    track.clip_ = std::move(clip);
    track.samples_.resize(static_cast<std::size_t>(track.frame_->nb_samples * kChannels));
    track.first_ = from.count() * AudioClip::kRate / 1'000'000;
    return track;
  }
  return std::nullopt;
}

bool SoundTrack::writeUntil(double end_s) {
  while (static_cast<double>(written_ + frame_->nb_samples) <= end_s * AudioClip::kRate)
    if (!writeFrame()) return false;
  return true;
}

bool SoundTrack::writeFrame() {
  clip_->read(first_ + written_, samples_);
  if (av_frame_make_writable(frame_.get()) < 0) return false;
  const auto* from = reinterpret_cast<const std::uint8_t*>(samples_.data());
  if (swr_convert(converter_.get(), frame_->extended_data, frame_->nb_samples, &from, frame_->nb_samples) < 0)
    return false;
  frame_->pts = written_;
  written_ += frame_->nb_samples;
  return encode(frame_.get());
}

bool SoundTrack::encode(const AVFrame* frame) {
  if (avcodec_send_frame(codec_.get(), frame) < 0) return false;
  while (avcodec_receive_packet(codec_.get(), packet_.get()) >= 0) {
    av_packet_rescale_ts(packet_.get(), codec_->time_base, stream_->time_base);
    packet_->stream_index = stream_->index;
    if (av_interleaved_write_frame(format_, packet_.get()) < 0) return false;
  }
  return true;
}

bool SoundTrack::finish() {
  return encode(nullptr);
}

}  // namespace chispa
