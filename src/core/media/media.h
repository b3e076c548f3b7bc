// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <atomic>
#include <cstdint>
#include <filesystem>
#include <map>
#include <memory>
#include <string>
#include <vector>

#include "core/base/result.h"
#include "core/colour/rgb.h"
#include "core/media/livepicture.h"

namespace chispa {

/// A picture, an animated one or a video, made small for LEDs.
struct Media {
  int width = 0;
  int height = 0;
  /// 0 for a still picture.
  double framesPerSecond = 0;
  int frames = 0;
  /// Four bytes a dot: R, G, B in sRGB and how much it covers; rows from the top, frame after frame.
  std::vector<std::uint8_t> rgba;

  double length_s() const { return framesPerSecond > 0 ? frames / framesPerSecond : 0; }
  /// Four bytes of the dot at `x` from the left and `y` from the top, of frame `frame`; all within bounds.
  const std::uint8_t* dot(int frame, int x, int y) const {
    return rgba.data() + 4 * ((static_cast<std::size_t>(frame) * static_cast<std::size_t>(height) +
                               static_cast<std::size_t>(y)) *
                                  static_cast<std::size_t>(width) +
                              static_cast<std::size_t>(x));
  }
};

/// How large Media may be: dots a side, and bytes in all.
struct MediaLimits {
  static constexpr int kMaxSide = 160;
  static constexpr std::size_t kMaxBytes = std::size_t{96} << 20;
};
/// Decodes what FFmpeg's libraries read, made to fit into kMaxSide dots a side; of long videos as much as
/// kMaxBytes hold. Any thread; `cancelled` ends it with what is there.
Result<std::shared_ptr<const Media>> decodeMedia(const std::filesystem::path& path,
                                                 const std::atomic<bool>* cancelled = nullptr);

/// Media by the file name that clips say, and what screens show by the part of it.
class MediaLibrary {
 public:
  void add(const std::string& name, std::shared_ptr<const Media> media) { media_[name] = std::move(media); }
  bool has(const std::string& name) const { return media_.contains(name); }
  /// Null if it is not there.
  std::shared_ptr<const Media> find(const std::string& name) const {
    const auto found = media_.find(name);
    return found == media_.end() ? nullptr : found->second;
  }
  void addLive(const ScreenPart& part, std::shared_ptr<const LivePicture> picture) {
    live_[part] = std::move(picture);
  }
  /// Null if nobody watches it.
  std::shared_ptr<const LivePicture> findLive(const ScreenPart& part) const {
    const auto found = live_.find(part);
    return found == live_.end() ? nullptr : found->second;
  }
  /// True if something is shown that changes by itself.
  bool hasLive() const { return !live_.empty(); }
  /// True if both hold the very same media.
  bool operator==(const MediaLibrary&) const = default;

 private:
  std::map<std::string, std::shared_ptr<const Media>> media_;
  std::map<ScreenPart, std::shared_ptr<const LivePicture>> live_;
};

}  // namespace chispa
