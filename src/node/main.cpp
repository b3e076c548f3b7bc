// SPDX-License-Identifier: GPL-3.0-or-later
#include <QApplication>
#include <QCommandLineParser>
#include <QTimer>
#include <algorithm>
#include <csignal>
#include <iostream>
#include <memory>
#include <string>

#include "node/interface.h"
#include "node/node.h"
#include "node/window.h"

namespace {

using chispa::node::NodeOptions;

/// What the command line asks for.
struct Asked {
  NodeOptions node;
  int httpPort = 0;
  bool window = false;
};

/// A whole number from `low` to `high`, or the program ends with status 2.
int numberOf(const QCommandLineParser& parser, const QString& name, int low, int high) {
  bool good = false;
  const int value = parser.value(name).toInt(&good);
  if (good && value >= low && value <= high) return value;
  std::cerr << "chispa-node: --" << name.toStdString() << " takes a whole number from " << low << " to " << high << ".\n";
  std::exit(2);
}

Asked readWords(const QCoreApplication& app) {
  QCommandLineParser parser;
  parser.setApplicationDescription("chispa-node: a simulated pixel controller that listens to E1.31 and Art-Net");
  parser.addHelpOption();
  parser.addOptions({{"name", "What it calls itself.", "NAME", "Node"},
                     {"ports", "How many data outputs it has.", "P", "8"},
                     {"listen", "IPv4 address it listens at.", "ADDRESS", "127.0.0.1"},
                     {"http", "Port of its set-up interface.", "PORT"},
                     {"record", "File that every packet received is written to.", "FILE"},
                     {"window", "Show the strips."}});
  parser.process(app);
  Asked asked;
  asked.node.name = parser.value("name").toStdString();
  asked.node.ports = numberOf(parser, "ports", 1, 64);
  asked.node.listen = parser.value("listen").toStdString();
  asked.node.recordFile = parser.value("record").toStdString();
  if (parser.isSet("http")) asked.httpPort = numberOf(parser, "http", 1, 65535);
  asked.window = parser.isSet("window");
  return asked;
}

volatile std::sig_atomic_t ended = 0;

}  // namespace

int main(int argc, char** argv) {
  using namespace chispa::node;
  const bool wantsWindow = std::any_of(argv, argv + argc, [](const char* word) { return std::string(word) == "--window"; });
  // Without a window no display may be needed.
  const std::unique_ptr<QCoreApplication> app(wantsWindow ? new QApplication(argc, argv) : new QCoreApplication(argc, argv));
  const Asked asked = readWords(*app);
  Node node(asked.node);
  Interface interface(node);
  std::string why;
  if (!node.start(why) || (asked.httpPort != 0 && !interface.start(asked.node.listen, asked.httpPort, why))) {
    std::cerr << "chispa-node: " << why << "\n";
    return 1;
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
