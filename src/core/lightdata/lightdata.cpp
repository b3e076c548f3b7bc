// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/lightdata/lightdata.h"

#include <algorithm>
#include <cmath>
#include <fstream>

#include <nlohmann/json.hpp>

#include "core/base/pngwriter.h"
#include "core/colour/rgb.h"
#include "core/files/pendingfile.h"
#include "core/media/lightrows.h"
#include "core/recording/framepacker.h"
#include "core/render/renderer.h"

namespace chispa {
namespace {

using Json = nlohmann::ordered_json;
using Bytes = std::vector<std::uint8_t>;

/// A stretch of a frame's bytes that has a name.
struct Stretch {
  std::string name;
  /// Of universes.
  int universe = 0;
  std::size_t first = 0;
  std::size_t count = 0;
};

/// Gives the bytes of one frame after the other.
class FrameSource {
 public:
  virtual ~FrameSource() = default;
  virtual const Bytes& at(Micros t) = 0;
  const std::vector<Stretch>& stretches() const { return stretches_; }
  std::size_t bytesOfFrame() const {
    return stretches_.empty() ? 0 : stretches_.back().first + stretches_.back().count;
  }

 protected:
  std::vector<Stretch> stretches_;
};

/// Red, green and blue of pixels in sRGB, which keeps dim light apart.
class PixelSource final : public FrameSource {
 public:
  PixelSource(const Show& show, const CompiledShow& compiled, const CompiledScore& score,
              const LightDataOrder& order)
      : score_(score) {
    renderer_.prepare(compiled);
    frame_.resize(static_cast<std::size_t>(compiled.map->count()));
    std::vector<PixelRow> rows = order.parts;
    if (rows.empty())
      for (const auto& fixture : show.fixtures) rows.emplace_back(fixture->id);
    for (const PixelRow& row : rows) add(nameOf(show, row), pixelsOf(show, *compiled.map, row));
    bytes_.resize(3 * pixels_.size());
  }

  const Bytes& at(Micros t) override {
    renderer_.render(score_, t, frame_);
    for (std::size_t i = 0; i < pixels_.size(); ++i) {
      bytes_[3 * i] = byteOf(frame_.r[pixels_[i]]);
      bytes_[3 * i + 1] = byteOf(frame_.g[pixels_[i]]);
      bytes_[3 * i + 2] = byteOf(frame_.b[pixels_[i]]);
    }
    return bytes_;
  }

 private:
  void add(const std::string& name, const std::vector<std::uint32_t>& pixels) {
    if (pixels.empty()) return;
    stretches_.push_back({name, 0, 3 * pixels_.size(), 3 * pixels.size()});
    pixels_.insert(pixels_.end(), pixels.begin(), pixels.end());
  }
  static std::uint8_t byteOf(float light) {
    return static_cast<std::uint8_t>(std::lround(srgbFromLinear(std::clamp(light, 0.f, 1.f)) * 255));
  }

  const CompiledScore& score_;
  Renderer renderer_;
  PixelFrame frame_;
  std::vector<std::uint32_t> pixels_;
  Bytes bytes_;
};

/// Channels of all universes that are in use.
class ChannelSource final : public FrameSource {
 public:
  ChannelSource(const Show& show, const CompiledShow& compiled, const CompiledScore& score, int rate)
      : score_(score), packer_(compiled, rate) {
    std::size_t first = 0;
    for (const PatchUniverse& universe : compiled.patch.universes) {
      const auto count = static_cast<std::size_t>(universe.channels);
      stretches_.push_back({show.controllers[static_cast<std::size_t>(universe.controller)]->name,
                            universe.universe, first, count});
      first += count;
    }
    bytes_.resize(first);
  }

  const Bytes& at(Micros t) override {
    const auto& values = packer_.at(score_, t);
    for (std::size_t i = 0; i < stretches_.size(); ++i)
      std::copy_n(values.begin() + static_cast<std::ptrdiff_t>(i * kUniverseChannels), stretches_[i].count,
                  bytes_.begin() + static_cast<std::ptrdiff_t>(stretches_[i].first));
    return bytes_;
  }

