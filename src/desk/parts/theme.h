// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <QColor>
#include <QFont>

class QApplication;
class QWidget;

namespace chispa::desk {

/// The colours of the window: neutral, so that the colours of the light are judged rightly.
struct Theme {
  bool isDark = true;
  QColor window;
  QColor panel;
  /// What is pressed stands out of its panel; what is written into lies deeper.
  QColor raised;
  QColor field;
  QColor line;
  QColor text;
  QColor quiet;
  /// What is selected or playing.
  QColor ember;
  QColor fine;
  QColor watch;
  QColor wrong;
  /// Ground on which light is drawn; dark in both themes.
  QColor night;

  /// A tint of `ember` for the ground of selected rows.
  QColor selectedGround() const;
};

/// The theme in use. UI thread.
const Theme& theme();

/// Sets palette, style sheet and font of the whole application; widgets repaint themselves.
void applyTheme(QApplication& app, bool dark);

/// Gives `widget` a style sheet of its own. Cheap where it has that one already, as setStyleSheet() is not.
void setSheet(QWidget& widget, const QString& sheet);

/// Its words in `colour`; as the theme has them where that is not valid. Cheap where nothing changes.
void setTextColour(QWidget& widget, const QColor& colour);

/// The application's font with tabular figures, `scale` times as large as text.
QFont numberFont(double scale = 1);

/// Width of `n` characters of text, so that nothing is measured in fixed pixels.
int textWidth(int n);

}  // namespace chispa::desk
