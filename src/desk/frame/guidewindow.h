// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <QWidget>

class QTextBrowser;

namespace chispa::desk {

/// The guide that comes with the program, beside the window. UI thread.
class GuideWindow : public QWidget {
  Q_OBJECT
 public:
  /// `file` is the guide, in Markdown.
  GuideWindow(const QString& file, QWidget* parent);

  /// Shows the chapter whose heading begins with this word.
  void goTo(const QString& heading);

 private:
  QTextBrowser* text_;
};

}  // namespace chispa::desk
