// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <algorithm>
#include <array>
#include <cstddef>

namespace chispa {

/// A list of at most `kMax` values that holds them itself: it never allocates, and is as trivial to copy as
/// they are.
template <class T, std::size_t kMax>
class InlineList {
 public:
  T* begin() { return items_.data(); }
  T* end() { return items_.data() + size_; }
  const T* begin() const { return items_.data(); }
  const T* end() const { return items_.data() + size_; }
  std::size_t size() const { return size_; }
  bool isEmpty() const { return size_ == 0; }
  bool isFull() const { return size_ == kMax; }
  T& operator[](std::size_t i) { return items_[i]; }
  const T& operator[](std::size_t i) const { return items_[i]; }
  T& back() { return items_[size_ - 1]; }

  /// False, and nothing happens, if there is no room.
  bool tryAdd(const T& item) {
    if (isFull()) return false;
    items_[size_++] = item;
    return true;
  }
  template <class F>
  void removeIf(F gone) {
    size_ = static_cast<std::size_t>(std::remove_if(begin(), end(), gone) - begin());
  }
  void clear() { size_ = 0; }

  bool operator==(const InlineList& other) const {
    return size_ == other.size_ && std::equal(begin(), end(), other.begin());
  }

 private:
  std::array<T, kMax> items_{};
  std::size_t size_ = 0;
};

}  // namespace chispa
