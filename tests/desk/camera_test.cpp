// SPDX-License-Identifier: GPL-3.0-or-later
// The carousel's canopy found by a simulated camera that looks at the nodes' real pixels, through the real
// window.
#include <cmath>
#include <fstream>
#include <random>

#include "window.h"
#include <QLabel>
#include <QListWidget>

#include "core/edit/planedits.h"
#include "core/edit/wireedits.h"
#include "core/files/portsettings.h"
#include "core/wire/patch.h"
#include "core/zone/pixelmap.h"
#include "desk/bench/benchpage.h"
#include "desk/bench/camera/camerapage.h"
#include "desk/bench/camera/cameraview.h"
#include "desk/bench/camera/scene.h"
#include "node/interface.h"
#include "node/node.h"

namespace chispa::desk {
namespace {

class CameraTest : public WindowTest {
 protected:
  CameraTest() : address_(test::loopbackAddress(8)), node_({"Node", 8, address_, {}}), http_(node_) {
    std::string why;
    EXPECT_TRUE(node_.start(why)) << why;
    EXPECT_TRUE(http_.start(address_, kHttpPort, why)) << why;
    window_.resize(1280, 800);
  }

  /// Opens a demo that has one box alone, which the node stands for.
  void openWith(const std::string& box) {
    ASSERT_TRUE(window_.openFile(QStringLiteral(CHISPA_SOURCE_DIR "/demo/carousel.chispa")));
    document_.apply(QStringLiteral("one box"), [&](Show& s) {
      const auto all = s.controllers;
      for (const auto& controller : all)
        if (controller->name != box) deleteController(s, controller->id);
      box_ = s.controllers.front()->id;
      changeItem(s.controllers, box_, [this](Controller& c) {
        c.host = address_;
        c.setupPort = kHttpPort;
      });
    });
    std::string why;
    const auto settings =
        node::parseSettings(toJson(portSettings(show(), derivePatch(show()), 0)).dump(), 8, why);
    ASSERT_TRUE(settings) << why;
    node_.setSettings(*settings);
    window_.showWorkspace(Workspace::Bench);
    window_.benchPage().choose({BenchTarget::Kind::Controller, box_, 0, 0});
    stage_.switchLight(true);
    settle();
    window_.benchPage().beginCamera();
  }
  CameraPage& camera() { return window_.benchPage().camera(); }

  /// Where the LEDs really are: the plan, bent as no plan ever is built.
  std::vector<vision::SceneLed> bentScene() {
    auto scene = sceneOf(show());
    std::mt19937 random(kSeed);
    std::normal_distribution<double> off(0, 0.004);
    for (vision::SceneLed& led : scene)
      led.place_m = {led.place_m.x * 1.03 + off(random), led.place_m.y * 0.97 + off(random),
                     led.place_m.z + 0.08 * std::sin(led.place_m.x) + off(random)};
    std::ofstream(scenePath()) << vision::sceneText(scene);
    return scene;
  }
  std::filesystem::path scenePath() const { return folder_.path() / "truth.csv"; }

