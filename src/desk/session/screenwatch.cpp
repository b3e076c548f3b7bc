// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/session/screenwatch.h"

#include <QGuiApplication>
#include <QImage>
#include <QPixmap>
#include <QScreen>

namespace chispa::desk {
namespace {

constexpr int kPicture_ms = 40;

/// The part made small enough for LEDs, in its own shape.
std::shared_ptr<LivePicture> pictureFor(const ScreenPart& part) {
  const QSize size = QSize(part.width, part.height)
                         .scaled(MediaLimits::kMaxSide, MediaLimits::kMaxSide, Qt::KeepAspectRatio);
  return std::make_shared<LivePicture>(std::max(1, std::min(size.width(), part.width)),
                                       std::max(1, std::min(size.height(), part.height)));
}

}  // namespace

ScreenWatch::ScreenWatch(QObject* parent) : QObject(parent) {
  timer_.setInterval(kPicture_ms);
  connect(&timer_, &QTimer::timeout, this, &ScreenWatch::look);
}

void ScreenWatch::watch(const std::vector<ScreenPart>& parts) {
  std::map<ScreenPart, std::shared_ptr<LivePicture>> next;
  for (const ScreenPart& part : parts) {
    const auto known = pictures_.find(part);
    next[part] = known != pictures_.end() ? known->second : pictureFor(part);
  }
  pictures_ = std::move(next);
  if (pictures_.empty()) {
    trouble_.clear();
    timer_.stop();
  } else if (isAllowed_ && !timer_.isActive()) {
    look();
    timer_.start();
  }
}

void ScreenWatch::allow() {
  if (std::exchange(isAllowed_, true) || pictures_.empty()) return;
  look();
  timer_.start();
}

void ScreenWatch::addTo(MediaLibrary& library) const {
  for (const auto& [part, picture] : pictures_) library.addLive(part, picture);
}

void ScreenWatch::look() {
  trouble_.clear();
  for (const auto& [part, picture] : pictures_)
    if (!lookAt(part, *picture) && trouble_.isEmpty())
      trouble_ = part.screen < QGuiApplication::screens().size()
                     ? tr("This desktop does not let programs look at the screen. Log in to an X11 session "
                          "to use spyholes.")
                     : tr("There is no screen %1. Choose another part of the screen.").arg(part.screen + 1);
}

bool ScreenWatch::lookAt(const ScreenPart& part, LivePicture& picture) {
  QScreen* screen = QGuiApplication::screens().value(part.screen);
  const QPixmap seen = screen ? screen->grabWindow(0, part.x, part.y, part.width, part.height) : QPixmap();
  if (seen.isNull()) return false;
  const QImage small =
      seen.toImage()
          .scaled(picture.width(), picture.height(), Qt::IgnoreAspectRatio, Qt::SmoothTransformation)
          .convertToFormat(QImage::Format_RGBX8888);
  picture.write(small.constBits());
  return true;
}

}  // namespace chispa::desk
