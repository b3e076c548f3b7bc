// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/media/livepicture.h"
#include "core/show/score.h"

namespace chispa {

/// The key of the one effect whose light is not a function of the show and the time alone: what a screen
/// shows is nobody's but the moment's. Where no window watches the screen (the command line) it is clear.
inline constexpr const char* kScreenCapture = "spyhole";

/// The part of the screen that a spyhole with these parameters shows.
ScreenPart screenPartOf(const ParamValues& params);
/// Lets them show another part.
void setScreenPart(ParamValues& params, const ScreenPart& part);

}  // namespace chispa