  void capture() {
    press("openCamera");
    press("cameraStep2");
    press("findLevel");
    EXPECT_TRUE(eventually([this] { return the<QPushButton>("findLevel")->isEnabled(); }));
    press("cameraStep3");
    press("captureLeds");
    EXPECT_TRUE(QTest::qWaitFor([this] { return camera().step() == CameraPage::Step::Review; }, 900'000));
  }

  void lookAgain() {
    press("captureAgain");
    EXPECT_TRUE(QTest::qWaitFor([this] { return camera().step() == CameraPage::Step::Review; }, 900'000));
  }

  /// Sure LEDs that are more than four picture pixels from where a camera there must see them.
  int wrongOnes(const std::vector<Vec3>& places, double azimuth_deg) {
    const vision::View view = vision::viewOfAll(places, vision::Lens{}, azimuth_deg, 20);
    return static_cast<int>(std::count_if(
        camera().sightings().all.begin(), camera().sightings().all.end(), [&](const vision::Sighting& one) {
          const auto truth = view.project(places[static_cast<std::size_t>(one.led)]);
          return one.doubt.empty() && std::hypot(truth->x - one.spot.x, truth->y - one.spot.y) > 4;
        }));
  }

  static constexpr int kHttpPort = 18'092;
  std::string address_;
  node::Node node_;
  node::Interface http_;
  ControllerId box_;
};

TEST_F(CameraTest, TheCanopyIsFoundInSpaceFromTwoPlaces) {
  openWith("Rim box");
  const auto truth = bentScene();
  type("cameraPath", QString::fromStdString(scenePath().string()));
  setNumber("cameraAzimuth", -14);
  setNumber("cameraElevation", 38);
  capture();
  const std::size_t leds = camera().leds().size();
  ASSERT_EQ(leds, truth.size());
  const auto sure = [this] {
    return std::count_if(camera().sightings().all.begin(), camera().sightings().all.end(),
                         [](const auto& s) { return s.doubt.empty(); });
  };
  EXPECT_GE(static_cast<double>(sure()), 0.995 * static_cast<double>(leds))
      << the<QLabel>("cameraFound")->text().toStdString();
  press("secondPlace");
  setNumber("cameraAzimuth", 16);
  capture();
  EXPECT_GE(static_cast<double>(sure()), 0.995 * static_cast<double>(leds))
      << the<QLabel>("cameraFound")->text().toStdString();
  press("cameraStep5");
  the<QComboBox>("cameraLay")->setCurrentIndex(1);
  auto* known = the<QDoubleSpinBox>("knownLength");
  known->setValue(length(truth.back().place_m - truth.front().place_m));
  const Show before = show();
  ASSERT_TRUE(the<QPushButton>("acceptPlaces")->isEnabled())
      << the<QLabel>("cameraResult")->text().toStdString();
  press("acceptPlaces");
  const PixelMap map = mapPixels(show());
  std::vector<double> off;
  for (std::size_t i = 0; i + 100 < leds; ++i) {
    const auto at = [&](std::size_t k) {
      return map.positions[static_cast<std::size_t>(camera().leds()[k])];
    };
    off.push_back(std::abs(length(at(i + 100) - at(i)) - length(truth[i + 100].place_m - truth[i].place_m)));
  }
  std::sort(off.begin(), off.end());
  constexpr double kSize_m = 4;
  EXPECT_LT(off[off.size() / 2], 0.01 * kSize_m)
      << "half of the distances are right to a hundredth of the canopy";
  EXPECT_EQ(pixelCount(show()), pixelCount(before));
  EXPECT_EQ(*find(show().controllers, box_), *find(before.controllers, box_))
      << "the order of the strips is kept";
  trigger("undo");
  EXPECT_EQ(show(), before);
}

/// Port by port from the side that it faces, as a maker walks round a column: from one place nobody sees what
/// is behind.
class CameraPorts : public CameraTest {
 protected:
  void lookAtEachPort(const char* box, std::optional<double> from_deg) {
    openWith(box);
    const PixelMap map = mapPixels(show());
    std::size_t leds = 0, sure = 0;
    const auto ports = static_cast<int>(find(show().controllers, box_)->ports.size());
    for (int port = 0; port < ports; ++port) {
      window_.benchPage().choose({BenchTarget::Kind::Port, box_, port, 0});
      window_.benchPage().beginCamera();
      if (camera().leds().empty()) continue;
      Vec3 middle;
      std::vector<Vec3> places;
      for (const std::int32_t led : camera().leds()) {
        places.push_back(map.positions[static_cast<std::size_t>(led)]);
        middle = middle + places.back();
      }
      const double azimuth_deg = from_deg.value_or(std::round(degrees(std::atan2(middle.x, -middle.y))));
      setNumber("cameraAzimuth", azimuth_deg);
      setNumber("cameraElevation", 20);
      the<QSpinBox>("cameraRounds")->setValue(1);
      capture();
      if (the<QListWidget>("doubtfulLeds")->count() > 0) lookAgain();
      for (const auto& one : camera().sightings().all) sure += one.doubt.empty() ? 1 : 0;
      leds += camera().leds().size();
      EXPECT_EQ(wrongOnes(places, azimuth_deg), 0) << box << ", port " << port + 1;
    }
    EXPECT_GE(static_cast<double>(sure), 0.995 * static_cast<double>(leds));
  }
};

TEST_F(CameraPorts, ThePostsAreFound) {
  lookAtEachPort("Post box", {});
}
TEST_F(CameraPorts, TheColumnIsFound) {
  lookAtEachPort("Column box", {});
}
TEST_F(CameraPorts, TheBoothIsFound) {
  lookAtEachPort("Booth box", 25);
}

TEST_F(CameraTest, DoubtfulLedsAreLookedForAgainAndPutRightByHand) {
  openWith("Rim box");
  window_.benchPage().choose({BenchTarget::Kind::Port, box_, 1, 0});
  window_.benchPage().beginCamera();
  the<QComboBox>("cameraSeverity")->setCurrentIndex(2);
  the<QSpinBox>("cameraRounds")->setValue(1);
  setNumber("cameraHold", 0.17);
  capture();
  const auto leds = static_cast<int>(camera().leds().size());
  auto* list = the<QListWidget>("doubtfulLeds");
  ASSERT_GT(list->count(), 0) << "one round behind a waving hand does not show all";
  const int before = list->count();
  lookAgain();
  EXPECT_LE(list->count(), before);
  // The rest is clicked where it is.
  while (list->count() > 0) {
    list->setCurrentRow(0);
    const int left = list->count();
    auto* view = the<CameraView>("cameraView");
    QTest::mouseClick(view, Qt::LeftButton, {}, QPoint(view->width() / 2, 30 + left));
    ASSERT_LT(list->count(), left);
  }
  EXPECT_EQ(std::count_if(camera().sightings().all.begin(), camera().sightings().all.end(),
                          [](const auto& s) { return s.doubt.empty(); }),
            leds);
  QTest::keyClick(&camera(), Qt::Key_Escape);
  EXPECT_FALSE(camera().isVisible());
  EXPECT_FALSE(stage_.signal()) << "the LEDs go dark";
}

TEST_F(CameraTest, SaysWhatIsWrongWithItsSource) {
  openWith("Booth box");
  type("cameraPath", QStringLiteral("/nowhere/truth.csv"));
  press("openCamera");
  EXPECT_TRUE(the<QLabel>("cameraHint")->text().contains(QStringLiteral("cannot be read")))
      << the<QLabel>("cameraHint")->text().toStdString();
  choose("cameraSource", QStringLiteral("Video"));
  press("openCamera");
  EXPECT_TRUE(the<QLabel>("cameraHint")->text().contains(QStringLiteral("no such file")));
  press("cameraAgain");
  EXPECT_TRUE(the<QComboBox>("cameraSource")->currentText().startsWith(QStringLiteral("Video")))
      << "what was chosen stays chosen";
}

}  // namespace
}  // namespace chispa::desk
