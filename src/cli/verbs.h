// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <string>
#include <vector>

#include "core/base/result.h"

namespace chispa::cli {

/// Exit statuses of every verb.
enum Status { kDone = 0, kShowError = 1, kUsageError = 2 };

/// What the words behind a verb said; each verb reads those it knows.
struct Words {
  /// The show, or the audio file.
  std::string file;
  std::string score;
  std::string look;
  std::string controller;
  std::string zone;
  std::string stats;
  double at_s = 0;
  /// The set list that runs, and whether the almanac does.
  std::string setList;
  bool almanac = false;
  /// As if it were then, and so many times as fast.
  std::string when;
  double speed = 1;
  /// How many nights of the log.
  int last = 7;
  /// A day of the calendar, and how many.
  std::string date;
  int days = 1;
  double from_s = 0;
  double length_s = 0;
  /// Where a film ends; 0: by its length.
  double to_s = 0;
  double wait_s = 0;
  bool json = false;
  bool silent = false;
  bool loop = false;
  bool dryRun = false;
  /// Fails if no controller answers.
  bool require = false;
  bool restore = false;
  /// Desks, MIDI and OSC are heard.
  bool listen = false;
  /// What arrives is compared with what is listened to.
  bool check = false;
  /// IPv4 address of the interface to use.
  std::string interface;
  /// Frames of a camera: folders of pictures, or videos.
  std::string frames;
  std::string secondFrames;
  int leds = 0;
  double fieldOfView_deg = 60;
  /// Where a film or a recording goes, and its shape.
  std::string output;
  int width = 1280;
  int height = 720;
  /// 0: 30 for films, 40 for recordings.
  int framesPerSecond = 0;
  bool unrolled = false;
  bool asShown = false;
  /// What a board plays, what hangs on it, and its sizes in bytes.
  std::vector<std::string> scores;
  std::vector<std::string> looks;
  std::vector<std::string> on;
  std::size_t flash = 32 * 1024;
  std::size_t ram = 2 * 1024;
  int colours = 0;
  int group = 1;
  double loop_s = 0;
  double stays_s = 0;
  bool sizeOnly = false;
  /// Channels in place of pixels.
  bool byUniverse = false;
  /// A controller's own memory: what is done with it besides comparing; a scene from 1, −1 for none.
  bool fit = false;
  bool write = false;
  int scene = -1;
  /// The show that a recording is compared with.
  std::string against;
  /// A measured length: two LEDs from 1, and metres.
  std::vector<double> known;
};

/// Says on stderr why something failed; returns kShowError.
int failed(const Failure& failure);

// The verbs: each does its work, prints, and returns a Status.
int info(const Words& words);
int check(const Words& words);
int positions(const Words& words);
int zones(const Words& words);
int cuts(const Words& words);
int patch(const Words& words);
int frame(const Words& words);
int music(const Words& words);
int palette(const Words& words);
int play(const Words& words);
/// Plays a recording, to the controllers that it names.
int playRecording(const Words& words);
int push(const Words& words);
int findNodes(const Words& words);
int listen(const Words& words);
int rehearse(const Words& words);
int map(const Words& words);
int render(const Words& words);
int looks(const Words& words);
int bindings(const Words& words);
int desk(const Words& words);
/// Writes light for a small board.
int board(const Words& words);
/// Compares and fills a controller's own memory.
int memory(const Words& words);
/// What the almanac plays, night by night.
int tonight(const Words& words);
/// The log of nights.
int nights(const Words& words);
/// Writes a systemd unit that runs the almanac of a show.
int installService(const Words& words);
/// Plays unattended: the almanac, a set list, a score in a loop or a look, and what is played by hand.
int runShow(const Words& words);

/// Runs the program with its words; returns the exit status.
int run(int argc, const char* const* argv);

}  // namespace chispa::cli
