// SPDX-License-Identifier: GPL-3.0-or-later
#include "phone/videointake.h"

#include <algorithm>
#include <utility>

namespace chispa::phone {
namespace {

/// Left on the disk for everything else.
constexpr std::uint64_t kSpare = std::uint64_t{64} << 20;

/// Letters and digits only: it becomes part of a file's name.
std::string harmlessEnding(const std::string& ending) {
  const bool isPlain =
      !ending.empty() && ending.size() <= 5 && std::all_of(ending.begin(), ending.end(), [](unsigned char c) {
        return (c >= 'a' && c <= 'z') || (c >= '0' && c <= '9');
      });
  return isPlain ? ending : "mp4";
}

}  // namespace

void VideoIntake::giveUp() {
  out_.close();
  std::error_code ignored;
  if (!coming_.empty()) std::filesystem::remove(coming_, ignored);
  coming_.clear();
  sender_.clear();
}

VideoIntake::Taken VideoIntake::begin(const std::string& sender, const Part& part) {
  giveUp();
  if (part.size == 0 || part.size > kMax) return Taken::TooBig;
  std::error_code error;
  const auto room = std::filesystem::space(folder_, error);
  if (error || room.available < part.size + kSpare) return Taken::NoRoom;
  coming_ = folder_ / ("phone-" + std::to_string(++count_) + "." + harmlessEnding(part.ending));
  out_.open(coming_, std::ios::binary | std::ios::trunc);
  sender_ = sender;
  size_ = part.size;
  written_ = 0;
  return Taken::More;
}

VideoIntake::Taken VideoIntake::take(const std::string& sender, const Part& part, const std::string& bytes) {
  const std::scoped_lock lock(mutex_);
  if (part.at == 0)
    if (const Taken begun = begin(sender, part); begun != Taken::More) return begun;
  if (sender != sender_ || part.at != written_ || part.size != size_ || bytes.empty() ||
      bytes.size() > size_ - written_)
    return Taken::Astray;
  if (!out_.write(bytes.data(), static_cast<std::streamsize>(bytes.size()))) {
    giveUp();
    return Taken::NoRoom;
  }
  written_ += bytes.size();
  if (written_ < size_) return Taken::More;
  out_.close();
  if (!out_) {
    giveUp();
    return Taken::NoRoom;
  }
  std::error_code ignored;
  if (!file_.empty()) std::filesystem::remove(file_, ignored);
  file_ = std::exchange(coming_, {});
  sender_.clear();
  return Taken::Whole;
}

std::filesystem::path VideoIntake::file() const {
  const std::scoped_lock lock(mutex_);
  return file_;
}

}  // namespace chispa::phone
