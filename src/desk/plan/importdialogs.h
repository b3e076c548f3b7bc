// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <optional>

#include "desk/plan/planpage.h"

namespace chispa::desk {

/// Asks what of a drawing is wanted; nothing if the maker does not want it after all.
std::optional<SvgImport> askSvgImport(QWidget* parent, const SvgDrawing& drawing);
/// Asks for words, their font and their size.
std::optional<LetteringWish> askLettering(QWidget* parent);

}  // namespace chispa::desk
