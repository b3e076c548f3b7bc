// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "cli/opened.h"
#include "cli/verbs.h"
#include "engine/player.h"

namespace chispa::cli {

/// The sound that a verb plays with; says on stderr if there is none yet.
std::unique_ptr<engine::Sound> soundFor(const Words& words);

/// What a player is made of for `words`.
engine::Player::Options playerOptions(const Words& words);

/// Gives the player the show, and the sound of `score` if there is one.
void load(const OpenedShow& opened, const Score* score, engine::Player& player);

}  // namespace chispa::cli
