// SPDX-License-Identifier: GPL-3.0-or-later
// The phone page: what strangers are told, and a real browser that pairs, plays a pad, pulls a fader and
// answers a finder to its end.
#include <fstream>

#include <QProcess>
#include <QStandardPaths>
#include <httplib.h>
#include <netinet/in.h>
#include <sys/resource.h>

#include "core/media/videowriter.h"
#include "desk/bench/benchpage.h"
#include "desk/frame/phonehost.h"
#include "desk/window.h"

namespace chispa::desk {
namespace {

using phone::VideoIntake;

class PhoneTest : public WindowTest {
 protected:
  PhoneTest() {
    EXPECT_TRUE(window_.openFile(QStringLiteral(CHISPA_SOURCE_DIR "/demo/carousel.chispa")));
    settle();
    const QString trouble = window_.phones().switchOn(QStringLiteral("127.0.0.1"), 0);
    EXPECT_TRUE(trouble.isEmpty()) << trouble.toStdString();
    url_ = window_.phones().server()->pairingUrl();
    host_ = "127.0.0.1:" + std::to_string(window_.phones().server()->port());
    token_ = url_.substr(url_.find('#') + 1);
  }
  httplib::Client client() const { return httplib::Client("http://" + host_); }
  /// The cookie of a phone that is paired now.
  std::string paired() {
    auto http = client();
    const auto answer = http.Post("/pair", token_, "text/plain");
    EXPECT_TRUE(answer && answer->status == 200);
    const std::string cookie = answer ? answer->get_header_value("Set-Cookie") : std::string();
    return cookie.substr(0, cookie.find(';'));
  }
  int ask(const std::string& cookie, const std::string& body) {
    auto http = client();
    const auto answer = http.Post("/do", {{"Cookie", cookie}}, body, "application/json");
    return answer ? answer->status : -1;
  }

