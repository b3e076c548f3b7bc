// SPDX-License-Identifier: GPL-3.0-or-later
// Every finder through the real window, against a node whose faults are drawn at random: the maker is played
// by looking at the node's LEDs, and nothing else.
#include <cmath>
#include <random>

#include "window.h"
#include <QLabel>

#include "core/colour/chipcolours.h"
#include "core/colour/difference.h"
#include "core/colour/whitepoint.h"
#include "core/edit/planedits.h"
#include "core/edit/wireedits.h"
#include "desk/bench/benchpage.h"
#include "desk/bench/planpicker.h"
#include "desk/bench/signalform.h"
#include "node/node.h"

namespace chispa::desk {
namespace {

class FinderTest : public WindowTest {
 protected:
  FinderTest() : node_({"Node", 8, test::loopbackAddress(9), {}}) {
    std::string why;
    EXPECT_TRUE(node_.start(why)) << why;
    window_.resize(1280, 800);
  }

  /// One controller at the node, a port for each shape.
  void build(const std::vector<Shape>& shapes, const std::string& order = "GRB") {
    document_.apply(QStringLiteral("build"), [&](Show& s) {
      StripType type;
      type.id = s.newId<StripTypeId>();
      type.name = "Strip";
      type.order = order;
      put(s.stripTypes, type);
      box_ = addController(s, static_cast<int>(shapes.size()));
      changeItem(s.controllers, box_, [](Controller& c) {
        c.host = test::loopbackAddress(9);
        c.name = "Box";
      });
      for (std::size_t i = 0; i < shapes.size(); ++i) {
        const FixtureId id = addFixture(s, shapes[i], {static_cast<double>(i) * 0.3, 0, 0}, {}, type.id);
        hang(s, {id, 0, pixelCount(shapes[i])}, {box_, static_cast<int>(i), 0});
      }
    });
    window_.showWorkspace(Workspace::Bench);
    bench().choosePort({box_, 0});
    stage_.switchLight(true);
    settle();
  }
  BenchPage& bench() { return window_.benchPage(); }
  QWidget* view() { return the<QWidget>("finderView"); }
  QString words() { return the<QLabel>("finderWords")->text(); }
  bool canAccept() { return the<QPushButton>("finderAccept")->isVisible(); }
  const Controller& box() const { return *find(show().controllers, box_); }

  std::uint64_t packets() const {
    std::uint64_t sum = 0;
    for (const auto& universe : node_.state()["universes"]) sum += universe["packets"].get<std::uint64_t>();
    return sum;
  }
  /// What the port's LEDs show once everything that was sent has arrived.
  std::vector<node::Shown> look(std::size_t port = 0) {
    settle();
    const auto frame = stage_.player().stats().frames.load();
    EXPECT_TRUE(eventually([&] { return stage_.player().stats().frames.load() >= frame + 4; }));
    std::uint64_t before = 0;
    while (before != packets()) {
      before = packets();
      QTest::qWait(70);
    }
    return node_.shown(node_.settings()[port]);
  }
  static bool isLit(const node::Shown& led) { return led.r + led.g + led.b > 0; }
  static int firstLit(const std::vector<node::Shown>& leds) {
    for (std::size_t i = 0; i < leds.size(); ++i)
      if (isLit(leds[i])) return static_cast<int>(i);
    return -1;
  }
  void press(int key, Qt::KeyboardModifiers with = {}) {
    QTest::keyClick(view(), static_cast<Qt::Key>(key), with);
  }

