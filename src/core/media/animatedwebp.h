// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <atomic>
#include <filesystem>
#include <memory>

#include "core/base/result.h"
#include "core/media/media.h"

namespace chispa {

/// True for a WebP file of several pictures (RFC 9649, §2.7.1.1), which FFmpeg's libraries of Debian 12 do
/// not read.
bool isAnimatedWebp(const std::filesystem::path& path);

/// Decodes one with libwebp. Pictures of unequal length become equal ones, as many a second as the mean.
Result<std::shared_ptr<const Media>> decodeAnimatedWebp(const std::filesystem::path& path,
                                                        const std::atomic<bool>* cancelled);

}  // namespace chispa
