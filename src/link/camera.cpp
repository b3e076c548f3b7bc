// SPDX-License-Identifier: GPL-3.0-or-later
#include "link/camera.h"

#include <chrono>
#include <filesystem>
#include <optional>
#include <string>

#include <dlfcn.h>

#include "link/cameramodule.h"

namespace chispa::link {
namespace {

constexpr const char* kModule = "libchispa-camera.so";

/// The functions of the module; it stays loaded.
struct Module {
  decltype(&chispa_camera_open) open = nullptr;
  decltype(&chispa_camera_next) next = nullptr;
  decltype(&chispa_camera_close) close = nullptr;
  /// Why there is none; empty if there is.
  std::string trouble;
};

/// Beside the program where it was built, below lib/ where it is installed.
std::filesystem::path modulePath() {
  std::error_code error;
  const auto programs = std::filesystem::read_symlink("/proc/self/exe", error).parent_path();
  const auto built = programs / kModule;
  return std::filesystem::exists(built, error) ? built : programs.parent_path() / "lib" / "chispa" / kModule;
}

Module loadModule() {
  Module module;
  void* library = ::dlopen(modulePath().c_str(), RTLD_NOW | RTLD_LOCAL);
  const auto find = [&](auto& function, const char* name) {
    if (library) function = reinterpret_cast<std::decay_t<decltype(function)>>(::dlsym(library, name));
    if (!function && module.trouble.empty()) module.trouble = ::dlerror();
  };
  find(module.open, "chispa_camera_open");
  find(module.next, "chispa_camera_next");
  find(module.close, "chispa_camera_close");
  return module;
}

const Module& loadedModule() {
  static const Module module = loadModule();
  return module;
}

class Camera final : public vision::FrameSource {
 public:
  Camera(const Module& module, void* device) : module_(module), device_(device) {}
  ~Camera() override { module_.close(device_); }
  Camera(const Camera&) = delete;
  Camera& operator=(const Camera&) = delete;

  std::optional<vision::Frame> next() override {
    vision::Picture picture;
    const unsigned char* light = module_.next(device_, &picture.width, &picture.height);
    if (!light) return std::nullopt;
    picture.light.assign(light, light + static_cast<std::ptrdiff_t>(picture.width) * picture.height);
    const auto now = std::chrono::steady_clock::now().time_since_epoch();
    return vision::Frame{std::move(picture), std::chrono::duration<double>(now).count()};
  }
  bool isLive() const override { return true; }

 private:
  const Module& module_;
  void* device_;
};

}  // namespace

Result<std::unique_ptr<vision::FrameSource>> openCamera(int number) {
  const Module& module = loadedModule();
  if (!module.trouble.empty())
    return Failure{sentence("the part of Chispa that reads cameras is missing: %1", module.trouble),
                   modulePath().string(), "install Chispa anew, with all its files"};
  void* device = module.open(number);
  if (!device)
    return Failure{sentence("camera %1 cannot be opened", number),
                   {},
                   "plug it in, close other programs that use it, or choose another number"};
  return std::unique_ptr<vision::FrameSource>(std::make_unique<Camera>(module, device));
}

}  // namespace chispa::link
