// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <nlohmann/json.hpp>

#include "core/shape/placement.h"
#include "core/shape/shape.h"

namespace chispa {

// Shapes and places in show files. Reading throws FieldError where something makes no sense.

nlohmann::ordered_json toJson(const Vec3& v);
nlohmann::ordered_json toJson(const Placement& place);
nlohmann::ordered_json toJson(const Shape& shape);

Placement readPlacement(const nlohmann::ordered_json& json);
Shape readShape(const nlohmann::ordered_json& json);

}  // namespace chispa
