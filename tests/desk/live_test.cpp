// SPDX-License-Identifier: GPL-3.0-or-later
// Playing by hand through the real window: pads by mouse and keys, learning, copying along, light at once,
// recording, desks.
#include "carousel/carousel.h"
#include "handmadedesk.h"
#include "jack.h"
#include "runwindow.h"
#include <QCheckBox>
#include <QContextMenuEvent>
#include <QDialogButtonBox>
#include <QListWidget>
#include <QMenu>
#include <QSlider>
#include <QSpinBox>

#include "core/edit/bindingedits.h"
#include "core/edit/lookedits.h"
#include "core/edit/planedits.h"
#include "core/edit/wireedits.h"
#include "desk/parts/curvefield.h"
#include "desk/run/livepanel.h"
#include "desk/run/lookpad.h"
#include "desk/run/runpage.h"
#include "desk/run/surfacewindow.h"
#include "desk/run/valueplot.h"
#include "node/node.h"

namespace chispa::desk {
namespace {

class LiveWindow : public RunWindow {
 protected:
  LookPad* pad(const char* look) {
    return the<LookPad>(QStringLiteral("pad-%1").arg(called(look).value).toLatin1().constData());
  }
  bool isLit(LookId look) const { return stage_.live().state.isLit(look); }
  bool becomesLit(LookId look) {
    return eventually([&] { return isLit(look); });
  }
  bool becomesDark(LookId look) {
    return eventually([&] { return !stage_.live().state.playOf(look); });
  }
  /// The surface that ships with Chispa, opened from its menu.
  SurfaceWindow* openSurface() {
    trigger("showSurface");
    auto* surface = window_.findChild<SurfaceWindow*>();
    EXPECT_TRUE(surface);
    return surface;
  }
  /// Draws the response of the selected binding with the mouse: nothing at 0, all from the middle on.
  void drawFullFromTheMiddleOn() {
    settle();
    auto* field = the<CurveField>("bindingCurve");
    const auto spot = [&](double at, double value) { return field->spotOf({at, value}).toPoint(); };
    // The middle point is taken up, and pulled past its place and back.
    QTest::mousePress(field, Qt::LeftButton, {}, spot(0.5, 0.2));
    QTest::mouseMove(field, spot(0.4, 0.9));
    QTest::mouseMove(field, spot(0.5, 1.0));
    QTest::mouseRelease(field, Qt::LeftButton, {}, spot(0.5, 1.0));
    ASSERT_EQ(field->curve().size(), 3u);
    EXPECT_NEAR(field->curve()[1].value, 1, 0.02);
  }
  /// A pad of `surface` is learnt for a look, flashes, fades out over two seconds, and its lamp is told.
  void aPadFlashesAndFadesOut(test::JackSurface& surface, const std::function<std::string(int)>& shown) {
    document_.apply(QStringLiteral("a look"), [](Show& s) {
      const LookId white = chispa::addLook(s, "White", {s.zones.front()->id}, "hold", s.palettes.front()->id);
      changeItem(s.looks, white, [](Look& look) { look.fadeIn = Micros(0); });
    });
    const LookId white = called("White");
    selection_.select(white);
    press("learn");
    surface.note(36, 100);
    ASSERT_TRUE(eventually([&] { return show().bindings.size() == 1; }));
    surface.note(36, 0);
    choose("targetMode", QStringLiteral("flash"));
    setNumber("bindingEaseOut", 2000);
    the<QCheckBox>("lampSent")->setFocus();
    QTest::keyClick(the<QCheckBox>("lampSent"), Qt::Key_Space);
    setNumber("lampOn", 20);
    setNumber("lampPlaying", 90);
    EXPECT_TRUE(eventually([&] { return surface.lamp(36) == 20; })) << surface.lamp(36);
    surface.note(36, 127);
    EXPECT_TRUE(becomesLit(white));
    EXPECT_TRUE(eventually([&] { return surface.lamp(36) == 90; })) << surface.lamp(36);
    EXPECT_TRUE(eventually([&] { return shown(0) != "#000000"; }));
    surface.note(36, 0);
    ASSERT_TRUE(eventually([&] { return !isLit(white); }));
    const LookPlay* fading = stage_.live().state.playOf(white);
    ASSERT_TRUE(fading) << "it fades out";
    EXPECT_EQ(fading->fadeOut, Micros(2'000'000));
    EXPECT_TRUE(becomesDark(white));
    EXPECT_TRUE(eventually([&] { return shown(0) == "#000000"; })) << shown(0);
  }
  /// Runs `act` while the dialog `name` is open.
  void inDialog(const char* name, const std::function<void(QDialog&)>& fill,
                const std::function<void()>& act) {
    bool wasOpen = false;
    QTimer looking;
    QObject::connect(&looking, &QTimer::timeout, &window_, [&] {
      auto* dialog = qobject_cast<QDialog*>(QApplication::activeModalWidget());
      if (!dialog || dialog->objectName() != QLatin1String(name) || !dialog->isVisible()) return;
      wasOpen = true;
      fill(*dialog);
      QTest::keyClick(dialog, Qt::Key_Return);
    });
    looking.start(50);
    act();
    EXPECT_TRUE(wasOpen) << name;
  }
};

TEST_F(LiveWindow, APadIsPlayedByTheMouse) {
  const LookId rim = called("Quiet rim");
  QTest::mouseClick(pad("Quiet rim"), Qt::LeftButton, {}, {30, 20});
  EXPECT_TRUE(becomesLit(rim));
  EXPECT_EQ(selection_.now(), Selected(rim)) << "its properties are shown";
  EXPECT_TRUE(eventually([&] {
    const auto& frame = stage_.frame();
    return *std::max_element(frame.b.begin(), frame.b.end()) > 0.1f;
  })) << "the glow shows it";
  QTest::mouseClick(pad("Quiet rim"), Qt::LeftButton, {}, {30, 20});
  EXPECT_TRUE(becomesDark(rim));
}

/// A held pad is lit while the mouse is down.
TEST_F(LiveWindow, AHeldPadEndsWithTheMouse) {
  const LookId sparkle = called("Sparkle on all");
  LookPad* held = pad("Sparkle on all");
  QTest::mousePress(held, Qt::LeftButton, {}, {30, 20});
  EXPECT_TRUE(becomesLit(sparkle));
  QTest::mouseRelease(held, Qt::LeftButton, {}, {30, 20});
  EXPECT_TRUE(becomesDark(sparkle));
}

/// The key of a pad plays it while Run is before the eyes, and types letters where a field has the focus.
TEST_F(LiveWindow, TheKeyOfAPadPlaysItButNotInAField) {
  const LookId fair = called("Full fair");
  QWidget* focus = pad("Sea");
  focus->setFocus();
  QTest::keyClick(focus, Qt::Key_3);
  EXPECT_TRUE(becomesLit(fair));
  QTest::keyClick(focus, Qt::Key_3);
  EXPECT_TRUE(becomesDark(fair));
  selection_.select(fair);
  QCoreApplication::processEvents();
  auto* name = the<QLineEdit>("lookName");
  name->setFocus();
  name->selectAll();
  QTest::keyClicks(name, QStringLiteral("Fair 3"));
  QTest::keyClick(name, Qt::Key_Return);
  EXPECT_EQ(chispa::find(show().looks, fair)->name, "Fair 3");
  EXPECT_FALSE(isLit(fair));
  window_.showWorkspace(Workspace::Plan);
  QTest::keyClick(&window_, Qt::Key_3);
  ticks(4);
  EXPECT_FALSE(isLit(fair)) << "elsewhere keys are not pads";
}

/// A key that is held when the page goes is let go of.
TEST_F(LiveWindow, AHeldKeyIsLetGoWhenThePageGoes) {
  const LookId sparkle = called("Sparkle on all");
  QWidget* focus = pad("Sea");
  focus->setFocus();
  QTest::keyPress(focus, Qt::Key_6);
  EXPECT_TRUE(becomesLit(sparkle));
  window_.showWorkspace(Workspace::Score);
  EXPECT_TRUE(becomesDark(sparkle));
}

TEST_F(LiveWindow, TheBarOfAPadFadesIt) {
  const LookId rim = called("Quiet rim");
  LookPad* own = pad("Quiet rim");
  const int y = own->height() - own->fontMetrics().height() - 10;
  QTest::mouseClick(own, Qt::LeftButton, {}, {own->width() / 4, y});
  EXPECT_TRUE(eventually([&] { return std::abs(stage_.live().state.fader(rim, 1, {}) - 0.25f) < 0.05f; }));
  EXPECT_FALSE(isLit(rim)) << "the bar does not play it";
}

/// Light at once: lit with the choice, changed in place, kept or taken away; all of it undone.
TEST_F(LiveWindow, AnEffectIsLitWithTheChoice) {
  const std::size_t looks = show().looks.size();
  choose("atOnceZone", QStringLiteral("Column"));
  choose("atOnceEffect", QStringLiteral("Hearth"));
  ASSERT_EQ(show().looks.size(), looks + 1);
  const LookId made = show().looks.back()->id;
  EXPECT_TRUE(becomesLit(made));
  choose("atOncePalette", QStringLiteral("Lagoon"));
  ASSERT_EQ(show().looks.size(), looks + 1) << "the same look";
  EXPECT_EQ(show().looks.back()->steps[0].layers[0]->palette, findNamed(show().palettes, "Lagoon")->id);
  press("atOnceKeep");
  choose("atOnceEffect", QStringLiteral("Comets"));
  EXPECT_EQ(show().looks.size(), looks + 2);
  press("atOnceOff");
  EXPECT_EQ(show().looks.size(), looks + 1);
  while (document_.canUndo()) document_.undo();
  EXPECT_EQ(show().looks.size(), looks);
}

/// Colours are taken from a part of the screen that is drawn: the light at once has them, in one undo.
TEST_F(LiveWindow, ColoursAreTakenFromTheScreen) {
  QWidget paper(nullptr, Qt::FramelessWindowHint);
  paper.setStyleSheet(QStringLiteral("background: #20c040"));
  paper.setGeometry(40, 40, 200, 120);
  paper.show();
  choose("atOnceEffect", QStringLiteral("Hearth"));
  paper.raise();
  settle();
  const std::size_t before = show().palettes.size();
  choose("atOncePalette", QStringLiteral("from the screen…"));
  QWidget* picker = nullptr;
  for (QWidget* top : QApplication::topLevelWidgets())
    if (top->objectName() == QStringLiteral("screenPicker")) picker = top;
  ASSERT_TRUE(picker);
  drag(picker, {60, 60}, {180, 120});
  ASSERT_EQ(show().palettes.size(), before + 1) << told_.join(QLatin1Char(';')).toStdString();
  const Palette& taken = *show().palettes.back();
  EXPECT_EQ(taken.name, "Screen");
  ASSERT_FALSE(taken.stops.empty());
  for (const ColourStop& stop : taken.stops) EXPECT_EQ(stop.colour, (Srgb8{0x20, 0xc0, 0x40}));
  EXPECT_EQ(show().looks.back()->steps[0].layers[0]->palette, taken.id);
  trigger("undo");
  EXPECT_EQ(show().palettes.size(), before);
  while (document_.canUndo()) document_.undo();
}

/// Learn, copy along, a drawn response: three faders of the surface drive three zones, and all is undone.
TEST_F(LiveWindow, FadersAreLearntAndCopiedAlong) {
  document_.apply(QStringLiteral("none yet"), [](Show& s) { s.bindings.clear(); });
  SurfaceWindow* surface = openSurface();
  selection_.select(findNamed(show().zones, "Post 1")->id);
  window_.showWorkspace(Workspace::Run);
  press("learn");
  auto* fader = surface->findChild<QSlider*>(QStringLiteral("surfaceFader1"));
  QTest::keyClick(fader, Qt::Key_PageUp);
  ASSERT_TRUE(eventually([&] { return show().bindings.size() == 1; }));
  const Binding learnt = *show().bindings[0];
  EXPECT_EQ(learnt.source.kind, SourceKind::Control);
  EXPECT_EQ(learnt.source.number, 1);
  EXPECT_EQ(learnt.source.device, link::SimulatedMidi::kName);
  EXPECT_EQ(learnt.target.kind, TargetKind::ZoneLevel);
  EXPECT_EQ(selection_.now(), Selected(learnt.id));

  // What comes in is drawn as it comes in.
  settle();
  QTest::keyClick(fader, Qt::Key_PageUp);
  EXPECT_TRUE(eventually([&] {
    const auto& samples = the<ValuePlot>("valuePlot")->samples();
    return !samples.empty() &&
           std::abs(samples.back().control * 127 - static_cast<float>(fader->value())) < 0.01f;
  }));
  choose("bindingResponse", QStringLiteral("drawn"));
  drawFullFromTheMiddleOn();
  EXPECT_EQ(show().bindings[0]->points.size(), 3u);

  inDialog(
      "copyAlongDialog",
      [](QDialog& dialog) {
        auto* count = dialog.findChild<QSpinBox*>(QStringLiteral("alongCount"));
        count->selectAll();
        QTest::keyClicks(count, QStringLiteral("2"));
      },
      [this] { press("copyAlong"); });
  ASSERT_EQ(show().bindings.size(), 3u);
  EXPECT_EQ(show().bindings[2]->source.number, 3);
  EXPECT_EQ(show().bindings[2]->target.zone, findNamed(show().zones, "Post 3")->id);
  settle();
  auto* third = surface->findChild<QSlider*>(QStringLiteral("surfaceFader3"));
  QTest::keyClick(third, Qt::Key_End);
  for (int i = 0; i < 6; ++i) QTest::keyClick(third, Qt::Key_PageDown);
  const ZoneId post = findNamed(show().zones, "Post 3")->id;
  EXPECT_TRUE(eventually([&] {
    const BindingState* state = stage_.live().state.stateOf(show().bindings[2]->id);
    return state && state->isHeard && stage_.live().state.zoneLevel(post, stage_.live().now.t) <= 1;
  }));
  while (document_.canUndo()) document_.undo();
  EXPECT_EQ(show().bindings.size(), 7u) << "those of the demo";
}

/// The whole way with real MIDI: a port of JACK, the window's own buttons, and the pixels of a simulated
/// controller. Three faders drive red, green and blue of a strip with a drawn response; all is undone.
TEST_F(LiveWindow, RealFadersDriveRedGreenAndBlueOfAStrip) {
  const test::Jack jack;
  if (!jack.runs()) GTEST_SKIP() << "no JACK server can be started here";
  const std::string address = test::loopbackAddress(12);
  node::Node node({"Box", 1, address, {}, {}});
  std::string why;
  ASSERT_TRUE(node.start(why)) << why;
  node.setSettings({{1, "e131", {{10, "RGB", 0, 1, 1}}}});
  const auto shown = [&node](int pixel) -> std::string {
    return node.state()["ports"][0]["shows"][static_cast<std::size_t>(pixel)];
  };
  document_.start();
  document_.apply(QStringLiteral("a strip"), [&](Show& s) {
    changeItem(s.stripTypes, s.stripTypes.front()->id, [](StripType& strip) { strip.order = "RGB"; });
    const FixtureId strip = addFixture(s, LineShape{10, 0.1}, {});
    const ControllerId box = addController(s, 1);
    changeItem(s.controllers, box, [&](Controller& c) { c.host = address; });
    hang(s, {strip, 0, 10}, {box, 0, 0});
  });
  window_.showWorkspace(Workspace::Run);
  settle();
  stage_.switchLight(true);
  test::JackSurface surface;
  // With nothing selected it would be the master that is learnt.
  selection_.select(show().zones[0]->id);
  press("learn");
  ASSERT_TRUE(eventually([&] {
    surface.control(20, 1);
    return show().bindings.size() == 1;
  }));
  EXPECT_EQ(show().bindings[0]->source.device, "Surface:pads");
  choose("targetKind", QStringLiteral("channels"));
  setNumber("targetCount", 10);
  setNumber("targetEvery", 3);
  choose("bindingResponse", QStringLiteral("drawn"));
  drawFullFromTheMiddleOn();
  inDialog(
      "copyAlongDialog", [](QDialog&) {}, [this] { press("copyAlong"); });
  ASSERT_EQ(show().bindings.size(), 3u);
  settle();
  surface.control(20, 127);
  surface.control(21, 64);
  surface.control(22, 0);
  EXPECT_TRUE(eventually([&] { return shown(0) == "#ffff00" && shown(9) == "#ffff00"; }))
      << shown(0) << shown(9);
  surface.control(20, 0);
  EXPECT_TRUE(eventually([&] { return shown(0) == "#00ff00"; })) << shown(0);
  while (!show().bindings.empty()) document_.undo();
  aPadFlashesAndFadesOut(surface, shown);
  while (document_.canUndo()) document_.undo();
  EXPECT_TRUE(show().bindings.empty());
}

/// A pad of the surface learnt for the selected look plays it, with a fade of its own, and shines.
TEST_F(LiveWindow, APadOfTheSurfacePlaysALook) {
  SurfaceWindow* surface = openSurface();
  selection_.select(called("Sea"));
  window_.showWorkspace(Workspace::Run);
  press("learn");
  auto* button = surface->findChild<QPushButton*>(QStringLiteral("surfacePad5"));
  QTest::mouseClick(button, Qt::LeftButton);
  ASSERT_TRUE(eventually([&] { return show().bindings.size() == 8; }));
  choose("targetMode", QStringLiteral("flash"));
  setNumber("bindingEaseOut", 2000);
  the<QCheckBox>("lampSent")->setFocus();
  QTest::keyClick(the<QCheckBox>("lampSent"), Qt::Key_Space);
  settle();
  QTest::mousePress(button, Qt::LeftButton);
  EXPECT_TRUE(becomesLit(called("Sea")));
  EXPECT_TRUE(eventually([&] { return button->styleSheet().contains(QStringLiteral("rgba")); }));
  QTest::mouseRelease(button, Qt::LeftButton);
  EXPECT_TRUE(eventually([&] { return !isLit(called("Sea")); }));
  const LookPlay* fading = stage_.live().state.playOf(called("Sea"));
  ASSERT_TRUE(fading) << "it fades out";
  EXPECT_EQ(fading->fadeOut, Micros(2'000'000));
}

/// What is played while the score runs is written into it, in one step of undo.
TEST_F(LiveWindow, WhatIsPlayedIsRecordedIntoTheScore) {
  const std::size_t clips = stage_.score()->clips.size();
  press("recordLive");
  ASSERT_TRUE(eventually([&] { return stage_.isPlaying(); }));
  QWidget* focus = pad("Sea");
  focus->setFocus();
  QTest::keyClick(focus, Qt::Key_2);
  EXPECT_TRUE(becomesLit(called("Quiet rim")));
  ticks(6);
  press("recordLive");
  ASSERT_GT(stage_.score()->clips.size(), clips);
  EXPECT_GT(stage_.score()->clips.back()->over, 0);
  EXPECT_EQ(stage_.score()->clips.back()->zone, findNamed(show().zones, "Canopy rim")->id);
  document_.undo();
  EXPECT_EQ(stage_.score()->clips.size(), clips);
}

TEST_F(LiveWindow, WhatIsLitIsKeptAsALook) {
  stage_.seek(Micros(30'000'000));
  press("keepLit");
  ASSERT_EQ(show().looks.size(), 13u);
  EXPECT_FALSE(show().looks.back()->steps[0].layers.empty());
  EXPECT_EQ(selection_.now(), Selected(show().looks.back()->id));
  QTest::keyClick(&window_, Qt::Key_Delete);
  EXPECT_EQ(show().looks.size(), 12u);
}

/// A look's steps and layers are edited in the inspector, each change in the next frame and undone.
TEST_F(LiveWindow, StepsAndLayersAreEditedInTheInspector) {
  const LookId rim = called("Quiet rim");
  selection_.select(rim);
  QCoreApplication::processEvents();
  press("addStep");
  ASSERT_EQ(chispa::find(show().looks, rim)->steps.size(), 2u);
  setNumber("stepHold", 2.5);
  EXPECT_EQ(chispa::find(show().looks, rim)->steps[1].hold, Micros(2'500'000));
  auto* layers = the<QListWidget>("lookLayers");
  layers->setCurrentRow(0);
  press("openLayer");
  ASSERT_TRUE(std::holds_alternative<LayerChoice>(selection_.now()));
  choose("palette", QStringLiteral("Sugar"));
  EXPECT_EQ(chispa::find(show().looks, rim)->steps[1].layers[0]->palette,
            findNamed(show().palettes, "Sugar")->id);
  press("backToLook");
  EXPECT_EQ(selection_.now(), Selected(rim));
}

/// A device that is pulled out is told in the pulse bar, and so is a flood of events.
TEST_F(LiveWindow, TheBarTellsOfWhatIsMissingAndOfFloods) {
  QPushButton* bar = nullptr;
  for (auto* part : window_.findChildren<QPushButton*>(QStringLiteral("pulsePart")))
    if (part->toolTip().startsWith(QStringLiteral("The most important problem"))) bar = part;
  ASSERT_TRUE(bar);
  openSurface();
  document_.apply(QStringLiteral("bind"), [](Show& s) {
    addBinding(s, {.kind = SourceKind::Control, .device = link::SimulatedMidi::kName, .number = 1}, {});
  });
  window_.inputs().surface().plug(false);
  EXPECT_TRUE(eventually([&] { return bar->accessibleName().contains(QStringLiteral("is not plugged in")); }))
      << bar->accessibleName().toStdString();
  window_.inputs().surface().plug(true);
  EXPECT_TRUE(
      eventually([&] { return !bar->accessibleName().contains(QStringLiteral("is not plugged in")); }));
  for (int i = 0; i < 100'000; ++i)
    stage_.player().live(engine::LiveSource::Osc,
                         controlEvent({.kind = SourceKind::Osc, .address = "/x"}, 1));
  EXPECT_TRUE(eventually([&] { return bar->accessibleName().contains(QStringLiteral("were left out")); }));
}

TEST_F(LiveWindow, TheDeskSheetIsWrittenAsPdfAndCsv) {
  const QString pdf = QString::fromStdString((folder_.path() / "desk.pdf").string());
  window_.runPage().live().exportDeskSheet(pdf);
  QFile file(pdf);
  ASSERT_TRUE(file.open(QIODevice::ReadOnly));
  EXPECT_TRUE(file.readAll().startsWith("%PDF"));
  const QString csv = QString::fromStdString((folder_.path() / "desk.csv").string());
  window_.runPage().live().exportDeskSheet(csv);
  QFile table(csv);
  ASSERT_TRUE(table.open(QIODevice::ReadOnly));
  EXPECT_EQ(table.readAll().count('\n'), 1 + 12 + 48);
  window_.runPage().live().exportDeskSheet(QStringLiteral("/nowhere/desk.pdf"));
  EXPECT_FALSE(told_.isEmpty()) << "what cannot be written is said";
}

/// A desk is heard at the interface that was chosen, and the choice is kept; one that this computer has not
/// is refused, and what was heard is heard on.
TEST_F(LiveWindow, DesksAreHeardAtTheInterfaceThatWasChosen) {
  const auto* network = window_.findChild<QMenu*>(QStringLiteral("liveNetwork"));
  ASSERT_TRUE(network && !network->actions().isEmpty());
  const auto actions = network->actions();
  EXPECT_TRUE(std::any_of(actions.begin(), actions.end(), [](const QAction* one) {
    return one->isChecked() && one->text().startsWith(QStringLiteral("127.0.0.1"));
  }));
  press("hearDesks");
  ASSERT_TRUE(window_.inputs().hearsDesks());
  window_.runPage().live().listenAt(QStringLiteral("127.0.0.9"));
  EXPECT_TRUE(told_.isEmpty()) << told_.join(QLatin1Char(';')).toStdString();
  test::HandmadeDesk desk;
  const auto isHeard = [&] {
    desk.sendE131("127.0.0.9", 5568, 90, {255, 128, 64});
    const auto heard = stage_.player().heardFromDesks();
    return std::any_of(heard.begin(), heard.end(),
                       [](const link::ReceivedUniverse& one) { return one.universe == 90; });
  };
  EXPECT_TRUE(eventually(isHeard));
  window_.runPage().live().listenAt(QStringLiteral("192.0.2.1"));
  EXPECT_FALSE(told_.isEmpty()) << "it is not this computer's";
  EXPECT_EQ(window_.inputs().address(), QStringLiteral("127.0.0.9"));
  EXPECT_TRUE(eventually(isHeard));
  EXPECT_EQ(QSettings().value(QStringLiteral("live/address")).toString(), QStringLiteral("127.0.0.9"));
}

/// Every fixture listens to a desk as one cell, with one gesture and one undo.
TEST_F(LiveWindow, EveryFixtureListensAsOneCell) {
  selection_.clear();
  const std::size_t before = show().deskInputs.size();
  trigger("listenCollapsed");
  EXPECT_EQ(show().deskInputs.size(), before + show().fixtures.size());
  document_.undo();
  EXPECT_EQ(show().deskInputs.size(), before);
}

}  // namespace
}  // namespace chispa::desk
