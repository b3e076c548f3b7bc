// SPDX-License-Identifier: GPL-3.0-or-later
#include <QApplication>
#include <QSettings>
#include <gtest/gtest.h>

#include "desk/parts/theme.h"

int main(int argc, char** argv) {
  // The real widgets, drawn into memory: no display is needed.
  if (qEnvironmentVariableIsEmpty("QT_QPA_PLATFORM")) qputenv("QT_QPA_PLATFORM", "offscreen");
  testing::InitGoogleTest(&argc, argv);
  QApplication app(argc, argv);
  QApplication::setApplicationName(QStringLiteral("chispa-test"));
  QApplication::setOrganizationName(QStringLiteral("chispa-test"));
  QSettings::setDefaultFormat(QSettings::IniFormat);
  chispa::desk::applyTheme(app, true);
  return RUN_ALL_TESTS();
}
