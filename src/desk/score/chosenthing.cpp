// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/score/chosenthing.h"

#include <QMimeData>

#include "core/effect/effect.h"

namespace chispa::desk {
namespace {

const QString kOwn = QStringLiteral("own:");
const QString kBlock = QStringLiteral("block:");
constexpr QLatin1Char kSetting('#');

}  // namespace

QString wordsOf(OwnEffectId id) {
  return kOwn + QString::number(id.value);
}
QString wordsOf(BlockId id) {
  return kBlock + QString::number(id.value);
}

QString wordsOf(const Effect& effect, int setting) {
  const QString key = QString::fromStdString(effect.key);
  return setting < 0 ? key : key + kSetting + QString::number(setting);
}

ChosenThing chosenThing(const Show& show, const QString& words) {
  if (words.startsWith(kBlock)) return {{}, {}, BlockId{words.mid(kBlock.size()).toUInt()}, {}};
  if (!words.startsWith(kOwn)) {
    const std::string key = words.section(kSetting, 0, 0).toStdString();
    const Effect* effect = findEffect(key);
    bool isOne = false;
    const int setting = words.section(kSetting, 1).toInt(&isOne);
    if (!effect || !isOne || setting < 0 || setting >= static_cast<int>(effect->settings.size()))
      return {key};
    return {key, effect->settings[static_cast<std::size_t>(setting)].values};
  }
  const OwnEffectId id{words.mid(kOwn.size()).toUInt()};
  const OwnEffect* own = chispa::find(show.ownEffects, id);
  return own ? ChosenThing{own->effect, own->params, {}, id} : ChosenThing{};
}

std::optional<PaletteId> paletteOf(const QMimeData& data) {
  if (!data.hasFormat(QLatin1String(kPaletteMime))) return std::nullopt;
  return PaletteId{data.data(QLatin1String(kPaletteMime)).toUInt()};
}

}  // namespace chispa::desk
