// SPDX-License-Identifier: GPL-3.0-or-later
#include <array>
#include <vector>

#include <gtest/gtest.h>

#include "link/artnet.h"
#include "link/e131.h"

namespace chispa::link {
namespace {

std::vector<std::uint8_t> e131Packet(int universe) {
  E131Source source;
  for (std::size_t i = 0; i < source.cid.size(); ++i) source.cid[i] = static_cast<std::uint8_t>(i + 1);
  source.name = "Lantern Fair";
  source.priority = 120;
  std::vector<std::uint8_t> packet(kE131PacketSize, 0xee);
  writeE131Header(packet, source, universe);
  return packet;
}

std::vector<std::uint8_t> part(const std::vector<std::uint8_t>& packet, std::size_t at, std::size_t count) {
  return {packet.begin() + static_cast<std::ptrdiff_t>(at),
          packet.begin() + static_cast<std::ptrdiff_t>(at + count)};
}

using Bytes = std::vector<std::uint8_t>;

/// ANSI E1.31-2018, tables 4-1 to 4-3, byte by byte.
TEST(E131, HeaderIsThatOfTheStandard) {
  const auto packet = e131Packet(0x1234);
  EXPECT_EQ(part(packet, 0, 18), (Bytes{0x00, 0x10, 0x00, 0x00, 'A', 'S', 'C', '-', 'E', '1', '.', '1', '7',
                                        0, 0, 0, 0x72, 0x6e}));
  EXPECT_EQ(part(packet, 18, 20), (Bytes{0, 0, 0, 4, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12, 13, 14, 15, 16}));
  EXPECT_EQ(part(packet, 38, 6), (Bytes{0x72, 0x58, 0, 0, 0, 2}));
  EXPECT_EQ(part(packet, 44, 13), (Bytes{'L', 'a', 'n', 't', 'e', 'r', 'n', ' ', 'F', 'a', 'i', 'r', 0}));
  EXPECT_EQ(part(packet, 108, 7), (Bytes{120, 0, 0, 0, 0, 0x12, 0x34}));
  EXPECT_EQ(part(packet, 115, 11), (Bytes{0x72, 0x0b, 0x02, 0xa1, 0, 0, 0, 1, 0x02, 0x01, 0}));
}

TEST(E131, SequenceOptionsAndValuesStandWhereTheyBelong) {
  auto packet = e131Packet(1);
  setE131Sequence(packet, 200);
  setE131Terminated(packet, true);
  e131Values(packet)[0] = 11;
  e131Values(packet)[511] = 99;
  EXPECT_EQ(packet[111], 200);
  EXPECT_EQ(packet[112], 0x40);
  EXPECT_EQ(packet[126], 11);
  EXPECT_EQ(packet[637], 99);
  setE131Terminated(packet, false);
  EXPECT_EQ(packet[112], 0);
}

TEST(E131, ALongSourceNameIsCutAndStaysTerminated) {
  E131Source source;
  source.name = std::string(100, 'x');
  std::vector<std::uint8_t> packet(kE131PacketSize);
  writeE131Header(packet, source, 1);
  EXPECT_EQ(packet[106], 'x');
  EXPECT_EQ(packet[107], 0);
}

TEST(E131, RandomCidsAreUuidsOfVersion4) {
  const Cid a = randomCid();
  EXPECT_EQ(a[6] >> 4, 4);
  EXPECT_EQ(a[8] >> 6, 2);
  EXPECT_NE(a, randomCid());
}

/// Art-Net 4, ArtDmx, byte by byte.
TEST(ArtNet, ArtDmxIsThatOfTheStandard) {
  std::vector<std::uint8_t> packet(kArtDmxPacketSize, 0xee);
  writeArtDmxHeader(packet, 0x7a3c);
  setArtDmxSequence(packet, 7);
  artDmxValues(packet)[511] = 5;
  EXPECT_EQ(part(packet, 0, 18),
            (Bytes{'A', 'r', 't', '-', 'N', 'e', 't', 0, 0x00, 0x50, 0, 14, 7, 0, 0x3c, 0x7a, 0x02, 0x00}));
  EXPECT_EQ(packet[529], 5);
}

}  // namespace
}  // namespace chispa::link
