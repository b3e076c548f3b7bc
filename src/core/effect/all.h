// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/effect/effect.h"

namespace chispa {

// One maker an effect, each in a file of its name; only the registry calls them.
Effect black();
Effect bloom();
Effect carillon();
Effect chase();
Effect clouds();
Effect comets();
Effect curtain();
Effect drawing();
Effect drizzle();
Effect echo();
Effect fireflies();
Effect formulaEffect();
Effect frost();
Effect gauge();
Effect glints();
Effect hearth();
Effect hold();
Effect hueWheel();
Effect juggle();
Effect lettering();
Effect loudness();
Effect marbling();
Effect mosaic();
Effect parade();
Effect picture();
Effect rows();
Effect pinwheel();
Effect pool();
Effect pour();
Effect ribbon();
Effect ripples();
Effect rockets();
Effect shapes();
Effect skyline();
Effect slats();
Effect snowfall();
Effect spyhole();
Effect stack();
Effect storm();
Effect strobe();
Effect swell();
Effect turnabout();
Effect weave();

}  // namespace chispa
