// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <QThreadPool>

namespace chispa::desk::pools {

/// Threads for one kind of work each, so that none waits behind another: a film under way, or a controller
/// that does not answer, must not keep an edit from the LEDs. They are never taken down: what still runs when
/// the program ends is not waited for. Any thread.
QThreadPool& compiling();
/// Music and pictures that are decoded.
QThreadPool& media();
/// Talks with controllers.
QThreadPool& network();
/// Films and recordings.
QThreadPool& exporting();
/// Shows that are read and written, pictures that the window lays out, cameras that are opened.
QThreadPool& files();
/// Pictures of clips and the like, for the window.
QThreadPool& drawing();

/// True while anything runs in any of them.
bool areBusy();

}  // namespace chispa::desk::pools
