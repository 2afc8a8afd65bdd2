// What is sent to a rig when the program dies: a motor that pulls goes on pulling otherwise.
#pragma once

#include <QByteArray>

namespace anvil::link {

/// Remembers the order that stops the rig and the open line it goes over, for a program that crashes. −1 or
/// an empty line: there is none. One rig at a time. May be called from any thread.
void setLastWords(int handle, const QByteArray& line);

/// From now on a program that crashes sends its last words and says on the standard error output that the rig
/// may still be running; then it dies as it would have. Safe in a signal handler.
void installCrashHandler();

} // namespace anvil::link
