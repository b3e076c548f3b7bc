// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/wire/beadlight.h"

#include "core/edit/wireedits.h"
#include "core/zone/pixelmap.h"
#include "engine/program.h"

namespace chispa::desk {

BeadLight::BeadLight(const Session& session, QObject* parent) : QObject(parent), session_(session) {
  connect(&session_.selection, &Selection::changed, this, &BeadLight::update);
  connect(&session_.document, &Document::showChanged, this, &BeadLight::update);
  connect(&session_.document, &Document::opened, this, &BeadLight::update);
  connect(&session_.stage, &Stage::playingChanged, this, &BeadLight::update);
}

void BeadLight::setOn(bool on) {
  isOn_ = on;
  update();
}

void BeadLight::update() {
  std::vector<std::int32_t> pixels;
  const Show& show = session_.show();
  const auto* bead = std::get_if<BeadPlace>(&session_.selection.now());
  const auto* port = std::get_if<PortChoice>(&session_.selection.now());
  if (isOn_ && !session_.stage.isPlaying() && (bead || port)) {
    const Controller* controller = chispa::find(show.controllers, bead ? bead->controller : port->controller);
    const int number = bead ? bead->port : port->port;
    if (controller && number < std::ssize(controller->ports)) {
      Controller own = *controller;
      auto& run = own.ports[static_cast<std::size_t>(number)].run;
      if (bead && bead->bead < std::ssize(run)) run = {run[static_cast<std::size_t>(bead->bead)]};
      pixels = engine::chainOf(show, pixelRanges(show), own, number).pixels;
      std::erase(pixels, engine::PortChain::kSkipped);
    }
  }
  session_.stage.setHighlight(std::move(pixels));
}

}  // namespace chispa::desk
