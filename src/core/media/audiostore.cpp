// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/media/audiostore.h"

#include <cstdlib>
#include <string>

#include <fcntl.h>
#include <unistd.h>

namespace chispa {
namespace {

constexpr std::size_t kFrameBytes = sizeof(float) * AudioClip::kChannels;

/// A file for large things that are not kept (FHS 3.0 §5.15): on the disk even where /tmp is memory.
int openNameless() {
  for (const std::string& folder :
       {std::string("/var/tmp"), std::filesystem::temp_directory_path().string()}) {
    std::string name = folder + "/chispa-XXXXXX";
    const int fd = ::mkostemp(name.data(), O_CLOEXEC);
    if (fd < 0) continue;
    ::unlink(name.c_str());
    return fd;
  }
  return -1;
}

}  // namespace

/// A clip in a file: read in pieces, which the system keeps at hand while there is memory for them.
class AudioStore::File final : public AudioClip {
 public:
  explicit File(int fd) : fd_(fd) {}
  ~File() override { ::close(fd_); }
  File(const File&) = delete;
  File& operator=(const File&) = delete;

  std::size_t frames() const override { return frames_; }
  void read(std::ptrdiff_t first, std::span<float> out) const override {
    const auto wanted = static_cast<std::ptrdiff_t>(out.size() / kChannels);
    const std::ptrdiff_t from = std::clamp<std::ptrdiff_t>(first, 0, size());
    const std::ptrdiff_t to = std::clamp<std::ptrdiff_t>(first + wanted, from, size());
    auto* bytes = reinterpret_cast<char*>(out.data() + (from - first) * kChannels);
    std::size_t left = static_cast<std::size_t>(to - from) * kFrameBytes;
    off_t at = static_cast<off_t>(from) * static_cast<off_t>(kFrameBytes);
    std::fill(out.begin(), out.end(), 0.f);
    while (left > 0) {
      const ssize_t got = ::pread(fd_, bytes, left, at);
      if (got <= 0) return;  // The disk fails: silence is all there is to play.
      bytes += got;
      at += got;
      left -= static_cast<std::size_t>(got);
    }
  }

  bool append(std::span<const float> samples) {
    const auto* bytes = reinterpret_cast<const char*>(samples.data());
    std::size_t left = samples.size_bytes();
    while (left > 0) {
      const ssize_t put = ::write(fd_, bytes, left);
      if (put <= 0) return false;
      bytes += put;
      left -= static_cast<std::size_t>(put);
    }
    frames_ += samples.size() / kChannels;
    return true;
  }
  void setFrames(std::size_t frames) { frames_ = frames; }
  std::ptrdiff_t size() const { return static_cast<std::ptrdiff_t>(frames_); }

 private:
  int fd_;
  std::size_t frames_ = 0;
};

AudioStore::AudioStore() = default;
AudioStore::~AudioStore() = default;
AudioStore::AudioStore(AudioStore&&) noexcept = default;
AudioStore& AudioStore::operator=(AudioStore&&) noexcept = default;

bool AudioStore::add(std::span<const float> samples) {
  frames_ += samples.size() / AudioClip::kChannels;
  if (!file_ && frames_ <= kMaxInMemory) {
    buffer_->samples.insert(buffer_->samples.end(), samples.begin(), samples.end());
    return true;
  }
  if (!file_) {
    const int fd = openNameless();
    if (fd < 0) return false;
    file_ = std::make_shared<File>(fd);
    if (!file_->append(buffer_->samples)) return false;
    buffer_ = std::make_shared<AudioBuffer>();
  }
  return file_->append(samples);
}

std::shared_ptr<const AudioClip> AudioStore::take(std::optional<std::size_t> frames) {
  if (!file_) {
    if (frames) buffer_->samples.resize(*frames * AudioClip::kChannels, 0.f);
    return std::move(buffer_);
  }
  // Behind the end of the file there is silence anyway.
  if (frames) file_->setFrames(*frames);
  return std::move(file_);
}

}  // namespace chispa
