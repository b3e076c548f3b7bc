// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <algorithm>
#include <optional>

#include "core/effect/effect.h"
#include "core/effect/roundface.h"

namespace chispa {

/// How a picture is laid on a zone.
enum class Fit { Whole, Cover, Stretch, DotForCell };

/// How a picture lies on a zone, as a clip says it.
struct PictureLay {
  Fit fit = Fit::Cover;
  double turned_deg = 0;
  bool isMirrored = false;
  bool isUpsideDown = false;
  /// In zones' widths and heights.
  double shiftX = 0;
  double shiftY = 0;
  /// Shares that are cut off, 0–1.
  double cutLeft = 0, cutRight = 0, cutTop = 0, cutBottom = 0;
  /// Wrapped about the zone's middle, from `begins_deg` on; else flat, as the zone is seen.
  bool isRound = false;
  double begins_deg = 0;
};

/// Puts the parameters of a PictureLay behind an effect's own.
inline std::vector<ParamSpec> withLay(std::vector<ParamSpec> own) {
  constexpr double kMaxCut = 0.95;
  own.push_back(choiceParam("fit", "Fits",
                            {{"whole", "all of it"},
                             {"cover", "fills the zone"},
                             {"stretch", "stretched"},
                             {"dots", "one dot per cell"}},
                            1));
  own.push_back(numberParam("turned", "Turned", "°", -180, 180, 0, 5));
  own.push_back(switchParam("mirrored", "Mirrored", false));
  own.push_back(switchParam("upside_down", "Upside down", false));
  own.push_back(numberParam("shift_x", "Moved across", "of the zone", -2, 2, 0, 0.05));
  own.push_back(numberParam("shift_y", "Moved up", "of the zone", -2, 2, 0, 0.05));
  own.push_back(numberParam("cut_left", "Cut off left", "", 0, kMaxCut, 0, 0.05));
  own.push_back(numberParam("cut_right", "Cut off right", "", 0, kMaxCut, 0, 0.05));
  own.push_back(numberParam("cut_top", "Cut off top", "", 0, kMaxCut, 0, 0.05));
  own.push_back(numberParam("cut_bottom", "Cut off bottom", "", 0, kMaxCut, 0, 0.05));
  return withSurface(std::move(own));
}

/// Reads them back; `first` is how many parameters the effect has of its own.
inline PictureLay layOf(const ParamPack& params, std::size_t first) {
  PictureLay lay;
  lay.fit = static_cast<Fit>(params.choice(first));
  lay.turned_deg = params.number(first + 1);
  lay.isMirrored = params.isOn(first + 2);
  lay.isUpsideDown = params.isOn(first + 3);
  lay.shiftX = params.number(first + 4);
  lay.shiftY = params.number(first + 5);
  lay.cutLeft = params.number(first + 6);
  lay.cutRight = params.number(first + 7);
  lay.cutTop = params.number(first + 8);
  lay.cutBottom = params.number(first + 9);
  lay.isRound = params.choice(first + 10) == 1;
  lay.begins_deg = params.number(first + 11);
  return lay;
}

/// From a zone's cells to places in a picture that lies on it.
class PictureOnFace {
 public:
  /// `moved` is the share of the picture's width that has gone by, 0–1; a picture that moves comes round
  /// again, one that `repeats` does in both directions.
  PictureOnFace(const ZoneCells& cells, int width, int height, const PictureLay& lay, float moved,
                bool repeats)
      : cells_(cells),
        width_(static_cast<float>(width)),
        height_(static_cast<float>(height)),
        cosine_(static_cast<float>(std::cos(radians(lay.turned_deg)))),
        sine_(static_cast<float>(std::sin(radians(lay.turned_deg)))),
        isMirrored_(lay.isMirrored),
        isUpsideDown_(lay.isUpsideDown),
        moved_(moved),
        repeats_(repeats) {
    const auto cut = [](double low, double high, float& first, float& share) {
      first = static_cast<float>(low);
      share = static_cast<float>(std::max(0.01, 1 - low - high));
    };
    cut(lay.cutLeft, lay.cutRight, left_, wide_);
    cut(lay.cutTop, lay.cutBottom, top_, tall_);
    // Half extents of the face; a line has none upward and looks at the picture's middle.
    const auto most = static_cast<float>(std::max({1, cells.columns, cells.rows}));
    float halfX = cells.rows > 1 ? static_cast<float>(cells.columns) / most : 1;
    float halfY = cells.rows > 1 ? static_cast<float>(cells.rows) / most : 1;
    float cell = 2 / most;
    if (lay.isRound) {
      round_.emplace(cells);
      begins_ = static_cast<float>(lay.begins_deg / 360);
      halfX = round_->ratio();
      halfY = 1;
      cell = 2 / round_->rows();
    }
    const float dotsAcross = width_ * wide_, dotsUp = height_ * tall_;
    // Half extents that the picture takes.
    float x = halfX, y = halfY;
    if (lay.fit == Fit::DotForCell) {
      x = dotsAcross * cell / 2;
      y = dotsUp * cell / 2;
    } else if (lay.fit != Fit::Stretch) {
      const float ratio = dotsAcross / std::max(1e-6f, dotsUp);
      const bool byWidth = (halfX / halfY > ratio) == (lay.fit == Fit::Cover);
      x = byWidth ? halfX : halfY * ratio;
      y = byWidth ? halfX / ratio : halfY;
    }
    halfX_ = halfX;
    scaleX_ = 0.5f / x;
    scaleY_ = 0.5f / y;
    shiftX_ = static_cast<float>(lay.shiftX) * 2 * halfX;
    shiftY_ = static_cast<float>(lay.shiftY) * 2 * halfY;
    dotsOfCell_ = cell * std::max(scaleX_ * dotsAcross, scaleY_ * dotsUp);
  }

