// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <algorithm>

#include "core/effect/effect.h"

namespace chispa {

/// How a picture is laid on a zone's face.
enum class Fit { Whole, Cover, Stretch };

inline ParamSpec fitParam() { return choiceParam("fit", "Fits", {{"whole", "all of it"}, {"cover", "fills the zone"}, {"stretch", "stretched"}}, 1); }

/// From a zone's face (x, y of ZoneCells) to places in a picture, 0–1 from its left and from its top.
struct FaceToPicture {
  float scaleX = 0.5f;
  float scaleY = 0.5f;

  FaceToPicture(const ZoneCells& cells, int width, int height, Fit fit) {
    // Half extents of the face; a line has none upward and looks at the picture's middle.
    float halfX = 1e-6f, halfY = 1e-6f;
    if (cells.rows > 1) {
      const float most = static_cast<float>(std::max(cells.columns, cells.rows));
      halfX = static_cast<float>(cells.columns) / most;
      halfY = static_cast<float>(cells.rows) / most;
    } else {
      halfX = halfY = 1;
    }
    const float ratio = static_cast<float>(width) / static_cast<float>(std::max(1, height));
    // Half extents that the picture takes.
    float wide = halfX, tall = halfY;
    if (fit != Fit::Stretch) {
      const bool byWidth = (halfX / halfY > ratio) == (fit == Fit::Cover);
      wide = byWidth ? halfX : halfY * ratio;
      tall = byWidth ? halfX / ratio : halfY;
    }
    scaleX = 0.5f / wide;
    scaleY = 0.5f / tall;
  }
  float u(float x) const { return 0.5f + x * scaleX; }
  float v(float y) const { return 0.5f - y * scaleY; }
};

}  // namespace chispa
