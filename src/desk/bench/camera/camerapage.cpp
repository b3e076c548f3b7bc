// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/bench/camera/camerapage.h"

#include <cmath>
#include <set>

#include <QComboBox>
#include <QDoubleSpinBox>
#include <QKeyEvent>
#include <QLabel>
#include <QLineEdit>
#include <QProgressBar>
#include <QPushButton>
#include <QScrollArea>
#include <QStackedWidget>

#include "desk/bench/camera/cameraview.h"
#include "desk/bench/camera/scene.h"
#include "desk/parts/format.h"
#include "desk/parts/language.h"
#include "desk/session/patience.h"
#include "link/camera.h"
#include "link/scenecamera.h"

namespace chispa::desk {
namespace {

constexpr int kControlsWidth = 236;

/// A camera that looks at the nodes of `scene`, or of the file `path` if there is one. Any thread.
Result<std::unique_ptr<vision::FrameSource>> openSimulated(const std::string& path,
                                                           std::vector<vision::SceneLed> scene,
                                                           std::vector<Vec3> places, const vision::Lens& lens,
                                                           double azimuth_deg, double elevation_deg,
                                                           vision::Severity severity) {
  if (!path.empty()) {
    auto read = vision::readScene(path);
    if (!read) return read.failure();
    scene = *std::move(read);
  }
  if (scene.empty())
    return Failure{"the simulated camera has nothing to look at",
                   {},
                   "give the controllers of the show the set-up port of a simulated controller (chispa-node "
                   "--http), or name a file"};
  if (places.empty())
    for (const vision::SceneLed& led : scene) places.push_back(led.place_m);
  constexpr unsigned kSeed = 20'261'123;
  return link::openSceneCamera(scene, vision::viewOfAll(places, lens, azimuth_deg, elevation_deg),
                               vision::defectsOf(severity), kSeed);
}

}  // namespace

CameraPage::CameraPage(const Session& session, FinderView::Ground ground, QWidget* parent)
    : QWidget(parent), session_(session), ground_(std::move(ground)) {
  setObjectName(QStringLiteral("cameraPage"));
  setFocusPolicy(Qt::StrongFocus);
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 0, 0, 0);
  head_ = new QLabel;
  head_->setObjectName(QStringLiteral("quiet"));
  column->addWidget(head_);
  column->addWidget(makeSteps());
  hint_ = new QLabel;
  hint_->setObjectName(QStringLiteral("cameraHint"));
  hint_->setWordWrap(true);
  column->addWidget(hint_);
  auto* row = new QHBoxLayout;
  view_ = new CameraView;
  connect(view_, &CameraView::areaChanged, this, &CameraPage::showPicture);
  connect(view_, &CameraView::moved, this, &CameraPage::placeByHand);
  row->addWidget(view_, 1);
  controls_ = new QStackedWidget;
  controls_->setFixedWidth(kControlsWidth);
  for (QWidget* one : {makeAim(), makeExpose(), makeCapture(), makeReview(), makeAccept()}) {
    // A small window scrolls the fields instead of growing.
    auto* area = new QScrollArea;
    area->setWidget(one);
    area->setWidgetResizable(true);
    area->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    area->setFocusPolicy(Qt::NoFocus);
    controls_->addWidget(area);
  }
  row->addWidget(controls_);
  column->addLayout(row, 1);
  exposureTimer_.setInterval(900);
  connect(&exposureTimer_, &QTimer::timeout, this, &CameraPage::followExposure);
  captureTimer_.setInterval(100);
  connect(&captureTimer_, &QTimer::timeout, this, &CameraPage::followCapture);
}

CameraPage::~CameraPage() = default;

void CameraPage::begin(const BenchTarget& target) {
  sightings_ = {};
  byHand_.clear();
  firstSpots_.clear();
  only_.clear();
  view_->showSightings({});
  leds_.clear();
  const Show show = ground_.show();
  const auto ranges = pixelRanges(show);
  const bool isWhole =
      target.kind == BenchTarget::Kind::Controller || target.kind == BenchTarget::Kind::Channels;
  const auto bead = target.kind == BenchTarget::Kind::Bead ? std::optional(target.bead) : std::nullopt;
  std::set<std::int32_t> known;
  if (const Controller* controller = chispa::find(show.controllers, target.controller))
    for (int p = 0; p < std::ssize(controller->ports); ++p)
      if (isWhole || p == target.port)
        for (const std::int32_t pixel : engine::wiredPixels(show, ranges, *controller, p, bead))
          // An echo is the same pixel once more.
          if (known.insert(pixel).second) leds_.push_back(pixel);
  head_->setText(tr("Positions by camera · %1 · %2 LEDs").arg(targetName(show, target)).arg(leds_.size()));
  const auto last = std::max(1, static_cast<int>(leds_.size()));
  for (QSpinBox* one : {knownFrom_, knownTo_}) one->setRange(1, last);
  knownFrom_->setValue(1);
  knownTo_->setValue(last);
  const auto plan = planPlaces();
  if (plan.size() > 1) knownLength_->setValue(std::max(0.001, length(plan.back() - plan.front())));
  goTo(Step::Aim);
  setFocus();
}

