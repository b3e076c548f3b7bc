// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <map>
#include <string>

#include "core/board/clipterms.h"

namespace chispa::board {

/// How an effect's light is said in terms; it reads the parameters in the order of the effect's own.
using Saying = CellLight (*)(ClipTerms& clip);

/// Those of each group, by the effect's key.
const std::map<std::string, Saying>& flowSayings();
const std::map<std::string, Saying>& sparkSayings();
const std::map<std::string, Saying>& stepSayings();
const std::map<std::string, Saying>& textureSayings();
const std::map<std::string, Saying>& formulaSayings();

}  // namespace chispa::board
