// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <algorithm>

#include "core/effect/curves.h"
#include "core/effect/effect.h"

namespace chispa {

/// How a picture is laid on a zone's face.
enum class Fit { Whole, Cover, Stretch };

inline ParamSpec fitParam() {
  return choiceParam("fit", "Fits",
                     {{"whole", "all of it"}, {"cover", "fills the zone"}, {"stretch", "stretched"}}, 1);
}

/// From a zone's face (x, y of ZoneCells) to places in a picture that lies on it, turned and moved along.
class PictureOnFace {
 public:
  /// `moved` is the share of the picture's width that has gone by, 0–1; a picture that moves comes round
  /// again, one that `repeats` does in both directions.
  PictureOnFace(const ZoneCells& cells, int width, int height, Fit fit, double turned_deg, float moved,
                bool repeats)
      : width_(width),
        height_(height),
        cosine_(static_cast<float>(std::cos(radians(turned_deg)))),
        sine_(static_cast<float>(std::sin(radians(turned_deg)))),
        moved_(moved),
        repeats_(repeats) {
    // Half extents of the face; a line has none upward and looks at the picture's middle.
    const auto most = static_cast<float>(std::max({1, cells.columns, cells.rows}));
    const float halfX = cells.rows > 1 ? static_cast<float>(cells.columns) / most : 1;
    const float halfY = cells.rows > 1 ? static_cast<float>(cells.rows) / most : 1;
    const float ratio = static_cast<float>(width) / static_cast<float>(std::max(1, height));
    // Half extents that the picture takes.
    float wide = halfX, tall = halfY;
    if (fit != Fit::Stretch) {
      const bool byWidth = (halfX / halfY > ratio) == (fit == Fit::Cover);
      wide = byWidth ? halfX : halfY * ratio;
      tall = byWidth ? halfX / ratio : halfY;
    }
    scaleX_ = 0.5f / wide;
    scaleY_ = 0.5f / tall;
    dotsOfCell_ =
        2 / most * std::max(scaleX_ * static_cast<float>(width), scaleY_ * static_cast<float>(height));
  }

  /// How many dots wide and high a cell is, about; below 1 where the picture is the coarser.
  float dotsOfCell() const { return dotsOfCell_; }

  /// The column and the row, from the left and from the top, that lie at a point of the face; false beside
  /// the picture.
  bool find(float faceX, float faceY, int& column, int& row) const {
    float x = 0, y = 0;
    if (!findPoint(faceX, faceY, x, y)) return false;
    column = static_cast<int>(x);
    row = static_cast<int>(y);
    return true;
  }
  /// The same with the parts of a dot: x from the left, y from the top.
  bool findPoint(float faceX, float faceY, float& x, float& y) const {
    float u = 0.5f + (faceX * cosine_ + faceY * sine_) * scaleX_ + moved_;
    float v = 0.5f - (faceY * cosine_ - faceX * sine_) * scaleY_;
    if (repeats_ || moved_ > 0) u = fraction(static_cast<double>(u));
    if (repeats_) v = fraction(static_cast<double>(v));
    if (u < 0 || u >= 1 || v < 0 || v >= 1) return false;
    x = u * static_cast<float>(width_);
    y = v * static_cast<float>(height_);
    return true;
  }

 private:
  int width_;
  int height_;
  float cosine_;
  float sine_;
  float moved_;
  bool repeats_;
  float scaleX_ = 0.5f;
  float scaleY_ = 0.5f;
  float dotsOfCell_ = 1;
};

}  // namespace chispa
