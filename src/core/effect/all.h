// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/effect/effect.h"

namespace chispa {

// One maker an effect, each in a file of its name; only the registry calls them.
Effect baton();
Effect black();
Effect bloom();
Effect canon();
Effect carillon();
Effect chase();
Effect cloudburst();
Effect clouds();
Effect comets();
Effect drawing();
Effect drizzle();
Effect echo();
Effect fireflies();
Effect footfall();
Effect formulaEffect();
Effect front();
Effect frost();
Effect gauge();
Effect glints();
Effect hearth();
Effect hold();
Effect hourglass();
Effect hueWheel();
Effect lettering();
Effect loudness();
Effect marbling();
Effect mosaic();
Effect parade();
Effect pendulum();
Effect penumbra();
Effect picture();
Effect pool();
Effect pour();
Effect ribbon();
Effect ripples();
Effect rockets();
Effect rows();
Effect shapes();
Effect skyline();
Effect slats();
Effect snowfall();
Effect soundings();
Effect spill();
Effect screenCapture();
Effect stack();
Effect storm();
Effect strobe();
Effect swarm();
Effect swell();
Effect tidewater();
Effect toss();
Effect turnabout();
Effect unveil();
Effect vanes();
Effect weave();

}  // namespace chispa
