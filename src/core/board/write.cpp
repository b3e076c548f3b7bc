// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/board/write.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <numeric>
#include <set>

#include "core/board/blob.h"
#include "core/board/frames.h"
#include "core/board/player.h"
#include "core/board/program.h"
#include "core/board/stack.h"
#include "core/board/stretches.h"
#include "core/colour/difference.h"

namespace chispa::board {
namespace {

using Bytes = Blob::Bytes;

/// After so many values that are wrong nothing more is compared.
constexpr std::size_t kHopeless = 1000;
/// A look that lasts is compared for so long.
constexpr double kCheckedLook_s = 30;

/// A part as it is written in a scene's list.
struct PartEntry {
  std::uint32_t first = 0;
  std::uint32_t end = kNever;
  /// As the player numbers them.
  enum Kind : std::uint8_t { Frames, Program, Sweep };
  Kind kind = Frames;
  std::size_t body = 0;
  /// Steps that a program takes for a frame; frames take none.
  long steps = 0;
};

/// Writes one scene after the other into a blob.
class BoardWriter {
 public:
  BoardWriter(const Show& show, const CompiledShow& compiled, const BoardPlan& plan, BoardStrip strip,
              BoardStrip every, const Progress& progress)
      : show_(show),
        compiled_(compiled),
        plan_(plan),
        strip_(std::move(strip)),
        every_(std::move(every)),
        progress_(progress) {}

  Result<BoardLight> write() {
    writeHead();
    for (std::size_t i = 0; i < plan_.scenes.size(); ++i) {
      sceneNumber_ = i;
      if (!writeScene(plan_.scenes[i])) return Failure{};
      if (out_.maxParts > kMaxParts)
        return Failure{"“" + out_.scenes.back().name + "” lights " + std::to_string(out_.maxParts) +
                           " zones at once, and a board plays " + std::to_string(kMaxParts) + ".",
                       {},
                       "Choose less for its data line."};
      if (blob_.size() > kMaxData)
        return Failure{"The light takes more than " + std::to_string(kMaxData / 1'000'000) +
                           " MB, which is more than a board's data can hold.",
                       {},
                       "Choose fewer scenes, or shorter ones."};
    }
    out_.options = plan_.options;
    out_.data = blob_.bytes();
    out_.pixels = strip_.pixelCount();
    out_.frameBytes = strip_.valueCount() * strip_.channels();
    out_.sentBytes = strip_.byteCount();
    out_.volts = strip_.volts();
    for (std::size_t i = 0; i < plan_.scenes.size(); ++i)
      if (!judge(i)) return Failure{};
    return std::move(out_);
  }

 private:
  static constexpr std::size_t kMaxData = 16'000'000;
  /// As host/light.h has room for.
  static constexpr int kMaxParts = 64;

  /// Where it is told where the present scene is.
  std::size_t sceneEntry() const { return sceneTable_ + 3 * sceneNumber_; }
  int rate() const { return plan_.options.framesPerSecond; }
  bool goOn(double share) const {
    return !progress_ || progress_((static_cast<double>(sceneNumber_) + share) /
                                   static_cast<double>(std::max<std::size_t>(1, plan_.scenes.size())));
  }

  void writeHead() {
    constexpr std::uint8_t kVersion = 1;
    Bytes head = {kVersion, static_cast<std::uint8_t>(plan_.scenes.size()), static_cast<std::uint8_t>(rate()),
                  static_cast<std::uint8_t>(strip_.channels())};
    Bytes colours = strip_.colourOfChannel();
    colours.resize(4, 0);
    head.insert(head.end(), colours.begin(), colours.end());
    putBytes(head, static_cast<std::uint64_t>(strip_.pixelCount()), 2);
    const ChipMix& mix = strip_.mix();
    const bool hasPoint = mix.white != Rgb{1, 1, 1};
    const auto thresholds = strip_.thresholds();
    head.push_back(static_cast<std::uint8_t>((mix.hasWhite ? 1 : 0) | (hasPoint ? 2 : 0) |
                                             (thresholds.empty() ? 0 : 4)));
    for (const float share : {mix.white.r, mix.white.g, mix.white.b})
      putBytes(head, static_cast<std::uint64_t>(std::lround(std::min(share, 1.f) * 65535)), 2);
    const std::size_t size = head.size() + 3 + 1 + 3 * plan_.scenes.size();
    putBytes(head, thresholds.empty() ? 0 : size, 3);
    head.push_back(static_cast<std::uint8_t>(strip_.pixelsPerValue()));
    sceneTable_ = head.size();
    head.resize(size, 0);
    for (const std::uint16_t threshold : thresholds) putBytes(head, threshold, 2);
    blob_.append(head);
  }

