// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/board/frames.h"

#include <algorithm>
#include <array>
#include <map>
#include <numeric>
#include <set>

namespace chispa::board {
namespace {

using Bytes = Blob::Bytes;
/// The channels of a value; those that it has not are 0.
using Colour = std::array<std::uint8_t, 4>;

/// Kinds of steps, and what stands in place of a frame (kit/player.c).
constexpr std::uint8_t kSkip = 0, kSame = 1, kEach = 2, kCopy = 3;
constexpr std::uint8_t kEndOfFrame = 0, kInstead = 63, kStays = 0, kAgain = 1;
constexpr int kMaxDepth = 3;
constexpr std::size_t kShortCount = 61, kMaxCount = 62 + 255;
constexpr std::size_t kMaxColours = 256;
constexpr std::size_t kMaxBack = 255;

Colour colourAt(const Bytes& frame, std::size_t value, int channels) {
  Colour colour{};
  std::copy_n(frame.begin() + static_cast<std::ptrdiff_t>(value) * channels, channels, colour.begin());
  return colour;
}

/// Writes single frames as changes of the one before.
class FrameCoder {
 public:
  FrameCoder(const FrameSequence& sequence) : sequence_(sequence) {
    std::set<Colour> all;
    for (const Bytes& frame : sequence.frames)
      for (std::size_t v = 0; v < sequence.values.size() && all.size() <= kMaxColours; ++v)
        all.insert(colourAt(frame, v, sequence.channels));
    if (all.size() > kMaxColours) return;
    for (const Colour& colour : all) {
      numberOf_[colour] = static_cast<std::uint8_t>(colours_.size());
      colours_.push_back(colour);
    }
  }

  const std::vector<Colour>& colours() const { return colours_; }

  Bytes change(const Bytes& before, const Bytes& now) const {
    Bytes out;
    Bytes literal;
    std::size_t literals = 0;
    const auto flush = [&] {
      if (literals == 0) return;
      putStep(out, kEach, literals);
      out.insert(out.end(), literal.begin(), literal.end());
      literal.clear();
      literals = 0;
    };
    const std::size_t count = sequence_.values.size();
    for (std::size_t i = 0; i < count;) {
      const std::size_t same = unchanged(before, now, i);
      if (i + same == count) break;
      const std::size_t run = runAt(now, i);
      const auto [copied, back] = copyAt(now, i);
      // What costs less than writing each colour, the steps around it counted.
      if (same > 0 && (literals == 0 || same * colourBytes() >= 2)) {
        flush();
        putStep(out, kSkip, std::min(same, kMaxCount));
        i += std::min(same, kMaxCount);
      } else if (copied > run && copied * colourBytes() > 2 + (literals > 0 ? 1u : 0u)) {
        flush();
        putStep(out, kCopy, copied);
        out.push_back(static_cast<std::uint8_t>(back));
        i += copied;
      } else if (run * colourBytes() > colourBytes() + 1 + (literals > 0 ? 1u : 0u)) {
        flush();
        putStep(out, kSame, run);
        putColour(out, colourAt(now, i, sequence_.channels));
        i += run;
      } else {
        if (literals == kMaxCount) flush();
        putColour(literal, colourAt(now, i, sequence_.channels));
        ++literals;
        ++i;
      }
    }
    flush();
    out.push_back(kEndOfFrame);
    return out;
  }

