// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/edit/planedits.h"
#include "core/show/finditems.h"
#include "core/show/limits.h"
#include "core/wire/framerate.h"
#include "desk/parts/format.h"
#include "desk/parts/several.h"
#include "desk/wire/wireforms.h"
#include "desk/wire/wirerows.h"

namespace chispa::desk {
namespace {

/// The rows of the form of one controller, or of several.
class ControllerRows {
  bool isOne() const { return ids_.size() == 1; }
  std::function<std::vector<const Controller*>()> all() const {
    return [session = session_, ids = ids_] { return findAll(session.show().controllers, ids); };
  }
  /// What a field shows: the value that all have.
  template <class Value>
  auto same(Value value) const {
    return [all = all(), value] { return sameOf(all(), value); };
  }

 public:
  ControllerRows(Form& form, const Session& session, ControllerIds ids)
      : form_(form),
        session_(session),
        ids_(std::move(ids)),
        protocol_(sameOf(all()(), [](const Controller& c) { return c.protocol; })) {}

  void addTitle() {
    form_.addTitle(isOne() ? Form::tr("Controller") : Form::tr("%1 controllers").arg(ids_.size()),
                   [all = all()]() -> std::optional<QString> {
                     std::ptrdiff_t ports = 0;
                     for (const Controller* one : all()) ports += std::ssize(one->ports);
                     return counted(ports, Form::tr("1 port"), Form::tr("%1 ports"));
                   });
    if (isOne()) addWords("controllerName", Form::tr("Name"), &Controller::name);
  }

  void addConnection() {
    form_.addHeading(Form::tr("Connection"));
    addProtocol();
    if (protocol_) addCarrier(*protocol_);
    addPace();
  }

  /// What only controllers of this protocol have.
  void addCarrier(Protocol protocol) {
    switch (traitsOf(protocol).carrier) {
      case Carrier::Serial:
        if (isOne()) addWords("host", Form::tr("Adapter"), &Controller::host);
        addNote(Form::tr("The RS-485 adapter's path, such as /dev/ttyUSB0: 250 kbit/s, one universe."));
        break;
      case Carrier::None:
        addNote(Form::tr(
            "Each port is a window, or a full screen, that shows its pixels as a matrix while light is "
            "on. Select a port to place it."));
        break;
      case Carrier::Udp:
      case Carrier::Tcp:
        addNetwork(protocol);
        break;
    }
    if (protocol == Protocol::E131)
      addWhole("priority", Form::tr("Priority (E1.31)"), {{}, 0, 200, 10, 0}, &Controller::priority);
    if (!isRow(protocol) && isNetworked(protocol))
      addToggle("sendsSync", Form::tr("Sync after each frame"), &Controller::sendsSync);
  }

  void addAddresses() {
    form_.addHeading(Form::tr("Addresses"));
    if (protocol_ && (!isRow(*protocol_) || protocol_ == Protocol::Opc))
      addWhole("firstUniverse",
               protocol_ == Protocol::Opc ? Form::tr("OPC channel") : Form::tr("First universe"),
               {{}, 0, limits::kMaxUniverse, 1, 0}, &Controller::firstUniverse);
    form_.addChoice(
        "portStart", Form::tr("Each port"), {Form::tr("starts a new universe"), Form::tr("continues")},
        same([](const Controller& c) { return static_cast<int>(c.portStart); }), [change = changer()](int v) {
          change(Form::tr("port start"), [&](Controller& c) { c.portStart = static_cast<PortStart>(v); });
        });
    form_.addChoice("channelsPerUniverse", Form::tr("Channels per universe"),
                    {Form::tr("510 channels"), Form::tr("512 channels")},
                    same([](const Controller& c) { return c.channelsPerUniverse == 510 ? 0 : 1; }),
                    [change = changer()](int v) {
                      change(Form::tr("channels of a universe"),
                             [v](Controller& c) { c.channelsPerUniverse = v == 0 ? 510 : 512; });
                    });
    addToggle("isPacked", Form::tr("Split pixels across universes"), &Controller::isPacked);
    addToggle("insertsSkipped", Form::tr("Controller inserts skipped pixels"), &Controller::insertsSkipped);
    addWhole("mostPixels", Form::tr("Max pixels per port"), {{}, 0, limits::kMaxPixelsOfSegment, 10, 0},
             &Controller::maxPixelsOfPort);
    form_.addNumber("portCount", Form::tr("Ports"), {{}, 1, 48, 1, 0},
                    same([](const Controller& c) { return static_cast<double>(c.ports.size()); }),
                    [session = session_, ids = ids_](double v) {
                      session.edit(Form::tr("port count"), [&](Show& show) {
                        for (const ControllerId id : ids) setPortCount(show, id, static_cast<int>(v));
                      });
                    });
  }

