// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <chrono>

#include <QString>

#include "core/base/time.h"
#include "core/colour/chromaticity.h"

namespace chispa::desk {

/// "1:23.40".
QString timeText(Micros t);
/// Metres, or millimetres below one: "2.60 m", "16.7 mm".
QString lengthText(double metres);
QString ampsText(double amps);
/// The dominant wavelength of a colour, "622 nm"; "none" for purples and white.
QString wavelengthText(Chromaticity at);
QString percentText(double share);
/// "Monday 21 June", in the window's language.
QString dayText(std::chrono::sys_days date);
/// `one` for a single thing, else `many` with its %1 replaced by the number.
QString counted(qsizetype n, const QString& one, const QString& many);

inline QString text(const std::string& s) {
  return QString::fromStdString(s);
}

}  // namespace chispa::desk
