// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/vision/source.h"

#include <algorithm>
#include <fstream>
#include <map>
#include <vector>

#include "core/base/picturereader.h"
#include "core/base/pngwriter.h"

namespace chispa::vision {
namespace {

Picture pictureOf(PictureBytes grey) {
  return {grey.width, grey.height, std::move(grey.bytes)};
}

class Video final : public FrameSource {
 public:
  explicit Video(std::unique_ptr<PictureReader> reader)
      : reader_(std::move(reader)), rate_(reader_->framesPerSecond()) {
    if (!(rate_ > 1)) rate_ = 30;
  }

  std::optional<Frame> next() override {
    auto picture = reader_->next();
    if (!picture) return std::nullopt;
    return Frame{pictureOf(*std::move(picture)), count_++ / rate_};
  }
  bool isLive() const override { return false; }

 private:
  std::unique_ptr<PictureReader> reader_;
  double rate_;
  double count_ = 0;
};

class Folder final : public FrameSource {
 public:
  Folder(std::vector<std::filesystem::path> files, std::map<std::string, double> times, double rate)
      : files_(std::move(files)), times_(std::move(times)), rate_(rate) {}

  std::optional<Frame> next() override {
    while (at_ < files_.size()) {
      const auto& file = files_[at_++];
      const auto reader = PictureReader::open(file, PictureColours::Grey);
      auto picture = reader ? reader->next() : std::nullopt;
      if (!picture) continue;
      const auto time = times_.find(file.filename().string());
      return Frame{pictureOf(*std::move(picture)),
                   time != times_.end() ? time->second : static_cast<double>(at_ - 1) / rate_};
    }
    return std::nullopt;
  }
  bool isLive() const override { return false; }

 private:
  std::vector<std::filesystem::path> files_;
  std::map<std::string, double> times_;
  double rate_;
  std::size_t at_ = 0;
};

std::map<std::string, double> readTimes(const std::filesystem::path& path) {
  std::map<std::string, double> times;
  std::ifstream file(path);
  std::string line;
  while (std::getline(file, line)) {
    const auto comma = line.find(',');
    if (comma == std::string::npos) continue;
    char* end = nullptr;
    const double seconds = std::strtod(line.c_str() + comma + 1, &end);
    if (end != line.c_str() + comma + 1) times[line.substr(0, comma)] = seconds;
  }
  return times;
}

bool isPicture(const std::filesystem::path& path) {
  std::string ending = path.extension().string();
  std::transform(ending.begin(), ending.end(), ending.begin(),
                 [](unsigned char c) { return static_cast<char>(std::tolower(c)); });
  return ending == ".png" || ending == ".jpg" || ending == ".jpeg" || ending == ".bmp" || ending == ".pgm" ||
         ending == ".tif" || ending == ".tiff";
}

}  // namespace

Result<std::unique_ptr<FrameSource>> openFrames(const std::filesystem::path& path, double framesPerSecond) {
  std::error_code error;
  if (std::filesystem::is_directory(path, error)) {
    std::vector<std::filesystem::path> files;
    for (const auto& entry : std::filesystem::directory_iterator(path, error))
      if (isPicture(entry.path())) files.push_back(entry.path());
    std::sort(files.begin(), files.end());
    if (files.empty())
      return Failure{"there are no pictures", path.string(),
                     "name a folder of .png or .jpg files, or a video"};
    return std::unique_ptr<FrameSource>(
        std::make_unique<Folder>(std::move(files), readTimes(path / "times.csv"), framesPerSecond));
  }
  if (!std::filesystem::exists(path, error))
    return Failure{"there is no such file or folder", path.string(),
                   "name a video file, or a folder of pictures"};
  auto reader = PictureReader::open(path, PictureColours::Grey);
  if (!reader)
    return Failure{"it cannot be read as a video", path.string(),
                   "name a file that FFmpeg reads, or a folder of pictures"};
  return std::unique_ptr<FrameSource>(std::make_unique<Video>(std::move(reader)));
}

chispa::Outcome writePicture(const Picture& picture, const std::filesystem::path& path) {
  const std::string why =
      writePng(path, {picture.width, picture.height, picture.light}, PictureColours::Grey);
  if (why.empty()) return Done{};
  return Failure{sentence("the picture cannot be written: %1", why), path.string(),
                 "check that the folder exists and has room"};
}

}  // namespace chispa::vision
