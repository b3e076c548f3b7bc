// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/pngwriter.h"

#include <png.h>

namespace chispa {

std::string writePng(const std::filesystem::path& path, const PictureBytes& picture, PictureColours colours) {
  png_image image{};
  image.version = PNG_IMAGE_VERSION;
  image.width = static_cast<png_uint_32>(picture.width);
  image.height = static_cast<png_uint_32>(picture.height);
  image.format = colours == PictureColours::Grey ? PNG_FORMAT_GRAY : PNG_FORMAT_RGB;
  image.flags = PNG_IMAGE_FLAG_FAST;
  if (png_image_write_to_file(&image, path.c_str(), 0, picture.bytes.data(), 0, nullptr) != 0) return {};
  return image.message;
}

}  // namespace chispa
