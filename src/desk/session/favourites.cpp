// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/session/favourites.h"

#include <QSettings>

#include "desk/parts/format.h"
#include "desk/parts/language.h"

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

std::vector<OfferedEffect> offeredEffects() {
  const QStringList favourites = marked();
  std::vector<OfferedEffect> first, others;
  for (const Effect& effect : effects()) {
    if (favourites.contains(text(effect.key)))
      first.push_back({&effect, QStringLiteral("★ ") + said(effect.name)});
    else
      others.push_back({&effect, said(effect.name)});
  }
  first.insert(first.end(), others.begin(), others.end());
  return first;
}

}  // namespace chispa::desk
