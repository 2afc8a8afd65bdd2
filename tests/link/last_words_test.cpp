// A program that crashes tells its rig to stop.
#include <anvil/link/last_words.h>

#include <csignal>
#include <gtest/gtest.h>
#include <string>
#include <sys/socket.h>
#include <sys/wait.h>
#include <unistd.h>

using namespace anvil;

namespace {

std::string allOf(int from) {
    std::string out;
    char bytes[256];
    for (ssize_t n = 0; (n = ::read(from, bytes, sizeof(bytes))) > 0;)
        out.append(bytes, static_cast<std::size_t>(n));
    return out;
}

/// What arrives at the rig, and what is said, when a program with this order dies of a signal.
std::pair<std::string, std::string> dying(int signal, const QByteArray& order) {
    int wire[2], said[2];
    EXPECT_EQ(::socketpair(AF_UNIX, SOCK_STREAM, 0, wire), 0);
    EXPECT_EQ(::pipe(said), 0);
    const auto child = ::fork();
    if (child == 0) {
        ::close(wire[1]);
        ::dup2(said[1], STDERR_FILENO);
        link::setLastWords(wire[0], order);
        link::installCrashHandler();
        ::raise(signal);
        ::_exit(0);
    }
    ::close(wire[0]);
    ::close(said[1]);
    auto heard = allOf(wire[1]);
    auto words = allOf(said[0]);
    int status = 0;
    ::waitpid(child, &status, 0);
    EXPECT_TRUE(WIFSIGNALED(status)) << "it dies as it would have";
    EXPECT_EQ(WTERMSIG(status), signal);
    ::close(wire[1]);
    ::close(said[0]);
    return {heard, words};
}

TEST(LastWords, AreSentWhenTheProgramCrashes) {
    for (const int signal : {SIGSEGV, SIGABRT, SIGFPE}) {
        const auto [heard, said] = dying(signal, "HALT");
        EXPECT_EQ(heard, "HALT\n") << signal;
        EXPECT_NE(said.find("may still be running"), std::string::npos) << said;
    }
    EXPECT_EQ(dying(SIGSEGV, "").first, "") << "a rig without such an order is told nothing";
}

} // namespace
