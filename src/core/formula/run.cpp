// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/formula/run.h"

#include <algorithm>
#include <cmath>

#include "core/base/curves.h"
#include "core/base/multiversion.h"

namespace chispa::formula {
namespace {

/// The part behind the point; 0 for what is no number.
float part(float v) {
  const float f = v - std::floor(v);
  return f >= 0 && f < 1 ? f : 0;
}

/// A whole number for chance; anything finite or not.
std::uint64_t whole(float v) {
  return std::isfinite(v) && std::abs(v) < 1e15f
             ? static_cast<std::uint64_t>(static_cast<std::int64_t>(std::floor(v)))
             : 0;
}

float power(float base, float exponent) {
  const float result = std::pow(base, exponent);
  return std::isfinite(result) ? result : 0;
}

float modulo(float a, float b) {
  return b != 0 ? a - b * std::floor(a / b) : 0;
}

float softNoise(std::uint64_t seed, float x, float y) {
  constexpr float kMax = 1e9f;
  return std::abs(x) < kMax && std::abs(y) < kMax
             ? noise(seed, static_cast<double>(x), static_cast<double>(y))
             : 0;
}

}  // namespace

Machine::Machine(const Program& program, const Inputs& inputs) noexcept : program_(program), inputs_(inputs) {
  for (std::size_t i = 0; i < program_.steps.size(); ++i) {
    if (!program_.steps[i].isUniform) continue;
    // A register of its own value in every lane lets the steps that use it stay plain loops.
    step(i, 0, 1);
    registers_[i].fill(registers_[i][0]);
  }
}

void Machine::run(std::size_t first, std::size_t count) noexcept {
  for (std::size_t i = 0; i < program_.steps.size(); ++i)
    if (!program_.steps[i].isUniform) step(i, first, count);
}

// Long, as it is one switch over all operations: each a line, and the loop over cells within it.
CHISPA_MULTIVERSION void Machine::step(std::size_t index, std::size_t first, std::size_t count) noexcept {
  const Step& s = program_.steps[index];
  float* out = registers_[index].data();
  const float* a = registers_[s.from[0]].data();
  const float* b = registers_[s.from[1]].data();
  const float* c = registers_[s.from[2]].data();
  const auto each = [&](auto value) CHISPA_INLINED {
    for (std::size_t i = 0; i < count; ++i) out[i] = value(i);
  };
  switch (s.op) {
    case Op::Constant:
      return each([&](std::size_t) { return s.number; });
    case Op::Cell:
      return each([&, from = inputs_.cells[static_cast<std::size_t>(s.number)].data() +
                             first](std::size_t i) { return from[i]; });
    case Op::Moment:
      return each([&](std::size_t) { return inputs_.moment[static_cast<std::size_t>(s.number)]; });
    case Op::Add:
      return each([&](std::size_t i) { return a[i] + b[i]; });
    case Op::Subtract:
      return each([&](std::size_t i) { return a[i] - b[i]; });
    case Op::Multiply:
      return each([&](std::size_t i) { return a[i] * b[i]; });
    case Op::Divide:
      return each([&](std::size_t i) { return b[i] != 0 ? a[i] / b[i] : 0.f; });
    case Op::Modulo:
      return each([&](std::size_t i) { return modulo(a[i], b[i]); });
    case Op::Power:
      // Squares are what formulas raise to most.
      if (program_.steps[s.from[1]].isUniform && b[0] == 2)
        return each([&](std::size_t i) { return a[i] * a[i]; });
      return each([&](std::size_t i) { return power(a[i], b[i]); });
    case Op::Negate:
      return each([&](std::size_t i) { return -a[i]; });
    case Op::Not:
      return each([&](std::size_t i) { return a[i] != 0 ? 0.f : 1.f; });
    case Op::Less:
      return each([&](std::size_t i) { return a[i] < b[i] ? 1.f : 0.f; });
    case Op::LessEqual:
      return each([&](std::size_t i) { return a[i] <= b[i] ? 1.f : 0.f; });
    case Op::Equal:
      return each([&](std::size_t i) { return a[i] == b[i] ? 1.f : 0.f; });
    case Op::And:
      return each([&](std::size_t i) { return a[i] != 0 && b[i] != 0 ? 1.f : 0.f; });
    case Op::Or:
      return each([&](std::size_t i) { return a[i] != 0 || b[i] != 0 ? 1.f : 0.f; });
    case Op::Choose:
      return each([&](std::size_t i) { return a[i] != 0 ? b[i] : c[i]; });
    case Op::Sin:
      return each([&](std::size_t i) { return std::sin(a[i]); });
    case Op::Cos:
      return each([&](std::size_t i) { return std::cos(a[i]); });
    case Op::Sway:
      return each([&](std::size_t i) { return 0.5f + 0.5f * sineOfTurns(part(a[i])); });
    case Op::Triangle:
      return each([&](std::size_t i) { return 1 - std::abs(2 * part(a[i]) - 1); });
    case Op::Saw:
      return each([&](std::size_t i) { return part(a[i]); });
    case Op::Pulse:
      return each([&](std::size_t i) { return part(a[i]) < b[i] ? 1.f : 0.f; });
    case Op::Abs:
      return each([&](std::size_t i) { return std::abs(a[i]); });
    case Op::Floor:
      return each([&](std::size_t i) { return std::floor(a[i]); });
    case Op::Sqrt:
      return each([&](std::size_t i) { return a[i] > 0 ? std::sqrt(a[i]) : 0.f; });
    case Op::Exp:
      return each([&](std::size_t i) { return std::exp(std::min(a[i], 80.f)); });
    case Op::Log:
      return each([&](std::size_t i) { return a[i] > 0 ? std::log(a[i]) : 0.f; });
    case Op::Sign:
      return each([&](std::size_t i) { return a[i] > 0 ? 1.f : a[i] < 0 ? -1.f : 0.f; });
    case Op::Min:
      return each([&](std::size_t i) { return std::min(a[i], b[i]); });
    case Op::Max:
      return each([&](std::size_t i) { return std::max(a[i], b[i]); });
    case Op::Clamp:
      return each([&](std::size_t i) { return std::min(std::max(a[i], b[i]), c[i]); });
    case Op::Mix:
      return each([&](std::size_t i) { return a[i] + (b[i] - a[i]) * c[i]; });
    case Op::Smooth:
      return each([&](std::size_t i) { return easeBetween(a[i], b[i], c[i]); });
    case Op::Noise:
      return each([&](std::size_t i) { return softNoise(inputs_.seed, a[i], b[i]); });
    case Op::Chance:
      return each([&](std::size_t i) { return chispa::chance(inputs_.seed, whole(a[i]), whole(b[i])); });
    case Op::Band:
      return each([&](std::size_t i) {
        const float band = a[i] - 1;
        return band >= 0 && band < static_cast<float>(inputs_.bands.size())
                   ? inputs_.bands[static_cast<std::size_t>(band)]
                   : 0.f;
      });
  }
}

}  // namespace chispa::formula
