// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/wire/booklet.h"

#include <algorithm>

#include <QPainter>

#include "core/check/cutlist.h"
#include "core/wire/patch.h"
#include "core/wire/sizing.h"
#include "desk/parts/cuttext.h"
#include "desk/parts/format.h"
#include "desk/parts/paper.h"

namespace chispa::desk {
namespace {

constexpr QRectF kPage(160, 150, 1780, 2670);
constexpr double kChain = 60;

/// Fills pages from the top.
class Booklet {
 public:
  Booklet(QPainter& painter, const Show& show, const std::function<void()>& newPage)
      : painter_(painter), show_(show), newPage_(newPage), patch_(derivePatch(show)) {}

  void paint() {
    for (std::size_t i = 0; i < show_.controllers.size(); ++i) {
      beginPage();
      paintController(static_cast<int>(i));
    }
    beginPage();
    paintCuts();
  }

 private:
  void beginPage() {
    if (pages_++ > 0) newPage_();
    y_ = kPage.top();
    painter_.setFont(paperFont(2.6));
    painter_.setPen(kFaint);
    painter_.drawText(QPointF(kPage.left(), kPage.bottom() + 60),
                      QObject::tr("%1 · wiring · page %2").arg(text(show_.name)).arg(pages_));
  }

  void line(const QString& words, double mm, bool bold, const QColor& colour, double indent = 0) {
    if (y_ + mm * 16 > kPage.bottom()) beginPage();
    painter_.setFont(paperFont(mm, bold));
    painter_.setPen(colour);
    y_ += mm * 14;
    painter_.drawText(
        QPointF(kPage.left() + indent, y_),
        painter_.fontMetrics().elidedText(words, Qt::ElideRight, static_cast<int>(kPage.width() - indent)));
  }

  void paintController(int index) {
    const Controller& controller = *show_.controllers[static_cast<std::size_t>(index)];
    line(text(controller.name), 7, true, kInk);
    line(QObject::tr("%1 · %2 · %3")
             .arg(QString::fromLatin1(protocolTitle(controller.protocol)), text(controller.host),
                  counted(std::ssize(controller.ports), QObject::tr("one port"), QObject::tr("%1 ports"))),
         3.4, false, kFaint);
    int longest = 1;
    for (const Port& port : controller.ports) longest = std::max(longest, chainPixels(port));
    for (std::size_t p = 0; p < controller.ports.size(); ++p) {
      // A port's drawing is not torn in two.
      if (y_ + 200 + 50 * static_cast<double>(controller.ports[p].run.size()) > kPage.bottom() &&
          controller.ports[p].run.size() < 30)
        beginPage();
      paintPort(index, static_cast<int>(p), longest);
    }
  }

  void paintPort(int index, int number, int longest) {
    const Controller& controller = *show_.controllers[static_cast<std::size_t>(index)];
    const Port& port = controller.ports[static_cast<std::size_t>(number)];
    y_ += 30;
    paintMark(port);
    if (port.run.empty())
      return line(QObject::tr("Port %1 · nothing hangs on it").arg(number + 1), 3.6, true, kFaint);
    const double amps = portFullWhite_a(show_, port);
    // For a wire of a metre; how long each is, its pin says below.
    const Protection protection = protectionFor(amps, 1, voltsOf(show_, port));
    line(QObject::tr("Port %1 · %2 px · %3 at full white · %4 · %5")
             .arg(number + 1)
             .arg(chainPixels(port))
             .arg(ampsText(amps),
                  protection.fuse_a > 0 ? QObject::tr("fuse %1 A").arg(protection.fuse_a)
                                        : QObject::tr("too much for one fuse: inject"),
                  protection.isPossible() ? QObject::tr("wire %1 mm²").arg(protection.wire_mm2)
                                          : QObject::tr("more than one feed")),
         3.6, true, kInk);
    paintChain(port, longest);
    for (std::size_t b = 0; b < port.run.size(); ++b)
      paintBead(index, number, static_cast<int>(b), port.run[b]);
  }

  /// The colour of the lead, in the margin beside the port's line.
  void paintMark(const Port& port) {
    if (!port.mark) return;
    painter_.setPen(QPen(kInk, 2));
    painter_.setBrush(QColor(port.mark->r, port.mark->g, port.mark->b));
    painter_.drawRect(QRectF(kPage.left() - 44, y_ + 6, 30, 30));
  }

