// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <set>
#include <string>
#include <vector>

#include "core/board/blob.h"
#include "core/board/frames.h"
#include "core/board/program.h"
#include "core/board/stack.h"
#include "core/board/stretches.h"
#include "core/board/write.h"

namespace chispa::board {

using Bytes = Blob::Bytes;

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

/// Writes one scene after the other into a blob; writeBoard() is the way in. Stretches that the board
/// computes by itself stand in boardprograms.cpp, those that it plays from frames in boardframes.cpp, and
/// what is lost in boardcheck.cpp. One thread, once.
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

  /// Fails where a board has no room for it; an empty failure if `progress` called it off.
  Result<BoardLight> write();

 private:
  /// A look that lasts is compared for so long.
  static constexpr double kCheckedLook_s = 30;
  static constexpr std::size_t kMaxData = 16'000'000;
  /// As host/light.h has room for.
  static constexpr int kMaxParts = 64;

  /// Where it is told where the present scene is.
  std::size_t sceneEntry() const { return sceneTable_ + 3 * sceneNumber_; }
  int rate() const { return plan_.options.framesPerSecond; }
  bool goOn(double share) const;
  void writeHead();

  // ---- Scenes ----

  bool writeScene(const BoardOrder& order);

  /// The bytes of all frames that are needed, at the board's rate.
  bool renderScene(BoardScene& scene);
  void noteCurrent(const Bytes& bytes);
  void writeGroup(BoardScene& scene, const std::vector<StaveOnBoard>& staves,
                  const std::vector<std::size_t>& group, BoardSceneReport& report);
  static std::string effectsOf(const CompiledStave& stave, const std::vector<std::size_t>& shown);
  void setSpan(const Stretch& stretch, BoardPart& part) const;

  /// Keeps the stretch as a program if that is possible, right and smaller; else tells why not.
  bool writeProgramFor(BoardScene& scene, const std::vector<StaveOnBoard>& staves, const Stretch& stretch,
                       BoardSceneReport& report, std::string& why);

  enum class Tried {
    Kept,
    Wrong,    ///< what it shows is not right
    Refused,  ///< another try would end the same way
  };
  Tried tryProgram(BoardScene& scene, const StaveOnBoard& one, const std::vector<std::size_t>& shown,
                   const Stretch& stretch, bool condenses, BoardSceneReport& report, std::string& why);
  bool framesAreSmaller(const Stretch& stretch, const StaveOnBoard& one, std::size_t bytes);
  std::uint32_t endOf(const Stretch& stretch) const;

  /// Plays the program alone and compares what it shows with the full light.
  void measure(BoardScene& scene, const Stretch& stretch, const std::vector<std::uint16_t>& values,
               const WrittenProgram& written, BoardPart& part);
  double errorAt(std::span<const std::uint8_t> shown, const Bytes& full, std::uint16_t value) const;
  /// The light about a frame: where it jumps, the board may be a millisecond early or late.
  std::vector<Bytes> lightNear(BoardScene& scene, std::uint32_t frame);
  double errorNear(const std::vector<Bytes>& near, std::span<const std::uint8_t> shown,
                   std::uint16_t value) const;

  // ---- Frames ----

  FrameSequence sequenceOf(std::uint32_t first, std::uint32_t end,
                           const std::vector<std::uint16_t>& values) const;

  /// Cuts the sequence to where it begins to come again, if it does by itself.
  static bool findLoop(FrameSequence& sequence);
  /// Lets the end of the sequence pass into its beginning, so that it comes again without a jump.
  void makeLoop(FrameSequence& sequence, std::size_t length) const;

  /// Stretches that follow each other, as frames of all their values.
  void writeStretches(BoardScene& scene, const std::vector<StaveOnBoard>& staves,
                      const std::vector<Stretch>& stretches, const std::string& reason,
                      BoardSceneReport& report);
  static std::string listed(const std::set<std::string>& words);
  /// The whole scene as frames of all values.
  void writeAsFrames(BoardScene& scene, const std::string& reason, BoardSceneReport& report);
  void writeFramesOf(BoardScene& scene, const Stretch& whole, const std::vector<std::uint16_t>& values,
                     BoardPart part, BoardSceneReport& report);
  void loop(const BoardScene& scene, FrameSequence& sequence) const;

  // ---- The list of parts ----

  static constexpr std::size_t kEntryBytes = 10;

  static PartEntry::Kind kindOf(const WrittenProgram& written);
  static Bytes sceneBytes(const std::vector<PartEntry>& parts, std::uint32_t frames, std::uint32_t stays);
  void writeSceneTable(const BoardOrder& order, std::uint32_t frames);

  /// How many parts are lit at once, and the costliest frame.
  void countParts();

  // ---- What is lost ----

  /// Plays the scene as the board will, and compares it with the full light at the full rate.
  bool judge(std::size_t number);
  double differenceOf(std::span<const std::uint8_t> shown);

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

}  // namespace chispa::board
