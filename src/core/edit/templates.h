// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <array>

#include "core/show/show.h"

namespace chispa {

/// What a new show can begin with.
enum class ShowTemplate { Empty, Strip, Matrix, Ring, HouseFront, Tree };

inline constexpr std::array kShowTemplates = {ShowTemplate::Empty,      ShowTemplate::Strip,
                                              ShowTemplate::Matrix,     ShowTemplate::Ring,
                                              ShowTemplate::HouseFront, ShowTemplate::Tree};

/// A new show: two strip types and two palettes to begin with, and what the template is made of, with two
/// looks that light all of it. It hangs on one controller with the address of this computer, which is to be
/// changed.
Show newShow(ShowTemplate kind);

}  // namespace chispa
