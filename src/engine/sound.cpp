// SPDX-License-Identifier: GPL-3.0-or-later
#include "engine/sound.h"

#include <algorithm>
#include <chrono>

#include "core/music/grains.h"
#include "engine/pulselist.h"

namespace chispa::engine {
namespace {

class Silence final : public Sound {
 public:
  explicit Silence(std::string why) : why_(std::move(why)) {}
  void play(std::shared_ptr<const AudioClip>, Micros) override {}
  void follow(std::shared_ptr<const AudioClip>, Micros) override {}
  void stop() override {}
  void touch(std::shared_ptr<const AudioClip>, Micros) override {}
  std::optional<Micros> heard() override { return std::nullopt; }
  bool isSilent() const override { return true; }
  std::string description() const override { return why_; }

 private:
  std::string why_;
};

class PulseSound final : public Sound {
 public:
  ~PulseSound() override { stop(); }

  void setDevice(const std::string& name) override {
    if (!server_.isConnected()) {
      device_ = name;
      return;
    }
    const PulseServer::Lock lock(server_);
    device_ = name;
  }
  bool isLost() const override { return !server_.isConnected(); }
  bool isSilent() const override { return !server_.isConnected(); }
  bool reopen() override {
    stop();
    whyNot_ = server_.open();
    return whyNot_.empty();
  }

  void play(std::shared_ptr<const AudioClip> clip, Micros from) override {
    stop();
    if (!server_.isConnected()) return;
    const PulseServer::Lock lock(server_);
    clip_ = std::move(clip);
    following_.reset();
    clipBegins_ = 0;
    from_ = from;
    next_ = static_cast<std::size_t>(std::max<Micros::rep>(0, from.count())) * AudioClip::kRate / 1'000'000;
    openStream();
  }

  void touch(std::shared_ptr<const AudioClip> clip, Micros at) override {
    if (!server_.isConnected()) return;
    if (!isTouched_) stop();
    const PulseServer::Lock lock(server_);
    clip_ = std::move(clip);
    if (!std::exchange(isTouched_, true)) grains_ = {};
    grains_.touch(framesOf(at));
    if (!stream_) openStream();
  }

  void follow(std::shared_ptr<const AudioClip> clip, Micros at) override {
    if (!server_.isOpen()) return;
    const PulseServer::Lock lock(server_);
    following_ = std::move(clip);
    followsAt_ = framesOf(at);
  }

  void stop() override {
    if (!server_.isOpen()) return;
    const PulseServer::Lock lock(server_);
    isTouched_ = false;
    isDeviceGone_ = false;
    if (!stream_) return;
    pa_stream_set_state_callback(stream_, nullptr, nullptr);
    pa_stream_set_write_callback(stream_, nullptr, nullptr);
    pa_stream_disconnect(stream_);
    pa_stream_unref(stream_);
    stream_ = nullptr;
  }

  std::optional<Micros> heard() override {
    if (!server_.isOpen()) return std::nullopt;
    const PulseServer::Lock lock(server_);
    pa_usec_t played = 0;
    if (!stream_ || isTouched_ || pa_stream_get_state(stream_) != PA_STREAM_READY ||
        pa_stream_get_time(stream_, &played) < 0)
      return std::nullopt;
    // Until the first sample is out, the position stands at 0.
    if (played == 0) return std::nullopt;
    return from_ + Micros(static_cast<Micros::rep>(played));
  }

  std::string description() const override {
    return server_.isConnected()
               ? "sound through PulseAudio"
               : "no sound: " + (whyNot_.empty() ? std::string("the sound server went") : whyNot_);
  }

