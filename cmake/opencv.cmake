# Debian's single development packages of OpenCV carry no CMake files; chispa::opencv has the modules that core/vision uses, and
# chispa::opencv_video what src/cameradevice reads cameras with: that brings some hundred libraries along, which make a program's start
# twice as long.
find_path(OPENCV_HEADERS opencv2/core.hpp PATH_SUFFIXES opencv4 REQUIRED)
foreach(module core imgproc calib3d videoio)
  find_library(OPENCV_${module} opencv_${module} REQUIRED)
endforeach()
add_library(chispa_opencv INTERFACE)
add_library(chispa::opencv ALIAS chispa_opencv)
target_include_directories(chispa_opencv SYSTEM INTERFACE ${OPENCV_HEADERS})
target_link_libraries(chispa_opencv INTERFACE ${OPENCV_core} ${OPENCV_imgproc} ${OPENCV_calib3d})
add_library(chispa_opencv_video INTERFACE)
add_library(chispa::opencv_video ALIAS chispa_opencv_video)
target_include_directories(chispa_opencv_video SYSTEM INTERFACE ${OPENCV_HEADERS})
target_link_libraries(chispa_opencv_video INTERFACE ${OPENCV_core} ${OPENCV_imgproc} ${OPENCV_videoio})
