// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <QString>

#include "core/shape/shape.h"

namespace chispa::desk {

/// What a shape is called within a sentence, in the window's language: "line", "matrix".
QString shapeWord(const Shape& shape);

}  // namespace chispa::desk
