// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/board/boardwriter.h"

#include <algorithm>
#include <cmath>

namespace chispa::board {
Result<BoardLight> BoardWriter::write() {
  writeHead();
  for (std::size_t i = 0; i < plan_.scenes.size(); ++i) {
    sceneNumber_ = i;
    if (!writeScene(plan_.scenes[i])) return Failure{};
    if (out_.maxParts > kMaxParts)
      return Failure{sentence("“%1” lights %2 zones at once, and a board plays %3.", out_.scenes.back().name,
                              out_.maxParts, kMaxParts),
                     {},
                     "Choose less for its data line."};
    if (blob_.size() > kMaxData)
      return Failure{sentence("The light takes more than %1 MB, which is more than a board's data can hold.",
                              kMaxData / 1'000'000),
                     {},
                     "Choose fewer scenes, or shorter ones."};
  }
  out_.options = plan_.options;
  out_.data = blob_.bytes();
  out_.pixels = strip_.pixelCount();
  out_.frameBytes = strip_.valueCount() * strip_.channels();
  out_.sentBytes = strip_.byteCount();
  out_.volts = strip_.volts();
  for (std::size_t i = 0; i < plan_.scenes.size(); ++i)
    if (!judge(i)) return Failure{};
  return std::move(out_);
}

bool BoardWriter::goOn(double share) const {
  return !progress_ || progress_((static_cast<double>(sceneNumber_) + share) /
                                 static_cast<double>(std::max<std::size_t>(1, plan_.scenes.size())));
}

void BoardWriter::writeHead() {
  constexpr std::uint8_t kVersion = 1;
  Bytes head = {kVersion, static_cast<std::uint8_t>(plan_.scenes.size()), static_cast<std::uint8_t>(rate()),
                static_cast<std::uint8_t>(strip_.channels())};
  Bytes colours = strip_.colourOfChannel();
  colours.resize(4, 0);
  head.insert(head.end(), colours.begin(), colours.end());
  putBytes(head, static_cast<std::uint64_t>(strip_.pixelCount()), 2);
  const ChipMix& mix = strip_.mix();
  const bool hasPoint = mix.white != Rgb{1, 1, 1};
  const auto thresholds = strip_.thresholds();
  head.push_back(
      static_cast<std::uint8_t>((mix.hasWhite ? 1 : 0) | (hasPoint ? 2 : 0) | (thresholds.empty() ? 0 : 4)));
  for (const float share : {mix.white.r, mix.white.g, mix.white.b})
    putBytes(head, static_cast<std::uint64_t>(std::lround(std::min(share, 1.f) * 65535)), 2);
  const std::size_t size = head.size() + 3 + 1 + 3 * plan_.scenes.size();
  putBytes(head, thresholds.empty() ? 0 : size, 3);
  head.push_back(static_cast<std::uint8_t>(strip_.pixelsPerValue()));
  sceneTable_ = head.size();
  head.resize(size, 0);
  for (const std::uint16_t threshold : thresholds) putBytes(head, threshold, 2);
  blob_.append(head);
}

bool BoardWriter::writeScene(const BoardOrder& order) {
  BoardScene scene(show_, compiled_, order.scene);
  const std::size_t before = blob_.size();
  BoardSceneReport report;
  report.name = scene.name();
  report.seconds = seconds(scene.length());
  if (!renderScene(scene)) return false;
  parts_.clear();
  const std::vector<StaveOnBoard> staves = stavesOnBoard(show_, scene, strip_);
  if (scene.round().count() > 0)
    writeAsFrames(scene, "a look with steps is kept as frames", report);
  else
    for (const auto& group : groupsOf(staves)) writeGroup(scene, staves, group, report);
  writeSceneTable(order, framesOf(scene, rate()));
  report.bytes = blob_.size() - before;
  out_.scenes.push_back(std::move(report));
  countParts();
  return true;
}

bool BoardWriter::renderScene(BoardScene& scene) {
  const std::uint32_t all = framesOf(scene, rate());
  double last_s = kCheckedLook_s;
  if (scene.isLook()) last_s = std::max({last_s, plan_.options.lookSeconds, 2 * seconds(scene.round())});
  const std::uint32_t frames = all > 0 ? all : static_cast<std::uint32_t>(last_s * rate());
  full_.clear();
  middle_.clear();
  for (std::uint32_t i = 0; i < frames; ++i) {
    scene.render(timeOf(i, rate()), frame_);
    full_.push_back(strip_.bytesOf(frame_));
    if (strip_.pixelsPerValue() > 1) middle_.push_back(strip_.middleBytesOf(frame_));
    noteCurrent(full_.back());
    if (i % 64 == 0 && !goOn(0.5 * i / frames)) return false;
  }
  return true;
}

void BoardWriter::noteCurrent(const Bytes& bytes) {
  double sum = 0;
  for (const std::uint8_t byte : bytes) sum += strip_.response().lightOf(byte / 255.0);
  out_.most_a = std::max(out_.most_a, sum * strip_.channel_ma() * strip_.pixelsPerValue() / 1000);
}

Bytes BoardWriter::sceneBytes(const std::vector<PartEntry>& parts, std::uint32_t frames,
                              std::uint32_t stays) {
  Bytes bytes;
  putBytes(bytes, frames, 3);
  putBytes(bytes, stays, 3);
  putBytes(bytes, parts.size(), 2);
  for (const PartEntry& part : parts) {
    putBytes(bytes, part.first, 3);
    putBytes(bytes, part.end, 3);
    bytes.push_back(part.kind);
    putBytes(bytes, part.body, 3);
  }
  return bytes;
}

PartEntry::Kind BoardWriter::kindOf(const WrittenProgram& written) {
  return written.isSweep ? PartEntry::Sweep : PartEntry::Program;
}

void BoardWriter::writeSceneTable(const BoardOrder& order, std::uint32_t frames) {
  std::vector<PartEntry> sorted = parts_;
  std::stable_sort(sorted.begin(), sorted.end(),
                   [](const PartEntry& a, const PartEntry& b) { return a.first < b.first; });
  const auto stays = static_cast<std::uint32_t>(std::lround(order.stays_s * rate()));
  blob_.setThree(sceneEntry(), blob_.append(sceneBytes(sorted, frames, stays)));
}

void BoardWriter::countParts() {
  std::map<std::uint32_t, std::pair<int, long>> changes;
  for (const PartEntry& part : parts_) {
    changes[part.first].first += 1;
    changes[part.first].second += part.steps;
    changes[part.end].first -= 1;
    changes[part.end].second -= part.steps;
  }
  int lit = 0;
  long steps = 0;
  for (const auto& [frame, change] : changes) {
    lit += change.first;
    steps += change.second;
    out_.maxParts = std::max(out_.maxParts, lit);
    out_.stepsOfFrame = std::max(out_.stepsOfFrame, steps);
  }
}

}  // namespace chispa::board
