// Lets events run until something holds.
#pragma once

#include <QCoreApplication>
#include <QElapsedTimer>
#include <functional>

namespace anvil {

/// False when it does not within so many milliseconds.
inline bool runUntil(const std::function<bool()>& condition, int ms = 8000) {
    QElapsedTimer timer;
    timer.start();
    while (!condition()) {
        if (timer.elapsed() > ms) return false;
        QCoreApplication::processEvents(QEventLoop::AllEvents, 10);
    }
    return true;
}

} // namespace anvil
