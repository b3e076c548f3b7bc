// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/verbs.h"

#include <iostream>

#include <CLI/CLI.hpp>

namespace chispa::cli {
namespace {

using Verb = int (*)(const Words&);

/// The grammar: which words each verb takes. The chosen verb is left in chosen().
class Grammar {
 public:
  Grammar() {
    app_.require_subcommand(1);
    app_.set_version_flag("--version", "chispa-cli " CHISPA_VERSION);
    app_.set_help_all_flag("--help-all", "print the help of every command");
    addReaders();
    addPlayers();
    addRun();
    addRender();
    addControllerVerbs();
    addNetworkVerbs();
    addBoard();
  }

  CLI::App& app() { return app_; }
  Verb chosen() const { return verb_; }
  const Words& words() const { return words_; }

 private:
  CLI::App* add(const char* name, const char* what, Verb verb) {
    CLI::App* sub = app_.add_subcommand(name, what);
    sub->callback([this, verb] { verb_ = verb; });
    return sub;
  }
  CLI::App* addForShow(const char* name, const char* what, Verb verb) {
    CLI::App* sub = add(name, what, verb);
    sub->add_option("SHOW", words_.file, "the show file")->required();
    return sub;
  }
  void addScore(CLI::App* sub) {
    sub->add_option("--score", words_.score, "name of the score; the first one by default");
  }
  void addJson(CLI::App* sub) { sub->add_flag("--json", words_.json, "print JSON"); }
  /// A table: as CSV, which is what is printed anyway, or as JSON.
  void addTable(CLI::App* sub) {
    sub->add_flag("--csv", csv_, "print CSV (the default)");
    addJson(sub);
  }

