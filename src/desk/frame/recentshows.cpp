// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/frame/recentshows.h"

#include <QCryptographicHash>
#include <QDir>
#include <QFileInfo>
#include <QSettings>
#include <QStandardPaths>

namespace chispa::desk {
namespace {

constexpr qsizetype kMax = 8;

QString keyName() {
  return QStringLiteral("recent");
}

QString pictureFile(const QString& path) {
  const QByteArray name = QCryptographicHash::hash(path.toUtf8(), QCryptographicHash::Sha1).toHex();
  return QStandardPaths::writableLocation(QStandardPaths::CacheLocation) + QStringLiteral("/shows/") +
         QString::fromLatin1(name) + QStringLiteral(".png");
}

}  // namespace

QStringList recentShows() {
  QStringList there = QSettings().value(keyName()).toStringList();
  there.removeIf([](const QString& path) { return !QFileInfo::exists(path); });
  return there;
}

void rememberShow(const QString& path, const QImage& picture) {
  QSettings settings;
  QStringList all = settings.value(keyName()).toStringList();
  all.removeAll(path);
  all.prepend(path);
  settings.setValue(keyName(), all.mid(0, kMax));
  if (picture.isNull()) return;
  const QString file = pictureFile(path);
  // Without a picture the show is listed by its name alone.
  if (QDir().mkpath(QFileInfo(file).path())) picture.save(file);
}

QImage pictureOfShow(const QString& path) {
  return QImage(pictureFile(path));
}

}  // namespace chispa::desk
