// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <vector>

#include <QColor>
#include <QWidget>

namespace chispa::desk {

/// How full a memory is, and of what: stretches of colour on a bar. What does not fit reaches beyond its end.
class MemoryBar : public QWidget {
  Q_OBJECT
 public:
  struct Stretch {
    QString name;
    QColor colour;
    double size = 0;
  };

  explicit MemoryBar(QWidget* parent = nullptr);

  /// `room` is the whole memory, in the sizes' unit.
  void show(std::vector<Stretch> stretches, double room);
  QSize sizeHint() const override;

 protected:
  void paintEvent(QPaintEvent* event) override;

 private:
  std::vector<Stretch> stretches_;
  double room_ = 1;
};

}  // namespace chispa::desk
