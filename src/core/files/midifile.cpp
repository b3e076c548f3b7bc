// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/files/midifile.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <map>
#include <optional>

#include "core/base/utf8.h"
#include "core/files/showfile.h"
#include "core/show/limits.h"

namespace chispa {
namespace {

constexpr std::size_t kMaxMidiBytes = 16u << 20;
constexpr std::size_t kMaxMarks = 200'000;
constexpr int kPulsesPerQuarter = 960;
constexpr double kPlainQuarter_us = 500'000;
constexpr std::array<const char*, 12> kNames = {"C",  "C#", "D",  "D#", "E",  "F",
                                                "F#", "G",  "G#", "A",  "A#", "B"};

// Kinds of meta events, after the byte 0xff.
constexpr int kLyric = 0x05;
constexpr int kMarker = 0x06;
constexpr int kTempo = 0x51;
constexpr int kSignature = 0x58;

/// The bytes of a file, read from the front; reading past the end gives 0 and is noticed. The MIDI library
/// that Debian has ends the program where a file is damaged, so files are read by this.
class Bytes {
 public:
  explicit Bytes(std::string_view all) : all_(all) {}
  bool isAtEnd() const { return at_ >= all_.size(); }
  bool isPastEnd() const { return isPast_; }
  int next() {
    if (isAtEnd()) {
      isPast_ = true;
      return 0;
    }
    return static_cast<unsigned char>(all_[at_++]);
  }
  int peek() const { return isAtEnd() ? 0 : static_cast<unsigned char>(all_[at_]); }
  std::uint32_t number(int bytes) {
    std::uint32_t sum = 0;
    for (int i = 0; i < bytes; ++i) sum = sum << 8 | static_cast<std::uint32_t>(next());
    return sum;
  }
  /// Seven bits a byte, at most four bytes.
  std::uint32_t quantity() {
    std::uint32_t sum = 0;
    for (int i = 0; i < 4; ++i) {
      const int byte = next();
      sum = sum << 7 | static_cast<std::uint32_t>(byte & 0x7f);
      if ((byte & 0x80) == 0) break;
    }
    return sum;
  }
  std::string_view take(std::size_t count) {
    isPast_ = isPast_ || count > all_.size() - at_;
    const auto taken = all_.substr(at_, count);
    at_ += taken.size();
    return taken;
  }

 private:
  std::string_view all_;
  std::size_t at_ = 0;
  bool isPast_ = false;
};

/// One event of interest, at its pulse.
struct Event {
  std::int64_t pulse = 0;
  /// Of a meta event its kind; else −1, and `status` and `first` are those of a note.
  int meta = -1;
  int status = 0;
  int first = 0;
  int velocity = 0;
  std::string text;
};

/// Appends a track's notes and meta events; false if it is damaged.
bool readTrack(Bytes track, std::vector<Event>& into) {
  std::int64_t pulse = 0;
  int running = 0;
  while (!track.isAtEnd() && into.size() < kMaxMarks) {
    pulse += track.quantity();
    int status = track.peek() & 0x80 ? track.next() : running;
    if (status == 0xff) {
      const int kind = track.next();
      const auto text = track.take(track.quantity());
      into.push_back({pulse, kind, 0, 0, 0, std::string(text)});
    } else if (status == 0xf0 || status == 0xf7) {
      track.take(track.quantity());
    } else if (status >= 0x80 && status < 0xf0) {
      running = status;
      const int first = track.next();
      const int family = status & 0xf0;
      const int second = family == 0xc0 || family == 0xd0 ? 0 : track.next();
      if (family == 0x80 || family == 0x90) into.push_back({pulse, -1, status, first, second, {}});
    } else {
      return false;
    }
  }
  return !track.isPastEnd();
}

/// Pulses of a quarter, and the events of all tracks in order of time; nothing if it is no such file.
struct Song {
  int pulsesPerQuarter = 0;
  std::vector<Event> events;
};
std::optional<Song> readSong(std::string_view all) {
  Bytes bytes(all);
  if (bytes.take(4) != "MThd" || bytes.number(4) != 6) return std::nullopt;
  const std::uint32_t format = bytes.number(2);
  const std::uint32_t tracks = bytes.number(2);
  Song song;
  song.pulsesPerQuarter = static_cast<int>(bytes.number(2));
  constexpr int kFilmFrames = 0x8000;
  if (format > 1 || song.pulsesPerQuarter == 0 || song.pulsesPerQuarter >= kFilmFrames) return std::nullopt;
  for (std::uint32_t i = 0; i < tracks && !bytes.isAtEnd();) {
    const auto kind = bytes.take(4);
    const auto content = bytes.take(bytes.number(4));
    if (bytes.isPastEnd()) return std::nullopt;
    if (kind != "MTrk") continue;
    if (!readTrack(Bytes(content), song.events)) return std::nullopt;
    ++i;
  }
  std::stable_sort(song.events.begin(), song.events.end(),
                   [](const Event& a, const Event& b) { return a.pulse < b.pulse; });
  return song;
}

/// When pulses fall, by the tempo events.
class TempoTrack {
 public:
  explicit TempoTrack(const Song& song) : perQuarter_(song.pulsesPerQuarter) {
    changes_.push_back({0, 0, kPlainQuarter_us});
    for (const Event& event : song.events) {
      if (event.meta != kTempo || event.text.size() < 3) continue;
      const auto byte = [&](std::size_t i) {
        return static_cast<double>(static_cast<unsigned char>(event.text[i]));
      };
      changes_.push_back({event.pulse, us(event.pulse), byte(0) * 65536 + byte(1) * 256 + byte(2)});
    }
  }
  Micros at(std::int64_t pulse) const { return Micros(static_cast<Micros::rep>(std::llround(us(pulse)))); }

