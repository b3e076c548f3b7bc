// SPDX-License-Identifier: GPL-3.0-or-later
#include "engine/night/systemd.h"

#include <cstring>
#include <memory>
#include <utility>

#include <fcntl.h>
#include <systemd/sd-bus.h>
#include <systemd/sd-daemon.h>
#include <systemd/sd-id128.h>
#include <unistd.h>

#include "core/base/texthash.h"

namespace chispa::engine {

ServiceManager::ServiceManager() {
  std::uint64_t period_us = 0;
  if (::sd_watchdog_enabled(0, &period_us) > 0) watchdog_ = std::chrono::microseconds(period_us);
}

void ServiceManager::ready(const std::string& state) {
  ::sd_notify(0, ("READY=1\nSTATUS=" + state).c_str());
}

void ServiceManager::say(const std::string& state) {
  ::sd_notify(0, ("STATUS=" + state).c_str());
}

void ServiceManager::feed() {
  ::sd_notify(0, "WATCHDOG=1");
}

void ServiceManager::stopping() {
  ::sd_notify(0, "STOPPING=1");
}

Result<SleepGuard> SleepGuard::take(const std::string& why) {
  const auto failed = [](int error) {
    return Failure{sentence("The computer cannot be kept from going to sleep (%1).", std::strerror(-error)),
                   {},
                   "Switch its sleep off in the settings of the desktop."};
  };
  sd_bus* opened = nullptr;
  if (const int error = ::sd_bus_open_system(&opened); error < 0) return failed(error);
  const std::unique_ptr<sd_bus, decltype(&::sd_bus_flush_close_unref)> bus(opened,
                                                                           &::sd_bus_flush_close_unref);
  sd_bus_message* answer = nullptr;
  const int error = ::sd_bus_call_method(bus.get(), "org.freedesktop.login1", "/org/freedesktop/login1",
                                         "org.freedesktop.login1.Manager", "Inhibit", nullptr, &answer,
                                         "ssss", "sleep:idle", "Chispa", why.c_str(), "block");
  if (error < 0) return failed(error);
  int lock = -1;
  const int read = ::sd_bus_message_read(answer, "h", &lock);
  // The message owns what it brought.
  const int own = read < 0 ? -1 : ::fcntl(lock, F_DUPFD_CLOEXEC, 3);
  ::sd_bus_message_unref(answer);
  if (own < 0) return failed(read < 0 ? read : -errno);
  return SleepGuard(own);
}

SleepGuard::~SleepGuard() {
  if (lock_ >= 0) ::close(lock_);
}

link::Cid steadyCid(const std::string& show) {
  // Chispa's own; drawn once.
  constexpr sd_id128_t kApplication =
      SD_ID128_MAKE(7c, 1e, 52, 0b, 9a, 4f, 4d, 33, b6, 28, e5, 71, 0c, d4, 98, a2);
  sd_id128_t machine{};
  if (::sd_id128_get_machine_app_specific(kApplication, &machine) < 0) return link::randomCid();
  link::Cid cid;
  const std::uint64_t name = hashOfText(show);
  for (std::size_t i = 0; i < cid.size(); ++i)
    cid[i] = static_cast<std::uint8_t>(machine.bytes[i] ^ (name >> (i % 8 * 8)));
  // Version 8 of RFC 9562: made in a way of one's own.
  cid[6] = static_cast<std::uint8_t>((cid[6] & 0x0f) | 0x80);
  cid[8] = static_cast<std::uint8_t>((cid[8] & 0x3f) | 0x80);
  return cid;
}

namespace {

/// As systemd.syntax(7) and systemd.service(5) want words of a command line.
std::string quoted(const std::string& word) {
  std::string out = "\"";
  for (const char letter : word) {
    if (letter == '"' || letter == '\\') out += '\\';
    if (letter == '%') out += '%';
    if (letter == '$') out += '$';
    out += letter;
  }
  return out + "\"";
}

}  // namespace

std::string serviceUnit(const std::string& program, const std::string& show) {
  return "[Unit]\n"
         "Description=Chispa plays the almanac of a show\n"
         "After=sound.target network-online.target\n"
         "StartLimitIntervalSec=0\n"
         "\n"
         "[Service]\n"
         "Type=notify\n"
         "NotifyAccess=main\n"
         "ExecStart=" +
         quoted(program) + " run " + quoted(show) +
         " --almanac\n"
         "WatchdogSec=10\n"
         "Restart=always\n"
         "RestartSec=1\n"
         "TimeoutStopSec=10\n"
         "\n"
         "[Install]\n"
         "WantedBy=default.target\n";
}

}  // namespace chispa::engine
