// SPDX-License-Identifier: GPL-3.0-or-later
#include <algorithm>
#include <csignal>
#include <iostream>
#include <memory>
#include <optional>
#include <string>

#include <QApplication>
#include <QCommandLineParser>
#include <QDateTime>
#include <QTimer>

#include "node/interface.h"
#include "node/node.h"
#include "node/settings.h"
#include "node/window.h"
#include "nodecamera/framewriter.h"

namespace {

using chispa::node::NodeOptions;
using chispa::node::parseFaultWords;

/// What the command line asks for.
struct Asked {
  NodeOptions node;
  /// What hangs on it until it is set up otherwise.
  std::vector<chispa::node::PortSetup> ports;
  int httpPort = 0;
  chispa::node::Faults faults;
  std::optional<chispa::node::Filming> filming;
  bool window = false;
};

[[noreturn]] void endWith(const std::string& words) {
  std::cerr << "chispa-node: " << words << "\n";
  std::exit(2);
}

/// A whole number from `low` to `high`, or the program ends with status 2.
int numberOf(const QCommandLineParser& parser, const QString& name, int low, int high) {
  bool good = false;
  const int value = parser.value(name).toInt(&good);
  if (good && value >= low && value <= high) return value;
  endWith("--" + name.toStdString() + " takes a whole number from " + std::to_string(low) + " to " +
          std::to_string(high) + ".");
}

chispa::node::Filming filmingOf(const QCommandLineParser& parser) {
  chispa::node::Filming filming;
  filming.folder = parser.value("film").toStdString();
  auto scene = chispa::vision::readScene(parser.value("scene").toStdString());
  if (!scene) endWith("--scene: " + scene.failure().text());
  filming.scene = *std::move(scene);
  const QStringList rooms{"clean", "medium", "hard"};
  if (!rooms.contains(parser.value("room"))) endWith("--room is clean, medium or hard.");
  filming.severity = static_cast<chispa::vision::Severity>(rooms.indexOf(parser.value("room")));
  const QStringList stand = parser.value("stand").split(QLatin1Char(','));
  bool goodAzimuth = false, goodElevation = false;
  filming.azimuth_deg = stand.value(0).toDouble(&goodAzimuth);
  filming.elevation_deg = stand.value(1).toDouble(&goodElevation);
  if (!goodAzimuth || !goodElevation)
    endWith("--stand takes two numbers: degrees round the LEDs, and above them.");
  return filming;
}

/// A strip on port 1, as it would be wired first.
std::vector<chispa::node::PortSetup> stripOf(const QCommandLineParser& parser) {
  constexpr int kMax = 8192;
  chispa::node::Section strip;
  strip.pixels = numberOf(parser, "pixels", 1, kMax);
  strip.order = parser.value("order").toStdString();
  std::string why;
  const auto ports =
      chispa::node::parseSettings(chispa::node::toJson({{1, "e131", {strip}, 512, false}}).dump(), 1, why);
  if (!ports) endWith("--order: " + why + ".");
  return *ports;
}

void readMemory(const QCommandLineParser& parser, NodeOptions& node) {
  std::string why;
  if (const std::string words = parser.value("memory").toStdString(); words == "none") {
    node.memory.reset();
  } else {
    node.memory = chispa::node::parseMemoryWords(words, why);
    if (!node.memory) endWith("--memory: " + why + ".");
  }
  node.clockSpeed = numberOf(parser, "clock-speed", 1, 100'000);
  if (!parser.isSet("clock")) return;
  const std::string text = parser.value("clock").toStdString();
  if (text == "now")
    node.clock = QDateTime::currentMSecsSinceEpoch();
  else
    node.clock = chispa::node::parseUtc(text);
  if (!node.clock) endWith("--clock takes now, or a time as 2026-12-24T16:30:00Z.");
}

void addOptions(QCommandLineParser& parser) {
  parser.addOptions(
      {{"name", "What it calls itself.", "NAME", "Node"},
       {"ports", "How many data outputs it has.", "P", "8"},
       {"pixels",
        "A strip of so many pixels hangs on port 1, from universe 1 on, until it is set up otherwise.", "N"},
       {"order", "The order of that strip's colours.", "ORDER", "GRB"},
       {"listen", "IPv4 address it listens at.", "ADDRESS", "127.0.0.1"},
       {"http", "Port of its set-up interface.", "PORT"},
       {"record", "File that every packet received is written to.", "FILE"},
       {"fault",
        "What goes wrong on purpose: drop=%,reorder=%,delay=ms,order,silent=s,refuse,fail-after=port,"
        "memory-fails=scene,power-fails=scene.",
        "FAULTS"},
       {"memory",
        "What its memory holds: "
        "scenes=16,steps=2000,channels=4096,bytes=262144,starts=32,contacts=4,nofades; "
        "or none.",
        "LIMITS"},
       {"clock", "What its clock shows, in UTC: 2026-12-24T16:30:00Z, or now; without it, it was never set.",
        "TIME"},
       {"clock-speed", "Seconds of its clock in one.", "N", "1"},
       {"join", "E1.31 universes whose multicast groups it joins, on the interface of --listen: 1,2,7.",
        "UNIVERSES"},
       {"film", "Folder that a simulated camera in front of it writes its pictures to.", "FOLDER"},
       {"scene", "Where its LEDs are, for --film: a file of lines host,http_port,port,pixel,x,y,z.", "FILE"},
       {"room", "What the camera has to put up with: clean, medium or hard.", "ROOM", "clean"},
       {"stand", "Where the camera stands: degrees round the LEDs, and above them.", "AZIMUTH,ELEVATION",
        "0,12"},
       {"window", "Show the strips."}});
}

Asked readWords(const QCoreApplication& app) {
  QCommandLineParser parser;
  parser.setApplicationDescription(
      "chispa-node: a simulated pixel controller that listens to E1.31, Art-Net, DDP and Open Pixel Control");
  parser.addHelpOption();
  addOptions(parser);
  parser.addVersionOption();
  // A wrong word is a matter of usage.
  if (!parser.parse(app.arguments())) endWith(parser.errorText().toStdString());
  parser.process(app);
  if (!parser.positionalArguments().isEmpty())
    endWith("it takes no word but options, and “" + parser.positionalArguments().front().toStdString() +
            "” is none.");
  Asked asked;
  asked.node.name = parser.value("name").toStdString();
  asked.node.ports = numberOf(parser, "ports", 1, 64);
  asked.node.listen = parser.value("listen").toStdString();
  asked.node.recordFile = parser.value("record").toStdString();
  std::string why;
  const auto faults = parseFaultWords(parser.value("fault").toStdString(), why);
  if (!faults) endWith("--fault: " + why + ".");
  asked.faults = *faults;
  for (const QString& word : parser.value("join").split(QLatin1Char(','), Qt::SkipEmptyParts)) {
    bool good = false;
    asked.node.groups.push_back(word.toInt(&good));
    if (!good || asked.node.groups.back() < 1 || asked.node.groups.back() > 63'999)
      endWith("--join takes universes from 1 to 63999, separated by commas.");
  }
  if (parser.isSet("pixels")) asked.ports = stripOf(parser);
  readMemory(parser, asked.node);
  if (parser.isSet("http")) asked.httpPort = numberOf(parser, "http", 1, 65535);
  asked.window = parser.isSet("window");
  if (parser.isSet("film")) asked.filming = filmingOf(parser);
  return asked;
}

volatile std::sig_atomic_t ended = 0;

}  // namespace

int main(int argc, char** argv) {
  using namespace chispa::node;
  const bool wantsWindow =
      std::any_of(argv, argv + argc, [](const char* word) { return std::string(word) == "--window"; });
  // Without a window no display may be needed.
  const std::unique_ptr<QCoreApplication> app(wantsWindow ? new QApplication(argc, argv)
                                                          : new QCoreApplication(argc, argv));
  QCoreApplication::setApplicationName(QStringLiteral("chispa-node"));
  QCoreApplication::setApplicationVersion(QStringLiteral(CHISPA_VERSION));
  const Asked asked = readWords(*app);
  Node node(asked.node);
  Interface interface(node);
  node.setFaults(asked.faults);
  node.setSettings(asked.ports);
  std::string why;
  if (!node.start(why) || (asked.httpPort != 0 && !interface.start(asked.node.listen, asked.httpPort, why))) {
    std::cerr << "chispa-node: " << why << "\n";
    return 1;
  }
  std::unique_ptr<FrameWriter> film;
  if (asked.filming) {
    auto begun = FrameWriter::begin(node, *asked.filming);
    if (!begun) endWith(begun.failure().text());
    film = *std::move(begun);
  }
  // SIGTERM and Ctrl+C end it in order, so that the record is whole.
  std::signal(SIGTERM, [](int) { ended = 1; });
  std::signal(SIGINT, [](int) { ended = 1; });
  QTimer watch;
  QObject::connect(&watch, &QTimer::timeout, [] {
    if (ended) QCoreApplication::quit();
  });
  watch.start(20);
  std::unique_ptr<NodeWindow> view;
  if (asked.window) {
    view = std::make_unique<NodeWindow>(node);
    view->show();
  }
  return QCoreApplication::exec();
}
