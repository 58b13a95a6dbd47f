// window/hand_over.h
//
// What work beside the window hands over to the window's thread. All of it goes this one way: the lock puts in order
// what was done before with what is done after, also for a tool that watches threads and does not see into the
// toolkit's own queue (scripts/own-races).
#pragma once

#include <QObject>
#include <memory>
#include <mutex>
#include <utility>

namespace skarvel {

/// Calls `work` once in the thread of `to`, when that comes to it; never once `to` is gone.
template <class Work>
void hand_over(QObject* to, Work work) {
    static std::mutex lock;
    std::shared_ptr<Work> parcel;
    {
        const std::lock_guard held(lock);
        parcel = std::make_shared<Work>(std::move(work));
    }
    QMetaObject::invokeMethod(
        to,
        [parcel] {
            { const std::lock_guard held(lock); }
            (*parcel)();
        },
        Qt::QueuedConnection);
}

}  // namespace skarvel
