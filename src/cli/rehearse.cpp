// SPDX-License-Identifier: GPL-3.0-or-later
#include <cstring>
#include <filesystem>
#include <iostream>
#include <map>
#include <memory>
#include <thread>

#include <fcntl.h>
#include <signal.h>
#include <spawn.h>
#include <sys/wait.h>
#include <unistd.h>

#include "cli/opened.h"
#include "cli/verbs.h"
#include "core/edit/planedits.h"
#include "core/files/showfile.h"
#include "core/music/analysis.h"
#include "core/render/renderer.h"
#include "engine/player.h"
#include "link/setup.h"

extern char** environ;

namespace chispa::cli {
namespace {

namespace fs = std::filesystem;
using namespace std::chrono_literals;

/// One packet as a node wrote it down.
struct Arrival {
  bool terminated;
  std::array<std::uint8_t, kUniverseChannels> values;
};

/// A controller's node, the protocol as nodes write it down, and the universe or block of 512.
using StreamKey = std::tuple<std::size_t, int, int>;

/// The number of a protocol in what a node writes down (docs/node-interface.md); −1 for those that it does
/// not hear.
int recordedAs(Protocol protocol) {
  switch (protocol) {
    case Protocol::E131:
      return 0;
    case Protocol::ArtNet:
      return 1;
    case Protocol::Ddp:
      return 2;
    case Protocol::Opc:
      return 3;
    case Protocol::SerialDmx:
    case Protocol::Screen:
      break;
  }
  return -1;
}

/// A chispa-node of its own for each controller of a show; ends them all.
class NodeCrew {
 public:
  NodeCrew() : folder_(fs::temp_directory_path() / ("chispa-rehearsal-" + std::to_string(::getpid()))) {
    fs::create_directories(folder_);
  }
  ~NodeCrew() {
    stop();
    std::error_code error;
    fs::remove_all(folder_, error);
  }
  NodeCrew(const NodeCrew&) = delete;
  NodeCrew& operator=(const NodeCrew&) = delete;

  fs::path recordOf(std::size_t index) const { return folder_ / std::to_string(index); }

  bool start(const Controller& controller, std::size_t index) {
    const fs::path program = fs::read_symlink("/proc/self/exe").parent_path() / "chispa-node";
    std::vector<std::string> words = {program.string(),
                                      "--name",
                                      controller.name,
                                      "--listen",
                                      controller.host,
                                      "--http",
                                      std::to_string(controller.setupPort),
                                      "--ports",
                                      "64",
                                      "--record",
                                      recordOf(index).string()};
    std::vector<char*> raw;
    for (auto& word : words) raw.push_back(word.data());
    raw.push_back(nullptr);
    pid_t pid = 0;
    if (const int error = ::posix_spawn(&pid, program.c_str(), nullptr, nullptr, raw.data(), environ);
        error != 0) {
      std::cerr << program.string() << ": cannot be started (" << std::strerror(error) << ").\n";
      return false;
    }
    pids_.push_back(pid);
    return true;
  }

  void stop() {
    for (const pid_t pid : pids_) ::kill(pid, SIGTERM);
    for (const pid_t pid : pids_) ::waitpid(pid, nullptr, 0);
    pids_.clear();
  }

 private:
  fs::path folder_;
  std::vector<pid_t> pids_;
};

std::optional<Failure> setUp(const Show& show, std::size_t index) {
  const auto wanted = portSettings(show, derivePatch(show), static_cast<int>(index));
  constexpr int kTries = 100;
  for (int i = 0;; ++i) {
    const auto report = link::pushSetup(*show.controllers[index], wanted);
    if (report && report->verified) return std::nullopt;
    if (report) return Failure{"The node does not keep its set-up.", show.controllers[index]->name, {}};
    if (i == kTries) return report.failure();
    std::this_thread::sleep_for(50ms);
  }
}

/// Reads what a node wrote down; see Node::record.
void readRecord(const fs::path& file, std::size_t controller,
                std::map<StreamKey, std::vector<Arrival>>& arrivals) {
  const auto text = readFile(file);
  if (!text) return;
  constexpr std::size_t kHead = 5;
  constexpr std::size_t kEntry = kHead + kUniverseChannels;
  for (std::size_t at = 0; at + kEntry <= text->size(); at += kEntry) {
    const auto* bytes = reinterpret_cast<const std::uint8_t*>(text->data() + at);
    Arrival arrival{bytes[4] != 0, {}};
    std::memcpy(arrival.values.data(), bytes + kHead, kUniverseChannels);
    arrivals[{controller, bytes[0], bytes[1] << 8 | bytes[2]}].push_back(arrival);
  }
}

/// What a rehearsal found.
struct Verdict {
  std::size_t packets = 0;
  std::size_t different = 0;
  std::size_t missing = 0;
  std::size_t unexpected = 0;
  std::size_t distinctFrames = 0;
};

/// Computes every sent frame anew, without the engine, and compares it with what arrived, byte by byte.
class Comparison {
 public:
  Comparison(const CompiledShow& compiled, const CompiledScore& score) : compiled_(compiled), score_(score) {
    renderer_.prepare(compiled);
    frame_.resize(static_cast<std::size_t>(compiled.map->count()));
    values_.resize(compiled.packer->bufferSize());
  }