 private:
  std::size_t colourBytes() const {
    return colours_.empty() ? static_cast<std::size_t>(sequence_.channels) : 1;
  }
  bool areSame(const Bytes& a, std::size_t i, const Bytes& b, std::size_t j) const {
    const int c = sequence_.channels;
    return std::equal(a.begin() + static_cast<std::ptrdiff_t>(i) * c,
                      a.begin() + static_cast<std::ptrdiff_t>(i + 1) * c,
                      b.begin() + static_cast<std::ptrdiff_t>(j) * c);
  }
  std::size_t unchanged(const Bytes& before, const Bytes& now, std::size_t from) const {
    std::size_t i = from;
    while (i < sequence_.values.size() && areSame(before, i, now, i)) ++i;
    return i - from;
  }
  std::size_t runAt(const Bytes& now, std::size_t from) const {
    std::size_t i = from;
    while (i < sequence_.values.size() && i - from < kMaxCount && areSame(now, from, now, i)) ++i;
    return i - from;
  }
  /// The longest stretch from `from` on that repeats what stands so many values before it on the strip.
  std::pair<std::size_t, std::size_t> copyAt(const Bytes& now, std::size_t from) const {
    std::pair<std::size_t, std::size_t> best{0, 0};
    for (std::size_t j = from; j-- > 0;) {
      const auto back = static_cast<std::size_t>(sequence_.values[from] - sequence_.values[j]);
      if (back > kMaxBack) break;
      std::size_t n = 0;
      while (from + n < sequence_.values.size() && n < kMaxCount && areSame(now, from + n, now, j + n) &&
             static_cast<std::size_t>(sequence_.values[from + n] - sequence_.values[j + n]) == back)
        ++n;
      if (n > best.first) best = {n, back};
    }
    return best;
  }
  static void putStep(Bytes& out, std::uint8_t kind, std::size_t count) {
    if (count <= kShortCount) return out.push_back(static_cast<std::uint8_t>(std::size_t{kind} << 6 | count));
    out.push_back(static_cast<std::uint8_t>(kind << 6 | 62));
    out.push_back(static_cast<std::uint8_t>(count - 62));
  }
  void putColour(Bytes& out, const Colour& colour) const {
    if (!colours_.empty()) return out.push_back(numberOf_.at(colour));
    out.insert(out.end(), colour.begin(), colour.begin() + sequence_.channels);
  }

  const FrameSequence& sequence_;
  std::vector<Colour> colours_;
  std::map<Colour, std::uint8_t> numberOf_;
};

/// Writes changes one after the other, those that came before as repeats.
class StreamWriter {
 public:
  /// `base` is where the stream begins in the data.
  StreamWriter(const std::vector<Bytes>& changes, std::size_t base, int maxDepth)
      : changes_(changes),
        base_(base),
        maxDepth_(maxDepth),
        startOf_(changes.size()),
        depthOf_(changes.size()) {
    std::map<Bytes, int> numbers;
    for (const Bytes& change : changes)
      numberOf_.push_back(numbers.try_emplace(change, static_cast<int>(numbers.size())).first->second);
  }

  /// Frames `first` up to `end`, which repeat frames before them.
  void write(std::size_t first, std::size_t end) {
    for (std::size_t i = first; i < end;) {
      if (const std::size_t again = repeatAt(i, end)) {
        i += again;
      } else if (const std::size_t held = heldAt(i, end); held > 4) {
        mark(i, held, 0);
        out_.push_back(kInstead);
        out_.push_back(kStays);
        putBytes(out_, held, 2);
        i += held;
      } else {
        mark(i, 1, 0);
        out_.insert(out_.end(), changes_[i].begin(), changes_[i].end());
        remember(i++);
      }
    }
  }
  /// Plays frames `first` up to the last again, for ever.
  void loopFrom(std::size_t first) { putRepeat(*startOf_[first], changes_.size() - first, 0); }

  const Bytes& bytes() const { return out_; }

 private:
  static constexpr std::size_t kMaxFrames = 65535;

  struct Match {
    std::size_t from = 0;
    std::size_t frames = 0;
    std::size_t rounds = 1;
    std::size_t saved = 0;
    std::size_t covered() const { return frames * rounds; }
  };

  void mark(std::size_t first, std::size_t count, int depth) {
    startOf_[first] = base_ + out_.size();
    for (std::size_t i = first; i < first + count; ++i) depthOf_[i] = depth;
  }
  void remember(std::size_t i) { placesOf_[numberOf_[i]].push_back(i); }

  std::size_t heldAt(std::size_t i, std::size_t end) const {
    std::size_t n = i;
    while (n < end && n - i < kMaxFrames && changes_[n].size() == 1) ++n;
    return n - i;
  }

