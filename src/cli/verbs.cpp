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
    app_.set_help_all_flag("--help-all", "every verb with its options");
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
    sub->add_option("--score", words_.score, "the score's name; the first one if not given");
  }
  void addJson(CLI::App* sub) { sub->add_flag("--json", words_.json, "as JSON"); }
  /// A table: as CSV, which is what is printed anyway, or as JSON.
  void addTable(CLI::App* sub) {
    sub->add_flag("--csv", csv_, "as a table; so it is without it too");
    addJson(sub);
  }

  void addReaders() {
    addJson(addForShow("info", "counts, amps and problems of a show", info));
    addJson(addForShow("check", "the problems of a show, one a line; status 1 if any is an error", check));
    addTable(addForShow("positions", "where every pixel is", positions));
    addTable(addForShow("cuts", "the pieces to cut from the reels", cuts));
    addJson(addForShow("looks", "the looks of a show, as JSON", looks));
    CLI::App* table = addForShow("bindings", "what drives what", bindings);
    addTable(table);
    table = addForShow("desk", "every cell that listens to a lighting desk", desk);
    addTable(table);
    table->add_flag("--check", words_.check,
                    "listen, and tell what arrives unheard and what does not arrive");
    table->add_option("--interface", words_.interface, "IPv4 address to listen at; 127.0.0.1 if not given");
    table->add_option("--seconds", words_.length_s, "how long to listen; 3 if not given");
    CLI::App* nights =
        addForShow("tonight", "what the almanac plays, and sun times, night by night, as JSON", tonight);
    nights->add_option("--from", words_.date, "the first day, like 2026-12-24; today if not given");
    nights->add_option("--days", words_.days, "how many nights; 1 if not given")->check(CLI::Range(1, 3660));
    addJson(nights);
    nights = add("nights", "the log of nights: hours of light, energy, late frames, what was lost",
                 chispa::cli::nights);
    nights->add_option("--last", words_.last, "how many nights; 7 if not given")->check(CLI::Range(1, 731));
    addJson(nights);
    addForShow("install-service",
               "write a systemd unit that runs the show's almanac, and say how to enable it", installService);
    CLI::App* cells = addForShow("zones", "the cells of all zones, or of one, in playing order", zones);
    cells->add_option("--zone", words_.zone, "the zone's name");
    addTable(cells);
    addTable(addForShow("patch", "universe and channel of every pixel", patch));
    CLI::App* sub = addForShow("frame", "colours of all pixels at an instant of a score", frame);
    addScore(sub);
    sub->add_option("--at", words_.at_s, "seconds from the score's start")->required();
    addTable(sub);
    sub = add("map", "where LEDs are, from frames of a camera that saw them blink", map);
    sub->add_option("--frames", words_.frames, "a video, or a folder of pictures")->required();
    sub->add_option("--leds", words_.leds, "how many LEDs blinked")->required()->check(CLI::Range(1, 65'534));
    sub->add_option("--second", words_.secondFrames, "frames from a second place, for places in space");
    sub->add_option("--known", words_.known,
                    "a measured length: two LEDs, from 1, and the metres between them")
        ->expected(3);
    sub->add_option("--view", words_.fieldOfView_deg,
                    "width of the camera's view in degrees; 60 if not given")
        ->check(CLI::Range(5.0, 170.0));
    addTable(sub);
    sub = add("music", "duration, tempo, beats and bars of an audio file", music);
    sub->add_option("FILE", words_.file, "the audio file")->required();
    addJson(sub);
    sub = add("palette", "the stops of a palette file: gpl, ggr, cpt, svg or css", palette);
    sub->add_option("FILE", words_.file, "the palette file")->required();
    addJson(sub);
  }

  void addBoard() {
    CLI::App* sub = addForShow("board", "light for a small board, as C files; or what it would take", board);
    sub->add_option("--score", words_.scores, "a score to play; may be given several times");
    sub->add_option("--look", words_.looks, "a look to play; may be given several times");
    sub->add_option(
        "--on", words_.on,
        "a fixture or a zone that hangs on the board, in the order of the data line; all that is lit "
        "if not given");
    sub->add_option("--out", words_.output,
                    "the folder for light.h, player.h, player.c, an example and README.md");
    sub->add_flag("--size", words_.sizeOnly, "only tell what it takes, and what would make it smaller");
    sub->add_option("--flash", words_.flash, "bytes of flash; 32768 if not given")
        ->check(CLI::Range(1024, 1 << 30));
    sub->add_option("--ram", words_.ram, "bytes of RAM; 2048 if not given")->check(CLI::Range(64, 1 << 30));
    sub->add_option("--fps", words_.framesPerSecond, "frames a second; 40 if not given")
        ->check(CLI::Range(1, 120));
    sub->add_option("--colours", words_.colours, "most colours of what is kept as frames; all if not given")
        ->check(CLI::Range(2, 256));
    sub->add_option("--group", words_.group, "pixels that share a value; 1 if not given")
        ->check(CLI::Range(1, 64));
    sub->add_option("--loop", words_.loop_s,
                    "seconds after which a look that is kept as frames comes again; 20")
        ->check(CLI::Range(1.0, 600.0));
    sub->add_option("--each", words_.stays_s,
                    "seconds of each scene before the next; until the button if not given")
        ->check(CLI::Range(0.0, 86'400.0));
    addJson(sub);
  }

  void addPlayers() {
    CLI::App* sub =
        addForShow("play", "play a score, or a recording, to the controllers, in real time", play);
    addScore(sub);
    sub->add_option("--from", words_.from_s, "seconds from the score's start");
    sub->add_option("--seconds", words_.length_s, "how long to play; to the end if not given");
    sub->add_option("--stats", words_.stats, "file that gets figures of the output, as JSON");
    sub->add_flag("--require", words_.require, "end with status 1 if no controller ever answers");
    addJson(sub);
    sub->add_flag("--silent", words_.silent, "play on the clock, without sound");
    sub->add_flag("--loop", words_.loop, "begin again at the end");
    sub->add_option("--check", words_.against,
                    "of a recording: tell what is otherwise in this show, and do not play");
  }

  void addRun() {
    CLI::App* sub = addForShow(
        "run", "play unattended, until it is stopped: the almanac, a set list, a score in a loop, or a look",
        runShow);
    addScore(sub);
    sub->add_option("--look", words_.look, "a look's name, in place of a score");
    sub->add_option("--set-list", words_.setList, "a set list's name, in place of a score");
    sub->add_flag("--almanac", words_.almanac,
                  "light goes on and off by the show's rules, night after night");
    sub->add_option("--at", words_.when,
                    "begin as if it were then, like 2026-12-24T19:30:00, in the installation's time zone");
    sub->add_option("--speed", words_.speed, "so many times as fast, to rehearse; 1 if not given")
        ->check(CLI::Range(1.0, 3600.0));
    sub->add_option("--seconds", words_.length_s, "how long; until it is stopped if not given");
    sub->add_flag("--listen", words_.listen, "hear the desks that the show listens to, MIDI and OSC");
    sub->add_option("--interface", words_.interface, "IPv4 address to listen at; 127.0.0.1 if not given");
    sub->add_option("--stats", words_.stats, "file that gets figures of the output, as JSON");
    sub->add_flag("--silent", words_.silent, "play on the clock, without sound");
  }

  void addRender() {
    CLI::App* sub =
        addForShow("render",
                   "a film of a score: mp4, webm, avi, animated gif, webp or apng, or a PNG each; or a "
                   "recording of its universes: chirec; or plain data: csv, rgb, png",
                   render);
    addScore(sub);
    sub->add_option("--out", words_.output,
                    "the file; its ending chooses the kind, a name like light-%04d.png gives a PNG each")
        ->required();
    sub->add_option("--from", words_.from_s, "seconds from the score's start");
    auto* seconds = sub->add_option("--seconds", words_.length_s, "how long; to the end if not given");
    sub->add_option("--to", words_.to_s, "seconds from the score's start at which it ends")
        ->excludes(seconds)
        ->check(CLI::PositiveNumber);
    sub->add_option("--width", words_.width, "dots across")->check(CLI::Range(2, 7680));
    sub->add_option("--height", words_.height, "dots down")->check(CLI::Range(2, 4320));
    sub->add_option("--fps", words_.framesPerSecond, "pictures a second; 30 if not given, of recordings 40")
        ->check(CLI::Range(1, 240));
    sub->add_flag("--silent", words_.silent, "a film without the score's sound");
    sub->add_option("--set-list", words_.setList, "a set list in place of a score, as one recording");
    sub->add_option("--on", words_.on, "plain data: only this fixture or zone; may be given several times");
    sub->add_flag("--universes", words_.byUniverse, "plain data: channels as sent in place of colours");
    sub->add_flag("--unrolled", words_.unrolled, "a line a fixture in place of the view of the whole");
    sub->add_flag("--as-shown", words_.asShown, "light as the strips show it in place of as it is meant");
    addJson(sub);
  }

  void addControllerVerbs() {
    CLI::App* sub = addForShow("push", "send the set-up to controllers, and read it back", push);
    sub->add_option("--controller", words_.controller, "the controller's name; all if not given");
    sub->add_flag("--restore", words_.restore, "put back what the controller had before it was last set up");
    sub->add_flag("--dry-run", words_.dryRun, "only show what would change");
    sub->add_option("--wait", words_.wait_s, "seconds to wait for a controller that does not answer yet");
    addJson(sub);
    sub = addForShow("memory",
                     "what the show keeps in a controller's own memory, against what is there; fills it",
                     memory);
    sub->add_option("--controller", words_.controller, "the controller's name")->required();
    sub->add_flag("--fit", words_.fit, "let steps differ as little as it takes to fit");
    auto* write =
        sub->add_flag("--write", words_.write, "keep what is there, set the clock, write and read back");
    sub->add_flag("--restore", words_.restore, "put back what it held before it was last written")
        ->excludes(write);
    sub->add_option("--play", words_.scene, "play this scene there now, from 1; 0 is dark")
        ->check(CLI::Range(0, 200));
    addJson(sub);
  }

  void addNetworkVerbs() {
    CLI::App* sub = add("find", "controllers and sources that answer on the network", findNodes);
    sub->add_option("SHOW", words_.file, "a show whose controllers are asked one by one too");
    sub->add_option("--interface", words_.interface,
                    "IPv4 address of the interface to ask from; all but loopback if not given");
    addJson(sub);
    sub = add("listen", "what others send: universes, sources, rates", listen);
    sub->add_option("--interface", words_.interface, "IPv4 address to listen at; 127.0.0.1 if not given");
    sub->add_option("--seconds", words_.length_s, "how long; 3 if not given");
    addJson(sub);
    sub = addForShow("rehearse",
                     "play to simulated controllers started for it, and compare every byte that arrives",
                     rehearse);
    addScore(sub);
    sub->add_option("--seconds", words_.length_s, "how long; 20 if not given");
    addJson(sub);
  }

  CLI::App app_{"chispa-cli: shows without a window"};
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
