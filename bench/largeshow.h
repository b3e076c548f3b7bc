// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/show/show.h"

namespace chispa::bench {

/// `universes` full universes of RGB strip at 127.0.0.1, wired on ports of four universes, with a score of
/// `layers` layers over all of it, sent to `udpPort`.
Show largeShow(int universes, int layers, int udpPort = 9, Protocol protocol = Protocol::E131);
/// A plan of many pieces: fixtures of equal lines, each with a zone, unwired.
Show manyPieces(int fixtures, int segments, int pixels);

}  // namespace chispa::bench
