// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/run/livepanel.h"

#include <QCheckBox>
#include <QDialog>
#include <QDialogButtonBox>
#include <QFileDialog>
#include <QFormLayout>
#include <QGridLayout>
#include <QLabel>
#include <QMenu>
#include <QPushButton>
#include <QSpinBox>
#include <QToolButton>

#include "core/edit/bindingedits.h"
#include "core/edit/deskedits.h"
#include "core/edit/planedits.h"
#include "core/live/desksheet.h"
#include "desk/parts/format.h"
#include "desk/parts/language.h"
#include "desk/parts/named.h"
#include "desk/run/bindinglist.h"
#include "desk/run/desksheetpdf.h"
#include "desk/run/soundrow.h"
#include "link/finder.h"

namespace chispa::desk {
namespace {

/// What a control that was learnt drives: what is selected.
BindingTarget targetFor(const Session& session, const BindingSource& source) {
  BindingTarget target;
  const Selected& selected = session.selection.now();
  if (const auto* look = std::get_if<LookId>(&selected)) {
    target.kind = source.isButton() ? TargetKind::Look : TargetKind::LookLevel;
    target.look = *look;
  } else if (const auto* layer = std::get_if<LayerChoice>(&selected)) {
    target.kind = source.isButton() ? TargetKind::Look : TargetKind::Parameter;
    target.look = layer->look;
    target.parameter = kStrengthKey;
  } else if (source.kind == SourceKind::TimeCode) {
    target.kind = TargetKind::Follow;
  } else if (const auto* zone = std::get_if<ZoneId>(&selected)) {
    target.kind = TargetKind::ZoneLevel;
    target.zone = *zone;
  } else if (source.isButton() && !session.show().looks.empty()) {
    target.kind = TargetKind::Look;
    target.look = session.show().looks.front()->id;
  }
  return target;
}

}  // namespace

LivePanel::LivePanel(const Session& session, LiveInputs& inputs, QWidget* parent)
    : QWidget(parent), session_(session), inputs_(inputs) {
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 0, 0, 0);
  column->setSpacing(6);
  column->addWidget(heading(tr("What drives what")));
  auto* switches = new QHBoxLayout;
  midi_ =
      named(new QCheckBox(tr("MIDI")), "hearMidi", tr("MIDI"), tr("Hear all MIDI devices of this computer"));
  osc_ = named(new QCheckBox(tr("OSC")), "hearOsc", tr("OSC"),
               tr("Hear Open Sound Control on this computer, port %1").arg(link::OscServer::kPort));
  desks_ = named(new QCheckBox(tr("Desk")), "hearDesks", tr("Desk"),
                 tr("Hear the universes of lighting desks that zones listen to"));
  for (QCheckBox* box : {midi_, osc_, desks_}) switches->addWidget(box);
  switches->addStretch();
  switches->addWidget(makeDeskMenu());
  column->addLayout(switches);
  connect(midi_, &QCheckBox::clicked, &inputs_, &LiveInputs::setMidi);
  connect(osc_, &QCheckBox::clicked, this, &LivePanel::switchOsc);
  connect(desks_, &QCheckBox::clicked, this, &LivePanel::switchDesks);
  auto* sound = new SoundRow(session_, inputs_);
  connect(sound, &SoundRow::failed, this, &LivePanel::failed);
  column->addWidget(sound);
  state_ = new QLabel;
  state_->setObjectName(QStringLiteral("quiet"));
  state_->setWordWrap(true);
  column->addWidget(state_);
  list_ = new BindingList(session_);
  column->addWidget(list_, 1);
  auto* buttons = new QHBoxLayout;
  learn_ = named(new QPushButton(tr("Learn…")), "learn", tr("Learn"),
                 tr("Press this, then move a control or press a key: it drives what is selected"));
  learn_->setCheckable(true);
  connect(learn_, &QPushButton::clicked, this, &LivePanel::learn);
  copy_ = named(new QPushButton(tr("Copy along…")), "copyAlong", tr("Copy along"),
                tr("The same binding for the next controls and the next zones, channels or looks"));
  connect(copy_, &QPushButton::clicked, this, &LivePanel::copyAlong);
  buttons->addWidget(learn_);
  buttons->addWidget(copy_);
  column->addLayout(buttons);
  connect(&inputs_, &LiveInputs::heard, this, &LivePanel::take);
  connect(&inputs_, &LiveInputs::changed, this, &LivePanel::showInputs);
  connect(&session_.document, &Document::showChanged, this, &LivePanel::showInputs);
  connect(&session_.selection, &Selection::changed, this,
          [this] { copy_->setEnabled(std::holds_alternative<BindingId>(session_.selection.now())); });
  copy_->setEnabled(false);
  showInputs();
}

