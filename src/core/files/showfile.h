// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <filesystem>
#include <functional>

#include "core/base/result.h"
#include "core/show/show.h"

namespace chispa {

/// The whole content of a file, at most `most` bytes.
Result<std::string> readFile(const std::filesystem::path& path, std::size_t most = 512u << 20);

/// Writes `text` as a PendingFile: after a crash there is the old file or the new one, never half of one.
/// `mayCommit` is asked when all of it is written; if it says no, the old file stays and that is a failure.
Outcome writeFileAtomically(const std::filesystem::path& path, const std::string& text,
                            const std::function<bool()>& mayCommit = {});

Result<Show> loadShow(const std::filesystem::path& path);
Outcome saveShow(const std::filesystem::path& path, const Show& show,
                 const std::function<bool()>& mayCommit = {});

}  // namespace chispa
