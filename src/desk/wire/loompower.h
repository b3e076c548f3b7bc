// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <atomic>
#include <map>

#include <QObject>
#include <QTimer>

#include "core/edit/wireedits.h"
#include "core/render/peakcurrent.h"
#include "core/wire/powernet.h"
#include "desk/session/session.h"

namespace chispa::desk {

/// At what load currents and voltages are shown.
enum class PowerLoad { FullWhite, Brightest, Now };

/// Voltages along the chains and currents through the pins, at the load that is chosen; kept up with the
/// show. UI thread.
class LoomPower : public QObject {
  Q_OBJECT
 public:
  explicit LoomPower(const Session& session, QObject* parent = nullptr);
  ~LoomPower() override;

  PowerLoad load() const { return load_; }
  void setLoad(PowerLoad load);
  /// False if the show has no supplies, so that there is nothing to show.
  bool isModelled() const { return !session_.show().supplies.empty(); }

  /// What of the nominal voltage is left at a pixel of a bead, in data order; nothing if nothing feeds it.
  struct Level {
    double volts = 0;
    double nominal_v = 5;
    double least_v = 4;
  };
  std::optional<Level> levelAt(const ChainPlace& place, int pixel) const;
  /// The lowest level of a port.
  std::optional<Level> lowestOf(ControllerId controller, int port) const;
  /// Amps through the pin `index` of a bead.
  std::optional<double> injection_a(const ChainPlace& place, int index) const;

 signals:
  void changed();

 private:
  void rebuild();
  void read();
  void lookForBrightest();

  struct Span {
    std::size_t chain;
    std::size_t first;
    int count;
  };
  const Span* spanOf(const ChainPlace& place) const;

  Session session_;
  PowerLoad load_ = PowerLoad::FullWhite;
  std::vector<PowerChain> chains_;
  PowerReading reading_;
  std::map<std::tuple<ControllerId, int, int>, Span> spans_;
  /// Of each port, worked out once a reading: every chain asks at every picture.
  std::map<std::pair<ControllerId, int>, Level> lowest_;
  QTimer now_;
  QTimer soon_;
  std::shared_ptr<std::atomic<bool>> cancelled_;
  std::optional<PeakCurrentMoment> brightest_;
};

}  // namespace chispa::desk
