// window/moments.h
//
// Moments of the core and of the toolkit: both are local times without a zone.
#pragma once

#include <QDateTime>

#include "text/reason.h"

namespace skarvel {

inline QDateTime to_qt(Moment m) {
    return QDateTime::fromSecsSinceEpoch(std::chrono::duration_cast<std::chrono::seconds>(m.time_since_epoch()).count(),
                                         Qt::UTC);
}
inline Moment from_qt(const QDateTime& t) {
    const QDateTime utc(t.date(), t.time(), Qt::UTC);
    return Moment(std::chrono::floor<Minutes>(std::chrono::seconds(utc.toSecsSinceEpoch())));
}

}  // namespace skarvel