  /// The run to scale: data comes in at the left; skipped pixels are hollow.
  void paintChain(const Port& port, int longest) {
    const double perPixel = kPage.width() / longest;
    double x = kPage.left();
    y_ += 20;
    int shade = 0;
    for (const Bead& bead : port.run) {
      painter_.setPen(QPen(kInk, 2));
      painter_.setBrush(Qt::NoBrush);
      if (bead.skippedBefore > 0) painter_.drawRect(QRectF(x, y_, bead.skippedBefore * perPixel, kChain));
      x += bead.skippedBefore * perPixel;
      painter_.setBrush(shade++ % 2 == 0 ? QColor(0xd9, 0xd4, 0xc8) : QColor(0xc2, 0xbb, 0xab));
      const QRectF box(x, y_, bead.count * perPixel, kChain);
      painter_.drawRect(box);
      painter_.setFont(paperFont(2.6));
      painter_.drawText(box, Qt::AlignCenter,
                        painter_.fontMetrics().elidedText(nameOf(bead), Qt::ElideRight,
                                                          static_cast<int>(box.width()) - 10));
      // Where data comes in.
      painter_.setBrush(QColor(0x1d, 0x7a, 0x4d));
      painter_.setPen(Qt::NoPen);
      const double tip = bead.reversed ? box.right() - 4 : box.left() + 4;
      const double away = bead.reversed ? -16 : 16;
      painter_.drawPolygon(QPolygonF{QPointF(tip + away, box.bottom() - 12), QPointF(tip, box.bottom() - 4),
                                     QPointF(tip, box.bottom() - 20)});
      // Where power comes in.
      painter_.setBrush(QColor(0xc8, 0x5a, 0x1e));
      for (const Injection& injection : bead.injections)
        painter_.drawEllipse(QPointF(box.left() + box.width() * std::clamp(injection.pixel, 0, bead.count) /
                                                      std::max(1, bead.count),
                                     box.top()),
                             6, 6);
      x = box.right();
    }
    y_ += kChain;
  }

  QString nameOf(const Bead& bead) const {
    const Fixture* fixture = chispa::find(show_.fixtures, bead.fixture);
    return fixture ? text(fixture->name) : QObject::tr("gone");
  }

  void paintBead(int controller, int port, int index, const Bead& bead) {
    const PatchSpan* first = nullptr;
    const PatchSpan* last = nullptr;
    for (const PatchSpan& span : patch_.spans) {
      if (span.controller != controller || span.port != port || span.bead != index) continue;
      if (!first) first = &span;
      last = &span;
    }
    const Protocol protocol = show_.controllers[static_cast<std::size_t>(controller)]->protocol;
    QString words =
        QObject::tr("%1  pixels %2 – %3").arg(nameOf(bead)).arg(bead.first + 1).arg(bead.first + bead.count);
    if (bead.skippedBefore > 0) words.prepend(QObject::tr("%1 skipped, then ").arg(bead.skippedBefore));
    if (bead.reversed) words += QObject::tr(", data from the far end");
    if (first)
      words +=
          QStringLiteral("   %1 → %2")
              .arg(text(addressText(protocol, first->universe, first->channel)),
                   text(addressText(protocol, last->universe, last->channel + last->channelCount() - 1)));
    line(words, 2.9, false, kInk, 20);
    for (const Injection& injection : bead.injections) {
      const Supply* supply = chispa::find(show_.supplies, injection.supply);
      const QString where = injection.pixel >= bead.count
                                ? QObject::tr("behind the last pixel")
                                : QObject::tr("before pixel %1").arg(injection.pixel + 1);
      const QString fuse =
          injection.fuse_a > 0 ? QObject::tr(", fuse %1 A").arg(injection.fuse_a) : QString();
      line(QObject::tr("power %1: %2, %3 of %4 mm²%5")
               .arg(where, supply ? text(supply->name) : QObject::tr("gone"), lengthText(injection.wire_m))
               .arg(injection.wire_mm2)
               .arg(fuse),
           2.6, false, kFaint, 40);
    }
  }

  void paintCuts() {
    line(QObject::tr("To cut"), 7, true, kInk);
    for (const CutPiece& piece : cutList(show_)) {
      const StripType* strip = chispa::find(show_.stripTypes, piece.stripType);
      line(QObject::tr("%1 of %2").arg(cutText(piece), strip ? text(strip->name) : QString()), 3.4, false,
           kInk);
    }
  }

  QPainter& painter_;
  const Show& show_;
  const std::function<void()>& newPage_;
  Patch patch_;
  double y_ = 0;
  int pages_ = 0;
};

}  // namespace

void paintBooklet(QPainter& painter, const Show& show, const std::function<void()>& newPage) {
  painter.setRenderHint(QPainter::Antialiasing);
  Booklet(painter, show, newPage).paint();
}

bool writeBooklet(const Show& show, const QString& path) {
  return writePdf(
      path, QObject::tr("%1: wiring").arg(text(show.name)), QPageSize::A4, QPageLayout::Portrait,
      [&](QPainter& painter, QPdfWriter& pdf) { paintBooklet(painter, show, [&] { pdf.newPage(); }); });
}

}  // namespace chispa::desk
