// SPDX-License-Identifier: GPL-3.0-or-later
#include "phone/phoneserver.h"

#include <algorithm>
#include <charconv>
#include <cmath>

#include <httplib.h>
#include <nlohmann/json.hpp>
#include <sys/random.h>

#include "phone/boundedpool.h"
#include "phone/page.h"

namespace chispa::phone {
namespace {

using namespace std::chrono_literals;

constexpr std::size_t kMaxBody = 4'096;
/// The picture of the light as it is now.
constexpr std::string_view kLight = "light";
/// A phone may ask so often in the mean, and so often in one breath.
constexpr double kRequestsPerSecond = 60;
constexpr double kBurst = 120;
constexpr int kTriesPerMinute = 10;
constexpr auto kLostAfter = 3s;
constexpr auto kKeepAlive = 2s;
/// Threads that serve; each phone that looks takes one.
constexpr std::size_t kThreads = 2 * PhoneServer::kMaxPhones + 4;
/// Connections at once, with those that wait for a thread.
constexpr std::ptrdiff_t kMaxConnections = 64;
constexpr const char* kCookie = "chispa=";

/// 128 random bits in hexadecimal digits.
std::string randomToken() {
  std::array<unsigned char, 16> bytes{};
  std::size_t filled = 0;
  while (filled < bytes.size()) {
    const ssize_t count = ::getrandom(bytes.data() + filled, bytes.size() - filled, 0);
    if (count > 0) filled += static_cast<std::size_t>(count);
  }
  static constexpr char kDigits[] = "0123456789abcdef";
  std::string token;
  for (const unsigned char byte : bytes) {
    token += kDigits[byte >> 4];
    token += kDigits[byte & 15];
  }
  return token;
}

/// Takes the same time wherever they differ.
bool isEqual(const std::string& secret, const std::string& given) {
  unsigned char difference = secret.size() == given.size() ? 0 : 1;
  for (std::size_t i = 0; i < secret.size(); ++i) {
    const char other = i < given.size() ? given[i] : '\0';
    difference = static_cast<unsigned char>(difference | static_cast<unsigned char>(secret[i] ^ other));
  }
  return difference == 0;
}

std::string cookieOf(const httplib::Request& request) {
  const std::string cookies = request.get_header_value("Cookie");
  const auto at = cookies.find(kCookie);
  if (at == std::string::npos) return {};
  const auto from = at + std::string(kCookie).size();
  return cookies.substr(from, cookies.find(';', from) - from);
}

void refuse(httplib::Response& answer, int status, const char* why) {
  answer.status = status;
  answer.set_content(why, "text/plain");
}

}  // namespace

PhoneServer::PhoneServer(Options options, Host host)
    : options_(std::move(options)),
      host_(std::move(host)),
      videos_(options_.videoFolder),
      server_(std::make_unique<httplib::Server>()),
      pairingToken_(randomToken()) {
  server_->set_payload_max_length(VideoIntake::kMaxPart);
  server_->set_read_timeout(3s);
  server_->set_write_timeout(3s);
  server_->set_keep_alive_timeout(2);
  server_->new_task_queue = [] { return new BoundedPool(kThreads, kMaxConnections); };
  server_->set_default_headers(
      {{"Content-Security-Policy",
        "default-src 'none'; script-src 'self'; style-src 'self'; img-src 'self'; connect-src 'self'; "
        "base-uri 'none'; form-action 'none'; frame-ancestors 'none'"},
       {"X-Content-Type-Options", "nosniff"},
       {"Referrer-Policy", "no-referrer"},
       {"Cache-Control", "no-store"}});
  addRoutes();
}

Result<std::unique_ptr<PhoneServer>> PhoneServer::open(const Options& options, Host host) {
  std::unique_ptr<PhoneServer> server(new PhoneServer(options, std::move(host)));
  const bool isBound = options.port == 0
                           ? (server->port_ = server->server_->bind_to_any_port(options.address)) > 0
                           : server->server_->bind_to_port(options.address, server->port_ = options.port);
  if (!isBound)
    return Failure{sentence("The phone page cannot be served at %1, port %2.", options.address, options.port),
                   {},
                   "Choose another port, or an address of this computer."};
  server->thread_ = std::thread([own = server.get()] { own->server_->listen_after_bind(); });
  server->janitor_ = std::thread([own = server.get()] { own->letGoOfTheLost(); });
  return server;
}

PhoneServer::~PhoneServer() {
  stopping_ = true;
  changed_.notify_all();
  server_->stop();
  if (thread_.joinable()) thread_.join();
  if (janitor_.joinable()) janitor_.join();
}

std::string PhoneServer::pairingUrl() const {
  const std::scoped_lock lock(mutex_);
  return "http://" + options_.address + ":" + std::to_string(port_) + "/#" + pairingToken_;
}

void PhoneServer::forgetPhones() {
  {
    const std::scoped_lock lock(mutex_);
    for (Paired& phone : paired_)
      while (!phone.held.empty()) release(phone, phone.held.back());
    paired_.clear();
    pairingToken_ = randomToken();
    ++version_;
  }
  changed_.notify_all();
}

void PhoneServer::show(std::string state) {
  {
    const std::scoped_lock lock(mutex_);
    if (state == state_) return;
    state_ = std::move(state);
    ++version_;
  }
  changed_.notify_all();
}

void PhoneServer::setPicture(const std::string& name, std::string bytes, std::string type) {
  const std::scoped_lock lock(mutex_);
  pictures_[name] = {std::move(bytes), std::move(type)};
}

/// A page of another place must not reach this through the phone's browser: by a name that leads here, or by
/// a script of its own.
bool PhoneServer::isFromHere(const httplib::Request& request) const {
  const std::string host = options_.address + ":" + std::to_string(port_);
  if (request.get_header_value("Host") != host) return false;
  return !request.has_header("Origin") || request.get_header_value("Origin") == "http://" + host;
}

void PhoneServer::servePage() {
  const auto file = [this](const char* path, const std::string_view& words, const char* type) {
    server_->Get(path, [this, words, type](const httplib::Request& request, httplib::Response& answer) {
      if (!isFromHere(request)) return refuse(answer, 403, "not from here");
      answer.set_content(words.data(), words.size(), type);
    });
  };
  file("/", kPageHtml, "text/html; charset=utf-8");
  file("/page.css", kPageCss, "text/css; charset=utf-8");
  file("/icon.svg", kPageIcon, "image/svg+xml");
  file("/page.js", kPageScript, "text/javascript; charset=utf-8");
}

PhoneServer::Paired* PhoneServer::admitted(const httplib::Request& request, httplib::Response& answer) {
  if (!isFromHere(request)) {
    ++refused_;
    refuse(answer, 403, "not from here");
    return nullptr;
  }
  const std::string given = cookieOf(request);
  Paired* found = nullptr;
  for (Paired& phone : paired_)
    if (isEqual(phone.token, given)) found = &phone;
  if (!found) {
    ++refused_;
    refuse(answer, 401, "this phone is not paired");
    return nullptr;
  }
  const auto now = std::chrono::steady_clock::now();
  const double passed = std::chrono::duration<double>(now - found->refilled).count();
  found->left = std::min(kBurst, found->left + passed * kRequestsPerSecond);
  found->refilled = now;
  if (found->left < 1) {
    ++refused_;
    refuse(answer, 429, "too many requests");
    return nullptr;
  }
  found->left -= 1;
  found->heard = now;
  return found;
}

void PhoneServer::pair(const httplib::Request& request, httplib::Response& answer) {
  if (request.body.size() > kMaxBody) return refuse(answer, 413, "too long");
  const std::scoped_lock lock(mutex_);
  const auto now = std::chrono::steady_clock::now();
  if (now - triesSince_ > 1min) {
    triesSince_ = now;
    tries_ = kTriesPerMinute;
  }
  if (!isFromHere(request)) {
    ++refused_;
    return refuse(answer, 403, "not from here");
  }
  if (tries_ <= 0) return refuse(answer, 429, "too many tries");
  if (!isEqual(pairingToken_, request.body)) {
    --tries_;
    ++refused_;
    return refuse(answer, 401, "the code is another by now");
  }
  // The phone that was heard of longest ago makes room.
  if (paired_.size() >= kMaxPhones)
    paired_.erase(std::min_element(paired_.begin(), paired_.end(),
                                   [](const Paired& a, const Paired& b) { return a.heard < b.heard; }));
  paired_.push_back({randomToken(), kBurst, now, {}, now});
  answer.set_header("Set-Cookie",
                    kCookie + paired_.back().token + "; HttpOnly; SameSite=Strict; Path=/; Max-Age=2592000");
  answer.set_content("paired", "text/plain");
}

void PhoneServer::release(Paired& phone, std::uint32_t look) {
  std::erase(phone.held, look);
  host_.play({LiveEvent::Kind::Release, look, 0});
}

void PhoneServer::obey(const httplib::Request& request, httplib::Response& answer) {
  if (request.body.size() > kMaxBody) return refuse(answer, 413, "too long");
  const auto json = nlohmann::json::parse(request.body, nullptr, false);
  const std::scoped_lock lock(mutex_);
  Paired* phone = admitted(request, answer);
  if (!phone) return;
  if (!json.is_object() || !json.contains("do") || !json["do"].is_string())
    return refuse(answer, 400, "no command");
  const auto number = [&](const char* key) {
    const auto found = json.find(key);
    const double value = found != json.end() && found->is_number() ? found->get<double>() : 0;
    return std::isfinite(value) ? value : 0;
  };
  Command command{json["do"].get<std::string>(),
                  static_cast<std::uint32_t>(std::clamp(number("id"), 0.0, 4e9)),
                  number("value"),
                  {}};
  if (const auto words = json.find("words"); words != json.end() && words->is_string())
    command.words = words->get<std::string>();
  const auto level = static_cast<float>(std::clamp(command.value, 0.0, 1.0));
  if (command.what == "press") {
    if (phone->held.size() < 16) phone->held.push_back(command.id);
    host_.play({LiveEvent::Kind::Press, command.id, 1});
  } else if (command.what == "release") {
    release(*phone, command.id);
  } else if (command.what == "fader") {
    host_.play({LiveEvent::Kind::Fader, command.id, level});
  } else if (command.what == "zone") {
    host_.play({LiveEvent::Kind::ZoneLevel, command.id, level});
  } else if (command.what != "still") {
    host_.ask(command);
  }
  answer.set_content("{}", "application/json");
}

void PhoneServer::takeVideo(const httplib::Request& request, httplib::Response& answer) {
  std::string sender;
  {
    const std::scoped_lock lock(mutex_);
    const Paired* phone = admitted(request, answer);
    if (!phone) return;
    sender = phone->token;
  }
  const auto number = [&](const char* key) -> std::uint64_t {
    const std::string words = request.get_param_value(key);
    std::uint64_t value = 0;
    const auto read = std::from_chars(words.data(), words.data() + words.size(), value);
    return read.ec == std::errc() ? value : 0;
  };
  switch (
      videos_.take(sender, {number("at"), number("size"), request.get_param_value("ending")}, request.body)) {
    case VideoIntake::Taken::TooBig:
      return refuse(answer, 413, "a video may have up to 512 MB");
    case VideoIntake::Taken::NoRoom:
      return refuse(answer, 507, "the computer's disk has no room for it");
    case VideoIntake::Taken::Astray:
      return refuse(answer, 409, "another phone sends a video now; send it again");
    case VideoIntake::Taken::Whole:
      host_.video(videos_.file());
      break;
    case VideoIntake::Taken::More:
      break;
  }
  answer.set_content("{}", "application/json");
}

/// A phone that has gone while it held a pad lets it go.
void PhoneServer::letGoOfTheLost() {
  std::unique_lock lock(mutex_);
  while (!stopping_) {
    changed_.wait_for(lock, 250ms, [this] { return stopping_.load(); });
    const auto now = std::chrono::steady_clock::now();
    for (Paired& phone : paired_)
      while (!phone.held.empty() && now - phone.heard > kLostAfter) release(phone, phone.held.back());
  }
}

void PhoneServer::stream(const httplib::Request& request, httplib::Response& answer) {
  std::string token;
  {
    const std::scoped_lock lock(mutex_);
    const Paired* phone = admitted(request, answer);
    if (!phone) return;
    token = phone->token;
  }
  if (looking_ >= static_cast<int>(kMaxPhones)) return refuse(answer, 503, "enough phones look already");
  ++looking_;
  auto seen = std::make_shared<std::uint64_t>(0);
  answer.set_chunked_content_provider(
      "text/event-stream",
      [this, seen, token](std::size_t, httplib::DataSink& sink) {
        std::string words;
        {
          std::unique_lock lock(mutex_);
          changed_.wait_for(lock, kKeepAlive, [&] { return stopping_ || version_ != *seen; });
          const bool isPaired = std::any_of(paired_.begin(), paired_.end(),
                                            [&](const Paired& phone) { return phone.token == token; });
          if (stopping_ || !isPaired) return false;
          words = version_ == *seen ? ": still here\n\n" : "data: " + state_ + "\n\n";
          *seen = version_;
        }
        return sink.write(words.data(), words.size());
      },
      [this](bool) { --looking_; });
}

void PhoneServer::addRoutes() {
  servePage();
  server_->Post(
      "/pair", [this](const httplib::Request& request, httplib::Response& answer) { pair(request, answer); });
  server_->Post(
      "/do", [this](const httplib::Request& request, httplib::Response& answer) { obey(request, answer); });
  server_->Post("/video", [this](const httplib::Request& request, httplib::Response& answer) {
    takeVideo(request, answer);
  });
  server_->Get("/events", [this](const httplib::Request& request, httplib::Response& answer) {
    stream(request, answer);
  });
  server_->Get("/state", [this](const httplib::Request& request, httplib::Response& answer) {
    const std::scoped_lock lock(mutex_);
    if (admitted(request, answer)) answer.set_content(state_, "application/json");
  });
  const auto picture = [this](const httplib::Request& request, httplib::Response& answer) {
    const std::scoped_lock lock(mutex_);
    if (!admitted(request, answer)) return;
    const std::string name = request.path.substr(1);
    const auto found = pictures_.find(name);
    if (found == pictures_.end() && name == kLight) {
      // Its first one is still to be drawn; the page asks again.
      answer.status = 204;
      return;
    }
    if (found == pictures_.end()) return refuse(answer, 404, "no such picture");
    answer.set_content(found->second.bytes, found->second.type.c_str());
  };
  server_->Get("/light", picture);
  server_->Get(R"(/pad/(\d{1,10}))", picture);
}

}  // namespace chispa::phone
