#include <anvil/tables/file.h>

#include <cerrno>
#include <cstring>
#include <fcntl.h>
#include <fmt/format.h>
#include <sys/stat.h>
#include <unistd.h>

namespace anvil::tables {
namespace {

struct Descriptor {
    int fd;
    ~Descriptor() {
        if (fd >= 0) ::close(fd);
    }
};

} // namespace

Expected<std::string> readFile(const std::string& path, long long most) {
    const Descriptor file{::open(path.c_str(), O_RDONLY | O_CLOEXEC | O_NONBLOCK | O_NOCTTY)}; // never waits
    if (file.fd < 0)
        return fail(errno == ENOENT || errno == ENOTDIR
                        ? std::string("there is no such file")
                        : fmt::format("it cannot be read ({})", std::strerror(errno)));
    struct stat info {};
    if (::fstat(file.fd, &info) != 0) return fail("it cannot be read");
    if (!S_ISREG(info.st_mode)) return fail("this is no file of data but a folder, device or pipe");
    const auto tooLarge = [&] {
        return fail(fmt::format("it is larger than {} MB: cut it into parts", most / 1'000'000));
    };
    if (info.st_size > most) return tooLarge();
    std::string bytes(static_cast<std::size_t>(info.st_size), '\0');
    for (std::size_t done = 0;;) { // it may grow or shrink meanwhile
        if (done == bytes.size()) bytes.resize(done + 4096);
        const auto n = ::read(file.fd, bytes.data() + done, bytes.size() - done);
        if (n < 0 && errno == EINTR) continue;
        if (n < 0) return fail(fmt::format("it cannot be read ({})", std::strerror(errno)));
        done += static_cast<std::size_t>(n);
        if (static_cast<long long>(done) > most) return tooLarge();
        if (n == 0) {
            bytes.resize(done);
            return bytes;
        }
    }
}

} // namespace anvil::tables
