// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/files/svgfile.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <optional>

#include <pugixml.hpp>

#include "core/base/utf8.h"
#include "core/files/svg/pathdata.h"
#include "core/shape/order.h"
#include "core/show/limits.h"

namespace chispa {
namespace {

using svg::Chain;
using svg::Error;
using svg::Scanner;

/// x' = a x + c y + e, y' = b x + d y + f.
struct Transform {
  double a = 1, b = 0, c = 0, d = 1, e = 0, f = 0;

  Vec3 operator()(Vec3 p) const { return {a * p.x + c * p.y + e, b * p.x + d * p.y + f, 0}; }
  Transform operator*(const Transform& inner) const {
    return {a * inner.a + c * inner.b, b * inner.a + d * inner.b,     a * inner.c + c * inner.d,
            b * inner.c + d * inner.d, a * inner.e + c * inner.f + e, b * inner.e + d * inner.f + f};
  }
};

Transform oneTransform(const std::string& name, const std::vector<double>& v) {
  const auto at = [&](std::size_t i, double fallback) { return i < v.size() ? v[i] : fallback; };
  if (name == "matrix" && v.size() == 6) return {v[0], v[1], v[2], v[3], v[4], v[5]};
  if (v.empty() || v.size() > 3)
    throw Error("the transform \"" + name + "\" has " + std::to_string(v.size()) + " numbers");
  if (name == "translate") return {1, 0, 0, 1, v[0], at(1, 0)};
  if (name == "scale") return {v[0], 0, 0, at(1, v[0]), 0, 0};
  if (name == "skewX") return {1, 0, std::tan(radians(v[0])), 1, 0, 0};
  if (name == "skewY") return {1, std::tan(radians(v[0])), 0, 1, 0, 0};
  if (name != "rotate") throw Error("\"" + name + "\" is no transform");
  const double c = std::cos(radians(v[0]));
  const double s = std::sin(radians(v[0]));
  const Transform turn{c, s, -s, c, 0, 0};
  return Transform{1, 0, 0, 1, at(1, 0), at(2, 0)} * turn * Transform{1, 0, 0, 1, -at(1, 0), -at(2, 0)};
}

Transform parseTransform(const char* text) {
  Transform whole;
  Scanner in(text);
  while (!in.isAtEnd()) {
    const std::string name = in.word();
    in.expect('(');
    std::vector<double> values;
    while (in.hasNumber() && values.size() < 7) values.push_back(in.number());
    in.expect(')');
    whole = whole * oneTransform(name, values);
  }
  return whole;
}

/// Metres of a length with a unit; `bare` for a number without.
double metresOf(const char* text, double bare) {
  Scanner in(text);
  const double value = in.number();
  const std::string unit = in.word();
  constexpr std::pair<std::string_view, double> kUnits[] = {
      {"mm", 0.001},       {"cm", 0.01},       {"m", 1},           {"in", 0.0254},
      {"pt", 0.0254 / 72}, {"pc", 0.0254 / 6}, {"px", 0.0254 / 96}};
  for (const auto& [name, metres] : kUnits)
    if (unit == name) return value * metres;
  return value * bare;
}

constexpr double kBareUnit_m = 0.0254 / 96;

/// Walks through the drawing and collects what it can use, in metres.
class Collector {
 public:
  explicit Collector(double metresPerUnit) : metresPerUnit_(metresPerUnit) {}

  SvgDrawing read(const pugi::xml_node& root) && {
    visit(root, Transform{unit(root), 0, 0, unit(root), 0, 0}, 0);
    settle();
    return std::move(drawing_);
  }

 private:
  /// How long the drawing's own unit is.
  double unit(const pugi::xml_node& root) const {
    if (metresPerUnit_ > 0) return metresPerUnit_;
    const char* width = root.attribute("width").value();
    const char* box = root.attribute("viewBox").value();
    if (!*box || !*width || std::string_view(width).find('%') != std::string_view::npos) return kBareUnit_m;
    Scanner in(box);
    in.number();
    in.number();
    const double units = in.number();
    const double metres = metresOf(width, kBareUnit_m);
    if (units <= 0 || metres <= 0) throw Error("its width or viewBox is not positive");
    return metres / units;
  }

