// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <functional>
#include <memory>
#include <string>

#include "link/udp.h"

namespace chispa::link {

/// Where a host is; fails at once if that is not known.
using HostLookup = std::function<Result<Endpoint>(const std::string& host, int port)>;

/// True for an IPv4 address in dotted numbers, which needs no looking up.
bool isNumericAddress(const std::string& host);

/// Looks host names up on a thread of its own, remembers them, and looks again now and then, so that a
/// controller whose address has changed is found anew. Thread-safe; no call waits for the network.
class HostResolver {
 public:
  HostResolver();
  ~HostResolver();
  HostResolver(const HostResolver&) = delete;
  HostResolver& operator=(const HostResolver&) = delete;

  /// Dotted numbers at once; a name as it is known now. An unknown one is put on the list and fails until it
  /// is found.
  Result<Endpoint> lookup(const std::string& host, int port);
  /// Grows with every address that became known or changed.
  std::uint64_t version() const;

 private:
  struct Shared;
  static void run(const std::shared_ptr<Shared>& shared);

  /// Shared with the thread, which may still be inside the resolver when the book is gone.
  std::shared_ptr<Shared> shared_;
};

}  // namespace chispa::link
