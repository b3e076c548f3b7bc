// SPDX-License-Identifier: GPL-3.0-or-later
#include "link/streamrecorder.h"

#include <algorithm>
#include <chrono>

namespace chispa::link {

using namespace std::chrono_literals;

Result<std::unique_ptr<StreamRecorder>> StreamRecorder::begin(const Receiver& receiver,
                                                              const std::filesystem::path& path) {
  std::vector<RecordedUniverse> universes;
  for (const ReceivedUniverse& heard : receiver.heard())
    universes.push_back({heard.protocol, heard.universe});
  if (universes.empty())
    return Failure{"nothing arrives that could be recorded", {}, "start what sends, and record again"};
  auto writer = RecordingWriter::create(path, {.universes = universes});
  if (!writer) return writer.failure();
  return std::unique_ptr<StreamRecorder>(
      new StreamRecorder(receiver, *std::move(writer), std::move(universes)));
}

StreamRecorder::StreamRecorder(const Receiver& receiver, RecordingWriter writer,
                               std::vector<RecordedUniverse> universes)
    : receiver_(receiver),
      writer_(std::move(writer)),
      universes_(std::move(universes)),
      thread_([this] { run(); }) {}

StreamRecorder::~StreamRecorder() {
  stopping_.store(true);
  if (thread_.joinable()) thread_.join();
}

Outcome StreamRecorder::end() {
  stopping_.store(true);
  if (thread_.joinable()) thread_.join();
  return writer_.finish();
}

void StreamRecorder::run() {
  const auto begun = std::chrono::steady_clock::now();
  std::vector<std::uint8_t> values(universes_.size() * 512, 0), before;
  Micros written{-10'000'000};
  for (auto next = begun; !stopping_.load(); next += 25ms) {
    std::this_thread::sleep_until(next);
    for (const ReceivedUniverse& heard : receiver_.heard()) {
      const auto at =
          std::find(universes_.begin(), universes_.end(), RecordedUniverse{heard.protocol, heard.universe});
      if (at != universes_.end())
        std::copy(heard.values.begin(), heard.values.end(), values.begin() + (at - universes_.begin()) * 512);
    }
    const auto now = std::chrono::duration_cast<Micros>(std::chrono::steady_clock::now() - begun);
    length_us_.store(now.count());
    // What stands still is written once a second, so that the file is as long as what was heard.
    if (values == before && now - written < 1s) continue;
    writer_.add(now, values);
    if (writer_.isFailing()) {
      isFailing_ = true;
      return;
    }
    before = values;
    written = now;
  }
  // What stood at the end is as long as it was.
  if (!before.empty()) writer_.add(Micros(length_us_.load()), before);
}

}  // namespace chispa::link
