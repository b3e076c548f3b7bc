// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <functional>
#include <utility>

#include <QEvent>
#include <QWidget>

namespace chispa::desk {

/// Keeps what a widget shows up to date: at once while it can be seen, else when it is shown next. So what
/// stands on a hidden page costs a drag nothing. Lives as long as the widget. UI thread.
class WhenSeen : public QObject {
 public:
  WhenSeen(QWidget* widget, std::function<void()> refresh)
      : QObject(widget), widget_(widget), refresh_(std::move(refresh)) {
    widget->installEventFilter(this);
  }

  /// What it shows has changed.
  void ask() {
    if (widget_->isVisible())
      refresh_();
    else
      isStale_ = true;
  }

 protected:
  bool eventFilter(QObject*, QEvent* event) override {
    if (event->type() == QEvent::Show && std::exchange(isStale_, false)) refresh_();
    return false;
  }

 private:
  QWidget* widget_;
  std::function<void()> refresh_;
  bool isStale_ = false;
};

}  // namespace chispa::desk
