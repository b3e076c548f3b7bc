// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <functional>
#include <memory>
#include <optional>

#include <QWidget>

namespace chispa::desk {

/// Work that may take long, such as reading from a slow disk, and what to say meanwhile.
struct SlowWork {
  QString what;
  /// Runs on a thread, and must hold all that it uses: once it is called off, it may go on unheard.
  std::function<void()> run;
  /// Asked when the maker calls it off; false if it is too late for that. Without it, it never is.
  std::function<bool()> mayCallOff;
};

/// Runs `work` while the window lives on: what takes longer than a moment is spoken of, with a button to call
/// it off; nothing else can be done in the window until then, while light and sound go on. False if it was
/// called off. UI thread.
bool runPatiently(QWidget* window, const SlowWork& work);

/// What `make` returns, run by `run(SlowWork)`, which is false for what was called off; nothing then.
template <class T, class Run>
std::optional<T> makeSlowly(const Run& run, const QString& what, std::function<T()> make) {
  auto made = std::make_shared<std::optional<T>>();
  const bool isMade = run(SlowWork{what, [made, make = std::move(make)] { made->emplace(make()); }, {}});
  return isMade ? std::move(*made) : std::nullopt;
}
/// The same by runPatiently().
template <class T>
std::optional<T> makePatiently(QWidget* window, const QString& what, std::function<T()> make) {
  return makeSlowly<T>([window](const SlowWork& work) { return runPatiently(window, work); }, what,
                       std::move(make));
}

}  // namespace chispa::desk
