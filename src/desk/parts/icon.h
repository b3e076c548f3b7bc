// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <QIcon>

namespace chispa::desk {

/// One of Chispa's own line icons by its file's name, in the theme's text colours; `on` is its colour while
/// checked.
QIcon icon(const QString& name);

}  // namespace chispa::desk
