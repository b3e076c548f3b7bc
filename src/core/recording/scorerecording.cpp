// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/recording/scorerecording.h"

#include "core/files/pendingfile.h"
#include "core/render/renderer.h"
#include "core/wire/powerbudget.h"

namespace chispa {
namespace {

/// Renders and packs frame after frame, within the budgets of the supplies.
class FramePacker {
 public:
  FramePacker(const CompiledShow& compiled, const CompiledScore& score, int framesPerSecond)
      : compiled_(compiled),
        score_(score),
        keeper_(compiled.budget->supplyCount()),
        amps_(compiled.budget->supplyCount()),
        levels_(compiled.budget->groupCount(), 1.f),
        values_(compiled.packer->bufferSize()),
        frame_s_(1.0 / framesPerSecond) {
    renderer_.prepare(compiled);
    frame_.resize(static_cast<std::size_t>(compiled.map.count()));
  }

  std::span<const std::uint8_t> at(Micros t) {
    renderer_.render(score_, t, frame_);
    if (compiled_.budget->hasLimits()) {
      compiled_.budget->measure(frame_, 1, amps_);
      compiled_.budget->groupLevels(keeper_.follow(amps_, compiled_.budget->limits_a(), frame_s_), levels_);
    }
    compiled_.packer->pack(frame_, t, 1, values_, levels_);
    return values_;
  }

 private:
  const CompiledShow& compiled_;
  const CompiledScore& score_;
  Renderer renderer_;
  PixelFrame frame_;
  BudgetKeeper keeper_;
  std::vector<double> amps_;
  std::vector<float> levels_;
  std::vector<std::uint8_t> values_;
  double frame_s_;
};

/// Writes all frames; false if it was cancelled.
bool writeFrames(RecordingWriter& writer, FramePacker& packer, const RecordingShape& shape,
                 const Progress& progress) {
  const long frames = shape.frames();
  for (long i = 0; i < frames; ++i) {
    if (i % shape.framesPerSecond == 0 && !progress(static_cast<double>(i) / static_cast<double>(frames)))
      return false;
    const Micros at(i * 1'000'000 / shape.framesPerSecond);
    writer.add(at, packer.at(shape.span.from + at));
  }
  return true;
}

}  // namespace

RecordingHead headOf(const Show& show, const Score& score) {
  RecordingHead head;
  head.name = score.name;
  head.rig.name = show.name;
  for (const auto& controller : show.controllers) {
    Controller bare = *controller;
    for (Port& port : bare.ports) port = Port{};
    head.rig.controllers.push_back(std::make_shared<const Controller>(std::move(bare)));
  }
  const Patch patch = derivePatch(show);
  for (const PatchUniverse& used : patch.universes) {
    const Controller& controller = *show.controllers[static_cast<std::size_t>(used.controller)];
    head.universes.push_back({controller.protocol, used.universe, controller.id});
  }
  for (const PatchSpan& span : patch.spans) {
    const Fixture* fixture = find(show.fixtures, span.fixture);
    head.patch.push_back({fixture ? fixture->name : std::string(), span});
  }
  return head;
}

Result<bool> recordScore(const Show& show, const CompiledShow& compiled, const Score& score,
                         const RecordingShape& shape, const std::filesystem::path& path,
                         const Progress& progress) {
  const CompiledScore* made = compiled.scoreOf(score.id);
  const RecordingHead head = headOf(show, score);
  if (!made || shape.frames() < 1)
    return Failure{"there is nothing of the score to record", path.string(),
                   "choose a part of it that is longer"};
  if (head.universes.empty())
    return Failure{"the show drives no universe", path.string(),
                   "hang fixtures on a controller in Wire first"};
  auto pending = PendingFile::begin(path);
  if (!pending) return pending.failure();
  PendingFile file = *std::move(pending);
  auto created = RecordingWriter::create(file.path(), head);
  if (!created) return created.failure();
  RecordingWriter writer = *std::move(created);
  FramePacker packer(compiled, *made, shape.framesPerSecond);
  const bool isWhole = writeFrames(writer, packer, shape, progress);
  const Outcome finished = writer.finish();
  if (!finished) return Failure{finished.failure().what, path.string(), finished.failure().cure};
  if (!isWhole) return false;
  if (const Outcome committed = file.commit(); !committed) return committed.failure();
  return true;
}

}  // namespace chispa
