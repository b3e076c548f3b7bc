// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/session/analyses.h"

#include <list>
#include <mutex>

#include "core/files/pendingfile.h"

namespace chispa::desk {
namespace {

/// Music of an evening; longer pieces keep their samples in a file, so that this is not much memory.
constexpr std::size_t kKept = 4;

class Kept {
 public:
  std::shared_ptr<const AnalysedAudio> find(const FileStamp& stamp) {
    const std::lock_guard lock(mutex_);
    const auto found =
        std::find_if(all_.begin(), all_.end(), [&](const auto& one) { return one.first == stamp; });
    if (found == all_.end()) return nullptr;
    all_.splice(all_.begin(), all_, found);
    return found->second;
  }
  void add(FileStamp stamp, std::shared_ptr<const AnalysedAudio> analysed) {
    const std::lock_guard lock(mutex_);
    all_.emplace_front(stamp, std::move(analysed));
    if (all_.size() > kKept) all_.pop_back();
  }

 private:
  std::mutex mutex_;
  /// The one that was asked for last stands first.
  std::list<std::pair<FileStamp, std::shared_ptr<const AnalysedAudio>>> all_;
};

/// Never taken down: workers may still ask while the program ends.
Kept& kept() {
  static auto* all = new Kept;
  return *all;
}

}  // namespace

Result<std::shared_ptr<const AnalysedAudio>> analysedOnce(const std::filesystem::path& path,
                                                          const Progress& progress) {
  const auto stamp = stampOf(path);
  if (stamp)
    if (auto found = kept().find(*stamp)) return found;
  auto analysed = analyseAudio(path, progress);
  // What changed while it was read is not kept under either stamp.
  if (stamp && analysed && stampOf(path) == stamp) kept().add(*stamp, *analysed);
  return analysed;
}

}  // namespace chispa::desk
