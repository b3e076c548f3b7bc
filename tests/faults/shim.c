/* SPDX-License-Identifier: GPL-3.0-or-later
 *
 * Stands before the C library (LD_PRELOAD) and lets one call go wrong. CHISPA_FAULT is "what:n:how": the n-th call, from 1, of
 * write, fsync, rename, open or any of them that touches something below CHISPA_FAULT_FOLDER
 *   fail    fails as on a full disk (ENOSPC), and does nothing
 *   short   writes half of its bytes, and the next write fails
 *   kill    ends the process with signal 9 before it is done
 *   torn    does half of its work, a write half of its bytes, and then kill
 * For tests only. */
#define _GNU_SOURCE
#include <dlfcn.h>
#include <errno.h>
#include <fcntl.h>
#include <signal.h>
#include <stdarg.h>
#include <stdio.h>
#include <stdlib.h>
#include <string.h>
#include <unistd.h>

static int count;
static int failNext;

static const char* part(int index, char* room, size_t size) {
  const char* fault = getenv("CHISPA_FAULT");
  if (!fault) return NULL;
  for (; index > 0; --index) {
    fault = strchr(fault, ':');
    if (!fault) return NULL;
    ++fault;
  }
  snprintf(room, size, "%s", fault);
  char* end = strchr(room, ':');
  if (end) *end = 0;
  return room;
}

static int isOurs(const char* path) {
  const char* folder = getenv("CHISPA_FAULT_FOLDER");
  return folder && path && strncmp(path, folder, strlen(folder)) == 0;
}

static int isOurFile(int fd) {
  char link[64], path[4096];
  snprintf(link, sizeof link, "/proc/self/fd/%d", fd);
  const ssize_t length = readlink(link, path, sizeof path - 1);
  if (length <= 0) return 0;
  path[length] = 0;
  return isOurs(path);
}

/* What is to happen to this call of `what`: NULL, or how it goes wrong. */
static const char* faultOf(const char* what, char* room, size_t size) {
  char wanted[32], number[32];
  if (!part(0, wanted, sizeof wanted) || !part(1, number, sizeof number)) return NULL;
  if (strcmp(wanted, "any") != 0 && strcmp(wanted, what) != 0) return NULL;
  if (++count != atoi(number)) return NULL;
  return part(2, room, size);
}

static void die(void) {
  kill(getpid(), SIGKILL);
  for (;;) pause();
}

ssize_t write(int fd, const void* bytes, size_t size) {
  static ssize_t (*real)(int, const void*, size_t);
  if (!real) real = (ssize_t(*)(int, const void*, size_t))dlsym(RTLD_NEXT, "write");
  if (!isOurFile(fd)) return real(fd, bytes, size);
  if (failNext) {
    failNext = 0;
    errno = ENOSPC;
    return -1;
  }
  char how[16];
  const char* fault = faultOf("write", how, sizeof how);
  if (!fault) return real(fd, bytes, size);
  if (strcmp(fault, "kill") == 0) die();
  if (strcmp(fault, "torn") == 0) {
    if (real(fd, bytes, size / 2) < 0) abort();
    die();
  }
  if (strcmp(fault, "short") == 0) {
    failNext = 1;
    return real(fd, bytes, size / 2);
  }
  errno = ENOSPC;
  return -1;
}

#define SYNC(name)                                          \
  int name(int fd) {                                        \
    static int (*real)(int);                                \
    if (!real) real = (int (*)(int))dlsym(RTLD_NEXT, #name); \
    char how[16];                                           \
    const char* fault = isOurFile(fd) ? faultOf("fsync", how, sizeof how) : NULL; \
    if (!fault) return real(fd);                            \
    if (strcmp(fault, "kill") == 0 || strcmp(fault, "torn") == 0) die(); \
    errno = EIO;                                            \
    return -1;                                              \
  }
SYNC(fsync)
SYNC(fdatasync)

int rename(const char* from, const char* to) {
  static int (*real)(const char*, const char*);
  if (!real) real = (int (*)(const char*, const char*))dlsym(RTLD_NEXT, "rename");
  char how[16];
  const char* fault = isOurs(to) ? faultOf("rename", how, sizeof how) : NULL;
  if (!fault) return real(from, to);
  if (strcmp(fault, "torn") == 0) {
    if (real(from, to) != 0) abort();
    die();
  }
  if (strcmp(fault, "kill") == 0) die();
  errno = ENOSPC;
  return -1;
}

static int opened(const char* path, int flags, mode_t mode, const char* name) {
  int (*real)(const char*, int, ...) = (int (*)(const char*, int, ...))dlsym(RTLD_NEXT, name);
  char how[16];
  const char* fault = (flags & (O_WRONLY | O_RDWR)) && isOurs(path) ? faultOf("open", how, sizeof how) : NULL;
  if (!fault) return real(path, flags, mode);
  if (strcmp(fault, "torn") == 0) {
    if (real(path, flags, mode) < 0) abort();
    die();
  }
  if (strcmp(fault, "kill") == 0) die();
  errno = ENOSPC;
  return -1;
}

#define OPEN(name)                                  \
  int name(const char* path, int flags, ...) {      \
    va_list more;                                   \
    va_start(more, flags);                          \
    const mode_t mode = flags & O_CREAT ? va_arg(more, mode_t) : 0; \
    va_end(more);                                   \
    return opened(path, flags, mode, #name);        \
  }
OPEN(open)
OPEN(open64)

int mkostemps(char* path, int ending, int flags) {
  static int (*real)(char*, int, int);
  if (!real) real = (int (*)(char*, int, int))dlsym(RTLD_NEXT, "mkostemps");
  char how[16];
  const char* fault = isOurs(path) ? faultOf("open", how, sizeof how) : NULL;
  if (!fault) return real(path, ending, flags);
  if (strcmp(fault, "torn") == 0) {
    if (real(path, ending, flags) < 0) abort();
    die();
  }
  if (strcmp(fault, "kill") == 0) die();
  errno = ENOSPC;
  return -1;
}