  node::Node node_;
  ControllerId box_;
  std::mt19937 random_{kSeed};
  int draw(int low, int high) { return std::uniform_int_distribution(low, high)(random_); }
};

TEST_F(FinderTest, TheColourOrderIsFoundWhateverItIs) {
  build({LineShape{20}});
  for (int round = 0; round < 6; ++round) {
    std::string order = round % 2 == 0 ? "RGB" : "RGBW";
    std::shuffle(order.begin(), order.end(), random_);
    node_.setSettings({{1, "e131", {{20, order, 0, 1, 1}}}});
    bench().beginFinder(FinderKind::ColourOrder);
    int answers = 0;
    for (; !canAccept() && !words().startsWith(QStringLiteral("It is as")); ++answers) {
      ASSERT_LT(answers, 4) << order << ' ' << words().toStdString();
      const auto leds = look();
      const node::Shown& led = leds[0];
      press(!isLit(led)              ? Qt::Key_2
            : led.r > 0 && led.g > 0 ? Qt::Key_W
            : led.r > 0              ? Qt::Key_R
            : led.g > 0              ? Qt::Key_G
                                     : Qt::Key_B);
    }
    press(Qt::Key_Return);
    EXPECT_EQ(box().ports[0].settings.order.value_or("GRB"), order);
  }
}

TEST_F(FinderTest, TheDataEndIsFound) {
  build({LineShape{30}});
  for (const bool isFar : {true, true, false}) {
    node::Section section{30, "GRB", 0, 1, 1};
    section.isReversed = isFar;
    node_.setSettings({{1, "e131", {section}}});
    const bool before = box().ports[0].run[0].reversed;
    bench().beginFinder(FinderKind::Direction);
    press(firstLit(look()) < 15 ? Qt::Key_N : Qt::Key_F);
    const auto leds = look();
    press(leds[0].r > 0 ? Qt::Key_N : Qt::Key_F);
    press(Qt::Key_Return);
    // The finder says whether it is the end that the show takes for the first; each time it turns the bead if
    // it is not.
    EXPECT_EQ(box().ports[0].run[0].reversed, before != isFar);
  }
}

TEST_F(FinderTest, SkippedPixelsAreFound) {
  build({LineShape{30}});
  for (int round = 0; round < 4; ++round) {
    const int skipped = draw(0, 8);
    node_.setSettings({{1, "e131", {{30, "GRB", skipped, 1, 1}}}});
    bench().beginFinder(FinderKind::Skipped);
    for (int answers = 0; !canAccept() && !words().startsWith(QStringLiteral("It is as")); ++answers) {
      ASSERT_LT(answers, 3) << words().toStdString();
      press(Qt::Key_0 + (firstLit(look()) + 1) % 10);
    }
    press(Qt::Key_Return);
    EXPECT_EQ(box().insertsSkipped ? box().ports[0].run[0].skippedBefore : 0, skipped);
  }
}

TEST_F(FinderTest, TheEndOfTheStripIsFound) {
  for (const bool turned : {false, true}) {
    document_.start();
    build({LineShape{1000}});
    if (turned) document_.apply(QStringLiteral("turn"), [this](Show& s) { turnBead(s, {box_, 0, 0}); });
    const int count = draw(1, 999);
    node_.setSettings({{1, "e131", {{count, "GRB", 0, 1, 1}}, 512, false}});
    bench().beginFinder(FinderKind::Count);
    int answers = 0;
    for (; !canAccept(); ++answers) {
      ASSERT_LE(answers, 11) << words().toStdString();
      const auto leds = look();
      const auto seen = std::count_if(leds.begin(), leds.end(), isLit);
      if (words().contains(QStringLiteral("Do you see it")))
        press(seen > 0 ? Qt::Key_Y : Qt::Key_N);
      else
        press(Qt::Key_0 + static_cast<int>(seen));
    }
    EXPECT_LE(answers, 11);
    press(Qt::Key_Return);
    EXPECT_EQ(pixelCount(*show().fixtures[0]), count);
    ASSERT_EQ(box().ports[0].run.size(), 1u);
    EXPECT_EQ(box().ports[0].run[0].count, count);
    EXPECT_NEAR(positions(*show().fixtures[0])[0].x, turned ? (1000 - count + 0.5) / 60 : 0.5 / 60, 1e-6)
        << "what is left is the end with the data";
    trigger("undo");
    EXPECT_EQ(pixelCount(*show().fixtures[0]), 1000) << "one undo";
  }
}

TEST_F(FinderTest, GroupingIsFound) {
  build({LineShape{60}});
  for (int round = 0; round < 3; ++round) {
    node::Section section{60, "GRB", 0, 1, 1};
    section.grouping = draw(1, 9);
    node_.setSettings({{1, "e131", {section}}});
    bench().beginFinder(FinderKind::Grouping);
    for (int answers = 0; !canAccept() && !words().startsWith(QStringLiteral("It is as")); ++answers) {
      ASSERT_LT(answers, 3) << words().toStdString();
      const auto leds = look();
      press(Qt::Key_0 + static_cast<int>(std::count_if(leds.begin(), leds.end(), isLit)));
    }
    press(Qt::Key_Return);
    EXPECT_EQ(box().ports[0].settings.grouping.value_or(1), section.grouping);
  }
}

/// The maker sees a matrix laid as `truth` says: light by column and row.
class MatrixEyes {
 public:
  MatrixEyes(const GridShape& truth, const std::vector<node::Shown>& leds)
      : truth_(truth), cells_(matrixCells(Shape(truth))) {
    for (std::size_t i = 0; i < cells_.size() && i < leds.size(); ++i)
      if (leds[i].r > 0) lit_.push_back({cells_[i], leds[i].r});
    std::sort(lit_.begin(), lit_.end(), [](const auto& a, const auto& b) { return a.second > b.second; });
  }

