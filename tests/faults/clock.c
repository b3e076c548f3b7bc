// SPDX-License-Identifier: GPL-3.0-or-later
// A computer whose clock someone sets: loaded before a program, it adds the seconds that stand in the file
// CHISPA_CLOCK_FILE to the time of day. The steady clock is left alone.
#define _GNU_SOURCE
#include <dlfcn.h>
#include <stdio.h>
#include <stdlib.h>
#include <time.h>

static long shift_s(void) {
  const char* name = getenv("CHISPA_CLOCK_FILE");
  FILE* file = name ? fopen(name, "r") : NULL;
  long shift = 0;
  if (!file) return 0;
  if (fscanf(file, "%ld", &shift) != 1) shift = 0;
  fclose(file);
  return shift;
}

int clock_gettime(clockid_t clock, struct timespec* time) {
  static int (*real)(clockid_t, struct timespec*) = NULL;
  if (!real) real = (int (*)(clockid_t, struct timespec*))dlsym(RTLD_NEXT, "clock_gettime");
  const int status = real(clock, time);
  if (status == 0 && clock == CLOCK_REALTIME) time->tv_sec += shift_s();
  return status;
}
