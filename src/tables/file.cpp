#include <anvil/tables/file.h>

#include <array>
#include <cerrno>
#include <cstring>
#include <fcntl.h>
#include <fmt/format.h>
#include <random>
#include <sys/stat.h>
#include <unistd.h>
#include <utility>

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

namespace {

/// The head of a project file: an SQLite file with this program's number in it (docs/file-format.md).
bool isProject(const std::string& path) {
    const Descriptor file{::open(path.c_str(), O_RDONLY | O_CLOEXEC | O_NOFOLLOW | O_NONBLOCK)};
    std::array<char, 72> head{};
    if (file.fd < 0 || ::read(file.fd, head.data(), head.size()) != static_cast<ssize_t>(head.size()))
        return false;
    constexpr std::string_view sqlite = "SQLite format 3", own = "JAnv";
    return std::string_view(head.data(), sqlite.size()) == sqlite &&
           std::string_view(head.data() + 68, own.size()) == own;
}

/// A file of a name of its own beside its place; taken away unless it was put there.
struct Part {
    std::string path;
    int fd = -1;
    explicit Part(const std::string& target) {
        std::random_device random;
        for (int tries = 0; fd < 0 && tries < 20; ++tries) {
            path = fmt::format("{}.{:08x}.part", target, random());
            fd = ::open(path.c_str(), O_WRONLY | O_CREAT | O_EXCL | O_NOFOLLOW | O_CLOEXEC, 0666);
            if (fd < 0 && errno != EEXIST) break;
        }
        if (fd < 0) path.clear(); // nobody's, or another's
    }
    ~Part() {
        if (fd >= 0) ::close(fd);
        if (!path.empty()) ::unlink(path.c_str());
    }
    Part(const Part&) = delete;
    Part& operator=(const Part&) = delete;
    bool write(std::string_view bytes) const {
        while (!bytes.empty()) {
            const auto n = ::write(fd, bytes.data(), bytes.size());
            if (n < 0 && errno == EINTR) continue;
            if (n <= 0) return false;
            bytes.remove_prefix(static_cast<std::size_t>(n));
        }
        return ::fsync(fd) == 0;
    }
    bool close() { return ::close(std::exchange(fd, -1)) == 0; }
    bool putAt(const std::string& target) {
        if (::rename(path.c_str(), target.c_str()) != 0) return false;
        path.clear();
        return true;
    }
};

} // namespace

std::string whyNotThere(const std::string& path) {
    if (path.empty()) return "A file needs a name.";
    struct stat info {};
    if (::lstat(path.c_str(), &info) != 0) return {};
    if (S_ISLNK(info.st_mode)) return fmt::format("{} is a link: name the file that is meant.", path);
    if (S_ISDIR(info.st_mode)) return fmt::format("{} is a folder: name a file in it.", path);
    if (!S_ISREG(info.st_mode))
        return fmt::format("{} is a device or a pipe: nothing is written there.", path);
    if (isProject(path)) return fmt::format("{} is a project: it is not written over.", path);
    return {};
}

Expected<void> writeFile(const std::string& path, std::string_view bytes) {
    if (auto why = whyNotThere(path); !why.empty()) return fail(std::move(why));
    struct stat info {};
    const bool there = ::lstat(path.c_str(), &info) == 0;
    if (there && ::access(path.c_str(), W_OK) != 0)
        return fail(fmt::format("{} cannot be written: it is protected.", path));
    Part part(path);
    if (part.fd >= 0 && there) ::fchmod(part.fd, info.st_mode & 0777); // as it was
    const auto cannot = [&] {
        return fail(fmt::format("{} cannot be written: {}.", path, std::strerror(errno)));
    };
    if (part.fd < 0 || !part.write(bytes) || !part.close() || !part.putAt(path)) return cannot();
    return {};
}

} // namespace anvil::tables
