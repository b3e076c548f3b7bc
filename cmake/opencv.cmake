# Debian's single development packages of OpenCV carry no CMake files; chispa::opencv has the modules that core/vision and link/camera use.
find_path(OPENCV_HEADERS opencv2/core.hpp PATH_SUFFIXES opencv4 REQUIRED)
add_library(chispa_opencv INTERFACE)
add_library(chispa::opencv ALIAS chispa_opencv)
target_include_directories(chispa_opencv SYSTEM INTERFACE ${OPENCV_HEADERS})
foreach(module core imgproc imgcodecs videoio calib3d)
  find_library(OPENCV_${module} opencv_${module} REQUIRED)
  target_link_libraries(chispa_opencv INTERFACE ${OPENCV_${module}})
endforeach()