  // ---- Scenes ----

  bool writeScene(const BoardOrder& order) {
    BoardScene scene(show_, compiled_, order.scene);
    const std::size_t before = blob_.size();
    BoardSceneReport report;
    report.name = scene.name();
    report.seconds = seconds(scene.length());
    if (!renderScene(scene)) return false;
    parts_.clear();
    const std::vector<StaveOnBoard> staves = stavesOnBoard(show_, scene, strip_);
    if (scene.round().count() > 0)
      writeAsFrames(scene, "a look with steps is kept as frames", report);
    else
      for (const auto& group : groupsOf(staves)) writeGroup(scene, staves, group, report);
    writeSceneTable(order, framesOf(scene, rate()));
    report.bytes = blob_.size() - before;
    out_.scenes.push_back(std::move(report));
    countParts();
    return true;
  }

  /// The bytes of all frames that are needed, at the board's rate.
  bool renderScene(BoardScene& scene) {
    const std::uint32_t all = framesOf(scene, rate());
    double last_s = kCheckedLook_s;
    if (scene.isLook()) last_s = std::max({last_s, plan_.options.lookSeconds, 2 * seconds(scene.round())});
    const std::uint32_t frames = all > 0 ? all : static_cast<std::uint32_t>(last_s * rate());
    full_.clear();
    middle_.clear();
    for (std::uint32_t i = 0; i < frames; ++i) {
      scene.render(timeOf(i, rate()), frame_);
      full_.push_back(strip_.bytesOf(frame_));
      if (strip_.pixelsPerValue() > 1) middle_.push_back(strip_.middleBytesOf(frame_));
      noteCurrent(full_.back());
      if (i % 64 == 0 && !goOn(0.5 * i / frames)) return false;
    }
    return true;
  }
  void noteCurrent(const Bytes& bytes) {
    double sum = 0;
    for (const std::uint8_t byte : bytes) sum += strip_.response().lightOf(byte / 255.0);
    out_.most_a = std::max(out_.most_a, sum * strip_.channel_ma() * strip_.pixelsPerValue() / 1000);
  }

  void writeGroup(BoardScene& scene, const std::vector<StaveOnBoard>& staves,
                  const std::vector<std::size_t>& group, BoardSceneReport& report) {
    // Neighbouring stretches that have to be frames are kept together.
    std::vector<Stretch> asFrames;
    std::string reason;
    const auto flush = [&] {
      if (!asFrames.empty()) writeStretches(scene, staves, asFrames, reason, report);
      asFrames.clear();
    };
    for (const Stretch& stretch : stretchesOf(scene, staves, group, rate())) {
      std::string why;
      if (writeProgramFor(scene, staves, stretch, report, why)) {
        flush();
        continue;
      }
      if (!asFrames.empty() && asFrames.back().end != stretch.first) flush();
      if (asFrames.empty()) reason = why;
      asFrames.push_back(stretch);
    }
    flush();
  }
  static std::string effectsOf(const CompiledStave& stave, const std::vector<std::size_t>& shown) {
    std::string text;
    for (const std::size_t i : shown) text += (text.empty() ? "" : " + ") + stave.clips()[i].effect->name;
    return text;
  }
  void setSpan(const Stretch& stretch, BoardPart& part) const {
    part.from_s = seconds(timeOf(stretch.first, rate()));
    part.to_s = stretch.end == kNever ? -1 : seconds(timeOf(stretch.end, rate()));
  }

  /// Keeps the stretch as a program if that is possible, right and smaller; else tells why not.
  bool writeProgramFor(BoardScene& scene, const std::vector<StaveOnBoard>& staves, const Stretch& stretch,
                       BoardSceneReport& report, std::string& why) {
    if (stretch.lit.size() > 1) {
      why = "zones that share pixels are lit at once";
      return false;
    }
    const StaveOnBoard& one = staves[stretch.lit.front().first];
    const std::vector<std::size_t>& shown = stretch.lit.front().second;
    // What was worked out beforehand may have become too coarse.
    if (const Tried first = tryProgram(scene, one, shown, stretch, true, report, why); first != Tried::Wrong)
      return first == Tried::Kept;
    return tryProgram(scene, one, shown, stretch, false, report, why) == Tried::Kept;
  }

