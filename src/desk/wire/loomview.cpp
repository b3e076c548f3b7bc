// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/wire/loomview.h"

#include "desk/parts/format.h"
#include "desk/parts/whenseen.h"

namespace chispa::desk {

LoomView::LoomView(const Session& session, QWidget* parent)
    : QWidget(parent), session_(session), power_(session) {
  setObjectName(QStringLiteral("loomView"));
  setAccessibleName(tr("Loom"));
  setToolTip(
      tr("Drag from the tray onto a port: Shift spreads its strings over ports, Ctrl hangs a bead once more. "
         "With several pieces selected, each goes to a port of its own. C cuts and P injects power at the "
         "pointer (Shift and C: the rest goes to the next port), R reverses, Delete removes, F folds a "
         "controller, Ctrl and the wheel zoom. Clicks with Ctrl or Shift select several beads, ports or "
         "controllers."));
  setFocusPolicy(Qt::StrongFocus);
  setMouseTracking(true);
  auto* seen = new WhenSeen(this, [this] { relayout(); });
  connect(&session_.document, &Document::showChanged, seen, &WhenSeen::ask);
  connect(&session_.document, &Document::opened, this, &LoomView::relayout);
  connect(&session_.selection, &Selection::changed, this, [this] {
    update();
    sayWhatIsSelected(this);
  });
  connect(&power_, &LoomPower::changed, this, qOverload<>(&LoomView::update));
  relayout();
}

void LoomView::relayout() {
  layout_ = LoomLayout(session_.show(), size(), fontMetrics().height(), view_);
  update();
}

void LoomView::resizeEvent(QResizeEvent*) {
  relayout();
}

void LoomView::clampScroll() {
  view_.tray = std::clamp(view_.tray, 0.0, std::max(0.0, layout_.trayWidth() - width()));
  const double room = layout_.tray().top() - layout_.beamY();
  view_.scrolled.setX(std::clamp(view_.scrolled.x(), 0.0, std::max(0.0, layout_.width() - width())));
  view_.scrolled.setY(std::clamp(view_.scrolled.y(), 0.0, std::max(0.0, layout_.height() - room)));
}

void LoomView::zoomBy(double factor, QPointF about) {
  constexpr double kMaxZoom = 40;
  const double before = view_.zoom;
  const double width = std::max(1.0, layout_.width());
  view_.zoom = std::clamp(view_.zoom * factor, 1.0, kMaxZoom);
  const double along = about.y() - layout_.beamY() + view_.scrolled.y();
  const double across = (about.x() + view_.scrolled.x()) / width;
  relayout();
  // What is under the pointer stays there.
  view_.scrolled = {across * layout_.width() - about.x(),
                    along * view_.zoom / before - (about.y() - layout_.beamY())};
  clampScroll();
  relayout();
}

void LoomView::toggleFold(ControllerId id) {
  if (!view_.folded.insert(id).second) view_.folded.erase(id);
  relayout();
  clampScroll();
  relayout();
}

void LoomView::bringIntoSight(const Selected& selected) {
  const auto* bead = std::get_if<BeadPlace>(&selected);
  const auto* controller = std::get_if<ControllerId>(&selected);
  if (bead && view_.folded.erase(bead->controller) > 0) relayout();
  QRectF box;
  for (const auto& card : layout_.cards())
    if (controller && card.controller == *controller) box = card.box;
  for (const auto& chain : layout_.chains())
    for (const auto& one : chain.beads)
      if (bead && isAt(*bead, one.place)) box = one.box;
  if (box.isNull()) return;
  constexpr double kMargin = 40;
  if (box.left() < kMargin || box.right() > width() - kMargin)
    view_.scrolled.rx() += box.center().x() - width() / 2.0;
  if (bead && (box.top() < layout_.beamY() + kMargin || box.top() > layout_.tray().top() - kMargin))
    view_.scrolled.ry() += box.top() - layout_.beamY() - 2 * kMargin;
  clampScroll();
  relayout();
}

bool LoomView::findNext(const QString& words) {
  if (words.trimmed().isEmpty()) return false;
  std::vector<Selected> found;
  for (const auto& controller : session_.show().controllers) {
    if (text(controller->name).contains(words.trimmed(), Qt::CaseInsensitive))
      found.push_back(controller->id);
    for (std::size_t p = 0; p < controller->ports.size(); ++p)
      for (std::size_t b = 0; b < controller->ports[p].run.size(); ++b) {
        const Fixture* fixture = chispa::find(session_.show().fixtures, controller->ports[p].run[b].fixture);
        if (fixture && text(fixture->name).contains(words.trimmed(), Qt::CaseInsensitive))
          found.push_back(BeadPlace{controller->id, static_cast<int>(p), static_cast<int>(b)});
      }
  }
  if (found.empty()) return false;
  const auto now = std::find(found.begin(), found.end(), session_.selection.now());
  const Selected next = now == found.end() || now + 1 == found.end() ? found.front() : *(now + 1);
  session_.selection.select(next);
  bringIntoSight(next);
  return true;
}

std::optional<ControllerId> LoomView::selectedController() const {
  const Selection& selection = session_.selection;
  if (const auto ids = selection.all<ControllerId>(); !ids.empty()) return ids.front();
  if (const auto ports = selection.all<PortChoice>(); !ports.empty()) return ports.front().controller;
  if (const auto beads = selection.all<BeadPlace>(); !beads.empty()) return beads.front().controller;
  return std::nullopt;
}

}  // namespace chispa::desk