QWidget* LivePanel::makeDeskMenu() {
  auto* more = named(new QToolButton, "deskMenu", tr("What listens to a desk"),
                     tr("Zones that a lighting desk plays, and the sheet for whoever patches it"));
  more->setText(QStringLiteral("⋯"));
  more->setPopupMode(QToolButton::InstantPopup);
  auto* menu = new QMenu(more);
  menu->addAction(tr("The selected zone listens"), this, &LivePanel::listenToDesk);
  menu->addAction(tr("Every fixture listens as one cell"), this, &LivePanel::collapseAndListen);
  menu->addSeparator();
  menu->addAction(tr("Export the desk sheet…"), this, [this] { exportDeskSheet(); });
  menu->addSeparator();
  menu->addMenu(makeNetworkMenu(menu));
  more->setMenu(menu);
  return more;
}

QMenu* LivePanel::makeNetworkMenu(QWidget* parent) {
  auto* menu = new QMenu(tr("Hear desks and OSC at"), parent);
  menu->setObjectName(QStringLiteral("liveNetwork"));
  menu->setToolTipsVisible(true);
  fillNetworkMenu(menu);
  // Interfaces come and go.
  connect(menu, &QMenu::aboutToShow, this, [this, menu] { fillNetworkMenu(menu); });
  return menu;
}

void LivePanel::fillNetworkMenu(QMenu* menu) {
  menu->clear();
  for (const link::Interface& one : link::localInterfaces()) {
    const QString address = text(one.address);
    QAction* action = menu->addAction(QStringLiteral("%1 (%2)").arg(address, text(one.name)));
    action->setToolTip(tr("Only what arrives at this interface is heard; loopback is this computer alone"));
    action->setCheckable(true);
    action->setChecked(address == inputs_.address());
    connect(action, &QAction::triggered, this, [this, address] { listenAt(address); });
  }
}

void LivePanel::listenAt(const QString& address) {
  if (const QString trouble = inputs_.listenAt(address); !trouble.isEmpty()) emit failed(trouble);
}

void LivePanel::showInputs() {
  midi_->setChecked(inputs_.hearsMidi());
  osc_->setChecked(inputs_.hearsOsc());
  desks_->setChecked(inputs_.hearsDesks());
  QStringList words;
  if (inputs_.hearsMidi()) words << tr("MIDI: %1").arg(inputs_.midiState());
  if (inputs_.hearsOsc()) words << tr("OSC: %1, port %2").arg(inputs_.address()).arg(inputs_.oscPort());
  if (inputs_.hearsDesks()) words << tr("Desk: at %1").arg(inputs_.address());
  if (inputs_.hearsSound()) words << tr("Sound: %1").arg(inputs_.soundTitle());
  const std::string& trouble = session_.stage.player().deskTrouble();
  if (!trouble.empty()) words << text(trouble);
  state_->setText(words.join(QStringLiteral("\n")));
  state_->setVisible(!words.isEmpty());
}

void LivePanel::switchOsc(bool on) {
  if (const QString trouble = inputs_.setOsc(on); !trouble.isEmpty()) emit failed(trouble);
}

void LivePanel::switchDesks(bool on) {
  if (const QString trouble = inputs_.setDesks(on); !trouble.isEmpty()) emit failed(trouble);
}

void LivePanel::learn(bool on) {
  isLearning_ = on;
  learn_->setChecked(on);
  learn_->setText(on ? tr("Move it …") : tr("Learn…"));
  if (on) inputs_.setMidi(true);
}

void LivePanel::take(const BindingSource& source, float value) {
  // A note that is let go is the end of one that was pressed before learning began.
  if (!isLearning_ || value <= 0) return;
  learn(false);
  if (const auto* own = std::get_if<BindingId>(&session_.selection.now())) {
    session_.edit(tr("learn a control"), [id = *own, &source](Show& show) {
      changeItem(show.bindings, id, [&source](Binding& binding) { binding.source = source; });
    });
    return;
  }
  BindingId made;
  session_.edit(tr("learn a control"),
                [&](Show& show) { made = addBinding(show, source, targetFor(session_, source)); });
  if (chispa::find(session_.show().bindings, made)) session_.selection.select(made);
}

