// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <cstdint>
#include <deque>

#include <QWidget>

namespace chispa::desk {

/// The last ten seconds of one channel as a line from 0 to 255.
class HistoryPlot : public QWidget {
 public:
  explicit HistoryPlot(QWidget* parent = nullptr);
  void add(std::uint8_t value);
  void clear();

 protected:
  void paintEvent(QPaintEvent* event) override;

 private:
  std::deque<std::uint8_t> values_;
};

}  // namespace chispa::desk