  void addReaders() {
    addJson(addForShow("info", "show what a show contains: counts, amps, problems", info));
    addJson(
        addForShow("check", "list the problems of a show, one per line; exit 1 if any is an error", check));
    addTable(addForShow("positions", "list the position of every pixel", positions));
    addTable(addForShow("cuts", "list the pieces to cut from the reels", cuts));
    addJson(addForShow("looks", "list the looks of a show, as JSON", looks));
    CLI::App* table = addForShow("bindings", "list which control drives what", bindings);
    addTable(table);
    table = addForShow("desk", "list every cell that listens to a lighting desk", desk);
    addTable(table);
    table->add_flag("--check", words_.check, "listen, and report what arrives unused and what is missing");
    table->add_option("--interface", words_.interface, "IPv4 address to listen at (default 127.0.0.1)");
    table->add_option("--seconds", words_.length_s, "how long to listen (default 3)");
    CLI::App* nights =
        addForShow("tonight", "list what the almanac plays each night, with sun times, as JSON", tonight);
    nights->add_option("--from", words_.date, "the first day, like 2026-12-24 (default today)");
    nights->add_option("--days", words_.days, "number of nights (default 1)")->check(CLI::Range(1, 3660));
    addJson(nights);
    nights = add("nights", "print the log of nights: hours of light, energy, late frames, lost controllers",
                 chispa::cli::nights);
    nights->add_option("--last", words_.last, "number of nights (default 7)")->check(CLI::Range(1, 731));
    addJson(nights);
    addForShow("install-service",
               "write a systemd unit that runs the show's almanac, and print how to enable it",
               installService);
    CLI::App* cells = addForShow("zones", "list the cells of all zones, or of one, in playing order", zones);
    cells->add_option("--zone", words_.zone, "name of the zone");
    addTable(cells);
    addTable(addForShow("patch", "list universe and channel of every pixel", patch));
    CLI::App* sub = addForShow("frame", "print the colours of all pixels at one moment of a score", frame);
    addScore(sub);
    sub->add_option("--at", words_.at_s, "seconds from the score's start")->required();
    addTable(sub);
    sub = add("map", "find where LEDs are, from camera frames of them blinking", map);
    sub->add_option("--frames", words_.frames, "a video, or a folder of pictures")->required();
    sub->add_option("--leds", words_.leds, "number of LEDs that blinked")
        ->required()
        ->check(CLI::Range(1, 65'534));
    sub->add_option("--second", words_.secondFrames, "frames from a second viewpoint, for positions in 3D");
    sub->add_option("--known", words_.known,
                    "a measured distance: two LED numbers, counted from 1, and the metres between them")
        ->expected(3);
    sub->add_option("--view", words_.fieldOfView_deg,
                    "horizontal field of view of the camera, in degrees (default 60)")
        ->check(CLI::Range(5.0, 170.0));
    addTable(sub);
    sub = add("music", "find duration, tempo, beats and bars of an audio file", music);
    sub->add_option("FILE", words_.file, "the audio file")->required();
    addJson(sub);
    sub = add("palette", "list the stops of a palette file: gpl, ggr, cpt, svg or css", palette);
    sub->add_option("FILE", words_.file, "the palette file")->required();
    addJson(sub);
  }

  void addBoard() {
    CLI::App* sub =
        addForShow("board", "write light for a small board as C files, or report what it would take", board);
    sub->add_option("--score", words_.scores, "a score to play; can be repeated");
    sub->add_option("--look", words_.looks, "a look to play; can be repeated");
    sub->add_option(
        "--on", words_.on,
        "a fixture or a zone on the board, in the order of the data line; can be repeated (default: all "
        "that is lit)");
    sub->add_option("--out", words_.output,
                    "folder for light.h, player.h, player.c, an example and README.md");
    sub->add_flag("--size", words_.sizeOnly, "only report what it takes, and what would make it smaller");
    sub->add_option("--flash", words_.flash, "bytes of flash (default 32768)")
        ->check(CLI::Range(1024, 1 << 30));
    sub->add_option("--ram", words_.ram, "bytes of RAM (default 2048)")->check(CLI::Range(64, 1 << 30));
    sub->add_option("--fps", words_.framesPerSecond, "frames per second (default 40)")
        ->check(CLI::Range(1, 120));
    sub->add_option("--colours", words_.colours, "max colours of what is kept as frames (default all)")
        ->check(CLI::Range(2, 256));
    sub->add_option("--group", words_.group, "pixels that share a value (default 1)")
        ->check(CLI::Range(1, 64));
    sub->add_option("--loop", words_.loop_s, "seconds after which a look kept as frames repeats (default 20)")
        ->check(CLI::Range(1.0, 600.0));
    sub->add_option("--each", words_.stays_s,
                    "seconds of each scene before the next (default: until the button is pressed)")
        ->check(CLI::Range(0.0, 86'400.0));
    addJson(sub);
  }

  void addPlayers() {
    CLI::App* sub = addForShow("play", "play a score or a recording to the controllers in real time", play);
    addScore(sub);
    sub->add_option("--from", words_.from_s, "seconds from the score's start");
    sub->add_option("--seconds", words_.length_s, "how long to play (default: to the end)");
    sub->add_option("--stats", words_.stats, "write figures of the output to this file, as JSON");
    sub->add_flag("--require", words_.require, "exit 1 if no controller ever answers");
    addJson(sub);
    sub->add_flag("--silent", words_.silent, "play without sound, by the clock");
    sub->add_flag("--loop", words_.loop, "start again at the end");
    sub->add_option("--check", words_.against, "compare the recording with this show, and do not play");
  }

  void addRun() {
    CLI::App* sub = addForShow(
        "run", "play unattended until stopped: the almanac, a set list, a score in a loop, or a look",
        runShow);
    addScore(sub);
    sub->add_option("--look", words_.look, "name of a look, in place of a score");
    sub->add_option("--set-list", words_.setList, "name of a set list, in place of a score");
    sub->add_flag("--almanac", words_.almanac,
                  "switch light on and off by the show's rules, night after night");
    sub->add_option(
        "--at", words_.when,
        "start as if it were this time, like 2026-12-24T19:30:00, in the installation's time zone");
    sub->add_option("--speed", words_.speed, "how many times as fast, to rehearse (default 1)")
        ->check(CLI::Range(1.0, 3600.0));
    sub->add_option("--seconds", words_.length_s, "how long to play (default: until stopped)");
    sub->add_flag("--listen", words_.listen, "listen to the show's desks, to MIDI and to OSC");
    sub->add_option("--interface", words_.interface, "IPv4 address to listen at (default 127.0.0.1)");
    sub->add_option("--stats", words_.stats, "write figures of the output to this file, as JSON");
    sub->add_flag("--silent", words_.silent, "play without sound, by the clock");
  }

  void addRender() {
    CLI::App* sub = addForShow(
        "render",
        "write a score as a film (mp4, webm, avi, animated gif, webp or apng, or one PNG per frame), as a "
        "recording of its universes (chirec), or as plain data (csv, rgb, png)",
        render);
    addScore(sub);
    sub->add_option(
           "--out", words_.output,
           "the file; its ending chooses the format, a name like light-%04d.png writes one PNG per frame")
        ->required();
    sub->add_option("--from", words_.from_s, "seconds from the score's start");
    auto* seconds = sub->add_option("--seconds", words_.length_s, "how long (default: to the end)");
    sub->add_option("--to", words_.to_s, "where it ends, in seconds from the score's start")
        ->excludes(seconds)
        ->check(CLI::PositiveNumber);
    sub->add_option("--width", words_.width, "width in dots")->check(CLI::Range(2, 7680));
    sub->add_option("--height", words_.height, "height in dots")->check(CLI::Range(2, 4320));
    sub->add_option("--fps", words_.framesPerSecond, "frames per second (default 30, for recordings 40)")
        ->check(CLI::Range(1, 240));
    sub->add_flag("--silent", words_.silent, "leave out the score's sound");
    sub->add_option("--set-list", words_.setList,
                    "name of a set list, in place of a score, as one recording");
    sub->add_option("--on", words_.on, "plain data: only this fixture or zone; can be repeated");
    sub->add_flag("--universes", words_.byUniverse, "plain data: channels as sent, in place of colours");
    sub->add_flag("--unrolled", words_.unrolled, "one line per fixture, in place of the view of the whole");
    sub->add_flag("--as-shown", words_.asShown, "light as the strips show it, not as it is meant");
    addJson(sub);
  }

  void addControllerVerbs() {
    CLI::App* sub = addForShow("push", "set up controllers, and read it back", push);
    sub->add_option("--controller", words_.controller, "name of the controller (default: all)");
    sub->add_flag("--restore", words_.restore, "restore what the controller had before it was last set up");
    sub->add_flag("--dry-run", words_.dryRun, "only show what would change");
    sub->add_option("--wait", words_.wait_s, "seconds to wait for a controller that does not answer yet");
    addJson(sub);
    sub = addForShow(
        "memory", "compare what the show keeps in a controller's own memory with what is there, or write it",
        memory);
    sub->add_option("--controller", words_.controller, "name of the controller")->required();
    sub->add_flag("--fit", words_.fit, "simplify the light just enough to fit");
    auto* write =
        sub->add_flag("--write", words_.write, "back up what is there, set the clock, write and read back");
    sub->add_flag("--restore", words_.restore, "restore what it held before it was last written")
        ->excludes(write);
    sub->add_option("--play", words_.scene, "play this scene there now, counted from 1; 0 is dark")
        ->check(CLI::Range(0, 200));
    addJson(sub);
  }

  void addNetworkVerbs() {
    CLI::App* sub = add("find", "find controllers and sources on the network", findNodes);
    sub->add_option("SHOW", words_.file, "a show whose controllers are asked one by one, too");
    sub->add_option("--interface", words_.interface,
                    "IPv4 address of the interface to ask from (default: all but loopback)");
    addJson(sub);
    sub = add("listen", "listen to what others send: universes, sources, rates", listen);
    sub->add_option("--interface", words_.interface, "IPv4 address to listen at (default 127.0.0.1)");
    sub->add_option("--seconds", words_.length_s, "how long to listen (default 3)");
    addJson(sub);
    sub = addForShow("rehearse", "play to simulated controllers, and compare every byte that arrives",
                     rehearse);
    addScore(sub);
    sub->add_option("--seconds", words_.length_s, "how long to play (default 20)");
    addJson(sub);
  }

  CLI::App app_{"Plays, checks, renders and sends Chispa shows without a window.", "chispa-cli"};
  Words words_;
  Verb verb_ = nullptr;
  bool csv_ = false;
};

/// The first word, if it is neither an option nor a verb.
std::string unknownVerb(const CLI::App& app, int argc, const char* const* argv) {
  const std::string word = argc > 1 ? argv[1] : "";
  if (word.empty() || word.front() == '-') return {};
  for (const CLI::App* sub : app.get_subcommands([](const CLI::App*) { return true; }))
    if (sub->get_name() == word) return {};
  return word;
}

}  // namespace

int failed(const Failure& failure) {
  std::cerr << failure.text() << "\n";
  return kShowError;
}

int run(int argc, const char* const* argv) {
  Grammar grammar;
  try {
    grammar.app().parse(argc, argv);
  } catch (const CLI::ParseError& error) {
    if (const std::string verb = unknownVerb(grammar.app(), argc, argv); !verb.empty()) {
      std::cerr << "chispa-cli: There is no verb “" << verb << "”. `chispa-cli --help` lists them.\n";
      return kUsageError;
    }
    return grammar.app().exit(error) == 0 ? kDone : kUsageError;
  }
  try {
    return grammar.chosen()(grammar.words());
  } catch (const std::exception& error) {
    std::cerr << "chispa-cli: " << error.what() << "\n";
    return kShowError;
  }
}

}  // namespace chispa::cli
