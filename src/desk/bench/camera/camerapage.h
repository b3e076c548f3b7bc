// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <map>
#include <memory>
#include <optional>

#include <QElapsedTimer>
#include <QTimer>
#include <QWidget>

#include "core/vision/exposure.h"
#include "core/vision/stereo.h"
#include "desk/bench/camera/camerathread.h"
#include "desk/bench/finderview.h"

class QComboBox;
class QDoubleSpinBox;
class QFormLayout;
class QLabel;
class QLineEdit;
class QListWidget;
class QProgressBar;
class QPushButton;
class QSlider;
class QSpinBox;
class QStackedWidget;

namespace chispa::desk {

class CameraView;

/// Finds where LEDs are by watching them blink: aim, expose, capture, review, accept. From one place of the
/// camera it finds them in a plane, from two in space. Nothing changes until it is accepted.
class CameraPage : public QWidget {
  Q_OBJECT
 public:
  enum class Step { Aim, Expose, Capture, Review, Accept };

  CameraPage(const Session& session, FinderView::Ground ground, QWidget* parent = nullptr);
  ~CameraPage() override;

  /// Begins with what hangs on a target.
  void begin(const BenchTarget& target);
  /// The camera rests, and the LEDs go dark.
  void leave();
  /// Takes pictures from a video or a folder from now on.
  void openFile(const QString& path);
  /// Leaves, and goes back to the signals.
  void end();
  Step step() const { return step_; }
  /// What this place of the camera has shown, corrections by hand included.
  const vision::Sightings& sightings() const { return sightings_; }
  const std::vector<std::int32_t>& leds() const { return leds_; }

 signals:
  void left();
  void accepted(const QString& title, const QString& difference);

 protected:
  void keyPressEvent(QKeyEvent* event) override;

 private:
  /// Rows of the list of sources.
  /// What the entries of the list stand for; a camera has its number.
  enum Source { kSimulated = -1, kFiles = -2 };
  int sourceKind() const;
  /// The cameras that are there now.
  void listSources();
  QWidget* makePath();

  // camerafields.cpp
  QWidget* makeSteps();
  QWidget* makeAim();
  QWidget* makeExpose();
  QWidget* makeCapture();
  QWidget* makeReview();
  QWidget* makeAccept();
  QSpinBox* addLimit(QFormLayout* form, const char* name, const QString& label, const QString& tip, int high);
  void goTo(Step step);
  bool openSource();
  using OpenedSource = Result<std::unique_ptr<vision::FrameSource>>;
  /// What opens the chosen source, on any thread.
  std::function<OpenedSource()> sourceMaker() const;
  void showPicture();
  engine::TestSignal signalOf(engine::TestSignal::Kind kind) const;
  void light();
  void findLevel();
  void followExposure();
  void startCapture(std::vector<int> onlyThese);
  void followCapture();
  /// Of one round of blinking.
  double roundLength_s() const;
  void takeCapture();
  void evaluate();
  void placeByHand(int led, vision::Spot spot);
  void showReview();
  void keepAsFirst();
  Result<std::vector<std::optional<Vec3>>> places() const;
  void showResult();
  void accept();
  vision::SpotterSettings settings() const;
  vision::Lens lens() const;
  vision::KnownLength known() const;
  std::vector<Vec3> planPlaces() const;

  Session session_;
  FinderView::Ground ground_;
  /// Pixels of the show that blink, in data order.
  std::vector<std::int32_t> leds_;
  Step step_ = Step::Aim;
  std::unique_ptr<CameraThread> thread_;
  vision::ExposureSearch exposure_;
  QTimer exposureTimer_;
  QTimer captureTimer_;
  QElapsedTimer captureClock_;
  vision::Sightings sightings_;
  /// LEDs that the last capture was about, empty for all, and what was seen before it.
  std::vector<int> only_;
  vision::Sightings before_;
  std::map<int, vision::Spot> byHand_;
  std::vector<std::optional<vision::Spot>> firstSpots_;

  QLabel* head_;
  QLabel* hint_;
  std::vector<QPushButton*> stepButtons_;
  CameraView* view_;
  QStackedWidget* controls_;
  QComboBox* source_;
  QLineEdit* path_;
  QComboBox* severity_;
  QDoubleSpinBox* azimuth_;
  QDoubleSpinBox* elevation_;
  QDoubleSpinBox* fieldOfView_;
  QPushButton* open_;
  QDoubleSpinBox* level_;
  QPushButton* findLevel_;
  QLabel* exposed_;
  QDoubleSpinBox* hold_;
  QSpinBox* rounds_;
  QPushButton* capture_;
  QProgressBar* progress_;
  QSpinBox* threshold_;
  QSpinBox* contrast_;
  QSpinBox* smallest_;
  QSpinBox* largest_;
  QSpinBox* nearest_;
  QLabel* found_;
  QListWidget* doubtful_;
  QPushButton* again_;
  QPushButton* secondPlace_;
  QSpinBox* knownFrom_;
  QSpinBox* knownTo_;
  QDoubleSpinBox* knownLength_;
  QComboBox* lay_;
  QLabel* result_;
  QPushButton* accept_;
};

}  // namespace chispa::desk