 private:
  /// With the loop's lock held.
  void openStream() {
    const pa_sample_spec spec{PA_SAMPLE_FLOAT32LE, AudioClip::kRate, AudioClip::kChannels};
    stream_ = pa_stream_new(server_.context(), "Score", &spec, nullptr);
    if (!stream_) return;
    pa_stream_set_write_callback(
        stream_,
        [](pa_stream*, std::size_t bytes, void* self) { static_cast<PulseSound*>(self)->fill(bytes); }, this);
    constexpr std::uint32_t kBuffer_us = 60'000;
    const auto unset = static_cast<std::uint32_t>(-1);
    const pa_buffer_attr buffer{unset, static_cast<std::uint32_t>(pa_usec_to_bytes(kBuffer_us, &spec)), unset,
                                unset, unset};
    const auto flags = static_cast<pa_stream_flags_t>(
        PA_STREAM_INTERPOLATE_TIMING | PA_STREAM_AUTO_TIMING_UPDATE | PA_STREAM_ADJUST_LATENCY);
    pa_stream_set_state_callback(
        stream_, [](pa_stream*, void* self) { static_cast<PulseSound*>(self)->fallBack(); }, this);
    const char* device = device_.empty() || isDeviceGone_ ? nullptr : device_.c_str();
    pa_stream_connect_playback(stream_, device, &buffer, flags, nullptr, nullptr);
  }

  /// Main loop's thread, with its lock: a device that is not there any more gives way to the desktop's.
  void fallBack() {
    if (pa_stream_get_state(stream_) != PA_STREAM_FAILED || device_.empty() || isDeviceGone_) return;
    if (pa_context_get_state(server_.context()) != PA_CONTEXT_READY) return;
    isDeviceGone_ = true;
    pa_stream_set_state_callback(stream_, nullptr, nullptr);
    pa_stream_set_write_callback(stream_, nullptr, nullptr);
    pa_stream_unref(stream_);
    openStream();
  }

  /// Main loop's thread: hands over samples, and silence behind the clip's end.
  void fill(std::size_t bytes) {
    constexpr std::size_t kFrame = sizeof(float) * AudioClip::kChannels;
    void* data = nullptr;
    if (pa_stream_begin_write(stream_, &data, &bytes) < 0 || !data) return;
    const std::size_t frames = bytes / kFrame;
    auto* out = static_cast<float*>(data);
    const std::span samples(out, frames * AudioClip::kChannels);
    if (isTouched_) {
      grains_.read(*clip_, samples);
      pa_stream_write(stream_, data, frames * kFrame, nullptr, 0, PA_SEEK_RELATIVE);
      return;
    }
    for (std::size_t done = 0; done < frames;) {
      const std::ptrdiff_t here = static_cast<std::ptrdiff_t>(next_);
      if (following_ && here >= followsAt_) {
        clip_ = std::move(following_);
        clipBegins_ = followsAt_;
      }
      std::size_t now = frames - done;
      if (following_) now = std::min(now, static_cast<std::size_t>(followsAt_ - here));
      const std::span part = samples.subspan(done * AudioClip::kChannels, now * AudioClip::kChannels);
      if (clip_)
        clip_->read(here - clipBegins_, part);
      else
        std::fill(part.begin(), part.end(), 0.f);
      next_ += now;
      done += now;
    }
    pa_stream_write(stream_, data, frames * kFrame, nullptr, 0, PA_SEEK_RELATIVE);
  }

  PulseServer server_;
  /// Empty: the desktop's. One that was not there when the stream was made is tried again at the next play.
  std::string device_;
  bool isDeviceGone_ = false;
  pa_stream* stream_ = nullptr;
  std::shared_ptr<const AudioClip> clip_;
  /// Where in what is heard clip_ begins, and what begins behind it; in frames.
  std::ptrdiff_t clipBegins_ = 0;
  std::shared_ptr<const AudioClip> following_;
  std::ptrdiff_t followsAt_ = 0;
  Micros from_{0};
  std::size_t next_ = 0;
  /// Grains are heard, not what plays.
  bool isTouched_ = false;
  Grains grains_;
  std::string whyNot_;
};

}  // namespace

Result<std::vector<SoundDevice>> soundDevices() {
  return pulseList<pa_sink_info, SoundDevice>(pa_context_get_sink_info_list, [](const pa_sink_info& info) {
    return SoundDevice{info.name, info.description ? info.description : info.name};
  });
}

std::unique_ptr<Sound> openPulse(std::string& whyNot) {
  auto sound = std::make_unique<PulseSound>();
  whyNot.clear();
  if (!sound->reopen()) whyNot = sound->description();
  return sound;
}

std::unique_ptr<Sound> makeSilence(std::string why) {
  return std::make_unique<Silence>(std::move(why));
}

}  // namespace chispa::engine
