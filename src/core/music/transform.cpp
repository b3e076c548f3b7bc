// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/music/transform.h"

#include <cmath>
#include <mutex>
#include <numbers>

#include <fftw3.h>

namespace chispa {
namespace {

/// FFTW's plans are made under a lock, as its manual asks (§5.4).
std::mutex& planning() {
  static std::mutex mutex;
  return mutex;
}

}  // namespace

struct Transform::Plan {
  explicit Plan(std::size_t window) : in(fftwf_alloc_real(window)), out(fftwf_alloc_complex(window / 2 + 1)) {
    const std::scoped_lock lock(planning());
    plan = fftwf_plan_dft_r2c_1d(static_cast<int>(window), in, out, FFTW_ESTIMATE);
  }
  ~Plan() {
    const std::scoped_lock lock(planning());
    fftwf_destroy_plan(plan);
    fftwf_free(in);
    fftwf_free(out);
  }
  Plan(const Plan&) = delete;
  Plan& operator=(const Plan&) = delete;

  float* in;
  fftwf_complex* out;
  fftwf_plan plan;
};

Transform::Transform(std::size_t window)
    : window_(window),
      plan_(std::make_unique<Plan>(window)),
      hann_(window),
      both_(window * AudioClip::kChannels),
      mono_(window),
      power_(window / 2 + 1) {
  for (std::size_t i = 0; i < window; ++i)
    hann_[i] = 0.5f - 0.5f * static_cast<float>(std::cos(2 * std::numbers::pi * static_cast<double>(i) /
                                                         static_cast<double>(window)));
}

Transform::~Transform() = default;

const std::vector<float>& Transform::power(std::span<const float> mono) {
  for (std::size_t i = 0; i < window_; ++i) plan_->in[i] = mono[i] * hann_[i];
  fftwf_execute(plan_->plan);
  const float full = static_cast<float>(window_) * static_cast<float>(window_) / 16;
  for (std::size_t i = 0; i < power_.size(); ++i)
    power_[i] = (plan_->out[i][0] * plan_->out[i][0] + plan_->out[i][1] * plan_->out[i][1]) / full;
  return power_;
}

const std::vector<float>& Transform::power(const AudioClip& clip, std::ptrdiff_t centre) {
  clip.read(centre - static_cast<std::ptrdiff_t>(window_ / 2), both_);
  for (std::size_t i = 0; i < window_; ++i) mono_[i] = 0.5f * (both_[2 * i] + both_[2 * i + 1]);
  return power(mono_);
}

}  // namespace chispa
