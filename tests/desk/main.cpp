// SPDX-License-Identifier: GPL-3.0-or-later
#include <cstdio>
#include <cstdlib>

#include <QApplication>
#include <QSettings>
#include <gtest/gtest.h>

#include "desk/parts/theme.h"
#include "desk/session/pools.h"

int main(int argc, char** argv) {
  // The real widgets, drawn into memory: no display is needed.
  if (qEnvironmentVariableIsEmpty("QT_QPA_PLATFORM")) qputenv("QT_QPA_PLATFORM", "offscreen");
  testing::InitGoogleTest(&argc, argv);
  QApplication app(argc, argv);
  QApplication::setApplicationName(QStringLiteral("chispa-test"));
  QApplication::setOrganizationName(QStringLiteral("chispa-test"));
  QSettings::setDefaultFormat(QSettings::IniFormat);
  chispa::desk::applyTheme(app, true);
  const int status = RUN_ALL_TESTS();
  // As the program does: what still computes would find the values of the process taken down under it.
  if (chispa::desk::pools::areBusy()) {
    std::fflush(nullptr);
    std::_Exit(status);
  }
  return status;
}
