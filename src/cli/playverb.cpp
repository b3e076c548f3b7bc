// SPDX-License-Identifier: GPL-3.0-or-later
#include <future>
#include <iostream>
#include <memory>
#include <thread>

#include <nlohmann/json.hpp>

#include "cli/interrupt.h"
#include "cli/playing.h"
#include "cli/statsfile.h"
#include "core/base/relativepath.h"
#include "core/media/audio.h"
#include "core/music/stretch.h"
#include "link/finder.h"
#include "link/nodehttp.h"

namespace chispa::cli {
namespace {

using namespace std::chrono_literals;

void waitForEnd(const engine::Player& player, double most_s) {
  const auto until = std::chrono::steady_clock::now() + std::chrono::duration<double>(most_s);
  while (!isInterrupted() && player.isPlaying() && (most_s <= 0 || std::chrono::steady_clock::now() < until))
    std::this_thread::sleep_for(10ms);
}

/// Asks each controller in the way it can answer: by its set-up interface, ArtPoll or DDP status.
bool anyAnswers(const Show& show) {
  link::FindRequest request{link::localInterfaces(), {}};
  for (const auto& controller : show.controllers) {
    if (!isNetworked(controller->protocol)) continue;
    if (controller->setupPort != 0 && link::askNode(*controller, "/settings")) return true;
    request.addresses.push_back(controller->host);
    // Any address of 127/8 is this machine's.
    if (controller->host.starts_with("127.")) request.interfaces = {{"lo", "127.0.0.1", {}}};
  }
  bool any = false;
  const std::atomic<bool> cancelled{false};
  // An interface that cannot be asked from hears no answer.
  [[maybe_unused]] const Outcome asked = link::findControllers(
      request, [&](const link::FoundController&) { any = true; }, cancelled);
  return any;
}

}  // namespace

std::unique_ptr<engine::Sound> soundFor(const Words& words) {
  if (words.silent) return engine::makeSilence("silent, as asked for");
  std::string whyNot;
  auto sound = engine::openPulse(whyNot);
  if (!whyNot.empty())
    std::cerr << "No sound server answers (" << whyNot
              << "); playing silently on the clock until one does.\n";
  return sound;
}

engine::Player::Options playerOptions(const Words& words) {
  engine::Player::Options options;
  options.sound = soundFor(words);
  options.source.cid = link::randomCid();
  return options;
}

void load(const OpenedShow& opened, const Score* score, engine::Player& player) {
  if (score && !score->audio.empty())
    if (auto clip = decodeAudio(resolvedBeside(opened.path, score->audio)))
      player.setSound(shifted(*clip, score->audioStart));
  player.setShow(opened.show, opened.compiled());
}

int play(const Words& words) {
  if (std::filesystem::path(words.file).extension() == ".chirec") return playRecording(words);
  const auto opened = OpenedShow::open(words.file);
  const Score* score = opened ? opened->score(words.score) : nullptr;
  if (!score) return kShowError;
  noteInterrupts();
  engine::Player player(playerOptions(words));
  load(*opened, score, player);
  player.switchLight(true);
  player.play(score->id, micros(words.from_s), {Micros(0), score->length, words.loop});
  std::future<bool> answers;
  if (words.require)
    answers = std::async(std::launch::async, [&show = opened->show] { return anyAnswers(show); });
  waitForEnd(player, words.length_s);
  if (words.json) std::cout << statsJson(opened->show, player).dump(2) << "\n";
  if (!words.stats.empty()) {
    const Outcome written = writeStats(words.stats, opened->show, player);
    if (!written) return failed(written.failure());
  }
  if (!answers.valid() || answers.get()) return kDone;
  return failed({"No controller ever answered.", words.file,
                 "Check that they are switched on, and their addresses and set-up ports. Plain E1.31 answers "
                 "nothing: without --require that is no failure."});
}

}  // namespace chispa::cli
