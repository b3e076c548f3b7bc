// SPDX-License-Identifier: GPL-3.0-or-later
#include "link/hostresolver.h"

#include <algorithm>
#include <chrono>
#include <condition_variable>
#include <map>
#include <mutex>
#include <optional>
#include <thread>

#include <arpa/inet.h>

namespace chispa::link {
namespace {

using SteadyTime = std::chrono::steady_clock;

constexpr auto kLookAgain = std::chrono::seconds(30);
constexpr auto kRetry = std::chrono::seconds(5);

}  // namespace

bool isNumericAddress(const std::string& host) {
  in_addr numeric{};
  return inet_pton(AF_INET, host.c_str(), &numeric) == 1;
}

struct HostResolver::Shared {
  struct Entry {
    std::optional<std::uint32_t> address;
    std::optional<Failure> failure;
    SteadyTime::time_point due = SteadyTime::now();
  };
  std::mutex mutex;
  std::condition_variable wake;
  std::map<std::string, Entry> entries;
  std::uint64_t version = 0;
  bool stopping = false;

  /// The next name to look up, and when.
  std::map<std::string, Entry>::iterator next() {
    return std::min_element(entries.begin(), entries.end(),
                            [](const auto& a, const auto& b) { return a.second.due < b.second.due; });
  }
};

HostResolver::HostResolver() : shared_(std::make_shared<Shared>()) {
  std::thread([shared = shared_] { run(shared); }).detach();
}

HostResolver::~HostResolver() {
  const std::scoped_lock lock(shared_->mutex);
  shared_->stopping = true;
  shared_->wake.notify_all();
}

Result<Endpoint> HostResolver::lookup(const std::string& host, int port) {
  if (host.empty() || isNumericAddress(host)) return resolve(host, port);
  const std::scoped_lock lock(shared_->mutex);
  const auto [entry, isNew] = shared_->entries.try_emplace(host);
  if (isNew) shared_->wake.notify_all();
  if (entry->second.address) return Endpoint{*entry->second.address, static_cast<std::uint16_t>(port)};
  if (entry->second.failure) return *entry->second.failure;
  return Failure{"Its name is being looked up.", host, "Wait a moment."};
}

std::uint64_t HostResolver::version() const {
  const std::scoped_lock lock(shared_->mutex);
  return shared_->version;
}

void HostResolver::run(const std::shared_ptr<Shared>& shared) {
  std::unique_lock lock(shared->mutex);
  while (!shared->stopping) {
    const auto next = shared->next();
    if (next == shared->entries.end()) {
      shared->wake.wait(lock);
      continue;
    }
    if (next->second.due > SteadyTime::now()) {
      shared->wake.wait_until(lock, next->second.due);
      continue;
    }
    const std::string host = next->first;
    lock.unlock();
    const auto found = resolve(host, 0);
    lock.lock();
    auto& entry = shared->entries[host];
    const auto before = entry.address;
    // A name that cannot be found for now keeps its last address: a lost name server stops no show.
    if (found) entry.address = found->address;
    entry.failure = found ? std::nullopt : std::optional(found.failure());
    entry.due = SteadyTime::now() + (found ? SteadyTime::duration(kLookAgain) : SteadyTime::duration(kRetry));
    if (entry.address != before) ++shared->version;
  }
}

}  // namespace chispa::link
