// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <filesystem>

namespace chispa::link {

// Where this user's things lie, by the XDG Base Directory Specification. Read the environment; any thread.

/// Journals, logs and back-ups: `$XDG_STATE_HOME/chispa`, or `~/.local/state/chispa`.
std::filesystem::path stateFolder();
/// What is kept for all shows: `$XDG_DATA_HOME/chispa`, or `~/.local/share/chispa`.
std::filesystem::path dataFolder();
/// The strip types that a maker keeps for all shows (StripLibrary).
std::filesystem::path stripLibraryFile();

}  // namespace chispa::link
