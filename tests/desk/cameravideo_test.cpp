// SPDX-License-Identifier: GPL-3.0-or-later
// Positions by camera from a real video file, as a telephone films it; and what its limits do.
#include "window.h"
#include <QListWidget>

#include "core/media/videowriter.h"
#include "core/vision/simulatedcamera.h"
#include "core/zone/pixelmap.h"
#include "desk/bench/benchpage.h"
#include "desk/bench/camera/camerapage.h"

namespace chispa::desk {
namespace {

constexpr int kWidth = 640;
constexpr int kHeight = 400;

class VideoOfLeds : public WindowTest {
 protected:
  VideoOfLeds() {
    EXPECT_TRUE(window_.openFile(QStringLiteral(CHISPA_SOURCE_DIR "/demo/carousel.chispa")));
    window_.resize(1280, 800);
    window_.showWorkspace(Workspace::Bench);
    window_.benchPage().choose(
        {BenchTarget::Kind::Port, findNamed(show().controllers, "Post box")->id, 0, 0});
    window_.benchPage().beginCamera();
    settle();
  }
  CameraPage& camera() { return window_.benchPage().camera(); }
  int leds() { return static_cast<int>(camera().leds().size()); }

  /// Films two rounds of the blinking LEDs as H.264.
  std::vector<std::optional<vision::Spot>> film(const std::filesystem::path& path) {
    const PixelMap map = mapPixels(show());
    std::vector<Vec3> places;
    for (const std::int32_t led : camera().leds())
      places.push_back(map.positions[static_cast<std::size_t>(led)]);
    vision::Lens lens;
    lens.width = kWidth;
    lens.height = kHeight;
    vision::SimulatedCamera filmed(places, vision::viewOfAll(places, lens, 0, 10),
                                   vision::defectsOf(vision::Severity::Clean), 3);
    auto writer = FilmWriter::open(path, {kWidth, kHeight, 30});
    EXPECT_TRUE(writer);
    std::vector<std::uint8_t> dots(kWidth * kHeight * 4, 255);
    vision::simulateCapture(filmed, vision::BlinkCode(leds()), 2, 0.15, 0.3, [&](const vision::Frame& frame) {
      for (std::size_t i = 0; i < frame.picture.light.size(); ++i)
        std::fill_n(dots.begin() + static_cast<std::ptrdiff_t>(4 * i), 3, frame.picture.light[i]);
      EXPECT_TRUE((*writer)->add(dots.data()));
    });
    EXPECT_TRUE((*writer)->finish());
    return filmed.truth();
  }

  int sure() {
    const auto& all = camera().sightings().all;
    return static_cast<int>(
        std::count_if(all.begin(), all.end(), [](const auto& s) { return s.doubt.empty(); }));
  }
};

TEST_F(VideoOfLeds, IsReadAndItsLimitsDoWhatTheySay) {
  ASSERT_GT(leds(), 20);
  const auto path = folder_.path() / "filmed.mp4";
  const auto truth = film(path);
  choose("cameraSource", QStringLiteral("Video"));
  type("cameraPath", QString::fromStdString(path.string()));
  the<QSpinBox>("cameraRounds")->setValue(2);
  press("openCamera");
  press("cameraStep3");
  press("captureLeds");
  ASSERT_TRUE(QTest::qWaitFor([this] { return camera().step() == CameraPage::Step::Review; }, 280'000));
  EXPECT_EQ(sure(), leds());
  for (const auto& one : camera().sightings().all) {
    const auto& spot = truth[static_cast<std::size_t>(one.led)];
    ASSERT_TRUE(spot);
    EXPECT_LT(std::hypot(spot->x - one.spot.x, spot->y - one.spot.y), 1.5) << one.led;
  }

  const auto limit = [this](const char* field, int value) {
    the<QSpinBox>(field)->setValue(value);
    QCoreApplication::processEvents();
  };
  limit("spotThreshold", 250);
  EXPECT_EQ(sure(), 0) << "nothing changes by so much";
  limit("spotThreshold", 0);
  EXPECT_EQ(sure(), leds());
  limit("spotSmallest", 500);
  EXPECT_EQ(sure(), 0) << "no LED is so large";
  limit("spotSmallest", 0);
  limit("spotLargest", 1);
  EXPECT_EQ(sure(), 0) << "every LED is larger";
  limit("spotLargest", 0);
  limit("spotNearest", 200);
  EXPECT_EQ(sure(), 0) << "all are nearer than that to one another";
  EXPECT_EQ(the<QListWidget>("doubtfulLeds")->count(), leds());
  limit("spotNearest", 0);
  limit("spotContrast", 5);
  EXPECT_EQ(sure(), leds());
  limit("spotContrast", 0);
  EXPECT_EQ(sure(), leds()) << "what was seen is still known";
}

}  // namespace
}  // namespace chispa::desk
