// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <QString>

namespace chispa::desk {

class MainWindow;
struct Session;

/// Draws every workspace with what is open, dark and light, as PNG files into `folder`. Returns false, having
/// said why, if a picture cannot be written.
bool drawShots(MainWindow& window, const Session& session, const QString& folder);

}  // namespace chispa::desk
