// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/session/favourites.h"

#include <algorithm>

#include <QSettings>

#include "desk/parts/format.h"

namespace chispa::desk {
namespace {

constexpr const char* kKey = "favouriteEffects";

QStringList marked() {
  return QSettings().value(QLatin1String(kKey)).toStringList();
}

}  // namespace

bool isFavourite(const std::string& effect) {
  return marked().contains(text(effect));
}

void setFavourite(const std::string& effect, bool on) {
  QStringList all = marked();
  all.removeAll(text(effect));
  if (on) all << text(effect);
  QSettings().setValue(QLatin1String(kKey), all);
}

std::vector<const Effect*> effectsFavouritesFirst() {
  const QStringList first = marked();
  std::vector<const Effect*> all;
  for (const Effect& effect : effects()) all.push_back(&effect);
  std::stable_partition(all.begin(), all.end(),
                        [&](const Effect* effect) { return first.contains(text(effect->key)); });
  return all;
}

QString starredName(const Effect& effect) {
  return isFavourite(effect.key) ? QStringLiteral("★ ") + text(effect.name) : text(effect.name);
}

}  // namespace chispa::desk
