#include "documents.h"

#include <anvil/tables/file.h>
#include <anvil/tables/text.h>
#include <array>
#include <cerrno>
#include <csignal>
#include <fmt/format.h>
#include <freexl.h>
#include <memory>
#include <sys/mman.h>
#include <sys/resource.h>
#include <sys/wait.h>
#include <unistd.h>

namespace anvil::tables {

using namespace columns;

namespace {

constexpr rlim_t mostSeconds = 60;
/// Between the sheets of what the reader writes: no cell holds it.
constexpr char sheetMark = '\x1e', nameMark = '\x1f';

struct Closed {
    void operator()(const void* handle) const { freexl_close(handle); }
};

class Handle {
public:
    explicit Handle(int fd) : m_fd(fd) {}
    ~Handle() { reset(); }
    Handle(const Handle&) = delete;
    Handle& operator=(const Handle&) = delete;
    int get() const { return m_fd; }
    void reset() {
        if (m_fd >= 0) close(m_fd);
        m_fd = -1;
    }

private:
    int m_fd;
};

bool writeAll(int fd, std::string_view bytes) {
    while (!bytes.empty()) {
        const auto n = write(fd, bytes.data(), bytes.size());
        if (n < 0 && errno == EINTR) continue;
        if (n <= 0) return false;
        bytes.remove_prefix(static_cast<std::size_t>(n));
    }
    return true;
}

std::string readAll(int fd) {
    std::string out;
    std::array<char, 65536> chunk{};
    for (;;) {
        const auto n = read(fd, chunk.data(), chunk.size());
        if (n < 0 && errno == EINTR) continue;
        if (n <= 0 || out.size() > 2 * static_cast<std::size_t>(mostTextBytes)) return out;
        out.append(chunk.data(), static_cast<std::size_t>(n));
    }
}

/// All sheets of an open workbook, in one text; a sentence with a leading nameMark where it cannot be read.
std::string sheetsOf(const std::string& path) {
    const auto wrong = [](const char* words) { return nameMark + std::string(words); };
    const void* raw = nullptr;
    const int opened = freexl_open(path.c_str(), &raw);
    const std::unique_ptr<const void, Closed> book(raw);
    if (opened == FREEXL_BIFF_WORKBOOK_NOT_FOUND) return wrong("this is an office file, but no workbook");
    if (opened != FREEXL_OK) return wrong("this Excel workbook (xls) is broken: save it again as CSV");
    unsigned int locked = 0, sheets = 0;
    if (freexl_get_info(raw, FREEXL_BIFF_PASSWORD, &locked) == FREEXL_OK && locked == FREEXL_BIFF_OBFUSCATED)
        return wrong("this Excel workbook is locked with a password: save it without one");
    freexl_get_info(raw, FREEXL_BIFF_SHEET_COUNT, &sheets);
    std::string out;
    for (unsigned int k = 0; k < sheets; ++k) {
        const char* name = nullptr;
        unsigned int rows = 0;
        unsigned short columns = 0;
        if (freexl_get_worksheet_name(raw, static_cast<unsigned short>(k), &name) != FREEXL_OK ||
            freexl_select_active_worksheet(raw, static_cast<unsigned short>(k)) != FREEXL_OK ||
            freexl_worksheet_dimensions(raw, &rows, &columns) != FREEXL_OK)
            return wrong("a sheet of this Excel workbook (xls) is broken: save it again as CSV");
        Cells cells;
        for (unsigned int r = 0; r < rows; ++r)
            for (unsigned short c = 0; c < columns; ++c) {
                FreeXL_CellValue v{};
                if (freexl_get_cell_value(raw, r, c, &v) != FREEXL_OK) continue;
                if (v.type == FREEXL_CELL_INT)
                    cells.set(r, c, static_cast<double>(v.value.int_value));
                else if (v.type == FREEXL_CELL_DOUBLE)
                    cells.set(r, c, v.value.double_value);
                else if (v.type != FREEXL_CELL_NULL && v.value.text_value)
                    cells.set(r, c, std::string(v.value.text_value));
            }
        if (cells.tooLarge())
            return wrong("a sheet of this Excel workbook is larger than any table of results");
        out +=
            sheetMark + (name ? std::string(name) : fmt::format("sheet {}", k + 1)) + nameMark + cells.text();
    }
    return out;
}

} // namespace

Expected<Document> readXls(std::string_view bytes) {
    // The library opens files by their path only, and falls over some broken ones: it works on a file in
    // memory, in a process of its own.
    const Handle file(memfd_create("workbook", 0));
    std::array<int, 2> ends{};
    if (file.get() < 0 || !writeAll(file.get(), bytes) || pipe(ends.data()) != 0)
        return fail("there is no memory left to open it in");
    Handle from(ends[0]), to(ends[1]);
    const pid_t child = fork();
    if (child < 0) return fail("there is no memory left to open it in");
    if (child == 0) {
        for (const int s : {SIGSEGV, SIGABRT, SIGBUS, SIGFPE, SIGILL})
            signal(s, SIG_DFL); // it ends quietly, whoever else listens
        const rlimit none{0, 0}, time{mostSeconds, mostSeconds};
        setrlimit(RLIMIT_CORE, &none);
        setrlimit(RLIMIT_CPU, &time);
        const auto text = sheetsOf(fmt::format("/proc/self/fd/{}", file.get()));
        _exit(writeAll(to.get(), text) ? 0 : 1);
    }
    to.reset();
    const auto text = readAll(from.get());
    from.reset(); // whoever still writes is done
    int status = 0;
    while (waitpid(child, &status, 0) < 0 && errno == EINTR) {
    }
    if (!WIFEXITED(status) || WEXITSTATUS(status) != 0)
        return fail("this Excel workbook (xls) is broken: save it again as CSV");
    if (text.starts_with(nameMark)) return fail(text.substr(1));
    Document doc{"Excel workbook (xls)", {}};
    for (std::size_t at = 0; at < text.size();) {
        const auto end = std::min(text.find(sheetMark, at + 1), text.size());
        const auto name = text.find(nameMark, at);
        if (name == std::string::npos || name > end) break;
        doc.sheets.push_back({text.substr(at + 1, name - at - 1), text.substr(name + 1, end - name - 1)});
        at = end;
    }
    return doc;
}

} // namespace anvil::tables
