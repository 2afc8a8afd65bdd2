#include <anvil/tables/zip_parts.h>

#include <algorithm>
#include <anvil/tables/file.h>
#include <anvil/tables/text.h>
#include <fmt/format.h>
#include <zip.h>

namespace anvil::tables {

using namespace columns;

namespace {

struct Closed {
    void operator()(zip_file_t* f) const { zip_fclose(f); }
};

} // namespace

void ZipParts::Discard::operator()(zip* archive) const { zip_discard(archive); }

Expected<ZipParts> ZipParts::open(std::string_view bytes) {
    zip_error_t error;
    zip_error_init(&error);
    zip_source_t* source = zip_source_buffer_create(bytes.data(), bytes.size(), 0, &error);
    zip_t* archive = source ? zip_open_from_source(source, ZIP_RDONLY, &error) : nullptr;
    zip_error_fini(&error);
    if (archive) return ZipParts(archive);
    if (source) zip_source_free(source);
    return fail("it is a packed file that is broken: save it again");
}

bool ZipParts::has(const std::string& name) const {
    return zip_name_locate(m_archive.get(), name.c_str(), ZIP_FL_NOCASE) >= 0;
}

std::vector<std::string> ZipParts::names() const {
    std::vector<std::string> out;
    const auto count = std::min<zip_int64_t>(zip_get_num_entries(m_archive.get(), 0), 100'000);
    for (zip_int64_t i = 0; i < count; ++i)
        if (const char* name = zip_get_name(m_archive.get(), static_cast<zip_uint64_t>(i), 0))
            out.emplace_back(name);
    return out;
}

Expected<std::string> ZipParts::read(const std::string& name) {
    const auto at = zip_name_locate(m_archive.get(), name.c_str(), ZIP_FL_NOCASE);
    if (at < 0) return fail(fmt::format("its part \"{}\" is missing", shortened(name, 80)));
    const std::unique_ptr<zip_file_t, Closed> file(
        zip_fopen_index(m_archive.get(), static_cast<zip_uint64_t>(at), 0));
    if (!file) return fail("it is broken or locked with a password: save it again");
    std::string out, chunk(std::size_t{1} << 18, '\0');
    for (;;) {
        const auto n = zip_fread(file.get(), chunk.data(), chunk.size());
        if (n < 0) return fail("it is broken: save it again");
        if (n == 0) return out;
        m_taken += n;
        if (m_taken > mostTextBytes)
            return fail(
                fmt::format("unpacked it is larger than {} MB: cut it up", mostTextBytes / 1'000'000));
        out.append(chunk.data(), static_cast<std::size_t>(n));
    }
}

} // namespace anvil::tables
