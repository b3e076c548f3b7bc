// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/parts/pieces.h"

#include <vector>

#include <QAccessible>
#include <QAccessibleActionInterface>
#include <QAccessibleWidget>
#include <QWidget>

namespace chispa::desk {
namespace {

/// A piece as Qt's accessibility has it. It is of the view's making and lives as long as that.
class ReadPiece final : public QAccessibleInterface, public QAccessibleActionInterface {
 public:
  ReadPiece(QWidget& view, PieceTeller& teller, int index) : view_(view), teller_(teller), index_(index) {}

  int index() const { return index_; }

  bool isValid() const override { return index_ < teller_.toldCount(); }
  QObject* object() const override { return nullptr; }
  QWindow* window() const override { return view_.window()->windowHandle(); }
  QAccessibleInterface* parent() const override { return QAccessible::queryAccessibleInterface(&view_); }
  QAccessibleInterface* child(int) const override { return nullptr; }
  QAccessibleInterface* childAt(int, int) const override { return nullptr; }
  int childCount() const override { return 0; }
  int indexOfChild(const QAccessibleInterface*) const override { return -1; }
  QAccessible::Role role() const override { return QAccessible::ListItem; }
  QString text(QAccessible::Text kind) const override {
    if (!isValid()) return {};
    const ToldPiece told = teller_.told(index_);
    if (kind == QAccessible::Name) return told.name;
    return kind == QAccessible::Description ? told.detail : QString();
  }
  void setText(QAccessible::Text, const QString&) override {}
  QRect rect() const override {
    if (!isValid()) return {};
    const QRect place = teller_.told(index_).place;
    return {view_.mapToGlobal(place.topLeft()), place.size()};
  }
  QAccessible::State state() const override {
    QAccessible::State state;
    state.invalid = !isValid();
    if (state.invalid) return state;
    state.selectable = state.focusable = true;
    state.selected = teller_.told(index_).isSelected;
    state.focused = view_.hasFocus() && teller_.selectedTold() == index_;
    state.invisible = !view_.isVisible();
    return state;
  }
  void* interface_cast(QAccessible::InterfaceType type) override {
    return type == QAccessible::ActionInterface ? static_cast<QAccessibleActionInterface*>(this) : nullptr;
  }

  QStringList actionNames() const override { return {pressAction()}; }
  void doAction(const QString& name) override {
    if (name == pressAction() && isValid()) teller_.selectTold(index_);
  }
  QStringList keyBindingsForAction(const QString&) const override { return {}; }

 private:
  QWidget& view_;
  PieceTeller& teller_;
  int index_;
};

/// The view, as a list of its pieces.
class ReadView final : public QAccessibleWidget {
 public:
  ReadView(QWidget* view, PieceTeller& teller)
      : QAccessibleWidget(view, QAccessible::List), teller_(teller) {}
  ~ReadView() override {
    for (const QAccessible::Id id : known_)
      if (id != 0) QAccessible::deleteAccessibleInterface(id);
  }

  int childCount() const override { return teller_.toldCount(); }
  QAccessibleInterface* child(int index) const override {
    if (index < 0 || index >= childCount()) return nullptr;
    if (std::ssize(known_) <= index) known_.resize(static_cast<std::size_t>(childCount()), 0);
    QAccessible::Id& id = known_[static_cast<std::size_t>(index)];
    if (id == 0) id = QAccessible::registerAccessibleInterface(new ReadPiece(*widget(), teller_, index));
    return QAccessible::accessibleInterface(id);
  }
  int indexOfChild(const QAccessibleInterface* child) const override {
    const auto* piece = dynamic_cast<const ReadPiece*>(child);
    return piece ? piece->index() : -1;
  }
  QAccessibleInterface* childAt(int x, int y) const override {
    const QPoint at = widget()->mapFromGlobal(QPoint(x, y));
    for (int i = 0; i < childCount(); ++i)
      if (teller_.told(i).place.contains(at)) return child(i);
    return nullptr;
  }
  QAccessibleInterface* focusChild() const override {
    return widget()->hasFocus() ? child(teller_.selectedTold()) : nullptr;
  }

 private:
  PieceTeller& teller_;
  /// What was made so far, 0 where nobody has asked.
  mutable std::vector<QAccessible::Id> known_;
};

QAccessibleInterface* readerOf(const QString&, QObject* object) {
  auto* view = qobject_cast<QWidget*>(object);
  auto* teller = view ? dynamic_cast<PieceTeller*>(object) : nullptr;
  return teller ? new ReadView(view, *teller) : nullptr;
}

}  // namespace

// Before the view is asked for the first time; more than once it changes nothing.
PieceTeller::PieceTeller() {
  QAccessible::installFactory(readerOf);
}

void sayWhatIsSelected(QWidget* view) {
  if (!QAccessible::isActive()) return;
  const auto* teller = dynamic_cast<const PieceTeller*>(view);
  const int index = teller ? teller->selectedTold() : -1;
  if (index < 0) return;
  QAccessibleEvent event(view, view->hasFocus() ? QAccessible::Focus : QAccessible::Selection);
  event.setChild(index);
  QAccessible::updateAccessibility(&event);
}

}  // namespace chispa::desk
