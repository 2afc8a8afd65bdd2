// The parts of a zip archive in memory, read within bounds whatever the archive says of itself.
#pragma once

#include <anvil/quantity/error.h>
#include <memory>
#include <string>
#include <string_view>
#include <vector>

struct zip;

namespace anvil::tables {

class ZipParts {
public:
    /// Opens an archive that must outlive this. Error: it is none.
    static Expected<ZipParts> open(std::string_view bytes);

    bool has(const std::string& name) const;
    /// The names of all parts, folders with a / at their end; at most 100 000.
    std::vector<std::string> names() const;
    /// Unpacks a part. All that are read together are no larger than mostTextBytes. Error: not there, broken,
    /// locked, too large.
    Expected<std::string> read(const std::string& name);

private:
    struct Discard {
        void operator()(zip* archive) const;
    };
    explicit ZipParts(zip* archive) : m_archive(archive) {}
    std::unique_ptr<zip, Discard> m_archive;
    long long m_taken = 0;
};

} // namespace anvil::tables