  enum class Tried {
    Kept,
    Wrong,    ///< what it shows is not right
    Refused,  ///< another try would end the same way
  };
  Tried tryProgram(BoardScene& scene, const StaveOnBoard& one, const std::vector<std::size_t>& shown,
                   const Stretch& stretch, bool condenses, BoardSceneReport& report, std::string& why) {
    Graph graph;
    const StackLight light = stackLight(graph, scene, *one.stave, shown, one.keptCells, condenses);
    if (!light.light) {
      why = light.refusal;
      return Tried::Refused;
    }
    std::array<Term, 3> colours = *light.light;
    // What a strip of one colour takes is what the three have in common: how bright the colour is.
    if (strip_.mix().whites) colours.fill(0.2126 * colours[0] + 0.7152 * colours[1] + 0.0722 * colours[2]);
    const std::size_t before = blob_.size();
    const auto written = writeProgram(graph, colours, one.cellValues, strip_.response(), blob_);
    if (!written) {
      why = "its program would be too large";
      return Tried::Refused;
    }
    BoardPart part;
    part.zone = one.zone;
    part.effects = effectsOf(*one.stave, shown);
    part.isProgram = true;
    part.bytes = blob_.size() - before + kEntryBytes;
    setSpan(stretch, part);
    measure(scene, stretch, {one.values.begin(), one.values.end()}, *written, part);
    if (part.meanError > kMaxMeanError || part.specks > kMaxSpecks) {
      why = "as a program it would be off by " + std::to_string(std::lround(part.maxError)) + " of 255";
      blob_.cutTo(before);
      return Tried::Wrong;
    }
    if (written->at >= before && framesAreSmaller(stretch, one, part.bytes)) {
      why = "frames are smaller";
      blob_.cutTo(before);
      return Tried::Refused;
    }
    parts_.push_back({stretch.first, stretch.end, kindOf(*written), written->at,
                      written->stepsOfFrame +
                          static_cast<long>(written->stepsOfCell) * static_cast<long>(one.keptCells.size())});
    out_.registers = std::max(out_.registers, written->registers);
    report.parts.push_back(std::move(part));
    return Tried::Kept;
  }

  bool framesAreSmaller(const Stretch& stretch, const StaveOnBoard& one, std::size_t bytes) {
    const std::size_t before = blob_.size();
    FrameSequence sequence =
        sequenceOf(stretch.first, endOf(stretch), {one.values.begin(), one.values.end()});
    if (stretch.end == kNever && !findLoop(sequence)) return false;
    writeFrames(sequence, blob_);
    const std::size_t size = blob_.size() - before + kEntryBytes;
    blob_.cutTo(before);
    return size < bytes;
  }

  std::uint32_t endOf(const Stretch& stretch) const {
    return std::min(stretch.end, static_cast<std::uint32_t>(full_.size()));
  }

  /// Plays the program alone and compares what it shows with the full light.
  void measure(BoardScene& scene, const Stretch& stretch, const std::vector<std::uint16_t>& values,
               const WrittenProgram& written, BoardPart& part) {
    // A scene of this part alone, for the time being.
    const std::size_t trial =
        blob_.append(sceneBytes({{stretch.first, stretch.end, kindOf(written), written.at}}, 0, 0));
    blob_.setThree(sceneEntry(), trial);
    BoardPlayer player(blob_.bytes());
    player.begin(static_cast<int>(sceneNumber_));
    double sum = 0;
    std::size_t count = 0, specks = 0;
    for (std::uint32_t frame = stretch.first; frame < endOf(stretch); ++frame) {
      const auto shown = player.frame(frame);
      std::vector<Bytes> near;
      for (const std::uint16_t value : values) {
        const double error = errorAt(shown, middle_.empty() ? full_[frame] : middle_[frame], value);
        ++count;
        if (error > kMaxError && near.empty()) near = lightNear(scene, frame);
        const double least = error > kMaxError ? errorNear(near, shown, value) : error;
        sum += least;
        if (least > kMaxError) ++specks;
        part.maxError = std::max(part.maxError, least);
      }
      if (specks > kHopeless) break;
    }
    blob_.cutTo(trial);
    part.meanError = count > 0 ? sum / static_cast<double>(count) : 0;
    part.specks = count > 0 ? static_cast<double>(specks) / static_cast<double>(count) : 0;
  }
  double errorAt(std::span<const std::uint8_t> shown, const Bytes& full, std::uint16_t value) const {
    const auto channels = static_cast<std::size_t>(strip_.channels());
    const std::size_t from = value * channels;
    double most = 0;
    for (std::size_t c = 0; c < channels; ++c)
      most = std::max(most,
                      std::abs(static_cast<double>(shown[from + c]) - static_cast<double>(full[from + c])));
    return most;
  }
  /// The light about a frame: where it jumps, the board may be a millisecond early or late.
  std::vector<Bytes> lightNear(BoardScene& scene, std::uint32_t frame) {
    std::vector<Bytes> near;
    for (const int ms : {-1, 0, 1}) {
      scene.render(std::max(Micros(0), timeOf(frame, rate()) + Micros(ms * 1000)), frame_);
      near.push_back(strip_.middleBytesOf(frame_));
    }
    return near;
  }
  double errorNear(const std::vector<Bytes>& near, std::span<const std::uint8_t> shown,
                   std::uint16_t value) const {
    double least = 255;
    for (const Bytes& light : near) least = std::min(least, errorAt(shown, light, value));
    return least;
  }

