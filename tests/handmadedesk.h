// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <cstdint>
#include <stdexcept>
#include <string>
#include <vector>

#include <arpa/inet.h>
#include <sys/socket.h>
#include <unistd.h>

namespace chispa::test {

/// A desk that knows nothing of Chispa: it writes E1.31 data packets (ANSI E1.31-2018, tables 4-1 to 4-3)
/// and ArtDmx (Art-Net 4) as their standards lay them out.
class HandmadeDesk {
 public:
  HandmadeDesk() : fd_(::socket(AF_INET, SOCK_DGRAM | SOCK_CLOEXEC, 0)) {}
  ~HandmadeDesk() { ::close(fd_); }
  HandmadeDesk(const HandmadeDesk&) = delete;
  HandmadeDesk& operator=(const HandmadeDesk&) = delete;

  void sendE131(const std::string& to, int port, int universe, std::vector<std::uint8_t> values,
                bool ends = false, int priority = 100) {
    values.resize(512);
    std::vector<std::uint8_t> p{0, 0x10, 0, 0, 'A', 'S', 'C', '-', 'E', '1', '.', '1', '7', 0, 0, 0};
    const auto word = [&p](int value) {
      p.push_back(static_cast<std::uint8_t>(value >> 8));
      p.push_back(static_cast<std::uint8_t>(value));
    };
    word(0x7000 | (638 - 16));
    p.insert(p.end(), {0, 0, 0, 4});
    for (int i = 0; i < 16; ++i) p.push_back(static_cast<std::uint8_t>(0xd0 + i));
    word(0x7000 | (638 - 38));
    p.insert(p.end(), {0, 0, 0, 2});
    std::string name = "A desk of the theatre";
    name.resize(64);
    p.insert(p.end(), name.begin(), name.end());
    p.push_back(static_cast<std::uint8_t>(priority));
    word(0);
    p.push_back(sequence_++);
    p.push_back(ends ? 0x40 : 0);
    word(universe);
    word(0x7000 | (638 - 115));
    p.insert(p.end(), {2, 0xa1});
    word(0);
    word(1);
    word(513);
    p.push_back(0);
    p.insert(p.end(), values.begin(), values.end());
    send(to, port, p);
  }

  void sendArtDmx(const std::string& to, int port, int universe, std::vector<std::uint8_t> values) {
    values.resize(512);
    std::vector<std::uint8_t> p{'A',
                                'r',
                                't',
                                '-',
                                'N',
                                'e',
                                't',
                                0,
                                0,
                                0x50,
                                0,
                                14,
                                ++art_,
                                0,
                                static_cast<std::uint8_t>(universe),
                                static_cast<std::uint8_t>(universe >> 8),
                                2,
                                0};
    p.insert(p.end(), values.begin(), values.end());
    send(to, port, p);
  }

 private:
  void send(const std::string& to, int port, const std::vector<std::uint8_t>& packet) const {
    sockaddr_in there{};
    there.sin_family = AF_INET;
    there.sin_port = htons(static_cast<std::uint16_t>(port));
    ::inet_pton(AF_INET, to.c_str(), &there.sin_addr);
    const ssize_t sent =
        ::sendto(fd_, packet.data(), packet.size(), 0, reinterpret_cast<sockaddr*>(&there), sizeof there);
    if (sent != static_cast<ssize_t>(packet.size())) throw std::runtime_error("the desk cannot send");
  }

  int fd_;
  std::uint8_t sequence_ = 0;
  std::uint8_t art_ = 0;
};

}  // namespace chispa::test
