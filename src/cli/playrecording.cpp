// SPDX-License-Identifier: GPL-3.0-or-later
#include <iostream>
#include <thread>

#include "cli/interrupt.h"
#include "cli/opened.h"
#include "cli/verbs.h"
#include "core/recording/scorerecording.h"
#include "engine/recordingsender.h"

namespace chispa::cli {

namespace {

using Clock = std::chrono::steady_clock;

void endInDark(engine::RecordingSender& sender) {
  constexpr int kTimes = 3;
  for (int i = 0; i < kTimes; ++i) {
    sender.end(Clock::now().time_since_epoch());
    std::this_thread::sleep_for(std::chrono::milliseconds(25));
  }
}

/// Whether the rig is still the one that the recording was made for.
int compareWith(const RecordingHead& head, const std::string& file) {
  const auto opened = OpenedShow::open(file);
  if (!opened) return kShowError;
  const auto differences = differencesOf(head, opened->show);
  for (const std::string& difference : differences) std::cout << difference << "\n";
  if (differences.empty()) std::cout << "The recording suits this show.\n";
  return differences.empty() ? kDone : kShowError;
}

}  // namespace

int playRecording(const Words& words) {
  auto opened = RecordingReader::open(words.file);
  if (!opened) return failed(opened.failure());
  RecordingReader reader = *std::move(opened);
  if (!words.against.empty()) return compareWith(reader.head(), words.against);
  link::E131Source source;
  source.cid = link::randomCid();
  auto ready = engine::RecordingSender::open(reader.head(), source);
  if (!ready) return failed(ready.failure());
  engine::RecordingSender sender = *std::move(ready);
  std::cerr << reader.head().name << ": " << reader.universes().size() << " universes, "
            << seconds(reader.length()) << " s\n";
  noteInterrupts();
  const Micros from = micros(words.from_s);
  const Micros end =
      words.length_s > 0 ? std::min(reader.length(), from + micros(words.length_s)) : reader.length();
  const auto begun = Clock::now();
  constexpr std::chrono::milliseconds kFrame{25};
  for (auto next = begun; !isInterrupted(); next += kFrame) {
    std::this_thread::sleep_until(next);
    Micros at = from + std::chrono::duration_cast<Micros>(Clock::now() - begun);
    if (words.loop && end > from) at = from + (at - from) % (end - from);
    if (at > end) break;
    const auto values = reader.at(at);
    if (!values) {
      endInDark(sender);
      return failed(values.failure());
    }
    sender.send(*values, Clock::now().time_since_epoch());
  }
  endInDark(sender);
  return kDone;
}

}  // namespace chispa::cli