  // ---- Frames ----

  FrameSequence sequenceOf(std::uint32_t first, std::uint32_t end,
                           const std::vector<std::uint16_t>& values) const {
    FrameSequence sequence;
    sequence.channels = strip_.channels();
    sequence.values = values;
    const auto channels = static_cast<std::size_t>(strip_.channels());
    for (std::uint32_t i = first; i < end; ++i) {
      Bytes frame;
      for (const std::uint16_t value : values)
        frame.insert(frame.end(), full_[i].begin() + static_cast<std::ptrdiff_t>(value * channels),
                     full_[i].begin() + static_cast<std::ptrdiff_t>((value + 1) * channels));
      sequence.frames.push_back(std::move(frame));
    }
    return sequence;
  }

  /// Cuts the sequence to where it begins to come again, if it does by itself.
  static bool findLoop(FrameSequence& sequence) {
    auto& frames = sequence.frames;
    const std::size_t count = frames.size();
    for (std::size_t period = 1; period <= count / 2; ++period) {
      std::size_t same = 0;
      while (same + period < count && frames[count - 1 - same] == frames[count - 1 - same - period]) ++same;
      if (same < period || same < count / 2) continue;
      const std::size_t from = count - period - same;
      frames.resize(from + period);
      sequence.loopsFrom = from;
      return true;
    }
    return false;
  }
  /// Lets the end of the sequence pass into its beginning, so that it comes again without a jump.
  void makeLoop(FrameSequence& sequence, std::size_t length) const {
    auto& frames = sequence.frames;
    frames.resize(std::min(length, frames.size()));
    const std::size_t count = frames.size();
    const std::size_t fade = std::min(count / 4, static_cast<std::size_t>(rate()));
    if (fade == 0) return;
    for (std::size_t k = 0; k < fade; ++k) {
      Bytes& late = frames[count - fade + k];
      const Bytes& early = frames[k];
      const double share = static_cast<double>(k + 1) / static_cast<double>(fade);
      for (std::size_t i = 0; i < late.size(); ++i)
        late[i] = static_cast<std::uint8_t>(std::lround(late[i] + (early[i] - late[i]) * share));
    }
    sequence.loopsFrom = fade;
  }

  /// Stretches that follow each other, as frames of all their values.
  void writeStretches(BoardScene& scene, const std::vector<StaveOnBoard>& staves,
                      const std::vector<Stretch>& stretches, const std::string& reason,
                      BoardSceneReport& report) {
    std::set<std::uint16_t> values;
    BoardPart part;
    std::set<std::string> zones, effects;
    for (const Stretch& stretch : stretches)
      for (const auto& [member, shown] : stretch.lit) {
        values.insert(staves[member].values.begin(), staves[member].values.end());
        zones.insert(staves[member].zone);
        effects.insert(effectsOf(*staves[member].stave, shown));
      }
    part.zone = listed(zones);
    part.effects = listed(effects);
    part.reason = reason;
    Stretch whole{stretches.front().first, stretches.back().end, {}};
    writeFramesOf(scene, whole, {values.begin(), values.end()}, std::move(part), report);
  }
  static std::string listed(const std::set<std::string>& words) {
    std::string text;
    for (const std::string& word : words) text += (text.empty() ? "" : ", ") + word;
    return text;
  }
  /// The whole scene as frames of all values.
  void writeAsFrames(BoardScene& scene, const std::string& reason, BoardSceneReport& report) {
    std::vector<std::uint16_t> values(static_cast<std::size_t>(strip_.valueCount()));
    std::iota(values.begin(), values.end(), std::uint16_t{0});
    BoardPart part;
    part.zone = "all";
    part.effects = report.name;
    part.reason = reason;
    writeFramesOf(scene, {0, kNever, {}}, values, std::move(part), report);
  }

