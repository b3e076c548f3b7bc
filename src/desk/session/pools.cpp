// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/session/pools.h"

namespace chispa::desk::pools {
namespace {

QThreadPool& made(int threads) {
  auto* pool = new QThreadPool;
  pool->setMaxThreadCount(threads);
  return *pool;
}

}  // namespace

QThreadPool& compiling() {
  static QThreadPool& pool = made(1);
  return pool;
}

QThreadPool& media() {
  static QThreadPool& pool = made(2);
  return pool;
}

QThreadPool& network() {
  static QThreadPool& pool = made(8);
  return pool;
}

QThreadPool& exporting() {
  static QThreadPool& pool = made(1);
  return pool;
}

// As many as may hang on a disk that does not answer, and one more.
QThreadPool& files() {
  static QThreadPool& pool = made(4);
  return pool;
}

QThreadPool& drawing() {
  static QThreadPool& pool = made(2);
  return pool;
}

bool areBusy() {
  for (QThreadPool* pool : {&compiling(), &media(), &network(), &exporting(), &files(), &drawing()})
    if (pool->activeThreadCount() > 0) return true;
  return false;
}

}  // namespace chispa::desk::pools
