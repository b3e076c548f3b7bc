// SPDX-License-Identifier: GPL-3.0-or-later
#include "engine/pulseserver.h"

namespace chispa::engine {

PulseServer::~PulseServer() {
  if (!loop_) return;
  close();
  pa_threaded_mainloop_stop(loop_);
  pa_threaded_mainloop_free(loop_);
}

bool PulseServer::isConnected() const {
  if (!loop_ || !context_) return false;
  const Lock lock(*this);
  return pa_context_get_state(context_) == PA_CONTEXT_READY;
}

std::string PulseServer::open() {
  if (!loop_) {
    loop_ = pa_threaded_mainloop_new();
    if (!loop_ || pa_threaded_mainloop_start(loop_) < 0) return "its thread cannot be started";
  }
  close();
  const Lock lock(*this);
  context_ = pa_context_new(pa_threaded_mainloop_get_api(loop_), "Chispa");
  pa_context_set_state_callback(
      context_, [](pa_context*, void* self) { static_cast<PulseServer*>(self)->signal(); }, this);
  if (pa_context_connect(context_, nullptr, PA_CONTEXT_NOAUTOSPAWN, nullptr) < 0)
    return pa_strerror(pa_context_errno(context_));
  while (true) {
    const pa_context_state_t state = pa_context_get_state(context_);
    if (state == PA_CONTEXT_READY) return {};
    if (!PA_CONTEXT_IS_GOOD(state)) return pa_strerror(pa_context_errno(context_));
    wait();
  }
}

void PulseServer::close() {
  if (!context_) return;
  const Lock lock(*this);
  pa_context_set_state_callback(context_, nullptr, nullptr);
  pa_context_disconnect(context_);
  pa_context_unref(context_);
  context_ = nullptr;
}

Failure pulseFailure(const std::string& why) {
  return {sentence("The sound server cannot be reached (%1).", why), "PulseAudio",
          "Start it with “pulseaudio --start”, then try again."};
}

}  // namespace chispa::engine