void CameraPage::leave() {
  exposureTimer_.stop();
  captureTimer_.stop();
  thread_.reset();
  session_.stage.setSignal(std::nullopt);
  capture_->setChecked(false);
}

void CameraPage::end() {
  leave();
  emit left();
}

void CameraPage::keyPressEvent(QKeyEvent* event) {
  if (event->key() == Qt::Key_Escape) {
    end();
  } else if (event->key() >= Qt::Key_1 && event->key() <= Qt::Key_5) {
    goTo(static_cast<Step>(event->key() - Qt::Key_1));
  } else if (event->key() == Qt::Key_Return && step_ == Step::Accept) {
    accept();
  } else {
    QWidget::keyPressEvent(event);
  }
}

void CameraPage::goTo(Step step) {
  step_ = step;
  exposureTimer_.stop();
  findLevel_->setEnabled(true);
  for (int i = 0; i < 5; ++i)
    stepButtons_[static_cast<std::size_t>(i)]->setChecked(i == static_cast<int>(step));
  controls_->setCurrentIndex(static_cast<int>(step));
  view_->showHistogram(step == Step::Expose);
  view_->setEditing(step == Step::Review);
  const QString hints[] = {tr("Open a camera and point it so that all LEDs are in the picture. Drag a box "
                              "around them to leave out the rest of the room."),
                           tr("Let the program find how bright the LEDs should be, or set it."),
                           tr("Every LED blinks a word of its own. It takes about %1 s.")
                               .arg(std::lround(roundLength_s() * (rounds_->value() + 1))),
                           tr("Green dots are sure, yellow rings doubtful. Choose one in the list and click "
                              "it in the picture to put it right."),
                           tr("The found places replace the plan's; the order of the strip stays.")};
  hint_->setText((leds_.empty()             ? tr("Nothing hangs there: choose a port at the left. ")
                  : !session_.stage.isLit() ? tr("Light is OFF: switch it on below (F9). ")
                                            : QString()) +
                 hints[static_cast<int>(step)]);
  light();
  if (step == Step::Review) showReview();
  if (step == Step::Accept) showResult();
}

std::function<CameraPage::OpenedSource()> CameraPage::sourceMaker() const {
  const int chosen = sourceKind();
  const std::string path = path_->text().trimmed().toStdString();
  if (chosen == kFiles) return [path] { return vision::openFrames(path); };
  if (chosen != kSimulated) return [chosen] { return link::openCamera(chosen); };
  const std::vector<vision::SceneLed> scene =
      path.empty() ? sceneOf(ground_.show()) : std::vector<vision::SceneLed>();
  // It is pointed at what is to be found.
  return
      [path, scene, places = planPlaces(), lens = lens(), azimuth = azimuth_->value(),
       elevation = elevation_->value(), severity = static_cast<vision::Severity>(severity_->currentIndex())] {
        return openSimulated(path, scene, places, lens, azimuth, elevation, severity);
      };
}

vision::Lens CameraPage::lens() const {
  vision::Lens lens;
  if (thread_) {
    const vision::Picture picture = thread_->latest();
    if (!picture.isEmpty() && sourceKind() != kSimulated)
      lens.width = picture.width, lens.height = picture.height;
  }
  lens.fieldOfView_deg = fieldOfView_->value();
  return lens;
}

bool CameraPage::openSource() {
  thread_.reset();
  auto opened = makePatiently<OpenedSource>(this, tr("Opening the camera …"), sourceMaker());
  if (!opened) return false;
  if (!*opened) {
    hint_->setText(said(opened->failure()));
    return false;
  }
  thread_ = std::make_unique<CameraThread>(**std::move(opened));
  connect(thread_.get(), &CameraThread::looked, this, &CameraPage::showPicture, Qt::QueuedConnection);
  connect(thread_.get(), &CameraThread::captured, this, &CameraPage::takeCapture, Qt::QueuedConnection);
  // A file ends; a camera that does has gone.
  if (thread_->isLive())
    connect(thread_.get(), &CameraThread::ended, this, [this] {
      hint_->setText(tr("The camera sends no more pictures. Check its cable, and press Open."));
    });
  // A file is read when it is captured from; until then its first picture is enough.
  if (thread_->isLive()) thread_->start();
  light();
  return true;
}

