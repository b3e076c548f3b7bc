// SPDX-License-Identifier: GPL-3.0-or-later
#include "engine/soundinput.h"

#include <atomic>

#include "core/media/audio.h"
#include "engine/pulselist.h"

namespace chispa::engine {
namespace {

class PulseInput final : public SoundInput {
 public:
  explicit PulseInput(SoundHeard heard) : heard_(std::move(heard)) {}
  ~PulseInput() override {
    if (!stream_) return;
    const PulseServer::Lock lock(server_);
    pa_stream_set_read_callback(stream_, nullptr, nullptr);
    pa_stream_set_state_callback(stream_, nullptr, nullptr);
    pa_stream_disconnect(stream_);
    pa_stream_unref(stream_);
  }

  /// Why it cannot be listened to, or nothing.
  std::string open(const std::string& name) {
    if (std::string why = server_.open(); !why.empty()) return why;
    const PulseServer::Lock lock(server_);
    const pa_sample_spec spec{PA_SAMPLE_FLOAT32LE, AudioClip::kRate, 1};
    stream_ = pa_stream_new(server_.context(), "Listening", &spec, nullptr);
    if (!stream_) return pa_strerror(pa_context_errno(server_.context()));
    pa_stream_set_read_callback(
        stream_, [](pa_stream*, std::size_t, void* self) { static_cast<PulseInput*>(self)->take(); }, this);
    pa_stream_set_state_callback(
        stream_, [](pa_stream*, void* self) { static_cast<PulseInput*>(self)->server_.signal(); }, this);
    constexpr std::uint32_t kFragment_us = 10'000;
    const auto unset = static_cast<std::uint32_t>(-1);
    const pa_buffer_attr buffer{unset, unset, unset, unset,
                                static_cast<std::uint32_t>(pa_usec_to_bytes(kFragment_us, &spec))};
    // It must not move to another source when its own goes: that would be heard as if it were meant.
    const auto flags = static_cast<pa_stream_flags_t>(PA_STREAM_ADJUST_LATENCY | PA_STREAM_DONT_MOVE);
    if (pa_stream_connect_record(stream_, name.c_str(), &buffer, flags) < 0)
      return pa_strerror(pa_context_errno(server_.context()));
    while (true) {
      const pa_stream_state_t state = pa_stream_get_state(stream_);
      if (state == PA_STREAM_READY) return {};
      if (!PA_STREAM_IS_GOOD(state)) return pa_strerror(pa_context_errno(server_.context()));
      server_.wait();
    }
  }

  bool isLost() const override {
    if (!stream_ || !server_.isConnected()) return true;
    const PulseServer::Lock lock(server_);
    return pa_stream_get_state(stream_) != PA_STREAM_READY;
  }

 private:
  /// Server's thread, with its lock.
  void take() {
    const void* data = nullptr;
    std::size_t bytes = 0;
    while (pa_stream_readable_size(stream_) > 0) {
      if (pa_stream_peek(stream_, &data, &bytes) < 0 || bytes == 0) return;
      // Without data it is a gap: nothing was heard.
      const std::size_t count = bytes / sizeof(float);
      if (data) {
        heard_(std::span(static_cast<const float*>(data), count));
      } else {
        const std::vector<float> silence(count, 0.f);
        heard_(silence);
      }
      pa_stream_drop(stream_);
    }
  }

  SoundHeard heard_;
  PulseServer server_;
  pa_stream* stream_ = nullptr;
};

}  // namespace

Result<std::vector<SoundSource>> soundSources() {
  return pulseList<pa_source_info, SoundSource>(
      pa_context_get_source_info_list, [](const pa_source_info& info) {
        return SoundSource{info.name, info.description ? info.description : info.name,
                           info.monitor_of_sink != PA_INVALID_INDEX};
      });
}

Result<std::unique_ptr<SoundInput>> openSoundInput(const std::string& name, SoundHeard heard) {
  auto input = std::make_unique<PulseInput>(std::move(heard));
  if (const std::string why = input->open(name); !why.empty())
    return Failure{sentence("That cannot be listened to (%1).", why), name,
                   "Choose another source, or see that it is plugged in and not muted."};
  return std::unique_ptr<SoundInput>(std::move(input));
}

}  // namespace chispa::engine
