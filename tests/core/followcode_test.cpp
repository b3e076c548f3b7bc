// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/live/followcode.h"

#include <gtest/gtest.h>

#include "core/edit/bindingedits.h"
#include "core/edit/planedits.h"
#include "core/live/livestep.h"
#include "core/render/renderer.h"

namespace chispa {
namespace {

constexpr Micros kSecond{1'000'000};
constexpr Micros kMinute{60'000'000};
using Kind = CodeStep::Kind;

TEST(FollowCode, AScorePlaysJumpsAndStandsWithTheCode) {
  const auto step = [](Micros code, bool runs, bool isPlaying, Micros position) {
    return followCode(code, runs, isPlaying, position, kMinute);
  };
  EXPECT_EQ(step(kSecond * 5, true, false, Micros(0)), (CodeStep{Kind::Play, kSecond * 5}));
  EXPECT_EQ(step(kSecond * 5, true, true, kSecond * 5 + Micros(20'000)), CodeStep{}) << "near enough";
  EXPECT_EQ(step(kSecond * 5, true, true, kSecond * 6), (CodeStep{Kind::Seek, kSecond * 5}));
  EXPECT_EQ(step(kSecond * 9, false, true, kSecond * 6), (CodeStep{Kind::Pause, kSecond * 9}));
  EXPECT_EQ(step(kSecond * 9, false, false, kSecond * 9), CodeStep{});
}

TEST(FollowCode, OutsideTheScoreItStandsAtItsEnds) {
  EXPECT_EQ(followCode(-kSecond, true, true, kSecond, kMinute), (CodeStep{Kind::Pause, Micros(0)}));
  EXPECT_EQ(followCode(-kSecond, true, false, Micros(0), kMinute), CodeStep{});
  EXPECT_EQ(followCode(kMinute * 2, true, true, kMinute - kSecond, kMinute),
            (CodeStep{Kind::Pause, kMinute}));
}

/// A show that follows the code of "Recorder", whose score begins at an hour, and lets a look play meanwhile.
class AScoreThatFollows : public testing::Test {
 protected:
  AScoreThatFollows() {
    const BindingId id =
        addBinding(show_, {.kind = SourceKind::TimeCode, .device = "Recorder"}, {.kind = TargetKind::Follow});
    changeItem(show_.bindings, id, [](Binding& b) { b.target.at = kMinute * 60; });
    compiled_ = compile(show_);
  }
  LiveRequests heard(const std::string& device, Micros at, bool runs) {
    LiveRequests requests;
    LiveStep(*compiled_->live, state_, now_, requests).apply(timeCodeEvent(device, at, runs));
    return requests;
  }
  LiveRequests after(Micros time) {
    LiveRequests requests;
    now_.t += time;
    LiveStep(*compiled_->live, state_, now_, requests).advance({});
    return requests;
  }

  Show show_;
  std::shared_ptr<const CompiledShow> compiled_;
  LiveState state_;
  LiveInstant now_{.t = kSecond};
};

TEST_F(AScoreThatFollows, AsksForThePlaceInItself) {
  const LiveRequests requests = heard("Recorder", kMinute * 60 + kSecond * 7, true);
  ASSERT_EQ(requests.size(), 1u);
  EXPECT_EQ(requests[0].kind, LiveRequest::Kind::Follow);
  EXPECT_EQ(requests[0].at, kSecond * 7);
  EXPECT_EQ(requests[0].value, 1.f);
  EXPECT_EQ(requests[0].asked, now_.t);
  EXPECT_TRUE(heard("Another", kMinute * 60, true).isEmpty()) << "of a device that is not bound";
}

/// A recorder is stopped by silence: the score stands where the code should have come to, and is told so
/// once.
TEST_F(AScoreThatFollows, StandsWhenNoMoreIsHeard) {
  heard("Recorder", kMinute * 60, true);
  EXPECT_TRUE(after(Micros(300'000)).isEmpty());
  const LiveRequests requests = after(Micros(300'000));
  ASSERT_EQ(requests.size(), 1u);
  EXPECT_EQ(requests[0].value, 0.f);
  EXPECT_EQ(requests[0].at, Micros(600'000));
  EXPECT_TRUE(after(kSecond * 5).isEmpty());
}

}  // namespace
}  // namespace chispa