  /// What the controller has been sent, and how it fares.
  void addStatistics() {
    if (!isOne() || protocol_ == Protocol::Screen) return;
    const auto state = [session = session_, id = ids_.front()]() -> std::optional<engine::LineState> {
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

  Change changer() const {
    return
        [session = session_, ids = ids_](const QString& name, const std::function<void(Controller&)>& set) {
          session.edit(
              name, [&](Show& show) { changeItems(show.controllers, ids, set); },
              name + QStringLiteral("-field"));
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
        same([](const Controller& c) { return static_cast<int>(c.protocol); }), [change = changer()](int v) {
          change(Form::tr("protocol"),
                 [v](Controller& c) { c.protocol = kProtocols[static_cast<std::size_t>(v)].protocol; });
        });
  }

  void addNetwork(Protocol protocol) {
    if (isOne()) addWords("host", Form::tr("Address"), &Controller::host);
    addWhole("udpPort",
             traitsOf(protocol).carrier == Carrier::Tcp ? Form::tr("TCP port") : Form::tr("UDP port"),
             {{}, 0, 65535, 1, 0}, &Controller::udpPort);
    addWhole("setupPort", Form::tr("Set-up port"), {{}, 0, 65535, 1, 0}, &Controller::setupPort);
    addNote(Form::tr("Port 0: the protocol's own. Set-up port 0: none."));
    if (isRow(protocol)) return;
    form_.addChoice(
        "delivery", Form::tr("Delivery"),
        {Form::tr("unicast, to its address"), Form::tr("multicast (E1.31)"), Form::tr("broadcast (Art-Net)")},
        same([](const Controller& c) { return static_cast<int>(c.delivery); }), [change = changer()](int v) {
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
    form_.addNote([session = session_, all = all()]() -> std::optional<QString> {
      if (all().empty()) return std::nullopt;
      double rate = 1000;
      for (const Controller* one : all())
        rate = std::min(rate, frameRateOf(session.show(), *one).framesPerSecond());
      return Form::tr(
                 "Now %1 frames per second. 0: the usual 40. Up to 120 where the controller and the chips on "
                 "its longest port are fast enough.")
          .arg(QLocale().toString(rate, 'g', 3));
    });
    if (protocol_ == Protocol::E131 || protocol_ == Protocol::ArtNet || protocol_ == Protocol::Ddp) {
      addWhole("packetsInRow", Form::tr("Max packets in a row"), {{}, 0, 1000, 1, 0},
               &Controller::maxPacketsInRow);
      addNote(
          Form::tr("0: a frame's packets leave at once. A small controller that loses some takes 4 to 8: "
                   "the rest follows in steps of a millisecond."));
    }
    if (protocol_ != Protocol::Screen)
      addToggle("dithers", Form::tr("Dither dim light"), &Controller::dithers);
  }

  void addNote(const QString& words) {
    form_.addNote([words]() -> std::optional<QString> { return words; });
  }
  void addWords(const QString& key, const QString& label, std::string Controller::*member) {
    form_.addText(key, label, same([member](const Controller& c) { return text(c.*member); }),
                  [change = changer(), label, member](const QString& v) {
                    change(label, [&](Controller& c) { c.*member = v.trimmed().toStdString(); });
                  });
  }
  void addWhole(const QString& key, const QString& label, const Form::Number& range,
                int Controller::*member) {
    form_.addNumber(key, label, range,
                    same([member](const Controller& c) { return static_cast<double>(c.*member); }),
                    [change = changer(), label, member](double v) {
                      change(label, [&](Controller& c) { c.*member = static_cast<int>(v); });
                    });
  }
  void addDecimal(const QString& key, const QString& label, const Form::Number& range,
                  double Controller::*member) {
    form_.addNumber(key, label, range, same([member](const Controller& c) { return c.*member; }),
                    [change = changer(), label, member](double v) {
                      change(label, [&](Controller& c) { c.*member = v; });
                    });
  }
  void addToggle(const QString& key, const QString& label, bool Controller::*member) {
    form_.addSwitch(key, label, same([member](const Controller& c) { return c.*member; }),
                    [change = changer(), label, member](bool v) {
                      change(label, [&](Controller& c) { c.*member = v; });
                    });
  }

  Form& form_;
  Session session_;
  ControllerIds ids_;
  /// Nothing where they differ.
  std::optional<Protocol> protocol_;
};

}  // namespace

QString controllerFormKey(const Session& session, const ControllerIds& ids) {
  QString key;
  for (const ControllerId id : ids)
    if (const Controller* one = chispa::find(session.show().controllers, id))
      key += QString::number(static_cast<int>(one->protocol)) + QLatin1Char(' ');
  return key;
}

std::unique_ptr<Form> makeControllerForm(const Session& session, const ControllerIds& ids) {
  auto form = std::make_unique<Form>();
  ControllerRows rows(*form, session, ids);
  rows.addTitle();
  rows.addConnection();
  rows.addAddresses();
  rows.addStatistics();
  form->addStretch();
  return form;
}

}  // namespace chispa::desk