  void writeFramesOf(BoardScene& scene, const Stretch& whole, const std::vector<std::uint16_t>& values,
                     BoardPart part, BoardSceneReport& report) {
    FrameSequence sequence = sequenceOf(whole.first, endOf(whole), values);
    if (whole.end == kNever) loop(scene, sequence);
    if (plan_.options.maxColours > 0) reduceColours(sequence, plan_.options.maxColours);
    const std::size_t before = blob_.size();
    parts_.push_back({whole.first, whole.end, PartEntry::Frames, writeFrames(sequence, blob_)});
    part.bytes = blob_.size() - before + kEntryBytes;
    setSpan(whole, part);
    report.isProgram = false;
    report.parts.push_back(std::move(part));
  }
  void loop(const BoardScene& scene, FrameSequence& sequence) const {
    if (scene.round().count() > 0) {
      // The second round is as all that follow: it is faded into.
      const auto round = static_cast<std::size_t>(std::lround(seconds(scene.round()) * rate()));
      sequence.frames.resize(std::min(sequence.frames.size(), 2 * round));
      sequence.loopsFrom = std::min(round, sequence.frames.size() - 1);
      return;
    }
    if (!findLoop(sequence)) makeLoop(sequence, static_cast<std::size_t>(plan_.options.lookSeconds * rate()));
  }

  // ---- The list of parts ----

  static constexpr std::size_t kEntryBytes = 10;

  static PartEntry::Kind kindOf(const WrittenProgram& written) {
    return written.isSweep ? PartEntry::Sweep : PartEntry::Program;
  }

  static Bytes sceneBytes(const std::vector<PartEntry>& parts, std::uint32_t frames, std::uint32_t stays) {
    Bytes bytes;
    putBytes(bytes, frames, 3);
    putBytes(bytes, stays, 3);
    putBytes(bytes, parts.size(), 2);
    for (const PartEntry& part : parts) {
      putBytes(bytes, part.first, 3);
      putBytes(bytes, part.end, 3);
      bytes.push_back(part.kind);
      putBytes(bytes, part.body, 3);
    }
    return bytes;
  }

  void writeSceneTable(const BoardOrder& order, std::uint32_t frames) {
    std::vector<PartEntry> sorted = parts_;
    std::stable_sort(sorted.begin(), sorted.end(),
                     [](const PartEntry& a, const PartEntry& b) { return a.first < b.first; });
    const auto stays = static_cast<std::uint32_t>(std::lround(order.stays_s * rate()));
    blob_.setThree(sceneEntry(), blob_.append(sceneBytes(sorted, frames, stays)));
  }

  /// How many parts are lit at once, and the costliest frame.
  void countParts() {
    std::map<std::uint32_t, std::pair<int, long>> changes;
    for (const PartEntry& part : parts_) {
      changes[part.first].first += 1;
      changes[part.first].second += part.steps;
      changes[part.end].first -= 1;
      changes[part.end].second -= part.steps;
    }
    int lit = 0;
    long steps = 0;
    for (const auto& [frame, change] : changes) {
      lit += change.first;
      steps += change.second;
      out_.maxParts = std::max(out_.maxParts, lit);
      out_.stepsOfFrame = std::max(out_.stepsOfFrame, steps);
    }
  }

  // ---- What is lost ----

