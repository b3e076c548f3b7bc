// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <cstdint>
#include <map>
#include <vector>

namespace chispa::board {

/// The bytes of a board's data, in little-endian order, while they are written. What is written twice with
/// share() stands once.
class Blob {
 public:
  using Bytes = std::vector<std::uint8_t>;

  std::size_t size() const { return bytes_.size(); }
  const Bytes& bytes() const { return bytes_; }

  std::size_t append(const Bytes& more) {
    const std::size_t at = bytes_.size();
    bytes_.insert(bytes_.end(), more.begin(), more.end());
    return at;
  }
  /// Where `more` stands, written if it has not been.
  std::size_t share(const Bytes& more) {
    const auto [found, isNew] = shared_.try_emplace(more, bytes_.size());
    if (isNew) append(more);
    return found->second;
  }
  void setThree(std::size_t at, std::size_t value) {
    for (int i = 0; i < 3; ++i)
      bytes_[at + static_cast<std::size_t>(i)] = static_cast<std::uint8_t>(value >> 8 * i);
  }
  /// Forgets what was written since the blob had `size` bytes.
  void cutTo(std::size_t size) {
    bytes_.resize(size);
    std::erase_if(shared_, [size](const auto& one) { return one.second >= size; });
  }

 private:
  Bytes bytes_;
  std::map<Bytes, std::size_t> shared_;
};

/// Appends numbers of one to four bytes.
inline void putBytes(Blob::Bytes& to, std::uint64_t value, int bytes) {
  for (int i = 0; i < bytes; ++i) to.push_back(static_cast<std::uint8_t>(value >> 8 * i));
}

}  // namespace chispa::board