  /// Of eight pictures: the corner of the brightest, and whether the next is above or below it.
  int head() const {
    const GridCell first = lit_[0].first;
    const bool right = first.column > 0;
    const bool top = first.row > 0;
    const bool vertical = lit_[1].first.row != first.row;
    return 2 * ((top ? 2 : 0) + (right ? 1 : 0)) + (vertical ? 1 : 0);
  }
  /// The key for how many lines are full.
  int lineKey() const {
    static constexpr int kPartly[] = {Qt::Key_Q, Qt::Key_W, Qt::Key_E, Qt::Key_R, Qt::Key_T};
    const int line = truth_.runs == GridRuns::AlongRows ? truth_.columns : truth_.rows;
    const auto count = static_cast<int>(lit_.size());
    const int begun = (count + line - 1) / line;
    if (begun >= 6) return Qt::Key_6;
    return count % line == 0 ? Qt::Key_0 + begun : kPartly[begun - 1];
  }
  /// True if the one lit stands beside the far end of the first line.
  bool turnsBack() const {
    const GridCell at = lit_[0].first;
    const GridCell start = cells_[0];
    return truth_.runs == GridRuns::AlongRows ? at.column != start.column : at.row != start.row;
  }

 private:
  GridShape truth_;
  std::vector<GridCell> cells_;
  std::vector<std::pair<GridCell, int>> lit_;
};

TEST_F(FinderTest, TheWiringOfAMatrixIsFoundInFivePictures) {
  build({GridShape{12, 8}});
  node_.setSettings({{1, "e131", {{96, "GRB", 0, 1, 1}}}});
  static constexpr int kColumns[] = {4, 6, 8, 12, 16, 24};
  for (int round = 0; round < 6; ++round) {
    GridShape truth;
    truth.columns = kColumns[draw(0, 5)];
    truth.rows = 96 / truth.columns;
    truth.start = static_cast<Corner>(draw(0, 3));
    truth.runs = static_cast<GridRuns>(draw(0, 1));
    truth.serpentine = draw(0, 1) == 1;
    bench().beginFinder(FinderKind::Matrix);
    int pictures = 0;
    for (; !canAccept() && !words().startsWith(QStringLiteral("It is as")); ++pictures) {
      ASSERT_LT(pictures, 6) << words().toStdString();
      const MatrixEyes eyes(truth, look());
      if (words().startsWith(QStringLiteral("Three")))
        press(Qt::Key_1 + eyes.head());
      else if (words().startsWith(QStringLiteral("The first pixel of the second")))
        press(eyes.turnsBack() ? Qt::Key_2 : Qt::Key_1);
      else
        press(eyes.lineKey());
    }
    EXPECT_LE(pictures, 5);
    press(Qt::Key_Return);
    const auto& found = std::get<GridShape>(show().fixtures[0]->segments[0].shape);
    EXPECT_EQ(found.columns, truth.columns);
    EXPECT_EQ(found.rows, truth.rows);
    EXPECT_EQ(found.start, truth.start);
    EXPECT_EQ(found.runs, truth.runs);
    EXPECT_EQ(found.serpentine, truth.serpentine);
  }
}

TEST_F(FinderTest, ACaseGetsItsShelvesInOneWalk) {
  build({LineShape{240}});
  node_.setSettings({{1, "e131", {{240, "GRB", 0, 1, 1}}}});
  std::vector<int> begins{0};
  while (begins.size() < 5) begins.push_back(begins.back() + draw(12, 55));
  bench().beginFinder(FinderKind::Parts);
  press(Qt::Key_Space);
  EXPECT_EQ(the<QLineEdit>("partName")->text(), QStringLiteral("Part 1"));
  for (std::size_t part = 0; part < begins.size(); ++part) {
    // Walks by tens and ones, as far as the eye says, until the LED in the corner is the one that is lit.
    int walks = 0;
    for (int at = firstLit(look()); at != begins[part]; at = firstLit(look())) {
      ASSERT_LT(++walks, 4) << at << " instead of " << begins[part];
      const int off = begins[part] - at;
      for (int i = 0; i < std::abs(off) / 10; ++i)
        press(off > 0 ? Qt::Key_Right : Qt::Key_Left, Qt::ShiftModifier);
      for (int i = 0; i < std::abs(off) % 10; ++i) press(off > 0 ? Qt::Key_Right : Qt::Key_Left);
    }
    if (part > 0) press(Qt::Key_Space);
    auto* name = the<QLineEdit>("partName");
    name->setFocus();
    name->selectAll();
    QTest::keyClicks(name, QStringLiteral("Shelf %1").arg(part + 1));
    QTest::keyClick(name, Qt::Key_Return);
  }
  press(Qt::Key_Return);
  ASSERT_TRUE(canAccept()) << words().toStdString();
  press(Qt::Key_Return);
  const Fixture& fixture = *show().fixtures[0];
  ASSERT_EQ(fixture.segments.size(), 5u);
  for (std::size_t part = 0; part < 5; ++part) {
    EXPECT_EQ(firstPixelOf(fixture, part), begins[part]);
    EXPECT_EQ(fixture.segments[part].name, "Shelf " + std::to_string(part + 1));
  }
  trigger("undo");
  EXPECT_EQ(show().fixtures[0]->segments.size(), 1u);
}

TEST_F(FinderTest, WhiteIsSlidUntilThePaperIsNeutral) {
  build({LineShape{20}});
  node_.setSettings({{1, "e131", {{20, "GRB", 0, 1, 1}}}});
  // The strip's green and blue are too strong; what the paper shows is the value times the chip's strength.
  const double strength[] = {1, 1.0 + draw(20, 60) / 100.0, 1.0 + draw(60, 150) / 100.0};
  bench().beginFinder(FinderKind::White);
  press(Qt::Key_4);
  EXPECT_NEAR(find(stage_.played().stripTypes, show().fixtures[0]->stripType)->white.b,
              whiteOfTemperature(4000).b, 1e-6)
      << "a preset is tried at once";
  for (int slider = 0; slider < 3; ++slider) {
    press(Qt::Key_Up);
    press(Qt::Key_Up);
    for (int i = 0; i < slider; ++i) press(Qt::Key_Down);
    setNumber(slider == 0 ? "finderNumber1" : slider == 1 ? "finderNumber2" : "finderNumber3", 100);
  }
  const auto paper = [&] {
    const auto led = look()[10];
    return std::array<double, 3>{led.r * strength[0], led.g * strength[1], led.b * strength[2]};
  };
  for (const int channel : {1, 2}) {
    press(Qt::Key_Up);
    press(Qt::Key_Up);
    for (int i = 0; i < channel; ++i) press(Qt::Key_Down);
    // Ten steps at a time while it is far too strong, then one by one.
    const auto off = [&] {
      const auto seen = paper();
      return seen[static_cast<std::size_t>(channel)] / seen[0];
    };
    int steps = 0;
    for (double now = off(); now > 1.01; now = off()) {
      ASSERT_LT(++steps, 60) << now;
      press(now > 1.25 ? Qt::Key_PageDown : Qt::Key_Left);
    }
  }
  press(Qt::Key_Return);
  press(Qt::Key_Return);
  const Rgb white = find(show().stripTypes, show().fixtures[0]->stripType)->white;
  EXPECT_NEAR(white.r, 1, 1e-6);
  EXPECT_NEAR(white.g, 1 / strength[1], 0.02);
  EXPECT_NEAR(white.b, 1 / strength[2], 0.02);
  trigger("undo");
  EXPECT_EQ(find(show().stripTypes, show().fixtures[0]->stripType)->white, (Rgb{1, 1, 1}));
}

/// The colours of the chips: the strip's green is of 540 nm, not of the 524 that are assumed; it is slid
/// until the three colours on the card are those of the screen.
TEST_F(FinderTest, ChipsAreSlidUntilTheCardLooksAsTheScreen) {
  build({LineShape{20}});
  node_.setSettings({{1, "e131", {{20, "GRB", 0, 1, 1}}}});
  ChipColours own{*readChromaticity("628 nm"), *readChromaticity("540 nm"), *readChromaticity("462 nm")};
  const auto map = chipMapOf(own);
  const auto shown = [&](int which) {
    press(static_cast<Qt::Key>(Qt::Key_1 + which));
    const auto led = look()[10];
    return map->colourOf(
        {static_cast<float>(led.r) / 255, static_cast<float>(led.g) / 255, static_cast<float>(led.b) / 255});
  };
  bench().beginFinder(FinderKind::Chips);
  const std::array<Srgb8, 3> fields{{{255, 130, 20}, {150, 235, 60}, {90, 160, 255}}};
  const auto apart = [&] {
    double sum = 0;
    for (int i = 0; i < 3; ++i) {
      const Rgb meant = toLinear(fields[static_cast<std::size_t>(i)]);
      sum += deltaE2000(toCieLab({meant.r / 2, meant.g / 2, meant.b / 2}), toCieLab(shown(i)));
    }
    return sum;
  };
  const double before = apart();
  const char* const numbers[] = {"finderNumber1", "finderNumber2", "finderNumber3"};
  const double right[] = {628, 540, 462};
  for (int i = 0; i < 3; ++i) setNumber(numbers[i], right[i]);
  EXPECT_GT(before, 10);
  EXPECT_LT(apart(), 3);
  press(Qt::Key_Return);
  press(Qt::Key_Return);
  const StripType& strip = *find(show().stripTypes, show().fixtures[0]->stripType);
  ASSERT_TRUE(strip.chips);
  EXPECT_NEAR(*dominantWavelength(strip.chips->green), 540, 1);
  trigger("undo");
  EXPECT_FALSE(find(show().stripTypes, show().fixtures[0]->stripType)->chips);
}

TEST_F(FinderTest, ResponseIsSlidUntilTheStepsAreEven) {
  build({LineShape{64}});
  node_.setSettings({{1, "e131", {{64, "GRB", 0, 1, 1}}}});
  // The strip bends its values: light is a power of them.
  const double bends = draw(14, 26) / 10.0;
  bench().beginFinder(FinderKind::Response);
  const auto unevenness = [&] {
    const auto leds = look();
    const auto lightness = [&](std::size_t led) {
      const double y = std::pow(leds[led].g / 255.0, bends);
      return y > 0.008856 ? 116 * std::cbrt(y) - 16 : 903.3 * y;
    };
    // The dim half against the bright half.
    return (lightness(60) - lightness(28)) - (lightness(28) - lightness(4)) * 4 / 3;
  };
  for (int steps = 0; unevenness() > 0; ++steps) {
    ASSERT_LT(steps, 100);
    press(Qt::Key_Right);
  }
  press(Qt::Key_Return);
  press(Qt::Key_Return);
  EXPECT_NEAR(box().ports[0].settings.response.value_or(chispa::Response{}).exponent, bends, 0.25);
}

TEST_F(FinderTest, MisWiredStripsArePutRight) {
  build({LineShape{20}, LineShape{20}, LineShape{20}, LineShape{20}, LineShape{20}});
  std::vector<node::PortSetup> ports;
  for (int p = 0; p < 5; ++p) ports.push_back({p + 1, "e131", {{20, "GRB", 0, p + 1, 1}}});
  node_.setSettings(ports);
  // On port p hangs the strip that the show calls strips[p].
  std::vector<std::size_t> strips{0, 1, 2, 3, 4};
  std::shuffle(strips.begin(), strips.end(), random_);
  const auto fixtureOf = [this](std::size_t i) { return show().fixtures[i]->id; };
  const Show before = show();
  bench().beginFinder(FinderKind::Strips);
  auto* picker = the<PlanPicker>("planPicker");
  for (int answers = 0; !canAccept() && !words().startsWith(QStringLiteral("It is as")); ++answers) {
    ASSERT_LT(answers, 5) << words().toStdString();
    std::size_t lit = 99;
    for (std::size_t p = 0; p < 5; ++p)
      if (firstLit(look(p)) >= 0) lit = strips[p];
    ASSERT_LT(lit, 5u);
    for (int i = 0; picker->current() != fixtureOf(lit); ++i) {
      ASSERT_LT(i, 5);
      press(Qt::Key_Right);
    }
    press(Qt::Key_Return);
  }
  press(Qt::Key_Return);
  for (std::size_t p = 0; p < 5; ++p)
    EXPECT_EQ(box().ports[p].run[0].fixture, fixtureOf(strips[p])) << "port " << p + 1;
  trigger("undo");
  EXPECT_EQ(show(), before);
}

/// Sound and light that do not come together.
class DelayFinder : public FinderTest {
 protected:
  /// Where in the second of the clicks the LEDs flash, −300 to 700: the middle of several flashes.
  double flashAt_ms() {
    std::vector<double> seen;
    bool was = true;
    EXPECT_TRUE(eventually([&] {
      const bool is = firstLit(node_.shown(node_.settings()[0])) >= 0;
      if (is && !was) seen.push_back(std::fmod(static_cast<double>(stage_.position().count()) / 1000, 1000));
      was = is;
      return seen.size() >= 3;
    }));
    for (double& at : seen)
      if (at > 700) at -= 1000;
    std::sort(seen.begin(), seen.end());
    return seen[1];
  }
};

/// Sound takes longer to the ear than light to the eye; the controller's delay makes up for it.
TEST_F(DelayFinder, DelayIsSlidUntilFlashAndClickAgree) {
  build({LineShape{10}});
  node_.setSettings({{1, "e131", {{10, "GRB", 0, 1, 1}}}});
  bench().beginFinder(FinderKind::Delay);
  EXPECT_TRUE(stage_.isPlaying()) << "clicks are heard";
  const double lag_ms = 100 * draw(1, 3);
  // A click that leaves at the full second is heard `lag` later.
  for (int steps = 0; flashAt_ms() < lag_ms - 30; ++steps) {
    ASSERT_LT(steps, 12);
    press(Qt::Key_PageUp);
    settle();
  }
  press(Qt::Key_Return);
  press(Qt::Key_Return);
  EXPECT_FALSE(stage_.isPlaying());
  // The eye, the node and this test look in steps; half a tenth of a second is what they can tell.
  EXPECT_NEAR(box().delay_ms, lag_ms, 60);
}

/// A converter shows light long after the sound: it is computed ahead.
TEST_F(DelayFinder, LightThatIsLateIsBroughtForward) {
  build({LineShape{10}});
  node_.setSettings({{1, "e131", {{10, "GRB", 0, 1, 1}}}});
  node::Faults faults;
  faults.delay_ms = 200;
  node_.setFaults(faults);
  bench().beginFinder(FinderKind::Delay);
  for (int steps = 0; flashAt_ms() > 30; ++steps) {
    ASSERT_LT(steps, 12);
    press(Qt::Key_PageDown);
    settle();
  }
  press(Qt::Key_Return);
  press(Qt::Key_Return);
  EXPECT_NEAR(box().delay_ms, -200, 60);
}

TEST_F(FinderTest, ALeftFinderGoesOnAndAWrongAnswerIsTakenBack) {
  build({LineShape{20}});
  bench().beginFinder(FinderKind::Grouping);
  press(Qt::Key_3);
  press(Qt::Key_4);
  EXPECT_EQ(words(), QStringLiteral("These answers contradict each other."));
  press(Qt::Key_Backspace);
  press(Qt::Key_Escape);
  EXPECT_FALSE(stage_.signal());
  EXPECT_FALSE(view()->isVisible());
  bench().beginFinder(FinderKind::Grouping);
  press(Qt::Key_3);
  ASSERT_TRUE(canAccept()) << words().toStdString();
  EXPECT_EQ(words(), QStringLiteral("1 per value → 3 per value"));
}

TEST_F(FinderTest, AnAddressByHandNeedsNoShow) {
  window_.showWorkspace(Workspace::Bench);
  settle();
  BenchRig rig = makeBenchRig();
  rig.controller.host = test::loopbackAddress(9);
  setRigPixels(rig, 40, 0);
  setRigStart(rig, 7, 10);
  bench().chooseAddress(rig);
  node_.setSettings({{1, "e131", {{40, "BGR", 0, 7, 10}}}});
  stage_.switchLight(true);
  bench().signalForm().setKind(engine::TestSignal::Kind::Solid);
  bench().setSending(true);
  settle();
  auto leds = look();
  EXPECT_TRUE(std::all_of(leds.begin(), leds.end(), isLit));
  bench().setSending(false);
  // Its finders change the address; the show stays empty until it is kept.
  bench().beginFinder(FinderKind::ColourOrder);
  for (int answers = 0; !canAccept(); ++answers) {
    ASSERT_LT(answers, 4);
    const node::Shown led = look()[0];
    press(!isLit(led) ? Qt::Key_2 : led.r > 0 ? Qt::Key_R : led.g > 0 ? Qt::Key_G : Qt::Key_B);
  }
  press(Qt::Key_Return);
  EXPECT_TRUE(show().controllers.empty());
  EXPECT_EQ(the<QLineEdit>("rigOrder")->text(), QStringLiteral("BGR"));
  WindowTest::press("keepRig");
  ASSERT_EQ(show().controllers.size(), 1u);
  EXPECT_EQ(show().controllers[0]->host, test::loopbackAddress(9));
  EXPECT_EQ(pixelCount(show()), 40);
  trigger("undo");
  EXPECT_TRUE(show().controllers.empty());
}

}  // namespace
}  // namespace chispa::desk