  Verdict run(const Show& show, const std::vector<engine::SentRecord>& sent,
              const std::map<StreamKey, std::vector<Arrival>>& arrivals) {
    std::map<StreamKey, std::size_t> read;
    for (const engine::SentRecord& record : sent) {
      compute(record);
      const PatchUniverse& universe = compiled_.patch.universes[record.universe];
      const auto index = static_cast<std::size_t>(universe.controller);
      const StreamKey key{index, recordedAs(show.controllers[index]->protocol), universe.universe};
      const auto stream = arrivals.find(key);
      const std::size_t at = read[key]++;
      ++verdict_.packets;
      if (stream == arrivals.end() || at >= stream->second.size() || stream->second[at].terminated)
        ++verdict_.missing;
      else if (std::memcmp(stream->second[at].values.data(),
                           values_.data() + record.universe * kUniverseChannels, kUniverseChannels) != 0)
        ++verdict_.different;
    }
    // Behind the last frame only the words that end a stream may follow.
    for (const auto& [key, list] : arrivals)
      for (std::size_t i = read[key]; i < list.size(); ++i) verdict_.unexpected += list[i].terminated ? 0 : 1;
    return verdict_;
  }

 private:
  void compute(const engine::SentRecord& record) {
    if (computed_ && computed_->position == record.position && computed_->dither == record.dither &&
        computed_->dark == record.dark)
      return;
    renderer_.render(score_, record.position, frame_);
    compiled_.packer->pack(frame_, record.dither, record.dark ? 0.f : 1.f, values_);
    computed_ = record;
    ++verdict_.distinctFrames;
  }

  const CompiledShow& compiled_;
  const CompiledScore& score_;
  Renderer renderer_;
  PixelFrame frame_;
  std::vector<std::uint8_t> values_;
  std::optional<engine::SentRecord> computed_;
  Verdict verdict_;
};

/// Plays in real time; returns the record of what was sent.
std::vector<engine::SentRecord> playFor(const OpenedShow& opened,
                                        const std::shared_ptr<const CompiledShow>& compiled,
                                        const Score& score, double length_s, std::string& figures) {
  engine::Player::Options options;
  options.source.cid = link::randomCid();
  options.recordEntries = 4'000'000;
  options.sound = engine::makeSilence("a rehearsal is silent");
  engine::Player player(std::move(options));
  player.setShow(opened.show, compiled);
  player.play(score.id, Micros(0), {Micros(0), score.length, true});
  player.switchLight(true);
  std::this_thread::sleep_for(std::chrono::duration<double>(length_s));
  player.switchLight(false);
  // Three black frames, and what follows them.
  std::this_thread::sleep_for(400ms);
  const auto& stats = player.stats();
  char text[160];
  std::snprintf(text, sizeof text, "lateness p50 %.2f ms, p99.9 %.2f ms, most %.2f ms, %llu periods skipped",
                stats.lateness.percentile_ms(0.5), stats.lateness.percentile_ms(0.999),
                stats.lateness.most_ms(), static_cast<unsigned long long>(stats.skipped.load()));
  figures = text;
  // The output thread is still running, but it is dark: the record does not grow any more.
  return player.output().record();
}

}  // namespace

int rehearse(const Words& words) {
  constexpr double kUsualLength_s = 20;
  const double length_s = words.length_s > 0 ? words.length_s : kUsualLength_s;
  auto opened = OpenedShow::open(words.file);
  const Score* score = opened ? opened->score(words.score) : nullptr;
  if (!score) return kShowError;
  // What holds light back in time or strength is left out: every byte is compared with what the score says.
  for (const auto& controller : Items<Controller>(opened->show.controllers))
    changeItem(opened->show.controllers, controller->id,
               [](Controller& c) { c.delay_ms = c.maxFramesPerSecond = 0; });
  for (const auto& supply : Items<Supply>(opened->show.supplies))
    changeItem(opened->show.supplies, supply->id, [](Supply& s) { s.limit_a = 0; });
  // Only what a node can stand in for.
  std::erase_if(opened->show.controllers, [](const auto& c) { return !isNetworked(c->protocol); });
  NodeCrew crew;
  const auto& controllers = opened->show.controllers;
  for (std::size_t i = 0; i < controllers.size(); ++i) {
    if (!controllers[i]->host.starts_with("127.")) {
      std::cerr << controllers[i]->name << ": a rehearsal goes to 127.x.x.x only.\n";
      return kShowError;
    }
    if (!crew.start(*controllers[i], i)) return kShowError;
  }
  for (std::size_t i = 0; i < controllers.size(); ++i) {
    if (const auto failure = setUp(opened->show, i)) {
      std::cerr << failure->text() << "\n";
      return kShowError;
    }
  }
  const auto compiled = opened->compiled();
  std::string figures;
  const auto sent = playFor(*opened, compiled, *score, length_s, figures);
  crew.stop();
  std::map<StreamKey, std::vector<Arrival>> arrivals;
  for (std::size_t i = 0; i < controllers.size(); ++i) readRecord(crew.recordOf(i), i, arrivals);
  const Verdict v = Comparison(*compiled, *compiled->scoreOf(score->id)).run(opened->show, sent, arrivals);
  const bool good = v.packets > 0 && v.different == 0 && v.missing == 0 && v.unexpected == 0;
  if (words.json) {
    std::cout << nlohmann::ordered_json{{"score", score->name},        {"seconds", length_s},
                                        {"nodes", controllers.size()}, {"frames", v.distinctFrames},
                                        {"packets", v.packets},        {"differing", v.different},
                                        {"missing", v.missing},        {"unexpected", v.unexpected}}
                     .dump(2)
              << "\n";
    return good ? kDone : kShowError;
  }
  std::cout << "Rehearsed \"" << score->name << "\" for " << length_s << " s with " << controllers.size()
            << " nodes: " << v.distinctFrames << " frames, " << v.packets << " packets, " << v.different
            << " differing, " << v.missing << " missing, " << v.unexpected << " unexpected; " << figures
            << ".\n";
  return good ? kDone : kShowError;
}

}  // namespace chispa::cli
