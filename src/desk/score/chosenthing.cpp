// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/score/chosenthing.h"

#include <QMimeData>

namespace chispa::desk {
namespace {

const QString kOwn = QStringLiteral("own:");
const QString kBlock = QStringLiteral("block:");

}  // namespace

QString wordsOf(OwnEffectId id) {
  return kOwn + QString::number(id.value);
}
QString wordsOf(BlockId id) {
  return kBlock + QString::number(id.value);
}

ChosenThing chosenThing(const Show& show, const QString& words) {
  if (words.startsWith(kBlock)) return {{}, {}, BlockId{words.mid(kBlock.size()).toUInt()}, {}};
  if (!words.startsWith(kOwn)) return {words.toStdString()};
  const OwnEffectId id{words.mid(kOwn.size()).toUInt()};
  const OwnEffect* own = chispa::find(show.ownEffects, id);
  return own ? ChosenThing{own->effect, own->params, {}, id} : ChosenThing{};
}

std::optional<PaletteId> paletteOf(const QMimeData& data) {
  if (!data.hasFormat(QLatin1String(kPaletteMime))) return std::nullopt;
  return PaletteId{data.data(QLatin1String(kPaletteMime)).toUInt()};
}

}  // namespace chispa::desk
