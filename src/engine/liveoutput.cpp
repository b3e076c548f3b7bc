// SPDX-License-Identifier: GPL-3.0-or-later
#include "engine/liveoutput.h"

#include <algorithm>
#include <cmath>

namespace chispa::engine {

std::uint64_t LiveOutput::dropped() const noexcept {
  std::uint64_t sum = 0;
  for (const auto& queue : queues_) sum += queue.dropped();
  return sum;
}

void LiveOutput::listen(std::span<const std::shared_ptr<DeskBox>> boxes, std::vector<DeskValues>& desk,
                        MonoTime now) noexcept {
  for (std::size_t i = 0; i < boxes.size(); ++i) {
    const DeskBox::Heard& heard = boxes[i]->box.latest();
    DeskValues& values = desk[i];
    values.values = heard.values;
    values.isHeard = heard.isHeard;
    if (heard.isLost)
      values.lostAt = now_.t - std::max(Micros(0), std::chrono::duration_cast<Micros>(now - heard.lostAt));
    values.isLost = heard.isLost;
  }
}

void LiveOutput::step(const CompiledShow& show, const CompiledScore* score, const TransportState& at,
                      MonoTime now, std::span<const std::shared_ptr<DeskBox>> boxes,
                      std::vector<DeskValues>& desk, float master) noexcept {
  now_ = clock_.tick(at, now, score, state_.tempo);
  listen(boxes, desk, now);
  followHeard(heard_->latest(), now);
  // Whoever else moves the master is where a fader has to pick it up.
  if (!state_.movesMaster && state_.master.target() != master) state_.master.set(master);
  LiveRequests requests;
  LiveStep step(*show.live, state_, now_, requests);
  for (auto& queue : queues_)
    for (int taken = 0; taken < kMaxOfFrame; ++taken) {
      const auto event = queue.tryPop();
      if (!event) break;
      step.apply(*event);
    }
  step.advance(desk);
  for (const LiveRequest& request : requests) {
    if (request.kind == LiveRequest::Kind::Master)
      master_ = request.value;
    else if (request.kind == LiveRequest::Kind::Blackout)
      blackout_ = request.value > 0;
    else
      requests_.tryPush(request);
  }
  noteChanges(show, clock_.followsScore() && score ? score->id : ScoreId{});
  snapshots_.filling().state = state_;
  snapshots_.filling().now = now_;
  snapshots_.publish();
}

void LiveOutput::followHeard(const HeardNow& heard, MonoTime now) noexcept {
  // Its features stay in the box, which nobody writes to until the next frame asks for the latest.
  heardScore_.features =
      heard.isOn ? std::shared_ptr<const MusicFeatures>(std::shared_ptr<void>(), &heard.music.features)
                 : nullptr;
  if (!heard.isOn) return;
  // The last of what was heard.
  heardAt_ = heard.music.now - Micros(1'000'000 / MusicFeatures::kRate);
  if (heard.music.beat_s <= 0) return;
  const double since_s = std::chrono::duration<double>(now - heard.at).count();
  // Bars of the live clock begin where the heard ones do.
  const double bars = std::floor(heard.music.barBegins / LiveState::kBeatsPerBar) * LiveState::kBeatsPerBar;
  const double beat = heard.music.beat - (heard.music.barBegins - bars) + since_s / heard.music.beat_s;
  state_.tempo = {now_.t, beat, heard.music.beat_s};
}

void LiveOutput::note(LiveNote::Kind kind, const LookPlay& play, const CompiledLook& look,
                      ScoreId score) noexcept {
  LiveNote note;
  note.kind = kind;
  note.look = play.look;
  note.serial = play.serial;
  note.score = score;
  note.at = now_.t - clock_.offset();
  note.fade = kind == LiveNote::Kind::Begun ? play.presence.length() : play.fadeOut;
  note.shape = play.fadeShape;
  note.givesWay = play.givesWay;
  note.level = state_.fader(play.look, look.level, now_.t);
  notes_.tryPush(note);
}

/// Outside a score there is nothing to write into; a play that reaches into one begins there.
void LiveOutput::noteChanges(const CompiledShow& show, ScoreId score) noexcept {
  noted_.removeIf([&](const Noted& noted) {
    const bool isThere =
        score && std::any_of(state_.plays.begin(), state_.plays.end(),
                             [&](const LookPlay& play) { return play.serial == noted.serial; });
    if (isThere) return false;
    LiveNote gone;
    gone.kind = LiveNote::Kind::Gone;
    gone.look = noted.look;
    gone.serial = noted.serial;
    gone.score = score;
    gone.at = now_.t - clock_.offset();
    notes_.tryPush(gone);
    return true;
  });
  if (!score) return;
  for (const LookPlay& play : state_.plays) {
    const CompiledLook* look = show.live->lookOf(play.look);
    if (!look) continue;
    const float level = state_.fader(play.look, look->level, now_.t);
    auto* noted = std::find_if(noted_.begin(), noted_.end(),
                               [&](const Noted& one) { return one.serial == play.serial; });
    if (noted == noted_.end()) {
      note(LiveNote::Kind::Begun, play, *look, score);
      noted_.tryAdd({play.serial, play.look, level, false});
      continue;
    }
    if (noted->level != level) note(LiveNote::Kind::Faded, play, *look, score);
    if (play.isEnding && !noted->isEnding) note(LiveNote::Kind::Ended, play, *look, score);
    noted->level = level;
    noted->isEnding = play.isEnding;
  }
}

void LiveOutput::render(Renderer& renderer, const CompiledShow& show, const CompiledScore* score,
                        Micros position, std::span<const DeskValues> desk, PixelFrame& frame,
                        Micros ahead) noexcept {
  LiveInstant then = now_;
  if (ahead.count() > 0) {
    const double beats = seconds(ahead) / std::max(1e-3, state_.tempo.beat_s);
    then.t += ahead;
    then.beat += beats;
    then.bar += beats / LiveState::kBeatsPerBar;
    then.beatInBar = std::fmod(then.beatInBar + beats, LiveState::kBeatsPerBar);
  }
  const bool hears = !score && heardScore_.features;
  renderer.renderLive(show, hears ? &heardScore_ : score, hears ? heardAt_ : position, state_, then, desk,
                      frame);
}

bool LiveOutput::drivesChannels(const CompiledShow& show) noexcept {
  return std::any_of(show.live->bindings.begin(), show.live->bindings.end(),
                     [](const CompiledBinding& bound) { return !bound.bytes.empty(); });
}

void LiveOutput::layOver(const CompiledShow& show, float level, std::span<std::uint8_t> values) noexcept {
  for (const CompiledBinding& bound : show.live->bindings) {
    if (bound.bytes.empty()) continue;
    const BindingState* own = state_.stateOf(bound.binding.id);
    if (!own || !own->isHeard) continue;
    const auto value =
        static_cast<std::uint8_t>(std::clamp(own->value.at(now_.t) * level, 0.f, 1.f) * 255.f + 0.5f);
    for (const std::uint32_t byte : bound.bytes) values[byte] = value;
  }
}

}  // namespace chispa::engine
