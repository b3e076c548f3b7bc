// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <cstdint>
#include <filesystem>
#include <fstream>
#include <memory>
#include <span>
#include <string>
#include <vector>

#include "core/base/result.h"
#include "core/base/time.h"
#include "core/show/show.h"
#include "core/wire/patch.h"

namespace chispa {

// Recordings: the values of universes over time, as docs/recording.md lays them out. A header, blocks of
// about a second that are packed with zstd and carry its checksum, and an index; a file that was cut off is
// read as far as it goes.

struct RecordedUniverse {
  Protocol protocol = Protocol::E131;
  /// By the protocol's own number; of a row, the block of 512 bytes.
  int universe = 0;
  /// Of RecordingHead::rig; none where it was only heard.
  ControllerId controller = {};

  bool operator==(const RecordedUniverse&) const = default;
};

/// A span of the patch, with the name of its fixture.
struct RecordedSpan {
  std::string fixture;
  PatchSpan span;

  bool operator==(const RecordedSpan&) const = default;
};

/// What a recording says of itself.
struct RecordingHead {
  std::vector<RecordedUniverse> universes;
  /// What was recorded.
  std::string name = {};
  /// A show that has nothing but the controllers that the universes belong to, with their ports empty.
  Show rig = {};
  /// Which pixels the values are; `PatchSpan::controller` is a place in the rig's list.
  std::vector<RecordedSpan> patch = {};
};

/// Writes a recording as it is made. One thread.
class RecordingWriter {
 public:
  static Result<RecordingWriter> create(const std::filesystem::path& path, const RecordingHead& head);

  /// Adds the values of all universes, 512 each, at `t`, which never falls.
  void add(Micros t, std::span<const std::uint8_t> values);
  /// Something could not be written: what was added since is lost. Known when it happens, as a block is
  /// written about once a second.
  bool isFailing() const { return !file_.good(); }
  /// Writes what is left and the index; fails if something could not be written.
  Outcome finish();

 private:
  RecordingWriter() = default;
  void writeBlock();

  std::filesystem::path path_;
  std::ofstream file_;
  std::size_t frameSize_ = 0;
  std::vector<std::uint8_t> block_;
  std::vector<std::uint8_t> before_;
  std::uint32_t frames_ = 0;
  Micros blockBegins_{0};
  std::vector<std::pair<std::int64_t, std::uint64_t>> index_;
};

class BlockReader;

/// Reads a recording, at any instant. One thread.
class RecordingReader {
 public:
  static Result<RecordingReader> open(const std::filesystem::path& path);

  const RecordingHead& head() const { return head_; }
  const std::vector<RecordedUniverse>& universes() const { return head_.universes; }
  /// The instant of its last frame.
  Micros length() const { return length_; }
  /// The values that stood at `t`, 512 for each universe; zero before the first frame. Fails if the block is
  /// damaged. Going forward is quick; going back begins the block of that second anew.
  Result<std::span<const std::uint8_t>> at(Micros t);

  RecordingReader(RecordingReader&&) noexcept;
  RecordingReader& operator=(RecordingReader&&) noexcept;
  ~RecordingReader();

 private:
  struct Block {
    Micros begins;
    std::uint64_t offset;
  };
  RecordingReader();
  Outcome readHead();
  Outcome findBlocks();
  Outcome begin(std::size_t block);
  Outcome step();

  std::filesystem::path path_;
  std::unique_ptr<std::ifstream> file_;
  RecordingHead head_;
  std::vector<Block> blocks_;
  Micros length_{0};
  /// Reads block `block_`, one frame ahead of `frame_`.
  std::unique_ptr<BlockReader> reader_;
  std::size_t block_ = 0;
  std::vector<std::uint8_t> frame_;
  Micros frameTime_{0};
  bool hasFrame_ = false;
  bool hasNext_ = false;
  std::vector<std::uint8_t> dark_;
};

}  // namespace chispa
