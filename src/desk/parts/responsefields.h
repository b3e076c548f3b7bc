// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <functional>
#include <optional>

#include "core/show/response.h"
#include "desk/parts/form.h"

namespace chispa::desk {

/// Where a dimming curve comes from and goes to.
struct ResponseAccess {
  /// Nothing: what stands above says it.
  std::function<std::optional<Response>()> get;
  /// Takes the words for undo too.
  std::function<void(const QString&, const std::optional<Response>&)> set;
  /// What was drawn is one step of undo.
  std::function<void()> seal;
  /// What it is where it has none of its own.
  std::function<Response()> otherwise = [] { return Response{}; };
};

/// Rows of a dimming curve: its power, the curve to be drawn by hand, and the value from which on LEDs light.
/// Their fields are called `prefix` + "Response", "Curve" and "Least".
/// Here of a thing that always has one.
void addResponse(Form& form, const QString& prefix, const ResponseAccess& access);
/// Of a thing that may have one of its own: an empty power is none.
void addOwnResponse(Form& form, const QString& prefix, const ResponseAccess& access);

}  // namespace chispa::desk
