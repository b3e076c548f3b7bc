// SPDX-License-Identifier: GPL-3.0-or-later
// Stretches of a scene that the board computes by itself.
#include <algorithm>

#include "core/board/boardwriter.h"

namespace chispa::board {

void BoardWriter::writeGroup(BoardScene& scene, const std::vector<StaveOnBoard>& staves,
                             const std::vector<std::size_t>& group, BoardSceneReport& report) {
  // Neighbouring stretches that have to be frames are kept together.
  std::vector<Stretch> asFrames;
  std::string reason;
  const auto flush = [&] {
    if (!asFrames.empty()) writeStretches(scene, staves, asFrames, reason, report);
    asFrames.clear();
  };
  for (const Stretch& stretch : stretchesOf(scene, staves, group, rate())) {
    std::string why;
    if (writeProgramFor(scene, staves, stretch, report, why)) {
      flush();
      continue;
    }
    if (!asFrames.empty() && asFrames.back().end != stretch.first) flush();
    if (asFrames.empty()) reason = why;
    asFrames.push_back(stretch);
  }
  flush();
}

std::string BoardWriter::effectsOf(const CompiledStave& stave, const std::vector<std::size_t>& shown) {
  std::string text;
  for (const std::size_t i : shown) text += (text.empty() ? "" : " + ") + stave.clips()[i].effect->name;
  return text;
}

void BoardWriter::setSpan(const Stretch& stretch, BoardPart& part) const {
  part.from_s = seconds(timeOf(stretch.first, rate()));
  part.to_s = stretch.end == kNever ? -1 : seconds(timeOf(stretch.end, rate()));
}

bool BoardWriter::writeProgramFor(BoardScene& scene, const std::vector<StaveOnBoard>& staves,
                                  const Stretch& stretch, BoardSceneReport& report, std::string& why) {
  if (stretch.lit.size() > 1) {
    why = "zones that share pixels are lit at once";
    return false;
  }
  const StaveOnBoard& one = staves[stretch.lit.front().first];
  const std::vector<std::size_t>& shown = stretch.lit.front().second;
  // What was worked out beforehand may have become too coarse.
  if (const Tried first = tryProgram(scene, one, shown, stretch, true, report, why); first != Tried::Wrong)
    return first == Tried::Kept;
  return tryProgram(scene, one, shown, stretch, false, report, why) == Tried::Kept;
}

BoardWriter::Tried BoardWriter::tryProgram(BoardScene& scene, const StaveOnBoard& one,
                                           const std::vector<std::size_t>& shown, const Stretch& stretch,
                                           bool condenses, BoardSceneReport& report, std::string& why) {
  Graph graph;
  const StackLight light = stackLight(graph, scene, *one.stave, shown, one.keptCells, condenses);
  if (!light.light) {
    why = light.refusal;
    return Tried::Refused;
  }
  std::array<Term, 3> colours = *light.light;
  // What a strip of one colour takes is what the three have in common: how bright the colour is.
  if (strip_.mix().whites) colours.fill(0.2126 * colours[0] + 0.7152 * colours[1] + 0.0722 * colours[2]);
  const std::size_t before = blob_.size();
  const auto written = writeProgram(graph, colours, one.cellValues, strip_.response(), blob_);
  if (!written) {
    why = "its program would be too large";
    return Tried::Refused;
  }
  BoardPart part;
  part.zone = one.zone;
  part.effects = effectsOf(*one.stave, shown);
  part.isProgram = true;
  part.bytes = blob_.size() - before + kEntryBytes;
  setSpan(stretch, part);
  measure(scene, stretch, {one.values.begin(), one.values.end()}, *written, part);
  if (part.meanError > kMaxMeanError || part.specks > kMaxSpecks) {
    why = "as a program it would be off by " + std::to_string(std::lround(part.maxError)) + " of 255";
    blob_.cutTo(before);
    return Tried::Wrong;
  }
  if (written->at >= before && framesAreSmaller(stretch, one, part.bytes)) {
    why = "frames are smaller";
    blob_.cutTo(before);
    return Tried::Refused;
  }
  parts_.push_back({stretch.first, stretch.end, kindOf(*written), written->at,
                    written->stepsOfFrame +
                        static_cast<long>(written->stepsOfCell) * static_cast<long>(one.keptCells.size())});
  out_.registers = std::max(out_.registers, written->registers);
  report.parts.push_back(std::move(part));
  return Tried::Kept;
}

bool BoardWriter::framesAreSmaller(const Stretch& stretch, const StaveOnBoard& one, std::size_t bytes) {
  const std::size_t before = blob_.size();
  FrameSequence sequence = sequenceOf(stretch.first, endOf(stretch), {one.values.begin(), one.values.end()});
  if (stretch.end == kNever && !findLoop(sequence)) return false;
  writeFrames(sequence, blob_);
  const std::size_t size = blob_.size() - before + kEntryBytes;
  blob_.cutTo(before);
  return size < bytes;
}

std::uint32_t BoardWriter::endOf(const Stretch& stretch) const {
  return std::min(stretch.end, static_cast<std::uint32_t>(full_.size()));
}

}  // namespace chispa::board
