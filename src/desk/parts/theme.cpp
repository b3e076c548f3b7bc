// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/parts/theme.h"

#include <QApplication>
#include <QFile>
#include <QFontMetrics>
#include <QPalette>
#include <QStyle>
#include <QStyleFactory>

#include "desk/parts/resources.h"
#include "desk/parts/textsize.h"

namespace chispa::desk {
namespace {

Theme darkTheme() {
  return {true,
          QColor(0x1a1a1c),
          QColor(0x232326),
          QColor(0x2c2c30),
          QColor(0x18181a),
          QColor(0x3a3a40),
          QColor(0xe6e3dd),
          QColor(0x9a968e),
          QColor(0xf0803c),
          QColor(0x58b68a),
          QColor(0xe3b341),
          QColor(0xf0645c),
          QColor(0x070709)};
}

Theme lightTheme() {
  // The accents are deeper here, so that text in them keeps its contrast on white.
  return {false,
          QColor(0xf4f2ee),
          QColor(0xffffff),
          QColor(0xe7e4de),
          QColor(0xffffff),
          QColor(0xcfcbc3),
          QColor(0x24221f),
          QColor(0x66625b),
          QColor(0xb9501a),
          QColor(0x22744e),
          QColor(0x855f00),
          QColor(0xb3261e),
          QColor(0x070709)};
}

Theme& current() {
  static Theme theme = darkTheme();
  return theme;
}

QString styleSheet(const Theme& t) {
  QFile file(QStringLiteral(":/style.qss"));
  if (!file.open(QIODevice::ReadOnly)) return {};
  QString sheet = QString::fromUtf8(file.readAll());
  const std::pair<const char*, QColor> names[] = {
      {"@window", t.window}, {"@panel", t.panel}, {"@raised", t.raised},
      {"@field", t.field},   {"@line", t.line},   {"@text", t.text},
      {"@quiet", t.quiet},   {"@ember", t.ember}, {"@selected", t.selectedGround()}};
  for (const auto& [name, colour] : names) sheet.replace(QLatin1String(name), colour.name());
  return sheet;
}

QPalette paletteOf(const Theme& t) {
  QPalette p;
  p.setColor(QPalette::Window, t.window);
  p.setColor(QPalette::Base, t.panel);
  p.setColor(QPalette::AlternateBase, t.raised);
  p.setColor(QPalette::Button, t.raised);
  p.setColor(QPalette::ToolTipBase, t.raised);
  p.setColor(QPalette::Highlight, t.ember);
  p.setColor(QPalette::HighlightedText, t.isDark ? t.window : t.panel);
  for (const auto role : {QPalette::WindowText, QPalette::Text, QPalette::ButtonText, QPalette::ToolTipText})
    p.setColor(role, t.text);
  p.setColor(QPalette::PlaceholderText, t.quiet);
  for (const auto role : {QPalette::WindowText, QPalette::Text, QPalette::ButtonText})
    p.setColor(QPalette::Disabled, role, t.quiet);
  return p;
}

}  // namespace

QColor Theme::selectedGround() const {
  const double share = isDark ? 0.16 : 0.14;
  const auto mix = [share](int a, int b) { return static_cast<int>(a + (b - a) * share); };
  return QColor(mix(panel.red(), ember.red()), mix(panel.green(), ember.green()),
                mix(panel.blue(), ember.blue()));
}

const Theme& theme() {
  return current();
}

void applyTheme(QApplication& app, bool dark) {
  takeDeskResources();
  current() = dark ? darkTheme() : lightTheme();
  if (app.style()->objectName() != QLatin1String("fusion"))
    QApplication::setStyle(QStyleFactory::create(QStringLiteral("Fusion")));
  QFont font = QApplication::font();
  font.setPixelSize(textSize_px());
  QApplication::setFont(font);
  QApplication::setPalette(paletteOf(current()));
  app.setStyleSheet(styleSheet(current()));
}

void setSheet(QWidget& widget, const QString& sheet) {
  if (widget.styleSheet() != sheet) widget.setStyleSheet(sheet);
}

void setTextColour(QWidget& widget, const QColor& colour) {
  setSheet(widget, colour.isValid() ? QStringLiteral("color: %1").arg(colour.name()) : QString());
}

QFont numberFont(double scale) {
  QFont font = QApplication::font();
  font.setPixelSize(static_cast<int>(font.pixelSize() * scale));
  return font;
}

int textWidth(int n) {
  return QFontMetrics(QApplication::font()).averageCharWidth() * n;
}

}  // namespace chispa::desk
