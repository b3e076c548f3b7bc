// SPDX-License-Identifier: GPL-3.0-or-later
#include <cstdlib>
#include <iostream>

#include <QApplication>
#include <QCommandLineParser>
#include <QSettings>
#include <QTimer>

#include "desk/frame/endsignals.h"
#include "desk/frame/mainwindow.h"
#include "desk/frame/preferences.h"
#include "desk/frame/recentshows.h"
#include "desk/frame/shots.h"
#include "desk/parts/language.h"
#include "desk/parts/theme.h"
#include "desk/session/pools.h"
#include "engine/darkexit.h"
#include "link/userfolders.h"

namespace {

using namespace chispa;
using namespace chispa::desk;

std::unique_ptr<engine::Sound> sound(bool silent) {
  if (silent) return engine::makeSilence("no sound: silent, as asked for");
  std::string whyNot;
  return engine::openPulse(whyNot);
}

void describeCommandLine(QCommandLineParser& parser) {
  parser.setApplicationDescription(
      QStringLiteral("Plans, wires and programs light made of addressable LED strip."));
  parser.addHelpOption();
  parser.addVersionOption();
  parser.addPositionalArgument(QStringLiteral("SHOW"), QStringLiteral("The show to open."),
                               QStringLiteral("[SHOW]"));
  parser.addOptions({{"light-on", "Switch light on at once."},
                     {"play", "Play at once, in a loop."},
                     {"silent", "Play without sound."},
                     {"theme", "dark or light.", "THEME"},
                     {"language", "en or es.", "LANGUAGE"},
                     {"until-shown", "End as soon as the window stands, to measure the start."},
                     {"shots", "Draw every workspace into FOLDER and end.", "FOLDER"}});
}

int run(const QCommandLineParser& parser) {
  const bool shots = parser.isSet("shots");
  const bool isUnattended = parser.isSet("play") || parser.isSet("light-on");
  Document document(link::stateFolder());
  Selection selection;
  Stage stage(document, sound(parser.isSet("silent") || shots));
  stage.player().setSoundDevice(chosenSoundDevice().toStdString());
  const engine::DarkExit darkExit(stage.player().output());
  MainWindow window(document, selection, stage);
  EndSignals endSignals;
  QObject::connect(&endSignals, &EndSignals::asked, &window, &MainWindow::endInOrder);
  const QStringList files = parser.positionalArguments();
  if (!files.isEmpty() && shots) {
    const Outcome opened = document.open(files.front().toStdString());
    if (!opened) std::cerr << opened.failure().text() << "\n";
    return opened && drawShots(window, {document, selection, stage}, parser.value("shots")) ? 0 : 1;
  }
  window.setUnattended(isUnattended);
  window.restoreLayout();
  window.show();
  if (!files.isEmpty())
    window.openFile(files.front());
  else if (const QStringList last = recentShows(); !last.isEmpty() && opensLastShow() && !isUnattended)
    window.openFile(last.front());
  if (parser.isSet("until-shown")) {
    QApplication::processEvents();
    window.repaint();
    // The music is still being listened to: what ends it belongs to no start.
    std::_Exit(0);
  }
  // Nobody is there to answer: what was left behind stays until somebody is.
  QTimer::singleShot(0, &window, [&] {
    isUnattended ? window.noteRecovery(link::stateFolder()) : window.offerRecovery(link::stateFolder());
  });
  if (parser.isSet("play")) {
    stage.settle();
    window.showWorkspace(Workspace::Score);
    stage.setLooping(true);
    stage.play();
  }
  if (parser.isSet("light-on")) stage.switchLight(true);
  return QApplication::exec();
}

}  // namespace

int main(int argc, char** argv) {
  QApplication app(argc, argv);
  QApplication::setApplicationName(QStringLiteral("chispa"));
  QApplication::setOrganizationName(QStringLiteral("chispa"));
  QApplication::setApplicationDisplayName(QStringLiteral("Chispa"));
  QApplication::setApplicationVersion(QStringLiteral(CHISPA_VERSION));
  QCommandLineParser parser;
  describeCommandLine(parser);
  if (!parser.parse(app.arguments())) {
    // A wrong word is a matter of usage.
    std::cerr << "chispa: " << parser.errorText().toStdString() << "\n";
    return 2;
  }
  parser.process(app);
  speak(parser.isSet("language") ? parser.value("language") : chosenLanguageCode());
  writeNumbersAsChosen();
  const QString wanted = parser.value("theme");
  applyTheme(app, wanted.isEmpty() ? isDarkChosen() : wanted != QStringLiteral("light"));
  const int status = run(parser);
  // What still decodes, or waits for a controller, is not waited for.
  if (pools::areBusy()) std::_Exit(status);
  return status;
}