 private:
  struct Change {
    std::int64_t pulse;
    double us;
    double quarter_us;
  };
  double us(std::int64_t pulse) const {
    const auto after = std::upper_bound(changes_.begin() + 1, changes_.end(), pulse,
                                        [](std::int64_t p, const Change& c) { return p < c.pulse; });
    const Change& from = *(after - 1);
    return from.us + static_cast<double>(pulse - from.pulse) * from.quarter_us / perQuarter_;
  }
  int perQuarter_;
  std::vector<Change> changes_;
};

/// Beats and bars from the beginning to the last event, by the signature that holds at each bar.
void readGrid(const Song& song, const TempoTrack& tempo, MidiMarks& into) {
  const std::int64_t end = song.events.empty() ? 0 : song.events.back().pulse;
  auto signature = song.events.begin();
  int beats = 4;
  std::int64_t step = song.pulsesPerQuarter;
  for (std::int64_t at = 0; at <= end && into.beats.size() < kMaxMarks;) {
    for (; signature != song.events.end() && signature->pulse <= at; ++signature) {
      if (signature->meta != kSignature || signature->text.size() < 2) continue;
      beats = std::clamp<int>(static_cast<unsigned char>(signature->text[0]), 1, 64);
      step = std::max<std::int64_t>(1, std::int64_t{song.pulsesPerQuarter} * 4 >>
                                           std::min<int>(static_cast<unsigned char>(signature->text[1]), 6));
    }
    into.bars.push_back({{}, tempo.at(at), {}, {}});
    for (int beat = 0; beat < beats && at <= end; ++beat, at += step)
      into.beats.push_back({{}, tempo.at(at), {}, {}});
  }
}

void readEvents(const Song& song, const TempoTrack& tempo, MidiMarks& into) {
  // Where each note of each channel that still sounds stands among the notes.
  std::map<std::pair<int, int>, std::size_t> sounding;
  for (const Event& event : song.events) {
    const Micros at = tempo.at(event.pulse);
    if (event.meta == kLyric) into.words.push_back({{}, at, asUtf8(event.text), {}});
    if (event.meta == kMarker) into.markers.push_back({{}, at, asUtf8(event.text), {}});
    if (event.meta >= 0) continue;
    const bool isOn = (event.status & 0xf0) == 0x90 && event.velocity > 0;
    const std::pair key{event.status & 0x0f, event.first};
    if (const auto on = sounding.find(key); on != sounding.end()) {
      into.notes[on->second].length = at - into.notes[on->second].at;
      sounding.erase(on);
    }
    if (!isOn) continue;
    sounding[key] = into.notes.size();
    into.notes.push_back({{}, at, noteName(event.first), {}});
  }
}

/// Instants as pulses, and back, by the tempo map that the beats give: a beat is a quarter.
class TempoMap {
 public:
  explicit TempoMap(std::vector<Micros> beats) : beats_(std::move(beats)) {
    // The piece begins at pulse 0: the beats are continued to its front.
    if (beats_.size() < 2) beats_ = {Micros(0), Micros(static_cast<Micros::rep>(kPlainQuarter_us))};
    if (beats_.front() > Micros(0)) beats_.insert(beats_.begin(), Micros(0));
  }
  const std::vector<Micros>& beats() const { return beats_; }
  int pulseOf(Micros at) const {
    const auto next = std::upper_bound(beats_.begin() + 1, beats_.end() - 1, at);
    const auto beat = static_cast<double>(next - beats_.begin() - 1);
    const Micros from = *(next - 1);
    const double share = seconds(at - from) / std::max(1e-6, seconds(*next - from));
    return std::max(0, static_cast<int>(std::lround((beat + share) * kPulsesPerQuarter)));
  }

