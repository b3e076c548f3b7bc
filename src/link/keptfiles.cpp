// SPDX-License-Identifier: GPL-3.0-or-later
#include "link/keptfiles.h"

#include <algorithm>
#include <chrono>
#include <ctime>
#include <fstream>
#include <iterator>

#include "core/files/showfile.h"

namespace chispa::link {
namespace {

namespace fs = std::filesystem;

/// The controller's place, as a file name can hold it.
std::string stem(const Controller& controller) {
  std::string name = controller.host + "-" + std::to_string(controller.setupPort);
  for (char& c : name)
    if (!std::isalnum(static_cast<unsigned char>(c)) && c != '.' && c != '-') c = '_';
  return name;
}

std::string timeText(const char* pattern, std::time_t when) {
  std::tm parts{};
  localtime_r(&when, &parts);
  char text[64];
  return {text, std::strftime(text, sizeof text, pattern, &parts)};
}

}  // namespace

Outcome KeptFiles::keep(const Controller& controller, const std::string& text) const {
  std::error_code error;
  fs::create_directories(folder_, error);
  if (error)
    return Failure{sentence("What it held cannot be kept (%1); nothing was written.", error.message()),
                   folder_.string(), "Check that there is room and that you may write there."};
  const auto now = std::chrono::system_clock::now();
  const auto part =
      std::chrono::duration_cast<std::chrono::milliseconds>(now.time_since_epoch()).count() % 1000;
  const std::string stamp = timeText("%Y-%m-%d_%H-%M-%S", std::chrono::system_clock::to_time_t(now)) + "." +
                            std::to_string(1000 + part).substr(1);
  return writeFileAtomically(folder_ / (stem(controller) + "_" + stamp + ".json"), text);
}

std::vector<KeptText> KeptFiles::keptOf(const Controller& controller) const {
  std::vector<KeptText> kept;
  std::error_code error;
  const std::string begins = stem(controller) + "_";
  for (const auto& entry : fs::directory_iterator(folder_, error)) {
    const std::string name = entry.path().filename().string();
    if (!name.starts_with(begins) || !name.ends_with(".json")) continue;
    std::ifstream in(entry.path());
    std::string when = name.substr(begins.size(), 19);
    std::replace(when.begin(), when.end(), '_', ' ');
    for (std::size_t i = 11; i < when.size(); ++i)
      if (when[i] == '-') when[i] = ':';
    kept.push_back({entry.path(), when, std::string{std::istreambuf_iterator<char>(in), {}}});
  }
  std::sort(kept.begin(), kept.end(), [](const KeptText& a, const KeptText& b) { return a.file > b.file; });
  return kept;
}

}  // namespace chispa::link
