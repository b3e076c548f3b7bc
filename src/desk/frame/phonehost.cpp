// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/frame/phonehost.h"

#include <QBuffer>
#include <QImage>
#include <QTemporaryDir>
#include <nlohmann/json.hpp>

#include "core/edit/lookedits.h"
#include "core/edit/planedits.h"
#include "core/preview/lookpicture.h"
#include "desk/bench/benchpage.h"
#include "desk/bench/camera/camerapage.h"
#include "desk/parts/format.h"
#include "desk/parts/language.h"
#include "desk/session/nightdesk.h"

namespace chispa::desk {
namespace {

using Json = nlohmann::json;

/// Ten pictures of the light a second.
constexpr int kLightEvery_ms = 100;
constexpr int kPadsEvery_ms = 1'000;
constexpr QSize kLight(360, 150);
constexpr QSize kPad(112, 54);

std::string bytesOf(const QImage& image, const char* format, int quality) {
  QByteArray bytes;
  QBuffer buffer(&bytes);
  buffer.open(QIODevice::WriteOnly);
  image.save(&buffer, format, quality);
  return bytes.toStdString();
}

}  // namespace

PhoneHost::PhoneHost(const Session& session, BenchPage& bench, NightDesk& night, QObject* parent)
    : QObject(parent), session_(session), bench_(bench), night_(night) {
  connect(&session_.stage, &Stage::ticked, this, &PhoneHost::follow);
}

PhoneHost::~PhoneHost() = default;

QString PhoneHost::switchOn(const QString& address, int port) {
  switchOff();
  if (!videos_) videos_ = std::make_unique<QTemporaryDir>();
  engine::Player& player = session_.stage.player();
  auto server = phone::PhoneServer::open(
      {address.toStdString(), port, videos_->path().toStdString()},
      {[&player](const LiveEvent& event) { player.live(engine::LiveSource::Phone, event); },
       [this](const phone::Command& command) {
         // From the server's thread to the window's.
         QMetaObject::invokeMethod(
             this, [this, command] { obey(command); }, Qt::QueuedConnection);
       },
       [this](const std::filesystem::path& file) {
         QMetaObject::invokeMethod(
             this, [this, name = text(file.string())] { takeVideo(name); }, Qt::QueuedConnection);
       }});
  if (!server) return said(server.failure());
  server_ = *std::move(server);
  drawnOf_ = nullptr;
  sinceLight_.start();
  sincePads_.start();
  drawPads();
  server_->show(stateText());
  emit changed();
  return {};
}

void PhoneHost::switchOff() {
  if (!server_) return;
  server_.reset();
  emit changed();
}

void PhoneHost::follow() {
  // Nobody looks: nothing is worked out. A phone that comes has all of it within a tick.
  if (!server_ || server_->phones() == 0) return;
  server_->show(stateText());
  if (sinceLight_.elapsed() >= kLightEvery_ms) drawLight();
  if (session_.stage.compiled() != drawnOf_ && sincePads_.elapsed() >= kPadsEvery_ms) drawPads();
}

void PhoneHost::drawLight() {
  sinceLight_.restart();
  const auto compiled = session_.stage.compiled();
  if (!compiled || compiled->map->count() == 0) return;
  QImage image(kLight, QImage::Format_RGBX8888);
  const OrbitCamera camera =
      framing(compiled->map->positions, static_cast<double>(kLight.width()) / kLight.height());
  painter_.paint(*compiled->map, session_.stage.frame(), camera, kLight.width(), kLight.height(),
                 image.bits());
  server_->setPicture("light", bytesOf(image, "JPG", 75), "image/jpeg");
}

void PhoneHost::drawPads() {
  sincePads_.restart();
  drawnOf_ = session_.stage.compiled();
  if (!drawnOf_) return;
  ++pictures_;
  for (const CompiledLook& look : drawnOf_->live->looks) {
    const double shown_s = look.round.count() > 0 ? std::clamp(seconds(look.round), 1.0, 20.0) : 4;
    const ClipPicture picture = drawLook(look, 0, shown_s, kPad.width(), kPad.height());
    const QImage image(picture.rgba.data(), picture.width, picture.height, QImage::Format_RGBX8888);
    server_->setPicture("pad/" + std::to_string(look.id.value), bytesOf(image, "PNG", -1), "image/png");
  }
}

std::string PhoneHost::stateText() const {
  const Show& show = session_.show();
  const engine::LiveSnapshot& live = session_.stage.live();
  const Micros t = live.now.t;
  Json looks = Json::array();
  for (const auto& look : show.looks)
    looks.push_back({{"id", look->id.value},
                     {"name", look->name},
                     {"lit", live.state.isLit(look->id)},
                     {"picture", pictures_}});
  Json zones = Json::array();
  for (const auto& zone : show.zones)
    if (!zone->score)
      zones.push_back({{"id", zone->id.value},
                       {"name", zone->name},
                       {"level", std::round(100 * live.state.zoneLevel(zone->id, t)) / 100}});
  Json palettes = Json::array();
  for (const auto& palette : show.palettes) {
    Json stops = Json::array();
    for (const ColourStop& stop : palette->stops)
      stops.push_back(hexText(stop.colour) + " " + std::to_string(static_cast<int>(stop.at * 100)) + "%");
    // A gradient needs two.
    if (stops.size() == 1) stops.push_back(stops[0]);
    palettes.push_back({{"id", palette->id.value}, {"name", palette->name}, {"stops", std::move(stops)}});
  }
  const BenchPage::HandQuestion hand = bench_.handQuestion();
  Json answers = Json::array();
  for (const BenchPage::HandAnswer& answer : hand.answers) {
    Json one{{"words", answer.words.toStdString()}};
    if (answer.colour.isValid()) one["colour"] = answer.colour.name().toStdString();
    if (answer.begins >= 0)
      one["begin"] = answer.begins;
    else
      one["seen"] = answer.seen;
    answers.push_back(std::move(one));
  }
  const Json state{{"language", wordLocale().bcp47Name().left(2).toStdString()},
                   {"show", session_.document.title().toStdString()},
                   {"phones", server_ ? server_->phones() : 0},
                   {"light", session_.stage.isLit()},
                   {"blackout", session_.stage.player().isBlackout()},
                   {"master", std::round(100 * session_.stage.player().master()) / 100},
                   {"now", nowWords().toStdString()},
                   {"night",
                    {{"words", night_.tonight().toStdString()},
                     {"watching", night_.isWatching()},
                     {"held", night_.watch().isHeld()},
                     {"plays", night_.watch().slot().has_value()}}},
                   {"looks", std::move(looks)},
                   {"zones", std::move(zones)},
                   {"palettes", std::move(palettes)},
                   {"bench",
                    {{"target", hand.target.toStdString()},
                     {"question", hand.question.toStdString()},
                     {"hint", hand.hint.toStdString()},
                     {"left", hand.left.toStdString()},
                     {"answers", std::move(answers)},
                     {"canGoBack", hand.canGoBack},
                     {"serial", static_cast<int>(qHash(hand.question) & 0xffff)}}}};
  return state.dump(-1, ' ', false, Json::error_handler_t::replace);
}

/// What plays, and what comes next.
QString PhoneHost::nowWords() const {
  QString words = night_.playing();
  // To the second: phones are told of what is another only.
  if (session_.stage.isPlaying())
    words =
        tr("%1 · %2").arg(words, timeText(Micros(session_.stage.position().count() / 1'000'000 * 1'000'000)));
  if (const QString coming = night_.coming(); !coming.isEmpty()) words += tr(" · next: %1").arg(coming);
  return words;
}

void PhoneHost::setPalette(PaletteId palette) {
  if (!chispa::find(session_.show().palettes, palette)) return;
  std::vector<LookId> lit;
  for (const LookPlay& play : session_.stage.live().state.plays)
    if (!play.isEnding) lit.push_back(play.look);
  session_.edit(tr("palette of what plays"), [&](Show& show) {
    for (const LookId id : lit)
      changeItem(show.looks, id, [palette](Look& look) {
        for (LookStep& step : look.steps)
          for (auto& layer : step.layers) {
            Clip clip = *layer;
            clip.palette = palette;
            layer = std::make_shared<const Clip>(std::move(clip));
          }
      });
  });
}

void PhoneHost::obeyBench(const phone::Command& command) {
  emit benchAsked();
  if (command.what == "bench-begin" && command.id < static_cast<std::uint32_t>(kFinderKinds))
    bench_.beginFinder(static_cast<FinderKind>(command.id));
  if (command.what == "bench-answer") bench_.answerByHand(static_cast<int>(command.id));
  if (command.what == "bench-back") bench_.goBackByHand();
  if (command.what == "bench-port") bench_.stepPort(command.value < 0 ? -1 : 1);
  if (command.what == "bench-locate") bench_.locateByHand();
  if (command.what == "bench-walk")
    bench_.walkByHand(static_cast<int>(std::clamp(command.value, -1'000.0, 1'000.0)));
}

void PhoneHost::takeVideo(const QString& file) {
  emit benchAsked();
  bench_.beginCamera();
  bench_.camera().openFile(file);
}

void PhoneHost::obey(const phone::Command& command) {
  if (command.what == "master")
    session_.stage.player().output().setMaster(static_cast<float>(std::clamp(command.value, 0.0, 1.0)));
  else if (command.what == "light")
    session_.stage.switchLight(command.value > 0);
  else if (command.what == "blackout")
    emit blackoutAsked(command.value > 0);
  else if (command.what == "palette")
    setPalette(PaletteId{command.id});
  else if (command.what == "night-hold")
    night_.hold(command.value > 0);
  else if (command.what == "night-longer")
    night_.playLonger(static_cast<int>(std::clamp(command.value, 1.0, 240.0)));
  else if (command.what.starts_with("bench-"))
    obeyBench(command);
  follow();
}

}  // namespace chispa::desk