  int depthFrom(std::size_t first, std::size_t count) const {
    return *std::max_element(depthOf_.begin() + static_cast<std::ptrdiff_t>(first),
                             depthOf_.begin() + static_cast<std::ptrdiff_t>(first + count));
  }

  std::optional<Match> matchAt(std::size_t i, std::size_t j, std::size_t end) const {
    if (!startOf_[j]) return std::nullopt;
    std::size_t n = 0;
    while (i + n < end && n < kMaxFrames && numberOf_[j + n] == numberOf_[i + n]) ++n;
    Match match{j, std::min(n, i - j), 1, 0};
    if (n > match.frames) match.rounds = std::min(n / match.frames, kMaxFrames);
    if (match.frames == 0 || depthFrom(j, match.frames) + 1 > maxDepth_) return std::nullopt;
    std::size_t bytes = 0;
    for (std::size_t k = i; k < i + match.covered(); ++k) bytes += changes_[k].size();
    match.saved = bytes;
    return match;
  }

  /// Writes the best repeat at `i` if it saves anything; returns the frames that it covers.
  std::size_t repeatAt(std::size_t i, std::size_t end) {
    constexpr std::size_t kBytes = 9;
    constexpr std::size_t kMaxTried = 400;
    const auto places = placesOf_.find(numberOf_[i]);
    if (places == placesOf_.end()) return 0;
    Match best;
    std::size_t tried = 0;
    for (auto j = places->second.rbegin(); j != places->second.rend() && tried < kMaxTried; ++j, ++tried)
      if (const auto match = matchAt(i, *j, end); match && match->saved > best.saved) best = *match;
    if (best.saved <= kBytes) return 0;
    mark(i, best.covered(), depthFrom(best.from, best.frames) + 1);
    putRepeat(*startOf_[best.from], best.frames, best.rounds);
    remember(i);
    return best.covered();
  }

  void putRepeat(std::size_t from, std::size_t frames, std::size_t rounds) {
    out_.push_back(kInstead);
    out_.push_back(kAgain);
    putBytes(out_, from, 3);
    putBytes(out_, frames, 2);
    putBytes(out_, rounds, 2);
  }

