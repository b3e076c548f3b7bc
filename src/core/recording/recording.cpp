// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/recording/recording.h"

#include <zstd.h>

#include <algorithm>
#include <cstring>
#include <memory>

#include "core/recording/recordinghead.h"

namespace chispa {
namespace {

constexpr char kMagic[] = "CHISREC2";
constexpr char kBlock[] = "BLK1";
constexpr char kIndex[] = "IDX1";
constexpr char kEnd[] = "CHISEND1";
constexpr Micros kBlockLength{1'000'000};
constexpr std::uint32_t kMostHeader = 16u << 20;
/// A block is a second of at most a thousand frames a second.
constexpr std::uint64_t kMostFramesOfBlock = 4096;

/// Numbers stand with their low byte first, whatever the machine.
template <class Int>
void put(std::string& to, Int value) {
  for (std::size_t i = 0; i < sizeof(Int); ++i) to.push_back(static_cast<char>(static_cast<std::uint64_t>(value) >> (8 * i) & 255));
}

template <class Int>
bool get(std::istream& in, Int& value) {
  unsigned char bytes[sizeof(Int)];
  if (!in.read(reinterpret_cast<char*>(bytes), sizeof(Int))) return false;
  std::uint64_t sum = 0;
  for (std::size_t i = 0; i < sizeof(Int); ++i) sum |= static_cast<std::uint64_t>(bytes[i]) << (8 * i);
  value = static_cast<Int>(sum);
  return true;
}

bool getWord(std::istream& in, const char* word) {
  char read[8];
  const std::size_t size = std::strlen(word);
  return in.read(read, static_cast<std::streamsize>(size)) && std::memcmp(read, word, size) == 0;
}

/// One zstd frame with a checksum of what it holds (RFC 8878 §3.1.1); empty if there is no memory for it.
std::string pack(const void* bytes, std::size_t size) {
  const std::unique_ptr<ZSTD_CCtx, decltype(&ZSTD_freeCCtx)> context(ZSTD_createCCtx(), ZSTD_freeCCtx);
  std::string packed(ZSTD_compressBound(size), '\0');
  ZSTD_CCtx_setParameter(context.get(), ZSTD_c_checksumFlag, 1);
  const std::size_t made = ZSTD_compress2(context.get(), packed.data(), packed.size(), bytes, size);
  packed.resize(ZSTD_isError(made) ? 0 : made);
  return packed;
}

Failure damaged(const std::filesystem::path& path, const std::string& what) { return {what, path.string(), "record it again, or use a copy"}; }

}  // namespace

Result<RecordingWriter> RecordingWriter::create(const std::filesystem::path& path, const RecordingHead& head) {
  RecordingWriter writer;
  writer.path_ = path;
  writer.file_.open(path, std::ios::binary | std::ios::trunc);
  const std::string text = headText(head);
  const std::string packed = pack(text.data(), text.size());
  std::string begin = kMagic;
  put(begin, static_cast<std::uint32_t>(packed.size()));
  begin += packed;
  if (packed.empty() || !writer.file_.write(begin.data(), static_cast<std::streamsize>(begin.size()))) return Failure{"the recording cannot be written", path.string(), "check that the folder exists and has room"};
  writer.frameSize_ = head.universes.size() * kUniverseChannels;
  writer.before_.assign(writer.frameSize_, 0);
  return writer;
}

void RecordingWriter::add(Micros t, std::span<const std::uint8_t> values) {
  if (values.size() != frameSize_) return;
  if (frames_ > 0 && t - blockBegins_ >= kBlockLength) writeBlock();
  if (frames_ == 0) {
    blockBegins_ = t;
    std::fill(before_.begin(), before_.end(), std::uint8_t{0});
  }
  std::string time;
  put(time, static_cast<std::int64_t>(t.count()));
  block_.insert(block_.end(), time.begin(), time.end());
  block_.resize(block_.size() + frameSize_);
  std::transform(values.begin(), values.end(), before_.begin(), block_.end() - static_cast<std::ptrdiff_t>(frameSize_), [](std::uint8_t now, std::uint8_t before) { return static_cast<std::uint8_t>(now ^ before); });
  std::copy(values.begin(), values.end(), before_.begin());
  ++frames_;
}

void RecordingWriter::writeBlock() {
  const std::string packed = pack(block_.data(), block_.size());
  if (packed.empty()) {
    file_.setstate(std::ios::failbit);
    return;
  }
  index_.emplace_back(blockBegins_.count(), static_cast<std::uint64_t>(file_.tellp()));
  std::string head = kBlock;
  put(head, frames_);
  put(head, static_cast<std::uint32_t>(packed.size()));
  put(head, static_cast<std::int64_t>(blockBegins_.count()));
  file_.write(head.data(), static_cast<std::streamsize>(head.size()));
  file_.write(packed.data(), static_cast<std::streamsize>(packed.size()));
  block_.clear();
  frames_ = 0;
}

Outcome RecordingWriter::finish() {
  if (frames_ > 0) writeBlock();
  const auto at = static_cast<std::uint64_t>(file_.tellp());
  std::string end = kIndex;
  put(end, static_cast<std::uint32_t>(index_.size()));
  for (const auto& [begins, offset] : index_) {
    put(end, begins);
    put(end, offset);
  }
  put(end, at);
  end += kEnd;
  file_.write(end.data(), static_cast<std::streamsize>(end.size()));
  file_.close();
  if (!file_) return Failure{"the recording could not be written to its end", path_.string(), "make room on the disk, and record again"};
  return Done{};
}

Result<RecordingReader> RecordingReader::open(const std::filesystem::path& path) {
  RecordingReader reader;
  reader.path_ = path;
  reader.file_.open(path, std::ios::binary);
  if (!reader.file_) return Failure{"the recording cannot be opened", path.string(), "check its name"};
  if (const Outcome head = reader.readHead(); !head) return head.failure();
  if (const Outcome blocks = reader.findBlocks(); !blocks) return blocks.failure();
  reader.dark_.assign(reader.universes().size() * kUniverseChannels, 0);
  if (!reader.blocks_.empty()) {
    if (const Outcome last = reader.unpack(reader.blocks_.size() - 1); !last) return last.failure();
    reader.length_ = reader.times_.empty() ? Micros(0) : reader.times_.back();
  }
  return reader;
}

Outcome RecordingReader::readHead() {
  std::uint32_t size = 0;
  if (!getWord(file_, kMagic) || !get(file_, size) || size > kMostHeader) return Failure{"this is no recording of Chispa", path_.string(), "choose a file that it recorded"};
  std::string packed(size, '\0');
  if (!file_.read(packed.data(), size)) return damaged(path_, "the recording ends within its header");
  const auto length = ZSTD_getFrameContentSize(packed.data(), packed.size());
  if (length > kMostHeader) return damaged(path_, "the recording's header is damaged");
  std::string text(length, '\0');
  if (ZSTD_decompress(text.data(), text.size(), packed.data(), packed.size()) != text.size()) return damaged(path_, "the recording's header is damaged");
  auto head = parseHead(text, path_.string());
  if (!head) return head.failure();
  head_ = *std::move(head);
  return Done{};
}

Outcome RecordingReader::findBlocks() {
  // Block after block, so that a file without its index is read, too; the index is for readers that seek in large files.
  for (;;) {
    const auto offset = static_cast<std::uint64_t>(file_.tellg());
    std::uint32_t frames = 0, size = 0;
    std::int64_t begins = 0;
    if (!getWord(file_, kBlock) || !get(file_, frames) || !get(file_, size) || !get(file_, begins)) break;
    file_.seekg(size, std::ios::cur);
    std::error_code error;
    if (!file_ || static_cast<std::uint64_t>(file_.tellg()) > std::filesystem::file_size(path_, error)) break;
    blocks_.push_back({Micros(begins), offset});
  }
  file_.clear();
  return Done{};
}

Outcome RecordingReader::unpack(std::size_t block) {
  if (unpacked_ == block) return Done{};
  std::uint32_t frames = 0, size = 0;
  std::int64_t begins = 0;
  file_.clear();
  file_.seekg(static_cast<std::streamoff>(blocks_[block].offset));
  if (!getWord(file_, kBlock) || !get(file_, frames) || !get(file_, size) || !get(file_, begins)) return damaged(path_, "a block of the recording cannot be read");
  const std::size_t frameSize = universes().size() * kUniverseChannels;
  std::error_code error;
  if (frames > kMostFramesOfBlock || size > std::filesystem::file_size(path_, error)) return damaged(path_, "a block of the recording makes no sense");
  std::vector<char> packed(size);
  const std::size_t rawSize = frames * (sizeof(std::int64_t) + frameSize);
  // What would not unpack to the size that is due is not given the memory for it.
  if (!file_.read(packed.data(), size) || ZSTD_getFrameContentSize(packed.data(), packed.size()) != rawSize) return damaged(path_, "a block of the recording is damaged");
  std::vector<std::uint8_t> raw(rawSize);
  if (ZSTD_decompress(raw.data(), raw.size(), packed.data(), packed.size()) != raw.size()) return damaged(path_, "a block of the recording is damaged");
  times_.clear();
  values_.assign(frames * frameSize, 0);
  for (std::size_t f = 0; f < frames; ++f) {
    const std::uint8_t* from = raw.data() + f * (sizeof(std::int64_t) + frameSize);
    std::uint64_t time = 0;
    for (std::size_t i = 0; i < sizeof(std::int64_t); ++i) time |= static_cast<std::uint64_t>(from[i]) << (8 * i);
    times_.push_back(Micros(static_cast<std::int64_t>(time)));
    for (std::size_t i = 0; i < frameSize; ++i) values_[f * frameSize + i] = static_cast<std::uint8_t>(from[sizeof(std::int64_t) + i] ^ (f > 0 ? values_[(f - 1) * frameSize + i] : 0));
  }
  unpacked_ = block;
  return Done{};
}

Result<std::span<const std::uint8_t>> RecordingReader::at(Micros t) {
  const auto next = std::upper_bound(blocks_.begin(), blocks_.end(), t, [](Micros wanted, const Block& block) { return wanted < block.begins; });
  if (next == blocks_.begin()) return std::span<const std::uint8_t>(dark_);
  if (const Outcome read = unpack(static_cast<std::size_t>(next - blocks_.begin()) - 1); !read) return read.failure();
  const auto frame = std::upper_bound(times_.begin(), times_.end(), t);
  if (frame == times_.begin()) return std::span<const std::uint8_t>(dark_);
  const std::size_t frameSize = universes().size() * kUniverseChannels;
  return std::span<const std::uint8_t>(values_).subspan(static_cast<std::size_t>(frame - times_.begin() - 1) * frameSize, frameSize);
}

}  // namespace chispa
