// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <QImage>
#include <QStringList>

namespace chispa::desk {

// The shows that were open last, with a picture of each; kept for the user by QSettings and in the cache
// folder. UI thread.

/// Their paths, the latest first; those that are not there any more are left out.
QStringList recentShows();
/// Puts a show first; `picture` may be null.
void rememberShow(const QString& path, const QImage& picture);
/// The picture that was kept of a show; null if there is none.
QImage pictureOfShow(const QString& path);

}  // namespace chispa::desk
