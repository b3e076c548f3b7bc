// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <exception>
#include <memory>
#include <type_traits>
#include <utility>

#include <QCoreApplication>
#include <QDebug>
#include <QPointer>
#include <QThreadPool>

namespace chispa::desk {

/// Runs `work` on `pool` and hands what it gives to `done` on the window's thread, unless `receiver` has gone
/// by then. Whether it has is asked on that thread only, as it is taken down there; a continuation of a
/// QFuture asks on the worker, and posts to what may be freed at that moment. UI thread.
template <class Work, class Done>
void runThen(QThreadPool& pool, QObject* receiver, Work work, Done done) {
  pool.start(
      [receiver = QPointer<QObject>(receiver), work = std::move(work), done = std::move(done)]() mutable {
        std::shared_ptr<std::invoke_result_t<Work&>> result;
        try {
          result = std::make_shared<std::invoke_result_t<Work&>>(work());
        } catch (const std::exception& problem) {
          // Work tells of what fails in what it gives; this is memory that ran out, and must not end the
          // light.
          qCritical("Work in the background broke off: %s", problem.what());
          return;
        }
        QMetaObject::invokeMethod(
            QCoreApplication::instance(),
            [receiver, result, done = std::move(done)]() mutable {
              if (receiver) done(std::as_const(*result));
            },
            Qt::QueuedConnection);
      });
}

/// Lets go of `thing` on `pool`: what is large takes its time to free. Any thread.
template <class T>
void letGoOn(QThreadPool& pool, T thing) {
  pool.start([thing = std::move(thing)] {});
}

}  // namespace chispa::desk