 private:
  std::vector<Micros> beats_;
};

void putNumber(std::string& to, std::uint32_t value, int bytes) {
  for (int i = bytes - 1; i >= 0; --i) to.push_back(static_cast<char>(value >> (8 * i) & 255));
}

void putQuantity(std::string& to, std::uint32_t value) {
  for (int shift = 21; shift > 0; shift -= 7)
    if (value >> shift) to.push_back(static_cast<char>((value >> shift & 0x7f) | 0x80));
  to.push_back(static_cast<char>(value & 0x7f));
}

/// Events of a track that is being written, in any order.
class Track {
 public:
  void meta(int pulse, int kind, const std::string& content) {
    std::string bytes = {'\xff', static_cast<char>(kind)};
    putQuantity(bytes, static_cast<std::uint32_t>(content.size()));
    events_.push_back({pulse, 1, bytes + content});
  }
  void note(int pulse, bool isOn, int note) {
    constexpr char kVelocity = 96;
    // A note's end comes before what begins at the same instant.
    events_.push_back(
        {pulse, isOn ? 1 : 0, {static_cast<char>(isOn ? 0x90 : 0x80), static_cast<char>(note), kVelocity}});
  }
  std::string bytes() {
    std::stable_sort(events_.begin(), events_.end(), [](const One& a, const One& b) {
      return std::pair(a.pulse, a.order) < std::pair(b.pulse, b.order);
    });
    std::string content;
    int before = 0;
    for (const One& one : events_) {
      putQuantity(content, static_cast<std::uint32_t>(one.pulse - before));
      content += one.bytes;
      before = one.pulse;
    }
    content += std::string("\0\xff\x2f\0", 4);
    std::string all = "MTrk";
    putNumber(all, static_cast<std::uint32_t>(content.size()), 4);
    return all + content;
  }

