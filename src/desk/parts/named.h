// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <QLabel>
#include <QWidget>

namespace chispa::desk {

/// Gives a field what every field needs: a name for tests, one for assistive tools, and words for the
/// pointer. Returns it.
template <class Field>
Field* named(Field* field, const char* name, const QString& label, const QString& tip) {
  field->setObjectName(QLatin1String(name));
  field->setAccessibleName(label);
  field->setToolTip(tip);
  return field;
}

/// Words above a part of a page or a column.
inline QLabel* heading(const QString& words) {
  auto* label = new QLabel(words);
  label->setObjectName(QStringLiteral("heading"));
  return label;
}

/// Words above a part of a dialog.
inline QLabel* quietHeading(const QString& words) {
  auto* label = new QLabel(words);
  label->setObjectName(QStringLiteral("quiet"));
  return label;
}

}  // namespace chispa::desk
