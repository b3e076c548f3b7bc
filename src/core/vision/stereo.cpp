// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/vision/stereo.h"

#include <algorithm>
#include <cmath>

#include <Eigen/Dense>
#include <opencv2/calib3d.hpp>

#include "core/base/median.h"

namespace chispa::vision {
namespace {

using Eigen::Matrix3d;
using Eigen::Vector2d;
using Eigen::Vector3d;
/// Distortion, rotation as an axis times its angle, translation.
using Pose = Eigen::Matrix<double, 7, 1>;

struct Pair {
  int led;
  /// In units of the focal length from the middle of the picture, distorted as seen.
  Vector2d first;
  Vector2d second;
};

Vector2d seen(const Spot& spot, const Lens& lens) {
  const double focal = lens.focal_px();
  return {(spot.x - (lens.width - 1) / 2.0) / focal, (spot.y - (lens.height - 1) / 2.0) / focal};
}

/// Takes the lens's distortion out, by iteration.
Vector2d straight(const Vector2d& bent, double k1) {
  Vector2d at = bent;
  for (int i = 0; i < 8; ++i) at = bent / std::max(0.2, 1 + k1 * at.squaredNorm());
  return at;
}

Matrix3d rotationOf(const Pose& pose) {
  const Vector3d turn = pose.segment<3>(1);
  const double angle = turn.norm();
  return angle < 1e-12 ? Matrix3d::Identity() : Eigen::AngleAxisd(angle, turn / angle).toRotationMatrix();
}

Vector3d directionOf(const Pose& pose) {
  return pose.segment<3>(4).normalized();
}

Matrix3d essential(const Pose& pose) {
  const Vector3d t = directionOf(pose);
  Matrix3d cross;
  cross << 0, -t.z(), t.y(), t.z(), 0, -t.x(), -t.y(), t.x(), 0;
  return cross * rotationOf(pose);
}

Eigen::VectorXd sampson(const std::vector<Pair>& pairs, const Pose& pose) {
  const Matrix3d e = essential(pose);
  Eigen::VectorXd residuals(static_cast<Eigen::Index>(pairs.size()));
  for (std::size_t i = 0; i < pairs.size(); ++i) {
    const Vector3d a = straight(pairs[i].first, pose[0]).homogeneous();
    const Vector3d b = straight(pairs[i].second, pose[0]).homogeneous();
    const Vector3d ea = e * a;
    const Vector3d eb = e.transpose() * b;
    const double scale = std::sqrt(ea.head<2>().squaredNorm() + eb.head<2>().squaredNorm());
    residuals[static_cast<Eigen::Index>(i)] = b.dot(ea) / std::max(1e-12, scale);
  }
  return residuals;
}

/// Levenberg–Marquardt with Huber's weights; `huber` in units of the focal length.
Pose refine(const std::vector<Pair>& pairs, Pose pose, double huber) {
  const auto cost = [&](const Eigen::VectorXd& r) {
    double sum = 0;
    for (const double one : r) {
      const double size = std::abs(one);
      sum += size < huber ? one * one : huber * (2 * size - huber);
    }
    return sum;
  };
  double damping = 1e-3;
  Eigen::VectorXd residuals = sampson(pairs, pose);
  for (int round = 0; round < 60; ++round) {
    Eigen::MatrixXd slope(residuals.size(), 7);
    for (int p = 0; p < 7; ++p) {
      constexpr double kStep = 1e-6;
      Pose moved = pose;
      moved[p] += kStep;
      slope.col(p) = (sampson(pairs, moved) - residuals) / kStep;
    }
    Eigen::VectorXd weights(residuals.size());
    for (Eigen::Index i = 0; i < residuals.size(); ++i)
      weights[i] = std::min(1.0, huber / std::max(1e-15, std::abs(residuals[i])));
    const Eigen::Matrix<double, 7, 7> normal = slope.transpose() * weights.asDiagonal() * slope;
    const Pose gradient = slope.transpose() * weights.asDiagonal() * residuals;
    Eigen::Matrix<double, 7, 7> damped = normal;
    damped.diagonal() += damping * (normal.diagonal().array() + 1e-9).matrix();
    Pose next = pose - damped.ldlt().solve(gradient);
    next.segment<3>(4).normalize();
    const Eigen::VectorXd then = sampson(pairs, next);
    if (cost(then) < cost(residuals)) {
      const bool isDone = cost(residuals) - cost(then) < 1e-14 + 1e-9 * cost(residuals);
      pose = next;
      residuals = then;
      damping = std::max(1e-9, damping / 5);
      if (isDone) break;
    } else {
      damping *= 6;
      if (damping > 1e8) break;
    }
  }
  return pose;
}

/// The point whose pictures are nearest to both, by the linear method, seen from the first camera.
Vector3d triangulated(const Vector2d& a, const Vector2d& b, const Matrix3d& rotation,
                      const Vector3d& translation) {
  Eigen::Matrix<double, 3, 4> second;
  second << rotation, translation;
  Eigen::Matrix4d rows = Eigen::Matrix4d::Zero();
  rows(0, 0) = -1;
  rows(0, 2) = a.x();
  rows(1, 1) = -1;
  rows(1, 2) = a.y();
  rows.row(2) = b.x() * second.row(2) - second.row(0);
  rows.row(3) = b.y() * second.row(2) - second.row(1);
  const Eigen::Vector4d solved = rows.jacobiSvd(Eigen::ComputeFullV).matrixV().col(3);
  return solved.head<3>() / solved[3];
}

std::optional<Pose> firstPose(const std::vector<Pair>& pairs, double focal_px) {
  std::vector<cv::Point2d> first, second;
  for (const Pair& pair : pairs) {
    first.emplace_back(pair.first.x(), pair.first.y());
    second.emplace_back(pair.second.x(), pair.second.y());
  }
  constexpr double kSurely = 0.9999;
  constexpr double kOff_px = 3;
  cv::setRNGSeed(1);
  cv::Mat inliers;
  cv::Mat e = cv::findEssentialMat(first, second, cv::Mat::eye(3, 3, CV_64F), cv::RANSAC, kSurely,
                                   kOff_px / focal_px, inliers);
  if (e.rows < 3) return std::nullopt;
  cv::Mat rotation, translation, turn;
  const int inFront = cv::recoverPose(e.rowRange(0, 3), first, second, cv::Mat::eye(3, 3, CV_64F), rotation,
                                      translation, inliers);
  if (inFront < static_cast<int>(pairs.size()) / 2) return std::nullopt;
  cv::Rodrigues(rotation, turn);
  Pose pose;
  pose << 0, turn.at<double>(0), turn.at<double>(1), turn.at<double>(2), translation.at<double>(0),
      translation.at<double>(1), translation.at<double>(2);
  return pose;
}

/// Where a straight point is seen through the lens.
Vector2d bent(const Vector3d& point, double k1) {
  const Vector2d at = point.head<2>() / point.z();
  return at * (1 + k1 * at.squaredNorm());
}

}  // namespace

std::optional<double> metresPerPixel(std::span<const std::optional<Spot>> spots, const KnownLength& known) {
  const auto spotOf = [&](int led) {
    return led >= 0 && led < std::ssize(spots) ? spots[static_cast<std::size_t>(led)] : std::nullopt;
  };
  const auto from = spotOf(known.fromLed), to = spotOf(known.toLed);
  const double apart = from && to ? std::hypot(to->x - from->x, to->y - from->y) : 0;
  return apart > 1e-6 ? std::optional(known.length_m / apart) : std::nullopt;
}

Result<SpacePoints> placesInSpace(std::span<const std::optional<Spot>> first,
                                  std::span<const std::optional<Spot>> second, const Lens& lens,
                                  const KnownLength& known) {
  constexpr std::size_t kFewest = 12;
  std::vector<Pair> pairs;
  for (std::size_t i = 0; i < std::min(first.size(), second.size()); ++i)
    if (first[i] && second[i])
      pairs.push_back({static_cast<int>(i), seen(*first[i], lens), seen(*second[i], lens)});
  if (pairs.size() < kFewest)
    return Failure{sentence("only %1 LEDs were seen from both places", pairs.size()),
                   {},
                   "choose places from which more of the same LEDs can be seen; twelve are needed"};
  const double focal = lens.focal_px();
  const auto begun = firstPose(pairs, focal);
  if (!begun)
    return Failure{"the two places of the camera cannot be told from the pictures",
                   {},
                   "move the camera further between them, about a third of its distance"};
  // The second round starts from a straightened lens, so that RANSAC's choice does not matter.
  const Pose pose = refine(pairs, *begun, 1.5 / focal);
  const Matrix3d rotation = rotationOf(pose);
  const Vector3d translation = directionOf(pose);
  SpacePoints space;
  space.k1 = pose[0];
  space.points.resize(std::max(first.size(), second.size()));
  space.residual_px.assign(space.points.size(), 0);
  std::vector<double> residuals;
  for (const Pair& pair : pairs) {
    const Vector3d point =
        triangulated(straight(pair.first, space.k1), straight(pair.second, space.k1), rotation, translation);
    if (!point.allFinite() || point.z() <= 0) continue;
    const double off = ((bent(point, space.k1) - pair.first).norm() +
                        (bent(rotation * point + translation, space.k1) - pair.second).norm()) /
                       2 * focal;
    space.points[static_cast<std::size_t>(pair.led)] = Vec3{point.x(), point.z(), -point.y()};
    space.residual_px[static_cast<std::size_t>(pair.led)] = off;
    residuals.push_back(off);
  }
  space.medianResidual_px = median(residuals);
  const auto pointOf = [&](int led) {
    return led >= 0 && led < std::ssize(space.points) ? space.points[static_cast<std::size_t>(led)]
                                                      : std::nullopt;
  };
  const auto from = pointOf(known.fromLed), to = pointOf(known.toLed);
  if (!from || !to || length(*to - *from) < 1e-9)
    return Failure{sentence("the LEDs %1 and %2 of the known length were not seen from both places",
                            known.fromLed + 1, known.toLed + 1),
                   {},
                   "measure between two others"};
  const double scale = known.length_m / length(*to - *from);
  for (auto& point : space.points)
    if (point) point = *point * scale;
  return space;
}

}  // namespace chispa::vision
