// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <cstdint>
#include <filesystem>
#include <fstream>
#include <mutex>
#include <string>

namespace chispa::phone {

/// Takes in a video that a phone sends part by part; one at a time, each in place of the one before. All
/// members are for any thread.
class VideoIntake {
 public:
  static constexpr std::uint64_t kMax = std::uint64_t{512} << 20;
  /// Of one part.
  static constexpr std::size_t kMaxPart = std::size_t{1} << 20;

  /// Where a part belongs.
  struct Part {
    /// Bytes before it, and of the whole video.
    std::uint64_t at = 0;
    std::uint64_t size = 0;
    /// Of the file's name: "mp4".
    std::string ending;
  };
  /// What became of a part.
  enum class Taken {
    More,    ///< it is kept, and there are more to come
    Whole,   ///< it was the last one: file() is whole
    TooBig,  ///< the video has no bytes, or more than kMax
    NoRoom,  ///< the disk has no room for it, or failed
    Astray,  ///< another part was to come, or another phone sends now
  };

  /// Files are kept in `folder`, which must be there.
  explicit VideoIntake(std::filesystem::path folder) : folder_(std::move(folder)) {}

  /// `sender` tells phones from each other; its first part begins anew.
  Taken take(const std::string& sender, const Part& part, const std::string& bytes);
  /// The video that came last.
  std::filesystem::path file() const;

 private:
  Taken begin(const std::string& sender, const Part& part);
  void giveUp();

  const std::filesystem::path folder_;
  mutable std::mutex mutex_;
  std::string sender_;
  std::filesystem::path coming_;
  std::ofstream out_;
  std::uint64_t written_ = 0;
  std::uint64_t size_ = 0;
  int count_ = 0;
  std::filesystem::path file_;
};

}  // namespace chispa::phone
