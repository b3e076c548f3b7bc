// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <memory>
#include <string>
#include <vector>

#include "engine/program.h"
#include "link/receiver.h"

namespace chispa::engine {

/// Hears the universes of desks that a show listens to, and no others, and hands them to the output.
class DeskListener {
 public:
  /// Where it listens: the interface's own address, and the protocols' ports.
  struct Options {
    std::string address = "127.0.0.1";
    int e131Port = 5568;
    int artNetPort = 6454;
  };

  /// Opens the ports of the protocols that are among `boxes`. Fails if one is taken or the address is not
  /// this machine's.
  static Result<std::unique_ptr<DeskListener>> open(const Options& options, DeskBoxes boxes,
                                                    std::shared_ptr<Clock> clock);
  ~DeskListener();

  const DeskBoxes& boxes() const { return boxes_; }
  /// All that arrives now, whether somebody listens to it or not.
  std::vector<link::ReceivedUniverse> heard() const { return receiver_->heard(); }

 private:
  DeskListener(DeskBoxes boxes, std::shared_ptr<Clock> clock)
      : boxes_(std::move(boxes)), clock_(std::move(clock)) {}
  /// The receiver's thread.
  void take(Protocol protocol, int universe, const std::array<std::uint8_t, 512>* values) noexcept;

  DeskBoxes boxes_;
  std::shared_ptr<Clock> clock_;
  std::unique_ptr<link::Receiver> receiver_;
};

}  // namespace chispa::engine
