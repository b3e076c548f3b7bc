// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/session/outsidefiles.h"

#include <QSettings>
#include <QUrl>

#include "core/base/relativepath.h"
#include "desk/parts/format.h"

namespace chispa::desk {
namespace {

/// Where the settings keep what a show may read.
QString keyOf(const std::filesystem::path& show) {
  return QStringLiteral("outsideFiles/") +
         QString::fromLatin1(QUrl::toPercentEncoding(text(show.string()), {}, "/"));
}

}  // namespace

OutsideFiles::OutsideFiles(const Document& document, QObject* parent) : QObject(parent), document_(document) {
  connect(&document, &Document::opened, this, &OutsideFiles::look);
}

QString OutsideFiles::placeOf(const std::string& name) const {
  return text(resolvedBeside(document_.path(), name).lexically_normal().string());
}

void OutsideFiles::look() {
  waiting_.clear();
  const auto& outside = document_.namesOutside();
  if (outside.empty()) return;
  const QStringList known = QSettings().value(keyOf(document_.path())).toStringList();
  for (const std::string& name : outside)
    if (!known.contains(placeOf(name))) waiting_.insert(name);
}

QStringList OutsideFiles::waiting() const {
  QStringList places;
  for (const std::string& name : waiting_) places << placeOf(name);
  return places;
}

void OutsideFiles::allow() {
  QSettings settings;
  const QString key = keyOf(document_.path());
  QStringList known = settings.value(key).toStringList() + waiting();
  known.removeDuplicates();
  settings.setValue(key, known);
  waiting_.clear();
  emit allowed();
}

QString OutsideFiles::trouble(const std::string& name) {
  return tr("“%1” lies outside the show's folder, and nobody has allowed it to be read yet. File ▸ Files "
            "outside the folder… does.")
      .arg(text(name));
}

}  // namespace chispa::desk
