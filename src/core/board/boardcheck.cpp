// SPDX-License-Identifier: GPL-3.0-or-later
// What a board shows beside the full light.
#include <algorithm>
#include <cmath>
#include <numeric>

#include "core/board/boardwriter.h"
#include "core/board/player.h"
#include "core/colour/difference.h"

namespace chispa::board {
namespace {

/// After so many values that are wrong nothing more is compared.
constexpr std::size_t kHopeless = 1000;

}  // namespace

void BoardWriter::measure(BoardScene& scene, const Stretch& stretch, const std::vector<std::uint16_t>& values,
                          const WrittenProgram& written, BoardPart& part) {
  // A scene of this part alone, for the time being.
  const std::size_t trial =
      blob_.append(sceneBytes({{stretch.first, stretch.end, kindOf(written), written.at}}, 0, 0));
  blob_.setThree(sceneEntry(), trial);
  BoardPlayer player(blob_.bytes());
  player.begin(static_cast<int>(sceneNumber_));
  double sum = 0;
  std::size_t count = 0, specks = 0;
  for (std::uint32_t frame = stretch.first; frame < endOf(stretch); ++frame) {
    const auto shown = player.frame(frame);
    std::vector<Bytes> near;
    for (const std::uint16_t value : values) {
      const double error = errorAt(shown, middle_.empty() ? full_[frame] : middle_[frame], value);
      ++count;
      if (error > kMaxError && near.empty()) near = lightNear(scene, frame);
      const double least = error > kMaxError ? errorNear(near, shown, value) : error;
      sum += least;
      if (least > kMaxError) ++specks;
      part.maxError = std::max(part.maxError, least);
    }
    if (specks > kHopeless) break;
  }
  blob_.cutTo(trial);
  part.meanError = count > 0 ? sum / static_cast<double>(count) : 0;
  part.specks = count > 0 ? static_cast<double>(specks) / static_cast<double>(count) : 0;
}

double BoardWriter::errorAt(std::span<const std::uint8_t> shown, const Bytes& full,
                            std::uint16_t value) const {
  const auto channels = static_cast<std::size_t>(strip_.channels());
  const std::size_t from = value * channels;
  double most = 0;
  for (std::size_t c = 0; c < channels; ++c)
    most =
        std::max(most, std::abs(static_cast<double>(shown[from + c]) - static_cast<double>(full[from + c])));
  return most;
}

std::vector<Bytes> BoardWriter::lightNear(BoardScene& scene, std::uint32_t frame) {
  std::vector<Bytes> near;
  for (const int ms : {-1, 0, 1}) {
    scene.render(std::max(Micros(0), timeOf(frame, rate()) + Micros(ms * 1000)), frame_);
    near.push_back(strip_.middleBytesOf(frame_));
  }
  return near;
}

double BoardWriter::errorNear(const std::vector<Bytes>& near, std::span<const std::uint8_t> shown,
                              std::uint16_t value) const {
  double least = 255;
  for (const Bytes& light : near) least = std::min(least, errorAt(shown, light, value));
  return least;
}

bool BoardWriter::judge(std::size_t number) {
  constexpr int kFullRate = 40;
  constexpr int kMaxSamples = 400;
  BoardScene scene(show_, compiled_, plan_.scenes[number].scene);
  BoardPlayer player(out_.data);
  player.begin(static_cast<int>(number));
  const double length_s = scene.isLook() ? kCheckedLook_s : seconds(scene.length());
  const int samples = std::max(1, std::min(kMaxSamples, static_cast<int>(length_s * kFullRate)));
  double sum = 0;
  long count = 0;
  for (int i = 0; i < samples; ++i) {
    const auto at = static_cast<std::uint32_t>(length_s * kFullRate * i / samples);
    const Micros t = timeOf(at, kFullRate);
    const auto frame = static_cast<std::uint32_t>(t.count() * rate() / 1'000'000);
    const auto shown = player.frame(frame);
    if (shown.empty()) break;
    scene.render(t, frame_);
    sum += differenceOf(shown);
    ++count;
    if (i % 64 == 0 && progress_ && !progress_(1)) return false;
  }
  out_.scenes[number].loss = count > 0 ? sum / static_cast<double>(count) : 0;
  return true;
}

double BoardWriter::differenceOf(std::span<const std::uint8_t> shown) {
  double sum = 0;
  const Bytes full = every_.bytesOf(frame_);
  const auto channels = static_cast<std::size_t>(strip_.channels());
  for (std::size_t i = 0; i < static_cast<std::size_t>(strip_.pixelCount()); ++i) {
    const std::uint8_t* a = shown.data() + i / static_cast<std::size_t>(strip_.pixelsPerValue()) * channels;
    const std::uint8_t* b = full.data() + i * channels;
    if (!std::equal(a, a + channels, b))
      sum += deltaE2000(toCieLab(strip_.lightOf(a)), toCieLab(strip_.lightOf(b)));
  }
  return sum / strip_.pixelCount();
}

}  // namespace chispa::board
