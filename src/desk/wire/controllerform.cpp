// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/edit/planedits.h"
#include "core/show/limits.h"
#include "core/wire/framerate.h"
#include "desk/parts/format.h"
#include "desk/wire/wireforms.h"
#include "desk/wire/wirerows.h"

namespace chispa::desk {
namespace {

/// The rows of one controller's form.
class ControllerRows {
 public:
  ControllerRows(Form& form, const Session& session, ControllerId id)
      : form_(form), session_(session), id_(id), protocol_(get() ? get()->protocol : Protocol::E131) {}

  void addTitle() {
    form_.addTitle(Form::tr("Controller"), [getter = getter()]() -> std::optional<QString> {
      const Controller* own = getter();
      return own ? counted(std::ssize(own->ports), Form::tr("1 port"), Form::tr("%1 ports")) : QString();
    });
    addWords("controllerName", Form::tr("Name"), &Controller::name);
  }

  void addConnection() {
    form_.addHeading(Form::tr("Connection"));
    addProtocol();
    switch (traitsOf(protocol_).carrier) {
      case Carrier::Serial:
        addWords("host", Form::tr("Adapter"), &Controller::host);
        addNote(Form::tr("The RS-485 adapter's path, such as /dev/ttyUSB0: 250 kbit/s, one universe."));
        break;
      case Carrier::None:
        addNote(Form::tr(
            "Each port is a window, or a full screen, that shows its pixels as a matrix while light is "
            "on. Select a port to place it."));
        break;
      case Carrier::Udp:
      case Carrier::Tcp:
        addNetwork();
        break;
    }
    if (protocol_ == Protocol::E131)
      addWhole("priority", Form::tr("Priority (E1.31)"), {{}, 0, 200, 10, 0}, &Controller::priority);
    if (!isRow(protocol_) && isNetworked(protocol_))
      addToggle("sendsSync", Form::tr("Sync after each frame"), &Controller::sendsSync);
    addPace();
  }

  void addAddresses() {
    form_.addHeading(Form::tr("Addresses"));
    if (!isRow(protocol_) || protocol_ == Protocol::Opc)
      addWhole("firstUniverse",
               protocol_ == Protocol::Opc ? Form::tr("OPC channel") : Form::tr("First universe"),
               {{}, 0, limits::kMaxUniverse, 1, 0}, &Controller::firstUniverse);
    form_.addChoice(
        "portStart", Form::tr("Each port"), {Form::tr("starts a new universe"), Form::tr("continues")},
        [getter = getter()]() -> std::optional<int> {
          return getter() ? static_cast<int>(getter()->portStart) : 0;
        },
        [change = changer()](int v) {
          change(Form::tr("port start"), [&](Controller& c) { c.portStart = static_cast<PortStart>(v); });
        });
    form_.addChoice(
        "channelsPerUniverse", Form::tr("Channels per universe"),
        {Form::tr("510 channels"), Form::tr("512 channels")},
        [getter = getter()]() -> std::optional<int> {
          return getter() && getter()->channelsPerUniverse == 510 ? 0 : 1;
        },
        [change = changer()](int v) {
          change(Form::tr("channels of a universe"),
                 [v](Controller& c) { c.channelsPerUniverse = v == 0 ? 510 : 512; });
        });
    addToggle("isPacked", Form::tr("Split pixels across universes"), &Controller::isPacked);
    addToggle("insertsSkipped", Form::tr("Controller inserts skipped pixels"), &Controller::insertsSkipped);
    addWhole("mostPixels", Form::tr("Max pixels per port"), {{}, 0, limits::kMaxPixelsOfSegment, 10, 0},
             &Controller::maxPixelsOfPort);
    form_.addNumber(
        "portCount", Form::tr("Ports"), {{}, 1, 48, 1, 0},
        [getter = getter()]() -> std::optional<double> {
          return getter() ? static_cast<double>(getter()->ports.size()) : 1;
        },
        [session = session_, id = id_](double v) {
          session.edit(Form::tr("port count"),
                       [&](Show& show) { setPortCount(show, id, static_cast<int>(v)); });
        });
  }

  /// What the controller has been sent, and how it fares.
  void addStatistics() {
    if (protocol_ == Protocol::Screen) return;
    const auto state = [session = session_, id = id_]() -> std::optional<engine::LineState> {
      for (auto& line : session.stage.player().lines())
        if (line.controller == id) return line;
      return std::nullopt;
    };
    form_.addHeading(Form::tr("Sent"));
    form_.addFact(Form::tr("Frames"), [state]() -> std::optional<QString> {
      return state() ? QString::number(state()->frames) : QStringLiteral("0");
    });
    form_.addFact(Form::tr("Packets"), [state]() -> std::optional<QString> {
      return state() ? QString::number(state()->packets) : QStringLiteral("0");
    });
    form_.addFact(Form::tr("Data"), [state]() -> std::optional<QString> {
      return state() ? QStringLiteral("%1 MB").arg(static_cast<double>(state()->bytes) * 1e-6, 0, 'f', 1)
                     : QString();
    });
    form_.addFact(Form::tr("Not accepted"), [state]() -> std::optional<QString> {
      return state() ? QString::number(state()->errors) : QString();
    });
    form_.addNote([session = session_, state]() -> std::optional<QString> {
      if (!session.stage.isLit()) return Form::tr("Light is off: nothing is sent.");
      return state() && !state()->reached ? Form::tr("! %1").arg(text(state()->trouble))
                                          : Form::tr("It accepts what is sent.");
    });
  }

 private:
  using Change = std::function<void(const QString&, std::function<void(Controller&)>)>;