  void visit(const pugi::xml_node& node, const Transform& around, int depth) {
    constexpr int kDeepest = 200;
    if (depth > kDeepest) throw Error("its groups are nested too deeply");
    const std::string_view name = node.name();
    if (name == "defs" || name == "symbol" || name == "clipPath" || name == "mask" || name == "pattern" ||
        name == "marker")
      return;
    try {
      const Transform here = around * parseTransform(node.attribute("transform").value());
      add(node, name, here);
      for (const pugi::xml_node& child : node.children()) visit(child, here, depth + 1);
    } catch (const Error& error) {
      if (isNamed_) throw;
      isNamed_ = true;
      const std::string id = node.attribute("id").value();
      throw Error("<" + std::string(name) + (id.empty() ? std::string() : " id=\"" + id + "\"") +
                  ">: " + error.what());
    }
  }

  void add(const pugi::xml_node& node, std::string_view name, const Transform& here) {
    const auto length = [&](const char* key) {
      const char* value = node.attribute(key).value();
      return *value ? metresOf(value, 1) : 0;
    };
    const std::string id = asUtf8(node.attribute("id").value());
    if (name == "circle") addEllipse(id, here, {length("cx"), length("cy"), 0}, length("r"), length("r"));
    if (name == "ellipse") addEllipse(id, here, {length("cx"), length("cy"), 0}, length("rx"), length("ry"));
    if (name == "line")
      addChain(id, here, {{length("x1"), length("y1"), 0}, {length("x2"), length("y2"), 0}});
    if (name == "rect") addRect(id, here, {length("x"), length("y"), 0}, length("width"), length("height"));
    if (name == "polyline" || name == "polygon")
      addPolygon(id, here, node.attribute("points").value(), name == "polygon");
    if (name == "path")
      for (const Chain& chain : svg::chainsOf(node.attribute("d").value())) addChain(id, here, chain);
  }

  void addEllipse(const std::string& id, const Transform& here, Vec3 centre, double rx, double ry) {
    if (rx <= 0 || ry <= 0) return;
    Chain chain{centre + Vec3{rx, 0, 0}};
    svg::appendArc(chain, rx, ry, 0, false, true, centre - Vec3{rx, 0, 0});
    svg::appendArc(chain, rx, ry, 0, false, true, centre + Vec3{rx, 0, 0});
    addChain(id, here, chain);
  }

  void addRect(const std::string& id, const Transform& here, Vec3 corner, double width, double height) {
    if (width <= 0 || height <= 0) return;
    addChain(id, here,
             {corner, corner + Vec3{width, 0, 0}, corner + Vec3{width, height, 0},
              corner + Vec3{0, height, 0}, corner});
  }

  void addPolygon(const std::string& id, const Transform& here, const char* points, bool isClosed) {
    Chain chain;
    Scanner in(points);
    while (!in.isAtEnd()) {
      const double x = in.number();
      chain.push_back({x, in.number(), 0});
    }
    if (chain.size() < 2) return;
    if (isClosed && !(chain.front() == chain.back())) chain.push_back(chain.front());
    addChain(id, here, chain);
  }

  /// A chain all of whose corners lie at one distance from their middle is a hole.
  void addChain(const std::string& id, const Transform& here, Chain chain) {
    for (Vec3& p : chain) p = here(p);
    for (const Vec3& p : chain)
      if (!(std::abs(p.x) <= limits::kLargest_m && std::abs(p.y) <= limits::kLargest_m))
        throw Error("it reaches further than any plan");
    if ((legs_ += chain.size()) > kMaxLegs) throw Error("the drawing has more lines than Chispa reads");
    if (const auto circle = asCircle(chain))
      drawing_.circles.push_back({id, circle->first, circle->second});
    else
      drawing_.outlines.push_back({id, std::move(chain)});
  }

