// window/waited.h
//
// Work that is waited for: done beside the window, which goes on painting and answering. What takes longer than a
// moment is told, and can be stopped where the work looks for that.
#pragma once

#include <QCoreApplication>
#include <QElapsedTimer>
#include <QProgressBar>
#include <QProgressDialog>
#include <atomic>
#include <functional>
#include <optional>
#include <semaphore>
#include <thread>

#include "text/reason.h"
#include "theme/words.h"
#include "values/stop.h"

namespace skarvel {

using ToldShare = std::function<void(double)>;  ///< how much of it is done, 0 to 1

/// Whatever the work throws becomes a refusal: nothing of it reaches the window.
template <class T>
Expected<T> waited(const QString& what,
                   const std::function<Expected<T>(const std::stop_token&, const ToldShare&)>& work) {
    std::atomic<double> done = 0;
    std::binary_semaphore ready(0);
    std::optional<Expected<T>> result;
    std::jthread worker([&](const std::stop_token& stop) {
        try {
            const WhileStoppable stoppable(stop);
            result = work(stop, [&](double share) { done = share; });
        } catch (const Stopped&) {
            result = refused({"work.stopped", {}});
        } catch (const std::exception& broken) {
            result = refused({"work.broke", {{"detail", std::string(broken.what())}}});
        }
        ready.release();
    });
    // Made only where it is shown: most work is over before.
    std::optional<QProgressDialog> progress;
    constexpr int told_after_ms = 400;
    QElapsedTimer since;
    since.start();
    while (!ready.try_acquire_for(std::chrono::milliseconds(2))) {
        if (!progress && since.hasExpired(told_after_ms)) {
            progress.emplace(what, in_words("word.stop"), 0, 0);
            progress->setWindowModality(Qt::ApplicationModal);
            // Where nothing is told of how much is done, it only shows that something is going on; of itself it would
            // then not come up.
            progress->show();
        }
        const bool told = progress && progress->isVisible();
        if (const int percent = static_cast<int>(done * 99); told && percent > 0) {
            progress->setRange(0, 100);
            progress->setValue(percent);
        } else if (told) {
            for (auto* bar : progress->findChildren<QProgressBar*>()) bar->update();  // goes there and back
        }
        // Until it is told, nothing else may be begun.
        QCoreApplication::processEvents(told ? QEventLoop::AllEvents : QEventLoop::ExcludeUserInputEvents, 30);
        if (progress && progress->wasCanceled()) worker.request_stop();
    }
    worker.join();
    if (progress) progress->reset();
    return std::move(*result);
}

}  // namespace skarvel
