// SPDX-License-Identifier: GPL-3.0-or-later
#include "link/miditimecode.h"

#include <algorithm>

namespace chispa::link {
namespace {

constexpr std::uint8_t kQuarterFrame = 0xf1;
constexpr std::uint8_t kEndOfExclusive = 0xf7;
/// Of the full message: universal, real time, any device, time code, full.
constexpr std::array<std::uint8_t, 2> kUniversalRealTime{0xf0, 0x7f};
constexpr std::array<std::uint8_t, 2> kFullTimeCode{0x01, 0x01};
constexpr std::size_t kFullTimeCodeSize = 10;

/// A kind of time code: what its frames are numbered to, and how long one is.
struct CodeRate {
  int frames;
  double frame_us;
  bool drops;
};
constexpr std::array<CodeRate, 4> kCodeRates{
    {{24, 1e6 / 24, false}, {25, 1e6 / 25, false}, {30, 1e6 * 1001 / 30'000, true}, {30, 1e6 / 30, false}}};

struct CodeLabel {
  int kind;
  int hours;
  int minutes;
  int seconds;
  int frames;
};

/// The time of `label` and `quarters` of a frame behind it; nothing if there is no such time.
std::optional<Micros> timeOf(const CodeLabel& label, int quarters) {
  const CodeRate& rate = kCodeRates[static_cast<std::size_t>(label.kind)];
  if (label.hours > 23 || label.minutes > 59 || label.seconds > 59 || label.frames >= rate.frames)
    return std::nullopt;
  const int minutes = label.hours * 60 + label.minutes;
  int frames = (minutes * 60 + label.seconds) * rate.frames + label.frames;
  // Two numbers are left out in each minute, but for every tenth (SMPTE ST 12-1, drop frame).
  if (rate.drops) frames -= 2 * (minutes - minutes / 10);
  return Micros(static_cast<std::int64_t>((frames + quarters / 4.0) * rate.frame_us + 0.5));
}

}  // namespace

std::optional<TimeCode> TimeCodeReader::read(std::span<const std::uint8_t> message) {
  if (message.size() == 2 && message[0] == kQuarterFrame && message[1] < 0x80) return readPiece(message[1]);
  if (message.size() != kFullTimeCodeSize ||
      !std::equal(kUniversalRealTime.begin(), kUniversalRealTime.end(), message.begin()) ||
      !std::equal(kFullTimeCode.begin(), kFullTimeCode.end(), message.begin() + 3) ||
      message[9] != kEndOfExclusive)
    return std::nullopt;
  inRow_ = 0;
  const auto at = timeOf({message[5] >> 5 & 3, message[5] & 31, message[6], message[7], message[8]}, 0);
  if (!at) return std::nullopt;
  return TimeCode{*at, false};
}

std::optional<TimeCode> TimeCodeReader::readPiece(std::uint8_t data) {
  const int piece = data >> 4;
  const int step = lastPiece_ ? (piece - *lastPiece_ + kPieces) % kPieces : 0;
  const int direction = step == 1 ? 1 : step == kPieces - 1 ? -1 : 0;
  inRow_ = direction == 0 ? 1 : direction == direction_ ? std::min(inRow_ + 1, kPieces) : 2;
  direction_ = direction;
  lastPiece_ = piece;
  pieces_[static_cast<std::size_t>(piece)] = data & 15;
  const bool isForward = direction_ > 0;
  if (inRow_ < kPieces || piece != (isForward ? kPieces - 1 : 0)) return std::nullopt;
  const auto whole = [&](std::size_t low) { return pieces_[low] | pieces_[low + 1] << 4; };
  const int hours = whole(6);
  // The label is that of the frame in which the first of the eight was sent. Backwards that is piece 7, and
  // what it says lies ahead of where the clock has come to.
  const auto at =
      timeOf({hours >> 5 & 3, hours & 31, whole(4), whole(2), whole(0)}, isForward ? kPieces - 1 : 0);
  if (!at) return std::nullopt;
  return TimeCode{*at, isForward};
}

}  // namespace chispa::link
