#include <anvil/link/last_words.h>

#include <algorithm>
#include <array>
#include <atomic>
#include <csignal>
#include <cstring>
#include <unistd.h>

namespace anvil::link {
namespace {

// Nothing but plain memory: a signal handler may neither allocate nor wait.
constexpr std::size_t longest = 256;
std::array<char, longest> words{};
std::atomic<std::size_t> length{0};
std::atomic<int> line{-1};

constexpr char sentence[] =
    "Jaunty Anvil has crashed. The rig may still be running: see that it has stopped.\n";

extern "C" void sayLastWords(int signal) {
    if (const int to = line.load(); to >= 0 && length.load() > 0) {
        (void)!::write(to, words.data(), length.load());
        (void)!::write(STDERR_FILENO, sentence, sizeof(sentence) - 1);
    }
    std::signal(signal, SIG_DFL);
    ::raise(signal);
}

} // namespace

void setLastWords(int handle, const QByteArray& said) {
    line = -1;
    const auto all = said + '\n';
    if (handle < 0 || said.isEmpty() || static_cast<std::size_t>(all.size()) > longest) return;
    std::copy(all.begin(), all.end(), words.begin());
    length = static_cast<std::size_t>(all.size());
    line = handle;
}

void installCrashHandler() {
    for (const int signal : {SIGSEGV, SIGBUS, SIGFPE, SIGILL, SIGABRT})
        std::signal(signal, sayLastWords);
}

} // namespace anvil::link