  /// Plays the scene as the board will, and compares it with the full light at the full rate.
  bool judge(std::size_t number) {
    constexpr int kFullRate = 40;
    constexpr int kMaxSamples = 400;
    BoardScene scene(show_, compiled_, plan_.scenes[number].scene);
    BoardPlayer player(out_.data);
    player.begin(static_cast<int>(number));
    const double length_s = scene.isLook() ? kCheckedLook_s : seconds(scene.length());
    const int samples = std::max(1, std::min(kMaxSamples, static_cast<int>(length_s * kFullRate)));
    double sum = 0;
    long count = 0;
    for (int i = 0; i < samples; ++i) {
      const auto at = static_cast<std::uint32_t>(length_s * kFullRate * i / samples);
      const Micros t = timeOf(at, kFullRate);
      const auto frame = static_cast<std::uint32_t>(t.count() * rate() / 1'000'000);
      const auto shown = player.frame(frame);
      if (shown.empty()) break;
      scene.render(t, frame_);
      sum += differenceOf(shown);
      ++count;
      if (i % 64 == 0 && progress_ && !progress_(1)) return false;
    }
    out_.scenes[number].loss = count > 0 ? sum / static_cast<double>(count) : 0;
    return true;
  }
  double differenceOf(std::span<const std::uint8_t> shown) {
    double sum = 0;
    const Bytes full = every_.bytesOf(frame_);
    const auto channels = static_cast<std::size_t>(strip_.channels());
    for (std::size_t i = 0; i < static_cast<std::size_t>(strip_.pixelCount()); ++i) {
      const std::uint8_t* a = shown.data() + i / static_cast<std::size_t>(strip_.pixelsPerValue()) * channels;
      const std::uint8_t* b = full.data() + i * channels;
      if (!std::equal(a, a + channels, b))
        sum += deltaE2000(toCieLab(strip_.lightOf(a)), toCieLab(strip_.lightOf(b)));
    }
    return sum / strip_.pixelCount();
  }

  const Show& show_;
  const CompiledShow& compiled_;
  const BoardPlan& plan_;
  BoardStrip strip_;
  /// The same with a value for each pixel.
  BoardStrip every_;
  const Progress& progress_;
  Blob blob_;
  BoardLight out_;
  std::size_t sceneTable_ = 0;
  std::size_t sceneNumber_ = 0;
  /// The full light of the present scene, frame by frame.
  std::vector<Bytes> full_;
  /// The same as programs compute it, if pixels share values.
  std::vector<Bytes> middle_;
  PixelFrame frame_;
  std::vector<PartEntry> parts_;
};

}  // namespace

std::vector<BoardRun> litRuns(const Show& show, const std::vector<BoardOrder>& scenes) {
  std::set<ZoneId> zones;
  for (const BoardOrder& order : scenes) {
    if (const auto* id = std::get_if<ScoreId>(&order.scene)) {
      if (const Score* score = find(show.scores, *id))
        for (const auto& whole : score->clips)
          for (const Clip& clip : unfolded(show, *whole)) zones.insert(clip.zone);
    } else if (const Look* look = find(show.looks, std::get<LookId>(order.scene))) {
      for (const ZoneId zone : zonesOf(*look)) zones.insert(zone);
    }
  }
  std::set<FixtureId> lit;
  for (const ZoneId id : zones)
    if (const Zone* zone = find(show.zones, id))
      for (const ZonePart& part : zone->parts) lit.insert(part.fixture);
  std::vector<BoardRun> runs;
  for (const auto& fixture : show.fixtures)
    if (lit.contains(fixture->id)) runs.emplace_back(fixture->id);
  return runs;
}

Result<BoardLight> writeBoard(const Show& show, const CompiledShow& compiled, const BoardPlan& plan,
                              const Progress& progress) {
  constexpr std::size_t kMaxScenes = 255;
  if (plan.scenes.empty())
    return Failure{"There is nothing to play: no score and no look is chosen.", {}, "Choose at least one."};
  if (plan.scenes.size() > kMaxScenes)
    return Failure{"A board plays at most 255 scenes.", {}, "Choose fewer."};
  for (const BoardOrder& order : plan.scenes) {
    const auto* id = std::get_if<ScoreId>(&order.scene);
    const Score* score = id ? find(show.scores, *id) : nullptr;
    const bool isThere = id ? score && compiled.scoreOf(*id)
                            : find(show.looks, std::get<LookId>(order.scene)) &&
                                  compiled.live->lookOf(std::get<LookId>(order.scene));
    if (!isThere) return Failure{"A scene is no longer in the show.", {}, "Choose the scenes again."};
    if (score && score->length.count() <= 0)
      return Failure{"“" + score->name + "” has no length.", {}, "Give it one in Score, or leave it out."};
  }
  auto strip = BoardStrip::of(show, *compiled.map, plan.runs, plan.options.pixelsPerValue);
  auto every = BoardStrip::of(show, *compiled.map, plan.runs, 1);
  if (!strip || !every) return (strip ? every : strip).failure();
  return BoardWriter(show, compiled, plan, *std::move(strip), *std::move(every), progress).write();
}

}  // namespace chispa::board
