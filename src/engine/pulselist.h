// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <functional>
#include <vector>

#include "core/base/result.h"
#include "engine/pulseserver.h"

namespace chispa::engine {

/// Everything of a kind that the sound server knows. `ask` is PulseAudio's call for the list, `itemOf` makes
/// of an entry what is kept. Blocks until the server has answered; fails if none does. Any thread.
template <class Info, class Item>
Result<std::vector<Item>> pulseList(pa_operation* (*ask)(pa_context*,
                                                         void (*)(pa_context*, const Info*, int, void*),
                                                         void*),
                                    std::function<Item(const Info&)> itemOf) {
  PulseServer server;
  if (const std::string why = server.open(); !why.empty()) return pulseFailure(why);
  struct Asked {
    PulseServer& server;
    std::function<Item(const Info&)> itemOf;
    std::vector<Item> found;
    bool isDone = false;
  } asked{server, std::move(itemOf), {}, false};
  const PulseServer::Lock lock(server);
  pa_operation* operation = ask(
      server.context(),
      [](pa_context*, const Info* info, int end, void* to) {
        auto& into = *static_cast<Asked*>(to);
        if (info && end == 0) into.found.push_back(into.itemOf(*info));
        if (end == 0) return;
        into.isDone = true;
        into.server.signal();
      },
      &asked);
  if (!operation) return pulseFailure(pa_strerror(pa_context_errno(server.context())));
  while (!asked.isDone && PA_CONTEXT_IS_GOOD(pa_context_get_state(server.context()))) server.wait();
  pa_operation_unref(operation);
  return std::move(asked.found);
}

}  // namespace chispa::engine
