// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/session/parcelboard.h"

#include <QClipboard>
#include <QGuiApplication>
#include <QMimeData>

#include "core/files/showjson.h"

namespace chispa::desk {
namespace {

const QString kParcelMime = QStringLiteral("application/x-chispa-parcel");

}  // namespace

void putOnClipboard(const Show& parcel) {
  auto* held = new QMimeData;
  held->setData(kParcelMime, QByteArray::fromStdString(showText(parcel)));
  QGuiApplication::clipboard()->setMimeData(held);
}

std::optional<Result<Show>> parcelOnClipboard() {
  const QMimeData* held = QGuiApplication::clipboard()->mimeData();
  if (!held || !held->hasFormat(kParcelMime)) return std::nullopt;
  return parseShow(held->data(kParcelMime).toStdString(), "clipboard");
}

bool isOwnClipboard() {
  return QGuiApplication::clipboard()->ownsClipboard();
}

}  // namespace chispa::desk
