// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

namespace chispa {

/// stripkinds.json, as it became part of the program.
extern const char* const kStripKindsText;

}  // namespace chispa