  /// How many dots wide and high a cell is, about; below 1 where the picture is the coarser.
  float dotsOfCell() const { return dotsOfCell_; }

  /// The column and the row, from the left and from the top, that lie on cell `i`; false beside the picture.
  bool find(std::size_t i, int& column, int& row) const {
    float x = 0, y = 0;
    if (!findPoint(i, x, y)) return false;
    column = static_cast<int>(x);
    row = static_cast<int>(y);
    return true;
  }
  /// The same with the parts of a dot: x from the left, y from the top.
  bool findPoint(std::size_t i, float& x, float& y) const {
    float faceX = cells_.x[i], faceY = cells_.y[i];
    if (round_) {
      float around = 0, high = 0;
      round_->find(i, around, high);
      // The middle of the picture lies where it begins; its ends meet on the other side.
      // A hair further, so that what stands on the border of two dots has the one behind it.
      constexpr double kHairRound = 2e-6;
      faceX = (fraction(static_cast<double>(around - begins_) + 0.5 + kHairRound) - 0.5f) * 2 * halfX_;
      faceY = 2 * high - 1;
    }
    faceX -= shiftX_;
    faceY -= shiftY_;
    if (round_ && halfX_ > 0) faceX -= 2 * halfX_ * std::round(faceX / (2 * halfX_));
    float u = 0.5f + (faceX * cosine_ + faceY * sine_) * scaleX_;
    float v = 0.5f - (faceY * cosine_ - faceX * sine_) * scaleY_;
    if (isMirrored_) u = kBelow1 - u;
    if (isUpsideDown_) v = kBelow1 - v;
    u += moved_;
    if (repeats_ || moved_ > 0) u = fraction(static_cast<double>(u));
    if (repeats_) v = fraction(static_cast<double>(v));
    if (!(u >= 0 && u < 1 && v >= 0 && v < 1)) return false;
    x = std::min((left_ + u * wide_) * width_, width_ - kHair);
    y = std::min((top_ + v * tall_) * height_, height_ - kHair);
    return true;
  }

 private:
  /// What mirrors 0 to the last dot, not to the one behind it.
  static constexpr float kBelow1 = 1 - 1e-6f;
  static constexpr float kHair = 1e-3f;

  const ZoneCells& cells_;
  float width_;
  float height_;
  float cosine_;
  float sine_;
  bool isMirrored_;
  bool isUpsideDown_;
  float moved_;
  bool repeats_;
  std::optional<RoundFace> round_;
  float begins_ = 0;
  float halfX_ = 1;
  float left_ = 0, wide_ = 1, top_ = 0, tall_ = 1;
  float shiftX_ = 0;
  float shiftY_ = 0;
  float scaleX_ = 0.5f;
  float scaleY_ = 0.5f;
  float dotsOfCell_ = 1;
};

}  // namespace chispa
