// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <optional>

#include "core/effect/effect.h"

namespace chispa {

/// `effect` with its line of use and its settings, as the shelf shows them; without any if none are written.
Effect withSettings(Effect effect);

/// What stands in a setting: all parameters but those that say on what, and what, is shown (axis, texts,
/// files, zones), which stay as `values` has them.
ParamValues withSetting(const Effect& effect, const EffectSetting& setting, const ParamValues& values);
/// The setting that `values` are, or nothing.
std::optional<std::size_t> settingOf(const Effect& effect, const ParamValues& values);

}  // namespace chispa
