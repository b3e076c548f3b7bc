// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/recording/recording.h"

#include <algorithm>
#include <cstring>
#include <memory>

#include <zstd.h>

#include "core/recording/blockreader.h"
#include "core/recording/recordinghead.h"
#include "core/show/limits.h"

namespace chispa {
namespace {

constexpr char kMagic[] = "CHISREC2";
constexpr char kBlock[] = "BLK1";
constexpr char kIndex[] = "IDX1";
constexpr char kEnd[] = "CHISEND1";
constexpr Micros kBlockLength{1'000'000};
constexpr std::uint32_t kMaxHeader = 16u << 20;
/// A block is a second of at most a thousand frames a second.
constexpr std::uint64_t kMaxFramesOfBlock = 4096;
/// And of what it may unpack to; it is read frame by frame, so this bounds time, not memory.
constexpr std::uint64_t kMaxBytesOfBlock = 1u << 30;
/// A block is closed before it grows beyond this, however short it is.
constexpr std::size_t kFullBlock = 64u << 20;

/// Numbers stand with their low byte first, whatever the machine.
template <class Int>
void put(std::string& to, Int value) {
  for (std::size_t i = 0; i < sizeof(Int); ++i)
    to.push_back(static_cast<char>(static_cast<std::uint64_t>(value) >> (8 * i) & 255));
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

Failure damaged(const std::filesystem::path& path, const char* what) {
  return {what, path.string(), "record it again, or use a copy"};
}

}  // namespace

Result<RecordingWriter> RecordingWriter::create(const std::filesystem::path& path,
                                                const RecordingHead& head) {
  RecordingWriter writer;
  writer.path_ = path;
  writer.file_.open(path, std::ios::binary | std::ios::trunc);
  const std::string text = headText(head);
  const std::string packed = pack(text.data(), text.size());
  std::string begin = kMagic;
  put(begin, static_cast<std::uint32_t>(packed.size()));
  begin += packed;
  if (packed.empty() || !writer.file_.write(begin.data(), static_cast<std::streamsize>(begin.size())))
    return Failure{"the recording cannot be written", path.string(),
                   "check that the folder exists and has room"};
  writer.frameSize_ = head.universes.size() * kUniverseChannels;
  writer.before_.assign(writer.frameSize_, 0);
  return writer;
}

void RecordingWriter::add(Micros t, std::span<const std::uint8_t> values) {
  if (values.size() != frameSize_) return;
  if (frames_ > 0 &&
      (t - blockBegins_ >= kBlockLength || block_.size() >= kFullBlock || frames_ == kMaxFramesOfBlock))
    writeBlock();
  if (frames_ == 0) {
    blockBegins_ = t;
    std::fill(before_.begin(), before_.end(), std::uint8_t{0});
  }
  std::string time;
  put(time, static_cast<std::int64_t>(t.count()));
  block_.insert(block_.end(), time.begin(), time.end());
  block_.resize(block_.size() + frameSize_);
  std::transform(
      values.begin(), values.end(), before_.begin(), block_.end() - static_cast<std::ptrdiff_t>(frameSize_),
      [](std::uint8_t now, std::uint8_t before) { return static_cast<std::uint8_t>(now ^ before); });
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
  // To the disk's own word: what lies in a buffer tells of no full disk.
  file_.flush();
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
  if (!file_)
    return Failure{"the recording could not be written to its end", path_.string(),
                   "make room on the disk, and record again"};
  return Done{};
}

RecordingReader::RecordingReader() = default;
RecordingReader::~RecordingReader() = default;
RecordingReader::RecordingReader(RecordingReader&&) noexcept = default;
RecordingReader& RecordingReader::operator=(RecordingReader&&) noexcept = default;

Result<RecordingReader> RecordingReader::open(const std::filesystem::path& path) {
  RecordingReader reader;
  reader.path_ = path;
  std::error_code error;
  if (!std::filesystem::is_regular_file(path, error))
    return Failure{"the recording is not there", path.string(), "check its name"};
  reader.file_ = std::make_unique<std::ifstream>(path, std::ios::binary);
  if (!*reader.file_) return Failure{"the recording cannot be opened", path.string(), "check its name"};
  if (const Outcome head = reader.readHead(); !head) return head.failure();
  if (const Outcome blocks = reader.findBlocks(); !blocks) return blocks.failure();
  reader.dark_.assign(reader.universes().size() * kUniverseChannels, 0);
  if (!reader.blocks_.empty()) {
    if (const auto last = reader.at(Micros::max()); !last) return last.failure();
    reader.length_ = std::clamp(reader.frameTime_, Micros(0), Micros(limits::kDay_us));
  }
  return reader;
}

Outcome RecordingReader::readHead() {
  std::uint32_t size = 0;
  if (!getWord(*file_, kMagic) || !get(*file_, size) || size > kMaxHeader)
    return Failure{"this is no recording of Chispa", path_.string(), "choose a file that it recorded"};
  std::string packed(size, '\0');
  if (!file_->read(packed.data(), size)) return damaged(path_, "the recording ends within its header");
  const auto length = ZSTD_getFrameContentSize(packed.data(), packed.size());
  if (length > kMaxHeader) return damaged(path_, "the recording's header is damaged");
  std::string text(length, '\0');
  if (ZSTD_decompress(text.data(), text.size(), packed.data(), packed.size()) != text.size())
    return damaged(path_, "the recording's header is damaged");
  auto head = parseHead(text, path_.string());
  if (!head) return head.failure();
  head_ = *std::move(head);
  return Done{};
}

Outcome RecordingReader::findBlocks() {
  // Block after block, so that a file without its index is read, too; the index is for readers that seek in
  // large files.
  for (;;) {
    const auto offset = static_cast<std::uint64_t>(file_->tellg());
    std::uint32_t frames = 0, size = 0;
    std::int64_t begins = 0;
    if (!getWord(*file_, kBlock) || !get(*file_, frames) || !get(*file_, size) || !get(*file_, begins)) break;
    file_->seekg(size, std::ios::cur);
    std::error_code error;
    if (!*file_ || static_cast<std::uint64_t>(file_->tellg()) > std::filesystem::file_size(path_, error))
      break;
    blocks_.push_back({Micros(begins), offset});
  }
  file_->clear();
  return Done{};
}

Outcome RecordingReader::begin(std::size_t block) {
  std::uint32_t frames = 0, size = 0;
  std::int64_t begins = 0;
  hasFrame_ = hasNext_ = false;
  reader_.reset();
  file_->clear();
  file_->seekg(static_cast<std::streamoff>(blocks_[block].offset));
  if (!getWord(*file_, kBlock) || !get(*file_, frames) || !get(*file_, size) || !get(*file_, begins))
    return damaged(path_, "a block of the recording cannot be read");
  const std::size_t frameSize = universes().size() * kUniverseChannels;
  if (frames > kMaxFramesOfBlock || frames * (sizeof(std::int64_t) + frameSize) > kMaxBytesOfBlock)
    return damaged(path_, "a block of the recording makes no sense");
  reader_ = std::make_unique<BlockReader>(*file_, size, frames, frameSize);
  block_ = block;
  hasNext_ = reader_->next();
  return reader_->isDamaged() ? damaged(path_, "a block of the recording is damaged") : Outcome(Done{});
}

/// Takes over the frame that was read ahead.
Outcome RecordingReader::step() {
  frame_.assign(reader_->values().begin(), reader_->values().end());
  frameTime_ = reader_->time();
  hasFrame_ = true;
  hasNext_ = reader_->next();
  return reader_->isDamaged() ? damaged(path_, "a block of the recording is damaged") : Outcome(Done{});
}

Result<std::span<const std::uint8_t>> RecordingReader::at(Micros t) {
  const auto next = std::upper_bound(blocks_.begin(), blocks_.end(), t,
                                     [](Micros wanted, const Block& block) { return wanted < block.begins; });
  if (next == blocks_.begin()) return std::span<const std::uint8_t>(dark_);
  const auto block = static_cast<std::size_t>(next - blocks_.begin()) - 1;
  // Frames say how they differ from the one before: going back begins the block anew.
  if (!reader_ || block != block_ || (hasFrame_ && t < frameTime_))
    if (const Outcome begun = begin(block); !begun) return begun.failure();
  while (hasNext_ && reader_->time() <= t)
    if (const Outcome stepped = step(); !stepped) return stepped.failure();
  return hasFrame_ ? std::span<const std::uint8_t>(frame_) : std::span<const std::uint8_t>(dark_);
}

}  // namespace chispa
