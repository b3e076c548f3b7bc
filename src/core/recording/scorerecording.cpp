// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/recording/scorerecording.h"

#include <algorithm>
#include <functional>

#include "core/files/pendingfile.h"
#include "core/recording/framepacker.h"
#include "core/recording/listlight.h"

namespace chispa {
namespace {

/// Frames one after the other; false once there are no more.
using NextFrame = std::function<bool(long frame, std::span<const std::uint8_t>& values, double& done)>;

/// Writes frames until there are none left. What was written is deleted if it is cancelled or fails.
Result<bool> record(const RecordingHead& head, int framesPerSecond, const std::filesystem::path& path,
                    const Progress& progress, const NextFrame& next) {
  if (head.universes.empty())
    return Failure{"the show drives no universe", path.string(),
                   "hang fixtures on a controller in Wire first"};
  auto pending = PendingFile::begin(path);
  if (!pending) return pending.failure();
  PendingFile file = *std::move(pending);
  auto created = RecordingWriter::create(file.path(), head);
  if (!created) return created.failure();
  RecordingWriter writer = *std::move(created);
  std::span<const std::uint8_t> values;
  double done = 0;
  bool isWhole = true;
  for (long i = 0; next(i, values, done); ++i) {
    if (i % framesPerSecond == 0 && progress && !progress(done)) {
      isWhole = false;
      break;
    }
    writer.add(Micros(i * 1'000'000 / framesPerSecond), values);
  }
  const Outcome finished = writer.finish();
  if (!finished) return Failure{finished.failure().what, path.string(), finished.failure().cure};
  if (!isWhole) return false;
  if (const Outcome committed = file.commit(); !committed) return committed.failure();
  return true;
}

}  // namespace

RecordingHead headOf(const Show& show, const std::string& name) {
  RecordingHead head;
  head.name = name;
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
  if (!made || shape.frames() < 1)
    return Failure{"there is nothing of the score to record", path.string(),
                   "choose a part of it that is longer"};
  FramePacker packer(compiled, shape.framesPerSecond);
  return record(headOf(show, score.name), shape.framesPerSecond, path, progress,
                [&](long i, std::span<const std::uint8_t>& values, double& done) {
                  if (i >= shape.frames()) return false;
                  values = packer.at(*made, shape.span.from + Micros(i * 1'000'000 / shape.framesPerSecond));
                  done = static_cast<double>(i) / static_cast<double>(shape.frames());
                  return true;
                });
}

std::optional<Micros> recordedLength(const Show& show, SetListId list) {
  const SetList* found = find(show.setLists, list);
  const auto round = roundLength(show, list);
  if (!found || !round) return std::nullopt;
  return *round * std::max(1, found->rounds);
}

Result<bool> recordSetList(const Show& show, const CompiledShow& compiled, SetListId id, int framesPerSecond,
                           const std::filesystem::path& path, const Progress& progress) {
  const SetList* list = find(show.setLists, id);
  const auto length = recordedLength(show, id);
  if (!list || !length)
    return Failure{"something in the set list has no end, so that no recording of it would have one",
                   path.string(), "give each look and each silence in it a length"};
  if (length->count() == 0)
    return Failure{"there is nothing in the set list to record", path.string(), "put scores or looks in it"};
  constexpr std::uint64_t kSeed = 1;
  ListLight light(show, compiled, id, kSeed);
  FramePacker packer(compiled, framesPerSecond);
  PixelFrame frame;
  frame.resize(static_cast<std::size_t>(compiled.map->count()));
  return record(headOf(show, list->name), framesPerSecond, path, progress,
                [&](long i, std::span<const std::uint8_t>& values, double& done) {
                  const Micros t(i * 1'000'000 / framesPerSecond);
                  // For ever means once here: whoever plays it can begin again.
                  if (t >= *length || !light.render(t, frame)) return false;
                  values = packer.pack(frame);
                  done = seconds(t) / seconds(*length);
                  return true;
                });
}

std::vector<std::string> differencesOf(const RecordingHead& head, const Show& show) {
  std::vector<std::string> all;
  const RecordingHead now = headOf(show, head.name);
  const auto nameOf = [](const RecordingHead& of, const RecordedUniverse& universe) {
    const Controller* controller = find(of.rig.controllers, universe.controller);
    return "universe " + std::to_string(universe.universe) + " of “" +
           (controller ? controller->name : std::string("?")) + "”";
  };
  for (const RecordedUniverse& universe : head.universes)
    if (std::find(now.universes.begin(), now.universes.end(), universe) == now.universes.end())
      all.push_back(nameOf(head, universe) + " is in the recording, and no longer in the show");
  for (const RecordedUniverse& universe : now.universes)
    if (std::find(head.universes.begin(), head.universes.end(), universe) == head.universes.end())
      all.push_back(nameOf(now, universe) + " is in the show, and not in the recording");
  for (const auto& controller : head.rig.controllers) {
    const Controller* own = find(show.controllers, controller->id);
    if (own && own->host != controller->host)
      all.push_back("“" + controller->name + "” is at " + own->host + " now; the recording is for " +
                    controller->host);
  }
  // A file knows fixtures by name only.
  const auto bare = [](PatchSpan span) {
    span.fixture = {};
    return span;
  };
  const auto moved = [&](const RecordedSpan& span) {
    return std::none_of(now.patch.begin(), now.patch.end(), [&](const RecordedSpan& other) {
      return other.fixture == span.fixture && bare(other.span) == bare(span.span);
    });
  };
  for (const RecordedSpan& span : head.patch)
    if (moved(span)) all.push_back("“" + span.fixture + "” hangs elsewhere now than when it was recorded");
  all.erase(std::unique(all.begin(), all.end()), all.end());
  return all;
}

}  // namespace chispa
