// SPDX-License-Identifier: GPL-3.0-or-later
// Stretches of a scene that the board plays from frames.
#include <algorithm>
#include <cmath>
#include <map>
#include <numeric>

#include "core/board/boardwriter.h"

namespace chispa::board {

FrameSequence BoardWriter::sequenceOf(std::uint32_t first, std::uint32_t end,
                                      const std::vector<std::uint16_t>& values) const {
  FrameSequence sequence;
  sequence.channels = strip_.channels();
  sequence.values = values;
  const auto channels = static_cast<std::size_t>(strip_.channels());
  for (std::uint32_t i = first; i < end; ++i) {
    Bytes frame;
    for (const std::uint16_t value : values)
      frame.insert(frame.end(), full_[i].begin() + static_cast<std::ptrdiff_t>(value * channels),
                   full_[i].begin() + static_cast<std::ptrdiff_t>((value + 1) * channels));
    sequence.frames.push_back(std::move(frame));
  }
  return sequence;
}

bool BoardWriter::findLoop(FrameSequence& sequence) {
  auto& frames = sequence.frames;
  const std::size_t count = frames.size();
  for (std::size_t period = 1; period <= count / 2; ++period) {
    std::size_t same = 0;
    while (same + period < count && frames[count - 1 - same] == frames[count - 1 - same - period]) ++same;
    if (same < period || same < count / 2) continue;
    const std::size_t from = count - period - same;
    frames.resize(from + period);
    sequence.loopsFrom = from;
    return true;
  }
  return false;
}

void BoardWriter::makeLoop(FrameSequence& sequence, std::size_t length) const {
  auto& frames = sequence.frames;
  frames.resize(std::min(length, frames.size()));
  const std::size_t count = frames.size();
  const std::size_t fade = std::min(count / 4, static_cast<std::size_t>(rate()));
  if (fade == 0) return;
  for (std::size_t k = 0; k < fade; ++k) {
    Bytes& late = frames[count - fade + k];
    const Bytes& early = frames[k];
    const double share = static_cast<double>(k + 1) / static_cast<double>(fade);
    for (std::size_t i = 0; i < late.size(); ++i)
      late[i] = static_cast<std::uint8_t>(std::lround(late[i] + (early[i] - late[i]) * share));
  }
  sequence.loopsFrom = fade;
}

void BoardWriter::writeStretches(BoardScene& scene, const std::vector<StaveOnBoard>& staves,
                                 const std::vector<Stretch>& stretches, const std::string& reason,
                                 BoardSceneReport& report) {
  std::set<std::uint16_t> values;
  BoardPart part;
  std::set<std::string> zones, effects;
  for (const Stretch& stretch : stretches)
    for (const auto& [member, shown] : stretch.lit) {
      values.insert(staves[member].values.begin(), staves[member].values.end());
      zones.insert(staves[member].zone);
      effects.insert(effectsOf(*staves[member].stave, shown));
    }
  part.zone = listed(zones);
  part.effects = listed(effects);
  part.reason = reason;
  Stretch whole{stretches.front().first, stretches.back().end, {}};
  writeFramesOf(scene, whole, {values.begin(), values.end()}, std::move(part), report);
}

std::string BoardWriter::listed(const std::set<std::string>& words) {
  std::string text;
  for (const std::string& word : words) text += (text.empty() ? "" : ", ") + word;
  return text;
}

void BoardWriter::writeAsFrames(BoardScene& scene, const std::string& reason, BoardSceneReport& report) {
  std::vector<std::uint16_t> values(static_cast<std::size_t>(strip_.valueCount()));
  std::iota(values.begin(), values.end(), std::uint16_t{0});
  BoardPart part;
  part.zone = "all";
  part.effects = report.name;
  part.reason = reason;
  writeFramesOf(scene, {0, kNever, {}}, values, std::move(part), report);
}

void BoardWriter::writeFramesOf(BoardScene& scene, const Stretch& whole,
                                const std::vector<std::uint16_t>& values, BoardPart part,
                                BoardSceneReport& report) {
  FrameSequence sequence = sequenceOf(whole.first, endOf(whole), values);
  if (whole.end == kNever) loop(scene, sequence);
  if (plan_.options.maxColours > 0) reduceColours(sequence, plan_.options.maxColours);
  const std::size_t before = blob_.size();
  parts_.push_back({whole.first, whole.end, PartEntry::Frames, writeFrames(sequence, blob_)});
  part.bytes = blob_.size() - before + kEntryBytes;
  setSpan(whole, part);
  report.isProgram = false;
  report.parts.push_back(std::move(part));
}

void BoardWriter::loop(const BoardScene& scene, FrameSequence& sequence) const {
  if (scene.round().count() > 0) {
    // The second round is as all that follow: it is faded into.
    const auto round = static_cast<std::size_t>(std::lround(seconds(scene.round()) * rate()));
    sequence.frames.resize(std::min(sequence.frames.size(), 2 * round));
    sequence.loopsFrom = std::min(round, sequence.frames.size() - 1);
    return;
  }
  if (!findLoop(sequence)) makeLoop(sequence, static_cast<std::size_t>(plan_.options.lookSeconds * rate()));
}

}  // namespace chispa::board
