// SPDX-License-Identifier: GPL-3.0-or-later
#include "hostile/hostilefiles.h"

#include <nlohmann/json.hpp>

namespace chispa::test {
namespace {

using Json = nlohmann::ordered_json;

std::string repeated(const std::string& words, std::size_t times) {
  std::string all;
  all.reserve(words.size() * times);
  for (std::size_t i = 0; i < times; ++i) all += words;
  return all;
}

Json base() {
  return {{"format", "chispa-show"}, {"version", 1}, {"name", "x"}, {"next_id", 1000}};
}
Json fixture(int id, Json shape) {
  return {{"id", id}, {"name", "F"}, {"segments", {{{"name", "s"}, {"shape", std::move(shape)}}}}};
}
Json line(int count) {
  return {{"kind", "line"}, {"count", count}, {"pitch_m", 0.01}};
}
Json grid(int columns, int rows) {
  return {{"kind", "grid"}, {"columns", columns}, {"rows", rows}};
}
Json show(const char* list, Json items) {
  Json root = base();
  root[list] = std::move(items);
  return root;
}
Json clipShow(Json clip, std::int64_t length_us = 60'000'000) {
  Json root = base();
  root["fixtures"] = {fixture(1, line(50))};
  root["zones"] = {{{"id", 2}, {"name", "Z"}, {"parts", {{{"fixture", 1}}}}}};
  clip["id"] = 5;
  clip["zone"] = 2;
  if (!clip.contains("length_us")) clip["length_us"] = length_us;
  root["scores"] = {{{"id", 3}, {"name", "S"}, {"length_us", length_us}, {"staves", {2}}, {"clips", {clip}}}};
  return root;
}

}  // namespace

const std::map<std::string, std::function<std::string()>>& hostileFiles() {
  static const std::map<std::string, std::function<std::string()>> all = {
      {"twins.chispa",
       [] {
         return show("fixtures", {fixture(1, line(300)), fixture(1, line(5))}).dump();
       }},
      {"manysegments.chispa",
       [] {
         Json one = fixture(1, line(200'000));
         const Json segment = one["segments"][0];
         for (int i = 0; i < 11'000; ++i) one["segments"].push_back(segment);
         return show("fixtures", {one}).dump();
       }},
      {"manyfixtures.chispa",
       [] {
         Json list = Json::array();
         for (int i = 1; i < 30'000; ++i) list.push_back(fixture(i, line(200'000)));
         return show("fixtures", list).dump();
       }},
      {"widegrids.chispa",
       [] {
         Json root = show("fixtures", {fixture(1, grid(46'400, 1)), fixture(2, grid(1, 46'400))});
         root["zones"] = {{{"id", 3},
                           {"name", "Z"},
                           {"layout", "side-by-side"},
                           {"parts", {{{"fixture", 1}}, {{"fixture", 2}}}}}};
         return root.dump();
       }},
      {"tallstrings.chispa",
       [] {
         Json root = show("fixtures", {fixture(1, line(200'000)), fixture(2, line(1))});
         Json parts = Json::array({{{"fixture", 1}}});
         for (int i = 0; i < 100'000; ++i) parts.push_back({{"fixture", 2}});
         root["zones"] = {{{"id", 3}, {"name", "Z"}, {"layout", "strings"}, {"parts", parts}}};
         return root.dump();
       }},
      {"manyruns.chispa",
       [] {
         Json root = show("fixtures", {fixture(1, line(1000))});
         Json parts = Json::array();
         for (int i = 0; i < 3'000; ++i)
           parts.push_back({{"fixture", 1}, {"runs", {{{"first", 0}, {"count", 2'000'000}, {"step", 0}}}}});
         root["zones"] = {{{"id", 3}, {"name", "Z"}, {"parts", parts}}};
         return root.dump();
       }},
      {"manyskipped.chispa",
       [] {
         Json root = show("fixtures", {fixture(1, line(5))});
         Json run = Json::array();
         for (int i = 0; i < 50'000; ++i)
           run.push_back({{"fixture", 1}, {"count", 5}, {"skipped_before", 10'000}});
         root["controllers"] = {
             {{"id", 2}, {"name", "C"}, {"host", "127.0.0.1"}, {"ports", {{{"run", run}}}}}};
         return root.dump();
       }},
      {"zigzag.chispa",
       [] {
         Json root = show("fixtures", {fixture(1, line(200'000))});
         root["controllers"] = {
             {{"id", 2},
              {"name", "C"},
              {"host", "127.0.0.1"},
              {"ports", {{{"run", {{{"fixture", 1}, {"count", 200'000}, {"zigzag", 1}}}}}}}}};
         return root.dump();
       }},
      {"farpin.chispa",
       [] {
         Json root = show("fixtures", {fixture(1, line(100'000))});
         root["controllers"] = {{{"id", 2},
                                 {"name", "C"},
                                 {"protocol", "artnet"},
                                 {"host", "127.0.0.1"},
                                 {"ports",
                                  {{{"pin", {{"universe", 63'999}, {"channel", 512}}},
                                    {"run", {{{"fixture", 1}, {"count", 100'000}}}}}}}}};
         return root.dump();
       }},
      {"deeplist.chispa",
       [] {
         return R"({"format":"chispa-show","later":)" + std::string(300'000, '[') +
                std::string(300'000, ']') + "}";
       }},
      {"deepobject.chispa",
       [] {
         return R"({"format":"chispa-show","later":)" + repeated("{\"a\":", 300'000) + "1" +
                std::string(300'000, '}') + "}";
       }},
      {"wide.chispa",
       [] { return R"({"format":"chispa-show","later":[)" + repeated("[],", 15'000'000) + "1]}"; }},
      {"widest.chispa",
       [] { return R"({"format":"chispa-show","later":[)" + repeated("0,", 30'000'000) + "1]}"; }},
      {"longname.chispa",
       [] { return R"({"format":"chispa-show","name":")" + std::string(50'000'000, 'x') + "\"}"; }},
      {"manykeys.chispa",
       [] {
         std::string text = R"({"format":"chispa-show")";
         for (int i = 0; i < 20'000; ++i) text += ",\"k" + std::to_string(i) + "\":1";
         return text + "}";
       }},
      {"nolists.chispa",
       [] {
         Json root = base();
         for (const char* key : {"fixtures", "zones", "scores", "palettes", "controllers"}) root[key] = 7;
         return root.dump();
       }},
      {"owneffects.chispa", [] { return show("own_effects", {7}).dump(); }},
      {"bigid.chispa",
       [] {
         Json root = show("fixtures", {fixture(1, line(5))});
         root["fixtures"][0]["id"] = 4'294'967'294u;
         root["next_id"] = 4'294'967'295u;
         return root.dump();
       }},
      {"negativeid.chispa",
       [] {
         Json root = show("fixtures", {fixture(1, line(5))});
         root["fixtures"][0]["id"] = -1;
         root["next_id"] = -5;
         return root.dump();
       }},
      {"notext.chispa",
       [] { return std::string(R"({"format":"chispa-show","name":")") + "\xff\xfe\xc0\x80" + "\"}"; }},
      {"nul.chispa", [] { return std::string("{\"format\":\"chispa-show\"\0}", 26); }},
      {"newer.chispa", [] { return std::string(R"({"format":"chispa-show","version":2000000000})"); }},
      {"version.chispa", [] { return std::string(R"({"format":"chispa-show","version":"new"})"); }},
      {"format.chispa", [] { return std::string(R"({"format":7})"); }},
      {"huge.chispa", [] { return std::string(R"({"format":"chispa-show","next_id":1e400})"); }},
      {"day.chispa",
       [] {
         return clipShow({{"effect", "storm"}}, 86'400'000'000).dump();
       }},
      {"beyondday.chispa",
       [] {
         return clipShow({{"effect", "storm"}}, 86'400'000'001).dump();
       }},
      {"extremeclip.chispa",
       [] {
         return clipShow({{"effect", "comets"},
                          {"speed", 20},
                          {"slip_us", -86'400'000'000},
                          {"params", {{"passes", 1e308}, {"heads", -1e308}}}})
             .dump();
       }},
      {"allbands.chispa",
       [] {
         return clipShow({{"effect", "swell"},
                          {"motions", {{"passes", {{"driver", "band"}, {"band", 2'000'000'000}}}}}})
             .dump();
       }},
      {"longtext.chispa",
       [] {
         return clipShow({{"effect", "lettering"}, {"params", {{"words", std::string(900'000, 'W')}}}})
             .dump();
       }},
      {"formula.chispa",
       [] {
         return clipShow({{"effect", "formula"}, {"params", {{"formula", std::string(50'000, '(')}}}}).dump();
       }},
      {"formulalong.chispa",
       [] {
         return clipShow({{"effect", "formula"},
                          {"params", {{"formula", "light = " + repeated("x+", 400'000) + "x"}}}})
             .dump();
       }},
      {"drawing.chispa",
       [] {
         return clipShow({{"effect", "drawing"}, {"params", {{"dots", std::string(900'000, '9')}}}}).dump();
       }},
      {"mediaelsewhere.chispa",
       [] {
         return clipShow({{"effect", "picture"}, {"params", {{"file", "/dev/zero"}}}}).dump();
       }},
      {"audioelsewhere.chispa",
       [] {
         Json root = clipShow({{"effect", "swell"}});
         root["scores"][0]["audio"] = "/dev/zero";
         return root.dump();
       }},
      {"blocks.chispa",
       [] {
         Json clips = Json::array(), stands = Json::array();
         for (int i = 1; i <= 5'000; ++i) {
           clips.push_back({{"id", i}, {"effect", "swell"}, {"length_us", 1'000'000}});
           stands.push_back({{"id", i}, {"block", 9}, {"length_us", 1'000'000}});
         }
         Json root = show("blocks", {{{"id", 9}, {"name", "B"}, {"clips", clips}}});
         root["scores"] = {{{"id", 10}, {"name", "S"}, {"length_us", 1'000'000}, {"clips", stands}}};
         return root.dump();
       }},
      {"selfblock.chispa",
       [] {
         return show(
                    "blocks",
                    {{{"id", 9}, {"name", "B"}, {"clips", {{{"id", 1}, {"block", 9}, {"length_us", 1000}}}}}})
             .dump();
       }},
      {"marks.chispa",
       [] {
         Json marks = Json::array();
         for (int i = 1; i < 300'000; ++i) marks.push_back({{"id", i}, {"at_us", 300'000 - i}});
         return show("scores",
                     {{{"id", 1},
                       {"name", "S"},
                       {"length_us", 1'000'000},
                       {"lanes", {{{"id", 2}, {"name", "L"}, {"kind", "beats"}, {"marks", marks}}}}}})
             .dump();
       }},
      {"stops.chispa",
       [] {
         Json stops = Json::array();
         for (int i = 0; i < 200'000; ++i) stops.push_back({{"at", 0.5}, {"colour", "#ffffff"}});
         return show("palettes", {{{"id", 1}, {"name", "P"}, {"stops", stops}}}).dump();
       }},
      {"corners.chispa",
       [] {
         Json corners = Json::array();
         for (int i = 0; i < 200'000; ++i) corners.push_back({0, 0, 0});
         return show(
                    "fixtures",
                    {fixture(
                        1, {{"kind", "path"}, {"count", 200'000}, {"smooth", true}, {"corners_m", corners}})})
             .dump();
       }},
      {"emptypath.chispa",
       [] {
         return show("fixtures", {fixture(1, {{"kind", "path"}, {"count", 200'000}})}).dump();
       }},
      {"spiral.chispa",
       [] {
         return show(
                    "fixtures",
                    {fixture(
                        1,
                        {{"kind", "spiral"}, {"count", 200'000}, {"turns", 1000}, {"end_radius_m", 10'000}})})
             .dump();
       }},
      {"holes.chispa",
       [] {
         Json shape = grid(400, 400);
         for (int i = 0; i < 400; ++i)
           for (int k = 0; k < 400; ++k) shape["holes"].push_back({i, k});
         return show("fixtures", {fixture(1, shape)}).dump();
       }},
      {"farhole.chispa",
       [] {
         Json shape = grid(4, 4);
         shape["holes"] = {{4'294'967'296, 0}, {-1, 2'000'000'000}};
         return show("fixtures", {fixture(1, shape)}).dump();
       }},
      {"rings.chispa",
       [] {
         return show("fixtures",
                     {fixture(1, {{"kind", "rings"}, {"counts", std::vector<int>(30'000, 200'000)}})})
             .dump();
       }},
      {"supplies.chispa",
       [] {
         Json root = show("fixtures", {fixture(1, line(10))});
         Json pins = Json::array();
         for (int i = 0; i < 20'000; ++i) pins.push_back({{"supply", 3}, {"pixel", 5}, {"wire_m", 1}});
         root["supplies"] = {{{"id", 3}, {"name", "S"}, {"volts", 5}}};
         root["controllers"] = {
             {{"id", 2},
              {"name", "C"},
              {"host", "127.0.0.1"},
              {"ports", {{{"run", {{{"fixture", 1}, {"count", 10}, {"injections", pins}}}}}}}}};
         return root.dump();
       }},
      {"empty.cpt", [] { return std::string(); }},
      {"blanks.gpl", [] { return "GIMP Palette\nName: " + std::string(300'000, ' ') + "\n"; }},
      {"nan.ggr",
       [] { return std::string("GIMP Gradient\nnan nan nan nan nan nan nan nan nan nan nan nan nan\n"); }},
      {"brackets.css", [] { return "linear-gradient(" + std::string(1'000'000, '('); }},
      {"commas.css", [] { return "linear-gradient(" + std::string(1'000'000, ','); }},
      {"deep.svg", [] { return repeated("<g>", 300'000) + repeated("</g>", 300'000); }},
      {"entity.svg",
       [] {
         return std::string(
             R"(<!DOCTYPE x [<!ENTITY a "aaaaaaaaaa"><!ENTITY b "&a;&a;&a;&a;&a;&a;&a;&a;">]><svg><linearGradient><stop offset="&b;"/></linearGradient></svg>)");
       }},
      {"lines.cpt", [] { return repeated("0 0 0 0 1 1 1 1\n", 200'000); }},
      {"binary.gpl", [] { return std::string(100'000, '\x80'); }},
      {"noise.ogg", [] { return "OggS" + std::string(300'000, '\x5a'); }},
      {"empty.wav", [] { return std::string(); }},
      {"lying.wav",
       [] {
         return std::string(
                    "RIFF\xff\xff\xff\xffWAVEfmt "
                    "\x10\0\0\0\x01\0\xff\xff\xff\xff\xff\xff\xff\xff\xff\xff\xff\xff\x20\0data\xff\xff\xff"
                    "\xff",
                    44) +
                std::string(1000, 'x');
       }},
      {"list.m3u8", [] { return std::string("#EXTM3U\n#EXTINF:1,\n/dev/zero\n#EXT-X-ENDLIST\n"); }},
      {"concat.flac", [] { return std::string("ffconcat version 1.0\nfile /dev/zero\n"); }},
      {"magic.chirec", [] { return std::string("CHISREC2"); }},
      {"size.chirec", [] { return std::string("CHISREC2\xff\xff\xff\x7f", 12); }},
      {"frame.chirec",
       [] {
         return std::string("CHISREC2\x0d\0\0\0\x28\xb5\x2f\xfd\xe0\xff\xff\xff\xff\xff\xff\xff\x7f", 25);
       }},
  };
  return all;
}

std::vector<std::string> namesOfHostileFiles() {
  std::vector<std::string> all;
  for (const auto& [name, make] : hostileFiles()) all.push_back(name);
  return all;
}

}  // namespace chispa::test
