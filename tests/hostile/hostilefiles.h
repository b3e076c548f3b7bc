// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <functional>
#include <map>
#include <string>
#include <vector>

namespace chispa::test {

/// Files that were made to do harm: what is written, by the name of the file; its ending tells how it is
/// read.
const std::map<std::string, std::function<std::string()>>& hostileFiles();
std::vector<std::string> namesOfHostileFiles();

/// The file's name as GoogleTest takes it.
inline std::string testNameOf(std::string file) {
  for (char& c : file)
    if (c == '.') c = '_';
  return file;
}

}  // namespace chispa::test
