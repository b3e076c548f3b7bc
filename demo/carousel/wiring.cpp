// SPDX-License-Identifier: GPL-3.0-or-later
#include "carousel/carousel.h"

#include "core/edit/planedits.h"
#include "core/edit/wireedits.h"

namespace chispa::demo {
namespace {

/// Builds one controller port by port.
class Box {
 public:
  Box(Show& show, const std::string& name, Protocol protocol, const std::string& host, int firstUniverse)
      : show_(show) {
    box_.id = show.newId<ControllerId>();
    box_.name = name;
    box_.protocol = protocol;
    box_.host = host;
    box_.setupPort = 8090;
    box_.firstUniverse = firstUniverse;
  }

  Box& port(std::vector<Bead> run) {
    box_.ports.push_back({std::move(run)});
    return *this;
  }
  Bead whole(const std::string& name, int skipped = 0) const {
    const Fixture& fixture = *findNamed(show_.fixtures, name);
    return {fixture.id, 0, pixelCount(fixture), false, skipped};
  }
  /// `count` fixtures called "base n", from number `first` on.
  std::vector<Bead> chain(const std::string& base, int first, int count, int skippedAhead = 0) const {
    std::vector<Bead> run;
    for (int i = 0; i < count; ++i)
      run.push_back(whole(base + " " + std::to_string(first + i), i == 0 ? skippedAhead : 0));
    return run;
  }
  /// Power enters at the front of every run, at its end, and at least every `most` pixels in between.
  Box& feed(SupplyId supply, SupplyId twelve, int most) {
    for (Port& port : box_.ports) {
      int since = most;
      for (Bead& bead : port.run) {
        const bool isTwelve = stripTypeOf(show_, *find(show_.fixtures, bead.fixture)).volts == 12;
        for (int pixel = 0; pixel < bead.count; ++pixel, ++since) {
          if (since < most) continue;
          bead.injections.push_back({isTwelve ? twelve : supply, pixel, 2, 2.5, isTwelve ? 15.0 : 10.0});
          since = 0;
        }
      }
      Bead& last = port.run.back();
      const bool isTwelve = stripTypeOf(show_, *find(show_.fixtures, last.fixture)).volts == 12;
      last.injections.push_back({isTwelve ? twelve : supply, last.count, 2, 2.5, isTwelve ? 15.0 : 10.0});
    }
    return *this;
  }
  void finish(std::size_t ports) {
    box_.ports.resize(ports);
    put(show_.controllers, box_);
  }

 private:
  Show& show_;
  Controller box_;
};

}  // namespace

void addWiring(Show& show) {
  const auto supply = [&](const std::string& name, double volts, double limit_a) {
    const SupplyId id = addSupply(show, volts);
    changeItem(show.supplies, id, [&](Supply& s) {
      s.name = name;
      s.limit_a = limit_a;
    });
    return id;
  };
  const SupplyId crown = supply("Crown supply", 5, 40);
  const SupplyId skirt = supply("Skirt supply", 5, 60);
  const SupplyId barn = supply("Barn supply", 12, 30);
  Box rim(show, "Rim box", Protocol::E131, "127.0.0.11", 1);
  Bead head = rim.whole("Canopy rim");
  Bead tail = head;
  head.count = 170;
  tail.first = 170;
  tail.count = 130;
  rim.port({head})
      .port({tail})
      .port(rim.chain("Rib", 1, 4))
      .port(rim.chain("Rib", 5, 4))
      .port(rim.chain("Rib", 9, 4));
  rim.feed(crown, barn, 180);
  rim.finish(6);

  Box posts(show, "Post box", Protocol::ArtNet, "127.0.0.12", 16);
  posts.port(posts.chain("Post", 1, 4, 1))
      .port(posts.chain("Post", 5, 4, 1))
      .port(posts.chain("Post", 9, 4, 1));
  posts.feed(skirt, barn, 180);
  posts.finish(4);

  Box column(show, "Column box", Protocol::E131, "127.0.0.13", 40);
  for (int i = 0; i < 4; ++i) column.port(column.chain("Panel", 1 + 2 * i, 2));
  column.feed(skirt, barn, 180);
  column.finish(4);

  Box booth(show, "Booth box", Protocol::ArtNet, "127.0.0.14", 64);
  booth.port({booth.whole("Booth sign")})
      .port({booth.whole("Path edge")})
      .port(booth.chain("Flood", 1, 6))
      .port(booth.chain("Uplight", 1, 8));
  booth.feed(skirt, barn, 180);
  booth.finish(4);
}

}  // namespace chispa::demo
