#include "output.h"

#include <anvil/quantity/print.h>
#include <anvil/tables/file.h>
#include <cmath>

namespace anvil::cli {

Json number(const std::optional<double>& value) {
    if (!value || !std::isfinite(*value)) return nullptr;
    return quantity::tidy(*value);
}

Expected<std::string> readFile(const std::string& path) {
    auto bytes = tables::readFile(path);
    if (!bytes) return fail(path + ": " + bytes.error().message);
    return bytes;
}

Expected<void> writeFile(const std::string& path, const std::string& bytes) {
    return tables::writeFile(path, bytes);
}

std::string table(const std::vector<std::vector<std::string>>& rows) {
    const auto width = [](const std::string& s) { // characters, not bytes
        return static_cast<std::size_t>(std::count_if(
            s.begin(), s.end(), [](char c) { return (static_cast<unsigned char>(c) & 0xC0) != 0x80; }));
    };
    std::vector<std::size_t> widths;
    for (const auto& row : rows)
        for (std::size_t i = 0; i < row.size(); ++i) {
            if (widths.size() <= i) widths.push_back(0);
            widths[i] = std::max(widths[i], width(row[i]));
        }
    std::string out;
    for (const auto& row : rows) {
        std::string line;
        for (std::size_t i = 0; i < row.size(); ++i)
            line += row[i] + std::string(i + 1 < row.size() ? widths[i] - width(row[i]) + 2 : 0, ' ');
        out += line + "\n";
    }
    return out;
}

} // namespace anvil::cli
