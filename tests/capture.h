// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <array>
#include <cstdint>
#include <cstdio>
#include <filesystem>
#include <fstream>
#include <string>
#include <vector>

namespace chispa::test {

/// A capture file of UDP packets to `port`, as raw IPv4 (link type 101).
inline void writeCapture(const std::filesystem::path& file, const std::vector<std::string>& packets,
                         std::uint16_t port) {
  std::ofstream out(file, std::ios::binary);
  const auto little32 = [&](std::uint32_t v) { out.write(reinterpret_cast<const char*>(&v), 4); };
  little32(0xa1b2c3d4);
  little32(0x00040002);
  little32(0);
  little32(0);
  little32(65535);
  little32(101);
  for (const std::string& packet : packets) {
    const auto total = static_cast<std::uint16_t>(packet.size() + 28);
    const auto length = static_cast<std::uint16_t>(packet.size() + 8);
    const unsigned char head[28] = {0x45,
                                    0,
                                    static_cast<unsigned char>(total >> 8),
                                    static_cast<unsigned char>(total & 255),
                                    0,
                                    0,
                                    0,
                                    0,
                                    64,
                                    17,
                                    0,
                                    0,
                                    127,
                                    0,
                                    0,
                                    1,
                                    127,
                                    0,
                                    0,
                                    1,
                                    0x90,
                                    0x00,
                                    static_cast<unsigned char>(port >> 8),
                                    static_cast<unsigned char>(port & 255),
                                    static_cast<unsigned char>(length >> 8),
                                    static_cast<unsigned char>(length & 255),
                                    0,
                                    0};
    little32(0);
    little32(0);
    little32(total);
    little32(total);
    out.write(reinterpret_cast<const char*>(head), sizeof head);
    out.write(packet.data(), static_cast<std::streamsize>(packet.size()));
  }
}

/// What a command prints, line by line.
inline std::vector<std::string> linesOf(const std::string& command) {
  std::vector<std::string> lines;
  std::FILE* pipe = ::popen(command.c_str(), "r");
  std::array<char, 4096> line;
  while (pipe && std::fgets(line.data(), line.size(), pipe)) lines.emplace_back(line.data());
  if (pipe) ::pclose(pipe);
  return lines;
}

}  // namespace chispa::test
