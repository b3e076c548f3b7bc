// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/parts/cuttext.h"

#include <QCoreApplication>

#include "desk/parts/format.h"

namespace chispa::desk {

QString cutText(const CutPiece& piece) {
  const auto tr = [](const char* words) { return QCoreApplication::translate("cuts", words); };
  // A string or a panel is bought by its pixels.
  if (piece.reel_m == 0)
    return tr("%1 × %2 px, along %3").arg(piece.count).arg(piece.pixels).arg(lengthText(piece.length_m));
  const QString cut = tr("%1 × %2, %3 px").arg(piece.count).arg(lengthText(piece.reel_m)).arg(piece.pixels);
  if (agreesWithReel(piece)) return cut;
  return piece.length_m > piece.reel_m
             ? tr("%1, along %2 with wire between").arg(cut, lengthText(piece.length_m))
             : tr("%1, along only %2").arg(cut, lengthText(piece.length_m));
}

}  // namespace chispa::desk