  const Controller* get() const { return chispa::find(session_.show().controllers, id_); }
  std::function<const Controller*()> getter() const {
    return [session = session_, id = id_] { return chispa::find(session.show().controllers, id); };
  }
  Change changer() const {
    return [session = session_, id = id_](const QString& name, const std::function<void(Controller&)>& set) {
      session.edit(
          name, [&](Show& show) { changeItem(show.controllers, id, set); }, name + QStringLiteral("-field"));
    };
  }

  void addProtocol() {
    QStringList names;
    for (const ProtocolTraits& one : kProtocols)
      names << (one.protocol == Protocol::SerialDmx ? Form::tr("DMX512, serial")
                : one.protocol == Protocol::Screen  ? Form::tr("A screen")
                : one.protocol == Protocol::E131    ? QStringLiteral("E1.31 (sACN)")
                : one.protocol == Protocol::Opc     ? QStringLiteral("Open Pixel Control")
                                                    : QLatin1String(one.title));
    form_.addChoice(
        "protocol", Form::tr("Protocol"), names,
        [getter = getter()]() -> std::optional<int> {
          return getter() ? static_cast<int>(getter()->protocol) : 0;
        },
        [change = changer()](int v) {
          change(Form::tr("protocol"),
                 [v](Controller& c) { c.protocol = kProtocols[static_cast<std::size_t>(v)].protocol; });
        });
  }

  void addNetwork() {
    addWords("host", Form::tr("Address"), &Controller::host);
    addWhole("udpPort",
             traitsOf(protocol_).carrier == Carrier::Tcp ? Form::tr("TCP port") : Form::tr("UDP port"),
             {{}, 0, 65535, 1, 0}, &Controller::udpPort);
    addWhole("setupPort", Form::tr("Set-up port"), {{}, 0, 65535, 1, 0}, &Controller::setupPort);
    addNote(Form::tr("Port 0: the protocol's own. Set-up port 0: none."));
    if (isRow(protocol_)) return;
    form_.addChoice(
        "delivery", Form::tr("Delivery"),
        {Form::tr("unicast, to its address"), Form::tr("multicast (E1.31)"), Form::tr("broadcast (Art-Net)")},
        [getter = getter()]() -> std::optional<int> {
          return getter() ? static_cast<int>(getter()->delivery) : 0;
        },
        [change = changer()](int v) {
          change(Form::tr("delivery"), [v](Controller& c) { c.delivery = static_cast<Delivery>(v); });
        });
    addWords("localAddress", Form::tr("Network interface"), &Controller::localAddress);
  }

  /// When, how often and how finely it is sent light.
  void addPace() {
    addDecimal("delay", Form::tr("Delay (below 0: ahead)"),
               {"ms", -limits::kMaxDelay_ms, limits::kMaxDelay_ms, 5, 0}, &Controller::delay_ms);
    addDecimal("mostFrames", Form::tr("Max frames per second"), {{}, 0, 1000, 5, 1},
               &Controller::maxFramesPerSecond);
    form_.addNote([session = session_, getter = getter()]() -> std::optional<QString> {
      if (!getter()) return std::nullopt;
      const double rate = frameRateOf(session.show(), *getter()).framesPerSecond();
      return Form::tr(
                 "Now %1 frames per second. 0: the usual 40. Up to 120 where the controller and the chips on "
                 "its longest port are fast enough.")
          .arg(QLocale().toString(rate, 'g', 3));
    });
    if (protocol_ != Protocol::Screen)
      addToggle("dithers", Form::tr("Dither dim light"), &Controller::dithers);
  }

  void addNote(const QString& words) {
    form_.addNote([words]() -> std::optional<QString> { return words; });
  }
  void addWords(const QString& key, const QString& label, std::string Controller::*member) {
    form_.addText(
        key, label,
        [getter = getter(), member]() -> std::optional<QString> {
          return getter() ? text(getter()->*member) : QString();
        },
        [change = changer(), label, member](const QString& v) {
          change(label, [&](Controller& c) { c.*member = v.trimmed().toStdString(); });
        });
  }
  void addWhole(const QString& key, const QString& label, const Form::Number& range,
                int Controller::*member) {
    form_.addNumber(
        key, label, range,
        [getter = getter(), member]() -> std::optional<double> { return getter() ? getter()->*member : 0; },
        [change = changer(), label, member](double v) {
          change(label, [&](Controller& c) { c.*member = static_cast<int>(v); });
        });
  }
  void addDecimal(const QString& key, const QString& label, const Form::Number& range,
                  double Controller::*member) {
    form_.addNumber(
        key, label, range,
        [getter = getter(), member]() -> std::optional<double> { return getter() ? getter()->*member : 0; },
        [change = changer(), label, member](double v) {
          change(label, [&](Controller& c) { c.*member = v; });
        });
  }
  void addToggle(const QString& key, const QString& label, bool Controller::*member) {
    form_.addSwitch(
        key, label,
        [getter = getter(), member]() -> std::optional<bool> { return getter() && getter()->*member; },
        [change = changer(), label, member](bool v) {
          change(label, [&](Controller& c) { c.*member = v; });
        });
  }

  Form& form_;
  Session session_;
  ControllerId id_;
  Protocol protocol_;
};

}  // namespace

QString controllerFormKey(const Session& session, ControllerId id) {
  const Controller* controller = chispa::find(session.show().controllers, id);
  return controller ? QString::number(static_cast<int>(controller->protocol)) : QString();
}

std::unique_ptr<Form> makeControllerForm(const Session& session, ControllerId id) {
  auto form = std::make_unique<Form>();
  ControllerRows rows(*form, session, id);
  rows.addTitle();
  rows.addConnection();
  rows.addAddresses();
  rows.addStatistics();
  form->addStretch();
  return form;
}

}  // namespace chispa::desk
