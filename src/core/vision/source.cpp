// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/vision/source.h"

#include <algorithm>
#include <fstream>
#include <map>
#include <vector>

#include <opencv2/imgcodecs.hpp>
#include <opencv2/videoio.hpp>

#include "core/vision/cvpicture.h"

namespace chispa::vision {
namespace {

class Video final : public FrameSource {
 public:
  explicit Video(cv::VideoCapture capture)
      : capture_(std::move(capture)), rate_(capture_.get(cv::CAP_PROP_FPS)) {
    if (!(rate_ > 1)) rate_ = 30;
  }

  std::optional<Frame> next() override {
    cv::Mat picture;
    if (!capture_.read(picture) || picture.empty()) return std::nullopt;
    return Frame{pictureOf(picture), count_++ / rate_};
  }
  bool isLive() const override { return false; }

 private:
  cv::VideoCapture capture_;
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
      const cv::Mat picture = cv::imread(file.string(), cv::IMREAD_GRAYSCALE);
      if (picture.empty()) continue;
      const auto time = times_.find(file.filename().string());
      return Frame{pictureOf(picture),
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
  cv::VideoCapture capture(path.string());
  if (!capture.isOpened())
    return Failure{"it cannot be read as a video", path.string(),
                   "name a file that FFmpeg reads, or a folder of pictures"};
  return std::unique_ptr<FrameSource>(std::make_unique<Video>(std::move(capture)));
}

chispa::Outcome writePicture(const Picture& picture, const std::filesystem::path& path) {
  try {
    if (cv::imwrite(path.string(), matOf(picture))) return Done{};
  } catch (const cv::Exception& problem) {
    return Failure{sentence("the picture cannot be written: %1", problem.what()), path.string(),
                   "choose another name or folder"};
  }
  return Failure{"the picture cannot be written", path.string(), "check that the folder exists and has room"};
}

}  // namespace chispa::vision
