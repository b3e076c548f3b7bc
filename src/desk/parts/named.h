// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
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

}  // namespace chispa::desk
