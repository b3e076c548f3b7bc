// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <QtGlobal>

/// Files built into a static library are only linked in when asked for, and only from outside of any
/// namespace.
inline void takeDeskResources() {
  Q_INIT_RESOURCE(resources);
}
