// SPDX-License-Identifier: GPL-3.0-or-later
#include "engine/sound.h"

#include <algorithm>
#include <chrono>

#include <pulse/pulseaudio.h>

#include "core/music/grains.h"

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

/// Holds the lock of a threaded main loop.
class LoopLock {
 public:
  explicit LoopLock(pa_threaded_mainloop* loop) : loop_(loop) { pa_threaded_mainloop_lock(loop_); }
  ~LoopLock() { pa_threaded_mainloop_unlock(loop_); }
  LoopLock(const LoopLock&) = delete;
  LoopLock& operator=(const LoopLock&) = delete;

 private:
  pa_threaded_mainloop* loop_;
};

class PulseSound final : public Sound {
 public:
  ~PulseSound() override {
    if (!loop_) return;
    stop();
    close();
    pa_threaded_mainloop_stop(loop_);
    pa_threaded_mainloop_free(loop_);
  }

  bool isLost() const override { return !isConnected(); }
  bool isSilent() const override { return !isConnected(); }
  bool reopen() override {
    whyNot_ = open();
    return whyNot_.empty();
  }

  void play(std::shared_ptr<const AudioClip> clip, Micros from) override {
    stop();
    if (!isConnected()) return;
    const LoopLock lock(loop_);
    clip_ = std::move(clip);
    following_.reset();
    clipBegins_ = 0;
    from_ = from;
    next_ = static_cast<std::size_t>(std::max<Micros::rep>(0, from.count())) * AudioClip::kRate / 1'000'000;
    openStream();
  }

  void touch(std::shared_ptr<const AudioClip> clip, Micros at) override {
    if (!isConnected()) return;
    if (!isTouched_) stop();
    const LoopLock lock(loop_);
    clip_ = std::move(clip);
    if (!std::exchange(isTouched_, true)) grains_ = {};
    grains_.touch(framesOf(at));
    if (!stream_) openStream();
  }

  void follow(std::shared_ptr<const AudioClip> clip, Micros at) override {
    if (!loop_) return;
    const LoopLock lock(loop_);
    following_ = std::move(clip);
    followsAt_ = framesOf(at);
  }

  void stop() override {
    if (!loop_) return;
    const LoopLock lock(loop_);
    isTouched_ = false;
    if (!stream_) return;
    pa_stream_set_write_callback(stream_, nullptr, nullptr);
    pa_stream_disconnect(stream_);
    pa_stream_unref(stream_);
    stream_ = nullptr;
  }

  std::optional<Micros> heard() override {
    if (!loop_) return std::nullopt;
    const LoopLock lock(loop_);
    pa_usec_t played = 0;
    if (!stream_ || isTouched_ || pa_stream_get_state(stream_) != PA_STREAM_READY ||
        pa_stream_get_time(stream_, &played) < 0)
      return std::nullopt;
    // Until the first sample is out, the position stands at 0.
    if (played == 0) return std::nullopt;
    return from_ + Micros(static_cast<Micros::rep>(played));
  }

  std::string description() const override {
    return isConnected() ? "sound through PulseAudio"
                         : "no sound: " + (whyNot_.empty() ? std::string("the sound server went") : whyNot_);
  }

 private:
  /// With the loop's lock held.
  void openStream() {
    const pa_sample_spec spec{PA_SAMPLE_FLOAT32LE, AudioClip::kRate, AudioClip::kChannels};
    stream_ = pa_stream_new(context_, "Score", &spec, nullptr);
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
    pa_stream_connect_playback(stream_, nullptr, &buffer, flags, nullptr, nullptr);
  }

  bool isConnected() const {
    if (!loop_ || !context_) return false;
    const LoopLock lock(loop_);
    return pa_context_get_state(context_) == PA_CONTEXT_READY;
  }

  /// Connects; the reason why not, or nothing.
  std::string open() {
    if (!loop_) {
      loop_ = pa_threaded_mainloop_new();
      if (!loop_ || pa_threaded_mainloop_start(loop_) < 0) return "its thread cannot be started";
    }
    stop();
    close();
    const LoopLock lock(loop_);
    context_ = pa_context_new(pa_threaded_mainloop_get_api(loop_), "Chispa");
    pa_context_set_state_callback(
        context_,
        [](pa_context*, void* self) {
          pa_threaded_mainloop_signal(static_cast<PulseSound*>(self)->loop_, 0);
        },
        this);
    if (pa_context_connect(context_, nullptr, PA_CONTEXT_NOAUTOSPAWN, nullptr) < 0)
      return pa_strerror(pa_context_errno(context_));
    while (true) {
      const pa_context_state_t state = pa_context_get_state(context_);
      if (state == PA_CONTEXT_READY) return {};
      if (!PA_CONTEXT_IS_GOOD(state)) return pa_strerror(pa_context_errno(context_));
      pa_threaded_mainloop_wait(loop_);
    }
  }

  void close() {
    if (!context_) return;
    const LoopLock lock(loop_);
    pa_context_set_state_callback(context_, nullptr, nullptr);
    pa_context_disconnect(context_);
    pa_context_unref(context_);
    context_ = nullptr;
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

  pa_threaded_mainloop* loop_ = nullptr;
  pa_context* context_ = nullptr;
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
