// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/shape/order.h"

#include <cmath>
#include <limits>
#include <memory>

#include <nanoflann.hpp>

namespace chispa {
namespace {

/// The nearest of points, each of which is taken once. A k-d tree (nanoflann) that is made anew when half of
/// what it holds is gone, so that all together take O(n log n).
class NearestPoints {
 public:
  explicit NearestPoints(const std::vector<Vec3>& points) : points_(points), isTaken_(points.size(), false) {
    for (std::size_t i = 0; i < points.size(); ++i) left_.push_back(i);
    rebuild();
  }

  bool isEmpty() const { return count_ == 0; }

  /// Takes the nearest to `to`, the first of those that are equally near; −1 if there is none within
  /// `reach_m`.
  int take(Vec3 to, double reach_m) {
    if (isEmpty()) return -1;
    Nearest nearest(*this);
    const double place[3] = {to.x, to.y, to.z};
    tree_->findNeighbors(nearest, place, nanoflann::SearchParams());
    if (nearest.index < 0 || std::sqrt(nearest.squared) > reach_m) return -1;
    isTaken_[static_cast<std::size_t>(nearest.index)] = true;
    if (--count_ * 2 < left_.size()) rebuild();
    return nearest.index;
  }

  // What the tree asks of its points.
  std::size_t kdtree_get_point_count() const { return left_.size(); }
  double kdtree_get_pt(std::size_t i, std::size_t axis) const {
    const Vec3& p = points_[left_[i]];
    return axis == 0 ? p.x : axis == 1 ? p.y : p.z;
  }
  template <class Box>
  bool kdtree_get_bbox(Box&) const {
    return false;
  }

 private:
  using Tree = nanoflann::KDTreeSingleIndexAdaptor<nanoflann::L2_Simple_Adaptor<double, NearestPoints>,
                                                   NearestPoints, 3>;

  /// Collects what a search meets; those that are taken do not count.
  struct Nearest {
    using DistanceType = double;
    explicit Nearest(const NearestPoints& of) : points(of) {}
    bool full() const { return true; }
    std::size_t size() const { return index >= 0; }
    /// A little more than the best, so that those equally far are met too.
    double worstDist() const { return std::nextafter(squared, std::numeric_limits<double>::infinity()); }
    bool addPoint(double distance, std::size_t i) {
      const auto own = static_cast<int>(points.left_[i]);
      if (points.isTaken_[points.left_[i]] || distance > squared ||
          (distance == squared && index >= 0 && index < own))
        return true;
      squared = distance;
      index = own;
      return true;
    }
    const NearestPoints& points;
    int index = -1;
    double squared = std::numeric_limits<double>::max();
  };

  void rebuild() {
    std::erase_if(left_, [this](std::size_t i) { return isTaken_[i]; });
    count_ = left_.size();
    tree_ = std::make_unique<Tree>(3, *this, nanoflann::KDTreeSingleIndexAdaptorParams(16));
    tree_->buildIndex();
  }

  const std::vector<Vec3>& points_;
  std::vector<bool> isTaken_;
  /// Places of the tree's points among all.
  std::vector<std::size_t> left_;
  std::size_t count_ = 0;
  std::unique_ptr<Tree> tree_;
};

}  // namespace

std::vector<int> nearestOrder(const std::vector<Vec3>& points, int first) {
  return orderThrough(points, points.empty() ? points : std::vector{points[static_cast<std::size_t>(first)]},
                      1e-9);
}

std::vector<int> orderThrough(const std::vector<Vec3>& points, const std::vector<Vec3>& stroke,
                              double reach_m) {
  std::vector<int> order;
  NearestPoints left(points);
  for (const Vec3& at : stroke)
    for (int next = left.take(at, reach_m); next >= 0; next = left.take(at, reach_m)) order.push_back(next);
  while (!left.isEmpty())
    order.push_back(left.take(order.empty() ? points.front() : points[static_cast<std::size_t>(order.back())],
                              std::numeric_limits<double>::max()));
  return order;
}

}  // namespace chispa