 private:
  const CompiledScore& score_;
  FramePacker packer_;
  Bytes bytes_;
};

std::string quoted(const std::string& words) {
  std::string text = "\"";
  for (const char c : words) text += c == '"' ? "\"\"" : std::string(1, c);
  return text + "\"";
}

/// The heading of a table: a column a channel, counted from 1.
std::string headingOf(const FrameSource& source, bool byUniverse) {
  std::string line = "frame,time_s";
  for (const Stretch& stretch : source.stretches())
    for (std::size_t i = 0; i < stretch.count; ++i) {
      const std::string place = byUniverse ? std::to_string(stretch.universe) + " " + std::to_string(i + 1)
                                           : std::to_string(i / 3 + 1) + " " + std::string(1, "rgb"[i % 3]);
      line += "," + quoted(stretch.name + " " + place);
    }
  return line + "\n";
}

Json explanationOf(const FrameSource& source, const LightDataOrder& order, const Score& score) {
  Json parts = Json::array();
  for (const Stretch& stretch : source.stretches()) {
    Json part = {{"name", stretch.name}, {"first_byte", stretch.first}};
    if (order.byUniverse) {
      part["universe"] = stretch.universe;
      part["channels"] = stretch.count;
    } else {
      part["pixels"] = stretch.count / 3;
    }
    parts.push_back(std::move(part));
  }
  return {{"format", kLightFormat},
          {"version", 1},
          {"score", score.name},
          {"frames", order.frames()},
          {"frames_per_second", order.framesPerSecond},
          {"bytes_of_frame", source.bytesOfFrame()},
          {"of", order.byUniverse ? "channels" : "pixels, red green blue"},
          {"values", order.byUniverse ? "as sent" : "sRGB, 0 to 255"},
          {"parts", std::move(parts)}};
}

/// Calls `take(frame, bytes)` for every frame; false if it was cancelled.
template <class F>
bool eachFrame(FrameSource& source, const LightDataOrder& order, const Progress& progress, F take) {
  for (long i = 0; i < order.frames(); ++i) {
    if (i % order.framesPerSecond == 0 && progress &&
        !progress(static_cast<double>(i) / static_cast<double>(order.frames())))
      return false;
    take(i, source.at(order.span.from + Micros(i * 1'000'000 / order.framesPerSecond)));
  }
  return true;
}

Failure notWritten(const std::filesystem::path& path) {
  return {"The light cannot be written.", path.string(), "Make room on the disk, or choose another folder."};
}

Result<bool> commitText(const std::filesystem::path& path, const std::string& text) {
  auto begun = PendingFile::begin(path);
  if (!begun) return begun.failure();
  PendingFile file = *std::move(begun);
  std::ofstream out(file.path(), std::ios::binary);
  out << text;
  out.close();
  if (!out) return notWritten(path);
  if (const Outcome done = file.commit(); !done) return done.failure();
  return true;
}

/// Tables and bytes, which are written frame by frame.
Result<bool> writeStream(FrameSource& source, const LightDataOrder& order, const Score& score,
                         const std::filesystem::path& path, const Progress& progress) {
  const bool isTable = path.extension() == ".csv";
  auto begun = PendingFile::begin(path);
  if (!begun) return begun.failure();
  PendingFile file = *std::move(begun);
  std::ofstream out(file.path(), std::ios::binary);
  if (isTable) out << headingOf(source, order.byUniverse);
  std::string line;
  const bool isWhole = eachFrame(source, order, progress, [&](long i, const Bytes& bytes) {
    if (!isTable) {
      out.write(reinterpret_cast<const char*>(bytes.data()), static_cast<std::streamsize>(bytes.size()));
      return;
    }
    line = std::to_string(i) + "," + Json(static_cast<double>(i) / order.framesPerSecond).dump();
    for (const std::uint8_t byte : bytes) line += "," + std::to_string(byte);
    out << line << "\n";
  });
  out.close();
  if (!out) return notWritten(path);
  if (!isWhole) return false;
  if (!isTable)
    if (auto explained =
            commitText(explanationPath(path), explanationOf(source, order, score).dump(2) + "\n");
        !explained)
      return explained;
  if (const Outcome done = file.commit(); !done) return done.failure();
  return true;
}

Result<bool> writePicture(FrameSource& source, const LightDataOrder& order, const std::filesystem::path& path,
                          const Progress& progress) {
  constexpr std::size_t kMaxSide = 65'535;
  const std::size_t dots = source.bytesOfFrame() / 3;
  if (dots > kMaxSide || static_cast<std::size_t>(order.frames()) > kMaxSide)
    return Failure{
        sentence("A picture has at most 65535 dots a side; this would have %1 × %2.", dots, order.frames()),
        path.string(), "Choose fewer fixtures, or a shorter part."};
  PictureBytes picture{static_cast<int>(dots), static_cast<int>(order.frames()), {}};
  picture.bytes.reserve(dots * 3 * static_cast<std::size_t>(order.frames()));
  const bool isWhole = eachFrame(source, order, progress, [&](long, const Bytes& bytes) {
    picture.bytes.insert(picture.bytes.end(), bytes.begin(),
                         bytes.begin() + static_cast<std::ptrdiff_t>(dots * 3));
  });
  if (!isWhole) return false;
  auto begun = PendingFile::begin(path);
  if (!begun) return begun.failure();
  PendingFile file = *std::move(begun);
  const bool isWritten = writePng(file.path(), picture, PictureColours::Rgb).empty();
  if (!isWritten) return notWritten(path);
  if (const Outcome done = file.commit(); !done) return done.failure();
  return true;
}

}  // namespace

bool isLightData(const std::filesystem::path& path) {
  const auto ending = path.extension();
  return ending == ".csv" || ending == ".rgb" ||
         (ending == ".png" && path.string().find('%') == std::string::npos);
}

Result<bool> writeLightData(const Show& show, const CompiledShow& compiled, const Score& score,
                            const LightDataOrder& order, const std::filesystem::path& path,
                            const Progress& progress) {
  const CompiledScore* made = compiled.scoreOf(score.id);
  if (!made || order.frames() < 1)
    return Failure{"There is nothing of the score to write.", path.string(), "Choose a longer part of it."};
  const bool isPicture = path.extension() == ".png";
  if (isPicture && order.byUniverse)
    return Failure{"A picture shows pixels, not channels.", path.string(),
                   "Choose .csv or .rgb for universes."};
  std::unique_ptr<FrameSource> source;
  if (order.byUniverse)
    source = std::make_unique<ChannelSource>(show, compiled, *made, order.framesPerSecond);
  else
    source = std::make_unique<PixelSource>(show, compiled, *made, order);
  if (source->bytesOfFrame() == 0)
    return Failure{order.byUniverse ? "The show drives no universe." : "There is no pixel to write.",
                   path.string(),
                   order.byUniverse ? "Hang fixtures on a controller in Wire first."
                                    : "Choose fixtures or zones with pixels."};
  return isPicture ? writePicture(*source, order, path, progress)
                   : writeStream(*source, order, score, path, progress);
}

}  // namespace chispa
