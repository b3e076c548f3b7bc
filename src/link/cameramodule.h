// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// What link/camera.cpp asks of the module that reads cameras (src/cameradevice). It stands apart because the
// library behind it is large: a program that opens no camera starts in half the time without it. One thread.

extern "C" {
/// Opens the camera with this number, from 0; null if it cannot be.
void* chispa_camera_open(int number);
/// Waits for the next picture: grey, `width` × `height` bytes, valid until the next call; null once the
/// camera has gone.
const unsigned char* chispa_camera_next(void* camera, int* width, int* height);
void chispa_camera_close(void* camera);
}