  static std::optional<std::pair<Vec3, double>> asCircle(const Chain& chain) {
    constexpr std::size_t kFewest = 12;
    if (chain.size() < kFewest || length(chain.front() - chain.back()) > 1e-9) return std::nullopt;
    Vec3 low = chain[0];
    Vec3 high = chain[0];
    for (const Vec3& p : chain) {
      low = {std::min(low.x, p.x), std::min(low.y, p.y), 0};
      high = {std::max(high.x, p.x), std::max(high.y, p.y), 0};
    }
    const Vec3 centre = (low + high) * 0.5;
    const double radius = (high.x - low.x) / 2;
    const bool isRound = radius > 0 && std::all_of(chain.begin(), chain.end(), [&](Vec3 p) {
                           return std::abs(length(p - centre) - radius) < radius * 0.02;
                         });
    return isRound ? std::optional(std::pair(centre, radius)) : std::nullopt;
  }

  /// y up, and the lower left corner of everything at the origin.
  void settle() {
    double left = std::numeric_limits<double>::max();
    double bottom = std::numeric_limits<double>::lowest();
    for (const SvgCircle& c : drawing_.circles) {
      left = std::min(left, c.centre_m.x - c.radius_m);
      bottom = std::max(bottom, c.centre_m.y + c.radius_m);
    }
    for (const Outline& outline : drawing_.outlines)
      for (const Vec3& p : outline.corners_m) {
        left = std::min(left, p.x);
        bottom = std::max(bottom, p.y);
      }
    const auto turned = [&](Vec3 p) { return Vec3{p.x - left, bottom - p.y, 0}; };
    for (SvgCircle& c : drawing_.circles) c.centre_m = turned(c.centre_m);
    for (Outline& outline : drawing_.outlines)
      for (Vec3& p : outline.corners_m) p = turned(p);
  }

  static constexpr std::size_t kMaxLegs = 2'000'000;

  double metresPerUnit_;
  SvgDrawing drawing_;
  std::size_t legs_ = 0;
  /// An error has been given its place.
  bool isNamed_ = false;
};

/// Compares texts; numbers in them count as numbers.
bool comesBefore(const std::string& a, const std::string& b) {
  const auto key = [](const std::string& text) {
    std::vector<std::pair<double, char>> pieces;
    for (std::size_t i = 0; i < text.size();) {
      std::size_t digits = i;
      double number = 0;
      while (digits < text.size() && text[digits] >= '0' && text[digits] <= '9')
        number = number * 10 + (text[digits++] - '0');
      pieces.emplace_back(digits > i ? number : -1, digits > i ? '\0' : text[i]);
      i = std::max(i + 1, digits);
    }
    return pieces;
  };
  return key(a) < key(b);
}

}  // namespace

Result<SvgDrawing> parseSvg(const std::string& text, const std::string& where, double metresPerUnit) {
  constexpr const char* kCure = "Save the drawing as plain SVG 1.1, with text turned into paths.";
  pugi::xml_document document;
  const pugi::xml_parse_result parsed = document.load_buffer(text.data(), text.size());
  if (!parsed)
    return Failure{sentence("The drawing is damaged at byte %1: %2.", parsed.offset, parsed.description()),
                   where, kCure};
  const pugi::xml_node root = document.child("svg");
  if (!root) return Failure{"This is not an SVG drawing.", where, kCure};
  try {
    SvgDrawing drawing = Collector(metresPerUnit).read(root);
    if (drawing.circles.empty() && drawing.outlines.empty())
      return Failure{"The drawing has neither circles nor lines.", where, kCure};
    return drawing;
  } catch (const Error& error) {
    return Failure{sentence("The drawing makes no sense: %1.", error.what()), where, kCure};
  }
}

std::vector<Vec3> holesInOrder(const SvgDrawing& drawing, HoleOrder order) {
  std::vector<SvgCircle> circles = drawing.circles;
  std::vector<Vec3> middles;
  if (order == HoleOrder::ById)
    std::stable_sort(circles.begin(), circles.end(),
                     [](const auto& a, const auto& b) { return comesBefore(a.id, b.id); });
  for (const SvgCircle& circle : circles) middles.push_back(circle.centre_m);
  if (order == HoleOrder::ById || middles.empty()) return middles;
  const auto first =
      std::min_element(middles.begin(), middles.end(), [](Vec3 a, Vec3 b) { return a.x + a.y < b.x + b.y; });
  std::vector<Vec3> sorted;
  for (const int i : nearestOrder(middles, static_cast<int>(first - middles.begin())))
    sorted.push_back(middles[static_cast<std::size_t>(i)]);
  return sorted;
}

}  // namespace chispa