void CameraPage::showPicture() {
  if (thread_ && isVisible()) view_->showPicture(thread_->latest());
}

engine::TestSignal CameraPage::signalOf(engine::TestSignal::Kind kind) const {
  engine::TestSignal signal;
  signal.kind = kind;
  signal.target.pixels = leds_;
  const auto level = static_cast<float>(level_->value() / 100);
  signal.colour = {level, level, level};
  return signal;
}

void CameraPage::light() {
  if (!isVisible() || leds_.empty() || captureTimer_.isActive()) return;
  session_.stage.setSignal(signalOf(engine::TestSignal::Kind::Solid));
}

void CameraPage::findLevel() {
  if (!thread_ && !openSource()) return;
  exposure_ = {};
  findLevel_->setEnabled(false);
  level_->setValue(exposure_.level() * 100);
  exposureTimer_.start();
}

void CameraPage::followExposure() {
  exposure_.tell(thread_->latest(), view_->area());
  level_->setValue(exposure_.level() * 100);
  exposed_->setText(tr("Tried %1 %…").arg(level_->value(), 0, 'f', 1));
  if (!exposure_.isDone()) return;
  exposureTimer_.stop();
  findLevel_->setEnabled(true);
  exposed_->setText(exposure_.isGood()
                        ? tr("Good: at %1 % the LEDs stay apart.").arg(level_->value(), 0, 'f', 1)
                        : tr("No level is quite right. Darken the room, move nearer, or go on with %1 %.")
                              .arg(level_->value(), 0, 'f', 1));
}

vision::SpotterSettings CameraPage::settings() const {
  const vision::SpotterSettings own;
  return {static_cast<double>(threshold_->value()),
          contrast_->value() > 0 ? contrast_->value() / 100.0 : own.contrast,
          smallest_->value() > 0 ? smallest_->value() : own.smallest_px,
          largest_->value(),
          static_cast<double>(nearest_->value()),
          view_->area()};
}

void CameraPage::startCapture(std::vector<int> onlyThese) {
  const bool isOpen = thread_ && thread_->isLive();
  if (leds_.empty() || (!isOpen && !openSource())) return capture_->setChecked(false);
  if (onlyThese.empty()) byHand_.clear();
  only_ = std::move(onlyThese);
  before_ = sightings_;
  goTo(Step::Capture);
  capture_->setChecked(true);
  const vision::BlinkCode code(static_cast<int>(leds_.size()));
  engine::TestSignal signal = signalOf(engine::TestSignal::Kind::Code);
  signal.codeBits = code.bits();
  for (int led = 0; led < code.leds(); ++led)
    signal.codes.push_back(only_.empty() || std::find(only_.begin(), only_.end(), led) != only_.end()
                               ? code.word(led)
                               : engine::TestSignal::kDarkWord);
  signal.seconds = hold_->value();
  signal.since = engine::SteadyClock().now();
  session_.stage.setSignal(signal);
  thread_->capture(code.leds(), settings(), rounds_->value());
  if (!thread_->isLive()) thread_->start();
  captureTimer_.start();
  captureClock_.start();
}

double CameraPage::roundLength_s() const {
  return vision::roundSteps(vision::BlinkCode(std::max<int>(1, static_cast<int>(leds_.size()))).bits()) *
         hold_->value();
}

void CameraPage::followCapture() {
  if (!thread_) return captureTimer_.stop();
  progress_->setValue(static_cast<int>(1000 * thread_->roundsDone() / rounds_->value()));
  // A camera, or a machine, that is slower than the pictures change sees no whole round, or none that says
  // words, however long it looks.
  constexpr double kRoundsOfPatience = 2.5;
  constexpr int kMisreadRounds = 2;
  constexpr double kSlower = 1.6;
  const bool isLost =
      thread_->isLive() && thread_->roundsDone() < 1 &&
      (thread_->misreadRounds() >= kMisreadRounds ||
       static_cast<double>(captureClock_.elapsed()) * 1e-3 > kRoundsOfPatience * roundLength_s() + 3);
  if (!isLost || hold_->value() >= hold_->maximum()) return;
  hold_->setValue(hold_->value() * kSlower);
  startCapture(only_);
  hint_->setText(
      tr("No whole round of blinking could be read: the pictures came too slowly. Each is now held for %1 s.")
          .arg(hold_->value(), 0, 'f', 2));
}

void CameraPage::takeCapture() {
  captureTimer_.stop();
  capture_->setChecked(false);
  progress_->setValue(1000);
  evaluate();
  goTo(Step::Review);
}

}  // namespace chispa::desk