void LivePanel::copyAlong() {
  const auto* own = std::get_if<BindingId>(&session_.selection.now());
  if (!own) return;
  QDialog dialog(this);
  dialog.setObjectName(QStringLiteral("copyAlongDialog"));
  dialog.setWindowTitle(tr("Copy along"));
  auto* form = new QFormLayout(&dialog);
  const auto number = [&](const char* name, const QString& label, const QString& tip, int low, int high,
                          int value) {
    auto* box = named(new QSpinBox, name, label, tip);
    box->setRange(low, high);
    box->setValue(value);
    form->addRow(label, box);
    return box;
  };
  auto* count = number("alongCount", tr("More controls"), tr("How many more controls are bound"), 1, 511, 2);
  auto* sources = number("alongSources", tr("Step from control to control"),
                         tr("1 takes each, 2 every other"), -127, 127, 1);
  auto* targets = number("alongTargets", tr("Step from target to target"),
                         tr("From channel to channel, or in the list of zones or looks"), -511, 511, 1);
  auto* master = named(new QCheckBox(tr("The last one drives the master")), "alongMaster", tr("Master"),
                       tr("Thirteen faders become twelve posts and a master"));
  form->addRow(master);
  auto* buttons = new QDialogButtonBox(QDialogButtonBox::Ok | QDialogButtonBox::Cancel);
  connect(buttons, &QDialogButtonBox::accepted, &dialog, &QDialog::accept);
  connect(buttons, &QDialogButtonBox::rejected, &dialog, &QDialog::reject);
  form->addRow(buttons);
  if (dialog.exec() != QDialog::Accepted) return;
  std::size_t made = 0;
  session_.edit(tr("copy a binding along"), [&, id = *own](Show& show) {
    made =
        chispa::copyAlong(show, id, {count->value(), sources->value(), targets->value(), master->isChecked()})
            .size();
  });
  if (made < static_cast<std::size_t>(count->value()))
    emit failed(tr("%1 of %2 copies were made: there is no next control or no next target after them.")
                    .arg(made)
                    .arg(count->value()));
}

void LivePanel::listenToDesk() {
  ZoneIds zones = session_.selection.all<ZoneId>();
  if (zones.empty() && !session_.show().zones.empty()) zones.push_back(session_.show().zones.front()->id);
  if (zones.empty()) return emit failed(tr("There is no zone yet. Make one in Plan."));
  DeskInputId made;
  session_.edit(tr("listen to a desk"), [&](Show& show) {
    for (const ZoneId zone : zones) {
      DeskInput input;
      input.zone = zone;
      input.channel = std::min(512, nextDeskChannel(show, input.protocol, input.universe));
      made = addDeskInput(show, input);
    }
  });
  session_.selection.select(made);
}

void LivePanel::collapseAndListen() {
  FixtureIds fixtures = session_.selection.fixtures();
  if (fixtures.empty())
    for (const auto& fixture : session_.show().fixtures) fixtures.push_back(fixture->id);
  session_.edit(tr("listen to a desk"), [&](Show& show) {
    DeskInput first;
    first.use = DeskUse::Multiplies;
    first.channel = std::min(512, nextDeskChannel(show, first.protocol, first.universe));
    listenCollapsed(show, fixtures, first);
  });
}

void LivePanel::exportDeskSheet(QString path) {
  if (path.isEmpty())
    path = QFileDialog::getSaveFileName(this, tr("Desk sheet"), QStringLiteral("desk.pdf"),
                                        tr("PDF (*.pdf);;Tables (*.csv)"));
  if (path.isEmpty()) return;
  if (path.endsWith(QStringLiteral(".csv"), Qt::CaseInsensitive)) {
    const auto written = writeDeskSheet(session_.show(), path.toStdString());
    if (!written) emit failed(said(written.failure()));
  } else if (!writeDeskSheetPdf(session_.show(), path)) {
    emit failed(
        tr("The desk sheet could not be written.\n%1\nCheck that the folder exists and has room.").arg(path));
  }
}

}  // namespace chispa::desk