  std::string url_;
  std::string host_;
  std::string token_;
};

TEST_F(PhoneTest, StrangersAreRefusedAndToldNothing) {
  auto http = client();
  EXPECT_EQ(http.Get("/state")->status, 401);
  EXPECT_EQ(http.Get("/events")->status, 401);
  EXPECT_EQ(http.Get("/light")->status, 401);
  EXPECT_EQ(http.Post("/do", R"({"do":"light","value":1})", "application/json")->status, 401);
  EXPECT_EQ(http.Get("/../demo/carousel.chispa")->status, 404);
  const auto page = http.Get("/");
  EXPECT_EQ(page->status, 200);
  EXPECT_EQ(page->body.find(token_), std::string::npos);
  EXPECT_NE(page->get_header_value("Content-Security-Policy").find("default-src 'none'"), std::string::npos);
  EXPECT_FALSE(stage_.isLit());
  // A name that leads here, and a script of another page.
  EXPECT_EQ(http.Get("/", {{"Host", "evil.example"}})->status, 403);
  EXPECT_EQ(http.Post("/pair", {{"Origin", "http://evil.example"}}, token_, "text/plain")->status, 403);
  // Guessing is slow.
  int last = 0;
  for (int i = 0; i < 20; ++i) last = http.Post("/pair", std::string(32, '0'), "text/plain")->status;
  EXPECT_EQ(last, 429);
}

/// The page asks for the light as soon as it is paired, and its first picture may still have to be drawn:
/// that is no error, and the page asks again.
TEST_F(PhoneTest, BeforeTheFirstPictureOfTheLightThereIsSimplyNone) {
  auto http = client();
  const std::string cookie = paired();
  EXPECT_EQ(http.Get("/light", {{"Cookie", cookie}})->status, 204);
  EXPECT_EQ(http.Get("/pad/4000000000", {{"Cookie", cookie}})->status, 404);
}

TEST_F(PhoneTest, AVanishedPhoneLetsItsPadGo) {
  const std::string cookie = paired();
  const LookId sparkle = findNamed(show().looks, "Sparkle on all")->id;
  EXPECT_EQ(ask(cookie, R"({"do":"press","id":)" + std::to_string(sparkle.value) + "}"), 200);
  EXPECT_TRUE(eventually([&] { return stage_.live().state.isLit(sparkle); }));
  // Nothing is heard of it any more.
  EXPECT_TRUE(eventually([&] { return !stage_.live().state.isLit(sparkle); }));
}

TEST_F(PhoneTest, ForgottenPhonesAreStrangers) {
  const std::string cookie = paired();
  EXPECT_EQ(ask(cookie, R"({"do":"still"})"), 200);
  window_.phones().server()->forgetPhones();
  EXPECT_EQ(ask(cookie, R"({"do":"still"})"), 401);
  auto http = client();
  EXPECT_EQ(http.Post("/pair", token_, "text/plain")->status, 401) << "the old code is another by now";
}

/// Nonsense, too much of it, and too often: refused, and the light goes on.
TEST_F(PhoneTest, NonsenseAndFloodsAreRefused) {
  const std::string cookie = paired();
  for (const char* body : {"", "{", "[]", R"({"do":7})", R"({"do":"zone","id":-4,"value":1e400})"})
    EXPECT_NE(ask(cookie, body), 500) << body;
  EXPECT_EQ(ask(cookie, std::string(100'000, 'x')), 413);
  int refused = 0;
  for (int i = 0; i < 400; ++i) refused += ask(cookie, R"({"do":"still"})") == 429;
  EXPECT_GT(refused, 0);
}

/// A video comes part by part, and opens in Positions by camera; strangers, parts that are astray and videos
/// beyond all measure are refused.
TEST_F(PhoneTest, AVideoOfThePhoneOpensAtTheCamera) {
  window_.benchPage().choosePort({show().controllers[0]->id, 0});
  const std::string cookie = paired();
  std::string film;
  {
    const auto path = folder_.path() / "film.mp4";
    auto writer = FilmWriter::open(path, {160, 120, 30});
    ASSERT_TRUE(writer);
    std::vector<std::uint8_t> dots(160 * 120 * 4, 90);
    for (int i = 0; i < 30; ++i) ASSERT_TRUE((*writer)->add(dots.data()));
    ASSERT_TRUE((*writer)->finish());
    std::ifstream in(path, std::ios::binary);
    film.assign(std::istreambuf_iterator<char>(in), {});
  }
  ASSERT_GT(film.size(), 200u);
  const auto send = [&](const std::string& who, std::size_t at, std::size_t size, const std::string& bytes) {
    auto http = client();
    const auto answer =
        http.Post("/video?at=" + std::to_string(at) + "&size=" + std::to_string(size) + "&ending=../mp4",
                  {{"Cookie", who}}, bytes, "application/octet-stream");
    return answer ? answer->status : -1;
  };
  EXPECT_EQ(send("chispa=0", 0, film.size(), film), 401);
  EXPECT_EQ(send(cookie, 0, VideoIntake::kMax + 1, "x"), 413);
  EXPECT_EQ(send(cookie, 100, film.size(), film.substr(100)), 409) << "it did not begin";
  EXPECT_EQ(send(cookie, 0, film.size(), film.substr(0, 100)), 200);
  EXPECT_EQ(send(cookie, 100, film.size(), film.substr(100) + "x"), 409) << "more than was said";
  const std::string other = paired();
  EXPECT_EQ(send(other, 100, film.size(), film.substr(100)), 409) << "it is another's";
  EXPECT_EQ(send(cookie, 100, film.size(), film.substr(100)), 200);
  EXPECT_TRUE(eventually([&] {
    auto* field = window_.findChild<QLineEdit*>(QStringLiteral("cameraPath"));
    return field && field->text().endsWith(QStringLiteral("phone-1.mp4")) && field->isVisible();
  }));
  EXPECT_TRUE(told_.isEmpty()) << told_.join(QLatin1Char(';')).toStdString();
}

/// Sockets, files and pipes that this process has open.
std::size_t openFiles() {
  return static_cast<std::size_t>(std::distance(std::filesystem::directory_iterator("/proc/self/fd"), {}));
}

/// Ten thousand connections that say nothing: a few are taken, the rest are left to the system, so that files
/// can still be opened; once they are gone, the phone is served again.
TEST_F(PhoneTest, AFloodOfConnectionsTakesNoFiles) {
  const std::string cookie = paired();
  rlimit before{};
  ASSERT_EQ(::getrlimit(RLIMIT_NOFILE, &before), 0);
  rlimit more{std::min<rlim_t>(before.rlim_max, 24'000), before.rlim_max};
  ASSERT_EQ(::setrlimit(RLIMIT_NOFILE, &more), 0);
  const std::size_t own = openFiles();
  std::vector<int> flood(std::min<std::size_t>(10'000, more.rlim_cur - own - 500));
  sockaddr_in page{};
  page.sin_family = AF_INET;
  page.sin_port = htons(static_cast<std::uint16_t>(window_.phones().server()->port()));
  page.sin_addr.s_addr = htonl(INADDR_LOOPBACK);
  for (int& one : flood) {
    one = ::socket(AF_INET, SOCK_STREAM | SOCK_NONBLOCK | SOCK_CLOEXEC, 0);
    ASSERT_GE(one, 0);
    EXPECT_TRUE(::connect(one, reinterpret_cast<const sockaddr*>(&page), sizeof page) == 0 ||
                errno == EINPROGRESS);
  }
  // What it would take it takes at once.
  EXPECT_FALSE(QTest::qWaitFor([&] { return openFiles() > own + flood.size() + 80; }, 500)) << openFiles();
  EXPECT_TRUE(document_.saveAs(folder_.path() / "flood.chispa")) << "files can be written";
  for (const int one : flood) ::close(one);
  EXPECT_TRUE(eventually([&] { return ask(cookie, R"({"do":"still"})") == 200; }));
  EXPECT_EQ(::setrlimit(RLIMIT_NOFILE, &before), 0);
}

TEST_F(PhoneTest, ARealBrowserPairsPlaysFadesAndFindsAnOrder) {
  if (QStandardPaths::findExecutable(QStringLiteral("chromedriver")).isEmpty())
    GTEST_SKIP() << "chromium-driver is not installed";
  window_.benchPage().choosePort({show().controllers[0]->id, 0});
  stage_.switchLight(true);
  QProcess browser;
  browser.setProcessChannelMode(QProcess::MergedChannels);
  QByteArray pictures = qgetenv("CHISPA_PHONE_PICTURES");
  if (pictures.isEmpty()) pictures = QByteArray::fromStdString(folder_.path().string());
  // Debian's own, which has its packages.
  browser.start(QStringLiteral("/usr/bin/python3"),
                {QStringLiteral(CHISPA_SOURCE_DIR "/tests/browser/phone.py"), QString::fromStdString(url_),
                 QString::fromUtf8(pictures), QStringLiteral("BRG")});
  ASSERT_TRUE(eventually([&] { return browser.state() == QProcess::NotRunning; }));
  EXPECT_EQ(browser.exitCode(), 0) << browser.readAll().toStdString();
  EXPECT_TRUE(stage_.live().state.isLit(findNamed(show().looks, "Quiet rim")->id));
  EXPECT_NEAR(stage_.live().state.zoneLevel(findNamed(show().zones, "Canopy rim")->id, stage_.live().now.t),
              0.4, 0.001);
  EXPECT_EQ(show().controllers[0]->ports[0].settings.order, std::optional<std::string>("BRG"))
      << "what the finder found is in the show";
}

}  // namespace
}  // namespace chispa::desk