  const std::vector<Bytes>& changes_;
  std::size_t base_;
  int maxDepth_;
  Bytes out_;
  std::vector<int> numberOf_;
  /// Where frames begin that can be gone to, and how deep in repeats each lies.
  std::vector<std::optional<std::size_t>> startOf_;
  std::vector<int> depthOf_;
  std::map<int, std::vector<std::size_t>> placesOf_;
};

/// The head of a body: runs of values, and colours.
Bytes headOf(const FrameSequence& sequence, const std::vector<Colour>& colours) {
  Bytes runs;
  int count = 0;
  for (std::size_t i = 0; i < sequence.values.size();) {
    std::size_t n = i + 1;
    while (n < sequence.values.size() && sequence.values[n] == sequence.values[n - 1] + 1) ++n;
    putBytes(runs, sequence.values[i], 2);
    putBytes(runs, n - i, 2);
    ++count;
    i = n;
  }
  Bytes head;
  putBytes(head, static_cast<std::uint64_t>(count), 2);
  head.insert(head.end(), runs.begin(), runs.end());
  putBytes(head, colours.size(), 2);
  for (const Colour& colour : colours)
    head.insert(head.end(), colour.begin(), colour.begin() + sequence.channels);
  return head;
}

// ---- Fewer colours ----

using Counted = std::pair<Colour, std::size_t>;

std::size_t widestChannel(const std::vector<Counted>& box, int& width) {
  width = -1;
  std::size_t widest = 0;
  for (std::size_t c = 0; c < 4; ++c) {
    const auto [low, high] = std::minmax_element(
        box.begin(), box.end(), [c](const Counted& a, const Counted& b) { return a.first[c] < b.first[c]; });
    if (high->first[c] - low->first[c] <= width) continue;
    width = high->first[c] - low->first[c];
    widest = c;
  }
  return widest;
}

std::vector<std::vector<Counted>> boxesOf(std::vector<Counted> all, std::size_t count) {
  std::vector<std::vector<Counted>> boxes = {std::move(all)};
  while (boxes.size() < count) {
    std::size_t which = 0, channel = 0;
    int most = 0;
    for (std::size_t i = 0; i < boxes.size(); ++i) {
      int width = 0;
      const std::size_t widest = widestChannel(boxes[i], width);
      if (boxes[i].size() < 2 || width <= most) continue;
      most = width;
      which = i;
      channel = widest;
    }
    if (most == 0) break;
    auto& box = boxes[which];
    std::sort(box.begin(), box.end(),
              [channel](const Counted& a, const Counted& b) { return a.first[channel] < b.first[channel]; });
    // In the middle of its width, so that rare bright colours are not lost among many dim ones.
    const int middle = (box.front().first[channel] + box.back().first[channel] + 1) / 2;
    auto cut = std::find_if(box.begin(), box.end(),
                            [&](const Counted& one) { return one.first[channel] >= middle; });
    if (cut == box.begin()) ++cut;
    boxes.emplace_back(cut, box.end());
    boxes[which].erase(boxes[which].end() - static_cast<std::ptrdiff_t>(boxes.back().size()),
                       boxes[which].end());
  }
  return boxes;
}

Colour meanOf(const std::vector<Counted>& box) {
  std::array<double, 4> sum{};
  double count = 0;
  for (const auto& [colour, times] : box) {
    for (std::size_t c = 0; c < 4; ++c) sum[c] += static_cast<double>(colour[c]) * static_cast<double>(times);
    count += static_cast<double>(times);
  }
  Colour mean{};
  for (std::size_t c = 0; c < 4; ++c) mean[c] = static_cast<std::uint8_t>(sum[c] / count + 0.5);
  return mean;
}

}  // namespace

std::size_t writeFrames(const FrameSequence& sequence, Blob& blob) {
  const FrameCoder coder(sequence);
  std::vector<Bytes> changes;
  Bytes before(sequence.values.size() * static_cast<std::size_t>(sequence.channels), 0);
  for (const Bytes& frame : sequence.frames) {
    changes.push_back(coder.change(before, frame));
    before = frame;
  }
  const std::optional<std::size_t> loop = sequence.loopsFrom;
  if (loop) changes.push_back(coder.change(before, sequence.frames[*loop]));
  const Bytes head = headOf(sequence, coder.colours());
  StreamWriter stream(changes, blob.size() + head.size(), loop ? kMaxDepth - 1 : kMaxDepth);
  if (loop) {
    stream.write(0, *loop + 1);
    stream.write(*loop + 1, changes.size());
    stream.loopFrom(*loop + 1);
  } else {
    stream.write(0, changes.size());
  }
  const std::size_t at = blob.append(head);
  blob.append(stream.bytes());
  return at;
}

void reduceColours(FrameSequence& sequence, int count) {
  std::map<Colour, std::size_t> all;
  for (const Bytes& frame : sequence.frames)
    for (std::size_t v = 0; v < sequence.values.size(); ++v) ++all[colourAt(frame, v, sequence.channels)];
  if (all.size() <= static_cast<std::size_t>(count)) return;
  // Dark stays dark.
  std::map<Colour, Colour> insteadOf = {{Colour{}, Colour{}}};
  all.erase(Colour{});
  for (const auto& box :
       boxesOf({all.begin(), all.end()}, static_cast<std::size_t>(std::max(1, count - 1)))) {
    const Colour mean = meanOf(box);
    for (const auto& [colour, times] : box) insteadOf[colour] = mean;
  }
  for (Bytes& frame : sequence.frames)
    for (std::size_t v = 0; v < sequence.values.size(); ++v)
      std::copy_n(insteadOf.at(colourAt(frame, v, sequence.channels)).begin(), sequence.channels,
                  frame.begin() + static_cast<std::ptrdiff_t>(v) * sequence.channels);
}

}  // namespace chispa::board
