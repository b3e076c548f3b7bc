// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <algorithm>

#include <QString>
#include <QStringList>

namespace chispa::desk {

/// True if every word that was typed stands somewhere in `text`, whatever its case.
inline bool hasWords(const QString& text, const QString& typed) {
  const QStringList words = typed.split(QLatin1Char(' '), Qt::SkipEmptyParts);
  return std::all_of(words.begin(), words.end(),
                     [&text](const QString& word) { return text.contains(word, Qt::CaseInsensitive); });
}

}  // namespace chispa::desk
