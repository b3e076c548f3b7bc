// SPDX-License-Identifier: GPL-3.0-or-later
// The signal that BenchPage sends, and what it tells of it.
#include "core/edit/planedits.h"
#include "core/wire/patch.h"
#include "core/wire/power.h"
#include "desk/bench/addressrow.h"
#include "desk/bench/benchpage.h"
#include "desk/bench/camera/camerapage.h"
#include "desk/bench/chainview.h"
#include "desk/bench/faders.h"
#include "desk/bench/monitor.h"
#include "desk/bench/signalform.h"
#include "desk/bench/targetlist.h"
#include "desk/parts/format.h"

namespace chispa::desk {

void BenchPage::sendSignal() {
  const bool isFaders = signal_->kind() == engine::TestSignal::Kind::Faders;
  faders_->setVisible(isFaders);
  chain_->setVisible(!isFaders);
  power_->setVisible(signal_->kind() == engine::TestSignal::Kind::Solid);
  showPower();
  if (stack_->currentWidget() != signalFace_) return;
  if (!signal_->isSending()) {
    session_.stage.setSignal(std::nullopt);
    return showNow();
  }
  const Show show = workingShow();
  engine::TestSignal signal = signal_->signal();
  const FixedStart start = rigStart(rig_);
  signal.target = signalTarget(show, target(),
                               {start.universe, start.channel, pixelCount(rig_.fixture), rig_.strip.order});
  if (isFaders) {
    signal.levels = faders_->levels();
    for (std::uint8_t& level : signal.levels)
      level = std::min(level, static_cast<std::uint8_t>(std::lround(signal_->most() * 255)));
    if (!signal.target.channels) signal.target.channels = engine::ChannelRange{};
    // Faders count from the first channel of what is chosen.
    const auto compiled = session_.stage.compiled();
    const auto pixel = target().kind == BenchTarget::Kind::Channels || !compiled
                           ? std::nullopt
                           : pixelAt(show, compiled->patch, target().portChoice(), 0);
    if (pixel) signal.target.channels = engine::ChannelRange{pixel->universe, pixel->channel, 1, "R"};
  }
  session_.stage.setSignal(signal);
  showNow();
}

void BenchPage::step(int by) {
  const int count = static_cast<int>(skippedPlaces(session_.stage.played(), target().portChoice()).size());
  if (count == 0) return;
  place_ = ((place_ + by) % count + count) % count;
  signal_->holdAt(place_);
}

void BenchPage::copyPalette(const std::vector<Srgb8>& colours) {
  if (colours.empty()) return;
  PaletteId made;
  session_.edit(tr("palette from faders"), [&](Show& show) {
    Palette palette;
    palette.id = made = show.newId<PaletteId>();
    palette.name = freeName(show.palettes, tr("From faders").toStdString());
    for (std::size_t i = 0; i < colours.size(); ++i)
      palette.stops.push_back(
          {colours.size() > 1 ? static_cast<double>(i) / static_cast<double>(colours.size() - 1) : 0,
           colours[i]});
    put(show.palettes, palette);
  });
  session_.selection.select(made);
}

double BenchPage::computedAmps() const {
  const auto compiled = session_.stage.compiled();
  const auto& signal = session_.stage.signal();
  if (!compiled || !signal ||
      session_.stage.frame().size() != static_cast<std::size_t>(compiled->map->count()))
    return 0;
  double sum = 0;
  for (const auto& [volts, amps] :
       frameAmps(*compiled->power, session_.stage.frame(),
                 static_cast<double>(session_.stage.player().output().lightLevel())))
    sum += amps;
  return sum;
}

void BenchPage::showPower() {
  if (!power_->isVisible()) return;
  const double computed = computedAmps();
  const double measured = measured_->value();
  QString words = computed > 0 ? tr("White at 100 % shows most. Computed now: %1").arg(ampsText(computed))
                               : tr("Send it to measure. White at 100 % shows most.");
  if (measured > 0 && computed > 0)
    words += tr(" · measured is %1 % of it").arg(100 * measured / computed, 0, 'f', 0);
  computed_->setText(words);
  takeMeasured_->setEnabled(measured > 0 && computed > 0);
}

void BenchPage::scaleCurrent() {
  const double computed = computedAmps();
  const Show show = workingShow();
  const Controller* controller = chispa::find(show.controllers, target().controller);
  if (computed <= 0 || measured_->value() <= 0 || !controller) return;
  const double by = measured_->value() / computed;
  std::vector<StripTypeId> types;
  for (const Port& port : controller->ports)
    for (const Bead& bead : port.run)
      if (const Fixture* fixture = chispa::find(show.fixtures, bead.fixture);
          fixture && (target().kind == BenchTarget::Kind::Controller ||
                      &port - controller->ports.data() == target().port))
        types.push_back(fixture->stripType);
  std::sort(types.begin(), types.end());
  types.erase(std::unique(types.begin(), types.end()), types.end());
  ground().edit(tr("measured current"), [&](Show& changed) {
    for (const StripTypeId type : types)
      changeItem(changed.stripTypes, type, [by](StripType& s) { s.channel_ma *= by; });
  });
  measured_->setValue(0);
}

void BenchPage::showChain(const engine::TestSignal* signal, int lit) {
  const auto compiled = session_.stage.compiled();
  const Show& show = session_.stage.played();
  const PixelFrame& frame = session_.stage.frame();
  const Controller* controller = chispa::find(show.controllers, target().controller);
  std::vector<QColor> colours;
  if (compiled && controller && target().port < std::ssize(controller->ports) &&
      frame.size() == static_cast<std::size_t>(compiled->map->count()))
    for (const std::int32_t pixel :
         engine::chainOf(show, compiled->map->ranges, *controller, target().port).pixels) {
      const auto at = static_cast<std::size_t>(pixel);
      colours.push_back(pixel == engine::PortChain::kSkipped || at >= frame.size()
                            ? QColor()
                            : ledColour(frame.r[at], frame.g[at], frame.b[at]));
    }
  // The lit one is shown bright, however low the level is.
  if (signal && lit >= 0 && lit < std::ssize(colours) && colours[static_cast<std::size_t>(lit)].isValid())
    colours[static_cast<std::size_t>(lit)] = QColor(0xff, 0xf4, 0xe0);
  chain_->showColours(std::move(colours), tr("Nothing hangs on this port."));
}

/// What stands still is looked at once a second.
void BenchPage::follow() {
  constexpr int kTicksOfRest = 7;
  restingTicks_ = session_.stage.hasMoved() ? 0 : restingTicks_ + 1;
  if (restingTicks_ % kTicksOfRest == 0) showNow();
}

void BenchPage::showNow() {
  if (!isVisible() || stack_->currentWidget() != signalFace_) return;
  const Show& show = session_.stage.played();
  const auto& signal = session_.stage.signal();
  const auto compiled = session_.stage.compiled();
  const auto skipped = skippedPlaces(show, target().portChoice());
  const QString place = targetName(show, target());
  const bool isWalk = signal && signal->kind == engine::TestSignal::Kind::Walk && !signal->target.channels;
  int lit = -1;
  if (isWalk && !skipped.empty()) {
    const int first = signal->target.places ? signal->target.places->first : 0;
    const int count = signal->target.places ? signal->target.places->count : static_cast<int>(skipped.size());
    lit = first + engine::walkPlace(*signal, count, engine::SteadyClock().now());
  }
  showChain(signal ? &*signal : nullptr, lit);
  showPower();
  const auto pixel =
      compiled ? pixelAt(show, compiled->patch, target().portChoice(), std::max(0, lit)) : std::nullopt;
  if (pixel) monitor_->follow(target().controller, pixel->universe);
  if (target().kind == BenchTarget::Kind::Channels)
    monitor_->follow(target().controller, rigStart(rig_).universe);
  if (!signal)
    headline_->setText(tr("Choose a signal, and send it to %1.").arg(place));
  else if (!isWalk)
    headline_->setText(tr("%1 on %2").arg(signal_->kindName(), place));
  else
    headline_->setText(pixel ? tr("Lit now: %1").arg(pixel->name)
                             : tr("Pixel %1 of the chain is skipped.").arg(lit + 1));
  lightHere_->setVisible(signal && !session_.stage.isLit());
  if (!session_.stage.isLit())
    where_->setText(tr("Light is OFF."));
  else
    where_->setText(pixel ? tr("%1 · chain pixel %2 of %3 · universe %4, channel %5")
                                .arg(place)
                                .arg(std::max(0, lit) + 1)
                                .arg(skipped.size())
                                .arg(pixel->universe)
                                .arg(pixel->channel)
                          : place);
}

}  // namespace chispa::desk
