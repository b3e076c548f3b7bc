// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

namespace chispa::cli {

/// From now on Ctrl+C and a request to end are only noted, so that a verb can leave things tidy.
void noteInterrupts();
bool isInterrupted();

}  // namespace chispa::cli