 private:
  struct One {
    int pulse;
    int order;
    std::string bytes;
  };
  std::vector<One> events_;
};

Track tempoTrack(const TempoMap& map, const Score& score) {
  Track track;
  constexpr Micros::rep kMaxTempo = 0xff'ffff;
  for (std::size_t i = 0; i + 1 < map.beats().size(); ++i) {
    std::string quarter;
    putNumber(quarter,
              static_cast<std::uint32_t>(
                  std::clamp<Micros::rep>((map.beats()[i + 1] - map.beats()[i]).count(), 1, kMaxTempo)),
              3);
    track.meta(static_cast<int>(i) * kPulsesPerQuarter, kTempo, quarter);
  }
  const auto bars = instantsOf(score, LaneKind::Bars);
  int before = 0;
  for (std::size_t i = 0; i + 1 < bars.size(); ++i) {
    const int pulse = map.pulseOf(bars[i]);
    const auto beats = static_cast<int>(
        std::lround(static_cast<double>(map.pulseOf(bars[i + 1]) - pulse) / kPulsesPerQuarter));
    if (beats < 1 || beats > 64 || beats == before) continue;
    constexpr char kQuarter = 2, kClocks = 24, kNotesOfQuarter = 8;
    track.meta(pulse, kSignature, {static_cast<char>(beats), kQuarter, kClocks, kNotesOfQuarter});
    before = beats;
  }
  return track;
}

Track textTrack(const TempoMap& map, const MarkLane& lane, int kind) {
  Track track;
  for (const Mark& mark : lane.marks) track.meta(map.pulseOf(mark.at), kind, mark.text);
  return track;
}

Track noteTrack(const TempoMap& map, const MarkLane& lane, std::optional<int> note) {
  Track track;
  for (const Mark& mark : lane.marks) {
    constexpr Micros kStroke{50'000};
    const int own = note.value_or(noteOf(mark.text));
    const int on = map.pulseOf(mark.at);
    track.note(on, true, own);
    track.note(std::max(on + 1, map.pulseOf(mark.at + (mark.length.count() > 0 ? mark.length : kStroke))),
               false, own);
  }
  return track;
}

/// Of beats and bars nothing: they are the tempo track.
std::optional<Track> trackOf(const TempoMap& map, const MarkLane& lane) {
  switch (lane.kind) {
    case LaneKind::Words:
    case LaneKind::Phonemes:
      return textTrack(map, lane, kLyric);
    case LaneKind::Notes:
      return noteTrack(map, lane, std::nullopt);
    case LaneKind::LowOnsets:
      return noteTrack(map, lane, 36);
    case LaneKind::MiddleOnsets:
      return noteTrack(map, lane, 38);
    case LaneKind::HighOnsets:
      return noteTrack(map, lane, 42);
    case LaneKind::Sections:
    case LaneKind::Chords:
    case LaneKind::Free:
      return textTrack(map, lane, kMarker);
    case LaneKind::Beats:
    case LaneKind::Bars:
      break;
  }
  return std::nullopt;
}

}  // namespace

std::string noteName(int note) {
  return kNames[static_cast<std::size_t>(std::clamp(note, 0, 127) % 12)] +
         std::to_string(std::clamp(note, 0, 127) / 12 - 1);
}

int noteOf(const std::string& name) {
  for (int note = 0; note < 128; ++note)
    if (noteName(note) == name) return note;
  return 60;
}

Result<MidiMarks> parseMidi(std::string_view bytes, const std::string& where) {
  const auto song = readSong(bytes);
  if (!song)
    return Failure{"This is no MIDI file that can be read.", where,
                   "Choose a standard MIDI file, of format 0 or 1."};
  const TempoTrack tempo(*song);
  if (!song->events.empty() && tempo.at(song->events.back().pulse).count() > limits::kDay_us)
    return Failure{"It is longer than 24 hours.", where, "Divide it, or check the tempo that it says."};
  MidiMarks marks;
  readEvents(*song, tempo, marks);
  readGrid(*song, tempo, marks);
  return marks;
}

Result<MidiMarks> readMidi(const std::filesystem::path& path) {
  const auto bytes = readFile(path, kMaxMidiBytes);
  if (!bytes) return bytes.failure();
  return parseMidi(*bytes, path.string());
}

Outcome writeMidi(const std::filesystem::path& path, const Score& score) {
  const TempoMap map(instantsOf(score, LaneKind::Beats));
  std::vector<std::string> tracks = {tempoTrack(map, score).bytes()};
  for (const MarkLane& lane : score.lanes)
    if (auto track = lane.marks.empty() ? std::nullopt : trackOf(map, lane)) tracks.push_back(track->bytes());
  std::string all = "MThd";
  putNumber(all, 6, 4);
  putNumber(all, 1, 2);
  putNumber(all, static_cast<std::uint32_t>(tracks.size()), 2);
  putNumber(all, kPulsesPerQuarter, 2);
  for (const std::string& track : tracks) all += track;
  return writeFileAtomically(path, all);
}

}  // namespace chispa
