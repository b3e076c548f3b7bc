// SPDX-License-Identifier: GPL-3.0-or-later
// What the camera saw, put right by hand and laid onto the plan.
#include <cmath>

#include <QComboBox>
#include <QDoubleSpinBox>
#include <QLabel>
#include <QListWidget>
#include <QPushButton>
#include <QSpinBox>

#include "core/edit/foundplaces.h"
#include "core/vision/fit.h"
#include "core/zone/pixelmap.h"
#include "desk/bench/camera/camerapage.h"
#include "desk/bench/camera/cameraview.h"
#include "desk/parts/format.h"
#include "desk/parts/language.h"
#include "desk/parts/theme.h"

namespace chispa::desk {

void CameraPage::evaluate() {
  if (!thread_ || thread_->isCapturing()) return;
  vision::Sightings seen = thread_->sightings(settings());
  if (seen.rounds == 0 && sightings_.rounds > 0 && only_.empty()) return;
  // What was seen before, or put right by hand, stays when the limits are changed.
  if (!only_.empty()) seen = merged(before_, std::move(seen), only_, static_cast<int>(leds_.size()));
  for (const auto& [led, spot] : byHand_) seen.put(led, spot);
  sightings_ = std::move(seen);
  showReview();
}

void CameraPage::placeByHand(int led, vision::Spot spot) {
  byHand_[led] = spot;
  sightings_.put(led, spot);
  showReview();
}

void CameraPage::showReview() {
  const QSignalBlocker quietList(doubtful_);
  doubtful_->clear();
  std::size_t sure = 0;
  const auto add = [this](int led, const QString& why) {
    auto* item = new QListWidgetItem(tr("%1 · %2").arg(led + 1).arg(why));
    item->setToolTip(why);
    item->setData(Qt::UserRole, led);
    doubtful_->addItem(item);
  };
  for (const vision::Sighting& one : sightings_.all) {
    if (one.doubt.empty())
      ++sure;
    else
      add(one.led, text(one.doubt));
  }
  for (const int led : sightings_.missing) add(led, tr("not seen"));
  view_->showSightings(sightings_.all);
  view_->point(-1);
  QString words =
      sightings_.rounds == 0
          ? tr("No whole round of blinking was seen. Is light on, and are the LEDs in the picture?")
          : tr("<b>%1 of %2 found</b>, %3 doubtful, %4 missing · threshold %5, noise %6")
                .arg(sure)
                .arg(leds_.size())
                .arg(doubtful_->count() - std::ssize(sightings_.missing))
                .arg(sightings_.missing.size())
                .arg(sightings_.threshold, 0, 'f', 0)
                .arg(sightings_.noise, 0, 'f', 1);
  if (!firstSpots_.empty()) words += tr(" · second place");
  found_->setText(words);
  again_->setEnabled(doubtful_->count() > 0 && thread_ && thread_->isLive());
  secondPlace_->setEnabled(firstSpots_.empty() && sure > 0);
}

void CameraPage::keepAsFirst() {
  firstSpots_ = sightings_.sureSpots(static_cast<int>(leds_.size()));
  sightings_ = {};
  byHand_.clear();
  view_->showSightings({});
  azimuth_->setValue(azimuth_->value() + 30);
  thread_.reset();
  goTo(Step::Aim);
  hint_->setText(
      tr("Move the camera by about a third of its distance, so that it still sees the same LEDs; open it, "
         "and capture again."));
}

vision::KnownLength CameraPage::known() const {
  return {knownFrom_->value() - 1, knownTo_->value() - 1, knownLength_->value()};
}

std::vector<Vec3> CameraPage::planPlaces() const {
  const PixelMap map = mapPixels(ground_.show());
  std::vector<Vec3> places;
  for (const std::int32_t led : leds_)
    if (led < map.count()) places.push_back(map.positions[static_cast<std::size_t>(led)]);
  return places;
}

Result<std::vector<std::optional<Vec3>>> CameraPage::places() const {
  const auto spots = sightings_.sureSpots(static_cast<int>(leds_.size()));
  std::vector<std::optional<Vec3>> found(spots.size());
  const auto plan = planPlaces();
  const bool isOnPlan = lay_->currentIndex() < 2;
  const bool takesPlanSize = lay_->currentIndex() == 0;
  if (!firstSpots_.empty()) {
    const auto space = vision::placesInSpace(firstSpots_, spots, lens(), known());
    if (!space) return space.failure();
    found = space->points;
  } else {
    const auto scale = vision::metresPerPixel(spots, known());
    if (!takesPlanSize && !scale)
      return Failure{"the LEDs of the measured length were not found", {}, "measure between two others"};
    for (std::size_t i = 0; i < found.size(); ++i)
      if (spots[i]) found[i] = Vec3{spots[i]->x * scale.value_or(1), 0, -spots[i]->y * scale.value_or(1)};
  }
  return isOnPlan ? vision::laidOnto(found, plan, takesPlanSize) : found;
}

void CameraPage::showResult() {
  accept_->setEnabled(false);
  if (sightings_.all.empty()) return result_->setText(tr("Capture first."));
  const auto found = places();
  if (!found) return result_->setText(said(found.failure()));
  const auto count = std::count_if(found->begin(), found->end(), [](const auto& p) { return p.has_value(); });
  QString words = firstSpots_.empty() ? tr("%1 of %2 LEDs in a plane").arg(count).arg(leds_.size())
                                      : tr("%1 of %2 LEDs in space").arg(count).arg(leds_.size());
  words += tr(", half of them within %1 of the plan.")
               .arg(lengthText(vision::medianDistance(*found, planPlaces())));
  if (count < std::ssize(leds_)) words += tr(" The others go between their neighbours.");
  result_->setText(words);
  accept_->setEnabled(count > 0);
}

void CameraPage::accept() {
  const auto found = places();
  if (!found || sightings_.all.empty()) return;
  const auto all = vision::filledIn(*found);
  const Show show = ground_.show();
  std::vector<FoundPlace> moved;
  const auto ranges = pixelRanges(show);
  for (std::size_t i = 0; i < leds_.size(); ++i)
    for (const auto& [fixture, range] : ranges)
      if (leds_[i] >= range.first && leds_[i] < range.first + range.count)
        moved.push_back({fixture, leds_[i] - range.first, all[i]});
  const QString words = result_->text();
  ground_.edit(tr("positions by camera"), [&](Show& changed) { setPlaces(changed, moved); });
  emit accepted(tr("Positions by camera"), words);
  end();
}

}  // namespace chispa::desk
