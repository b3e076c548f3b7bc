// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <string>
#include <vector>

#include "core/show/controller.h"
#include "core/show/look.h"

namespace chispa {

/// What can drive something.
enum class SourceKind {
  Note,       ///< MIDI note: its velocity while it is held
  Control,    ///< MIDI control change, of 7 or of 14 bits
  PitchBend,  ///< MIDI pitch bend
  Program,    ///< MIDI program change: a press
  Pressure,   ///< MIDI channel pressure
  Osc,        ///< the first argument of an OSC message
  Key,        ///< a key of the computer, while Run is before the eyes
  Desk,       ///< a channel of a desk's universe
  Fixed,      ///< a value that is always there
  TimeCode,   ///< MIDI time code: 1 while it runs, 0 while it stands
};

/// Where a value comes from. Which members count depends on the kind.
struct BindingSource {
  SourceKind kind = SourceKind::Fixed;
  /// Of MIDI: the device's name, or any device.
  std::string device = {};
  /// Of MIDI: the channel, 1–16, or 0 for any.
  int channel = 0;
  /// Of MIDI: the note, control or program, 0–127. Of a desk: the channel, 1–512.
  int number = 0;
  /// Of a desk.
  Protocol protocol = Protocol::E131;
  int universe = 1;
  /// Of OSC: the address. Of a key: its letter or digit.
  std::string address = {};
  /// Of a fixed value: 0–1.
  double value = 1;

  bool operator==(const BindingSource&) const = default;
  bool isMidi() const { return kind <= SourceKind::Pressure || kind == SourceKind::TimeCode; }
  /// MIDI says in which of its channels it is, and which of several it is.
  bool hasChannel() const { return kind <= SourceKind::Pressure; }
  bool hasNumber() const {
    return kind == SourceKind::Note || kind == SourceKind::Control || kind == SourceKind::Program;
  }
  /// It is pressed and let go rather than moved.
  bool isButton() const {
    return kind == SourceKind::Note || kind == SourceKind::Program || kind == SourceKind::Key;
  }
};

/// What can be driven.
enum class TargetKind {
  Look,       ///< plays a look
  LookLevel,  ///< a look's fader
  ZoneLevel,  ///< how bright a zone is, whatever lights it
  Parameter,  ///< a number of the effects of a look
  Speed,      ///< how fast a look runs
  Master,
  Blackout,     ///< dark while it is held
  Light,        ///< light on and off
  Play,         ///< the open score plays or stands still
  Stop,         ///< the score goes back to its beginning
  GoTo,         ///< the score goes to an instant
  Tempo,        ///< the beat, tapped
  Reset,        ///< lets go of everything that is held
  Channels,     ///< channels as they leave
  SetListOn,    ///< on to the next piece of the set list
  SetListBack,  ///< back in it
  Follow,       ///< the open score plays where a time code is
};

struct BindingTarget {
  TargetKind kind = TargetKind::Master;
  LookId look = {};
  /// How a press plays the look; the look's own way if `hasMode` is false.
  bool hasMode = false;
  PadMode mode = PadMode::Toggle;
  ZoneId zone = {};
  /// Of a parameter: its key.
  std::string parameter = {};
  /// Of channels: from `channel` (1–512) of `universe` on, `count` of them, every `every`-th.
  ControllerId controller = {};
  int universe = 1;
  int channel = 1;
  int count = 1;
  int every = 1;
  /// Of GoTo: the instant. Of Follow: the time code of the score's beginning.
  Micros at{0};

  bool operator==(const BindingTarget&) const = default;
};

/// How the way of a control becomes the way of what it drives.
enum class BindingResponse {
  Even,
  Steps,  ///< in `steps` equal steps
  Eased,  ///< slow at both ends
  Drawn,  ///< as `points` say
};

/// What is sent back to a button so that its lamp shows what it does; velocities or values, 0–127.
struct BindingLamp {
  bool isSent = false;
  int off = 0;
  int on = 127;
  int playing = 127;

  bool operator==(const BindingLamp&) const = default;
};

/// What drives what.
struct Binding {
  BindingId id;
  std::string name;
  BindingSource source;
  BindingTarget target;
  /// What the target has at the control's 0 and at its 1, as a share of its range; may be turned round.
  double low = 0;
  double high = 1;
  BindingResponse response = BindingResponse::Even;
  int steps = 5;
  std::vector<CurvePoint> points;
  /// Takes hold only once the control passes the value that the target has.
  bool takesOver = false;
  /// How long a rise and a fall take.
  Micros easeIn{0};
  Micros easeOut{0};
  FadeShape easeShape = FadeShape::Even;
  BindingLamp lamp;

  bool operator==(const Binding&) const = default;
};

/// How a desk's light meets the light of the show.
enum class DeskUse {
  Replaces,
  Multiplies,  ///< the desk filters the show
  Adds,
  Higher,  ///< the higher value counts
};

/// What a listening zone does when the desk's stream stops.
enum class DeskLoss {
  Hold,
  FadeToShow,
  Dark,
};

/// A zone that a lighting desk plays.
struct DeskInput {
  DeskInputId id = {};
  std::string name = {};
  ZoneId zone = {};
  Protocol protocol = Protocol::E131;
  int universe = 1;
  /// 1–512: the first channel.
  int channel = 1;
  /// What the channels of a cell are, in order: I for intensity, or R, G, B and W.
  std::string format = "RGB";
  /// 8 or 16: of 16 the coarse byte comes first.
  int bits = 8;
  /// How many cells the desk sees; the zone's own are spread over them. 0: each of the zone's cells.
  int cells = 1;
  DeskUse use = DeskUse::Replaces;
  DeskLoss loss = DeskLoss::FadeToShow;
  Micros lossFade{2'000'000};

  bool operator==(const DeskInput&) const = default;
  int bytesOfCell() const { return static_cast<int>(format.size()) * (bits == 16 ? 2 : 1); }
};

/// True if `format` says what a desk's channels are: "I", or R, G, B and perhaps W, each once, in any order.
bool isDeskFormat(const std::string& format);

}  // namespace chispa
