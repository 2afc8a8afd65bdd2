#include "documents.h"

#include <algorithm>
#include <anvil/tables/file.h>
#include <charconv>
#include <chrono>
#include <cmath>
#include <fmt/format.h>
#include <zlib.h>

namespace anvil::tables {

namespace {

/// A day has 86 400 000 ms; spreadsheets keep days as doubles, good to about a microsecond.
constexpr double millisecondsPerDay = 86'400'000;

/// Whether the head of a text is HTML: a tag of a page or of a table, whatever comes before it.
bool looksLikeHtml(std::string_view bytes) {
    const auto head = bytes.substr(0, 4096);
    const auto at = head.find('<');
    if (at == std::string_view::npos) return false;
    std::string lower(head);
    for (auto& c : lower)
        c = static_cast<char>(c >= 'A' && c <= 'Z' ? c + 32 : c);
    for (const std::string_view tag : {"<html", "<!doctype html", "<table", "<body", "<meta"})
        if (lower.find(tag) != std::string::npos) return true;
    return false;
}

} // namespace

void Cells::set(std::size_t row, std::size_t column, std::string_view text) {
    if (text.empty()) return;
    const auto width = row < m_rows.size() && !m_rows[row].empty() ? m_rows[row].back().column + 1 : 0;
    const auto rows = row < m_rows.size() ? 0 : row + 1 - m_rows.size();
    m_bytes += text.size() + 1 + rows + (column < width ? 0 : column - width);
    if (row >= mostRows || column >= mostColumns || m_bytes > static_cast<std::size_t>(mostTextBytes)) {
        ++m_outside;
        return;
    }
    if (row >= m_rows.size()) m_rows.resize(row + 1);
    auto& cells = m_rows[row];
    const Cell cell{static_cast<std::uint32_t>(column), static_cast<std::uint32_t>(m_text.size()),
                    static_cast<std::uint32_t>(text.size())};
    m_text += text;
    const auto at = std::lower_bound(cells.begin(), cells.end(), cell,
                                     [](const Cell& a, const Cell& b) { return a.column < b.column; });
    if (at != cells.end() && at->column == cell.column)
        *at = cell;
    else
        cells.insert(at, cell);
}

std::string_view Cells::textOf(const Cell& cell) const {
    return std::string_view(m_text).substr(cell.at, cell.size);
}

void Cells::set(std::size_t row, std::size_t column, double value) {
    char buffer[40];
    const auto end = std::to_chars(buffer, buffer + sizeof buffer, value).ptr;
    set(row, column, std::string_view(buffer, static_cast<std::size_t>(end - buffer)));
}

void Cells::fillDown(std::size_t row, std::size_t column, std::size_t rows) {
    if (row >= m_rows.size()) return;
    const auto& cells = m_rows[row];
    const auto it =
        std::find_if(cells.begin(), cells.end(), [&](const Cell& c) { return c.column == column; });
    if (it == cells.end()) return;
    const std::string text(textOf(*it));
    for (std::size_t k = 1; k <= rows && !tooLarge(); ++k)
        set(row + k, column, text);
}

std::string Cells::text() const {
    std::string out;
    for (const auto& row : m_rows) {
        std::size_t column = 0;
        for (const auto& cell : row) {
            out.append(cell.column - column, '\t');
            column = cell.column;
            const auto text = textOf(cell);
            if (text.find_first_of("\t\r\n\"") == std::string_view::npos) {
                out += text;
                continue;
            }
            out += '"'; // a cell of several lines stays in one
            for (const char c : text) {
                if (c == '"') out += '"';
                out += c == '\r' || c == '\n' || c == '\t' ? ' ' : c;
            }
            out += '"';
        }
        out += '\n';
    }
    return out;
}

std::string dateText(int year, int month, int day, int hour, int minute, double second) {
    const auto ms = static_cast<int>(std::lround(second * 1000));
    std::string out = year == 0 ? "" : fmt::format("{:04}-{:02}-{:02} ", year, month, day);
    out += fmt::format("{:02}:{:02}:{:02}", hour, minute, ms / 1000);
    if (ms % 1000) out += fmt::format(".{:03}", ms % 1000);
    return out;
}

std::string dateText(double days, bool timeOnly, bool since1904) {
    using namespace std::chrono;
    if (!(std::abs(days) < 3'000'000)) return fmt::format("{}", days);
    const auto total = static_cast<long long>(std::llround(days * millisecondsPerDay));
    const auto perDay = static_cast<long long>(millisecondsPerDay);
    auto whole = total / perDay, rest = total % perDay;
    if (rest < 0) {
        rest += perDay;
        --whole;
    }
    const auto ms = static_cast<int>(rest % 60000);
    const int hour = static_cast<int>(rest / 3'600'000), minute = static_cast<int>(rest / 60'000 % 60);
    constexpr long long longestElapsed = 60; // days: a larger count under a clock's format is a date
    if (timeOnly && whole >= 0 && whole < longestElapsed) // an elapsed time may pass a day
        return dateText(0, 0, 0, hour + 24 * static_cast<int>(whole), minute, ms / 1000.0);
    const auto zero = since1904 ? sys_days(year(1904) / 1 / 1) : sys_days(year(1899) / 12 / 30);
    const year_month_day date(zero + std::chrono::days(whole));
    return dateText(static_cast<int>(date.year()), static_cast<int>(static_cast<unsigned>(date.month())),
                    static_cast<int>(static_cast<unsigned>(date.day())), hour, minute, ms / 1000.0);
}

Expected<std::optional<std::string>> unpacked(std::string_view bytes) {
    if (!bytes.starts_with("\x1f\x8b")) return std::nullopt;
    z_stream stream{};
    if (inflateInit2(&stream, 15 + 16) != Z_OK) return fail("it cannot be unpacked");
    std::string out;
    int got = Z_OK;
    std::size_t taken = 0;
    std::string chunk(std::size_t{1} << 18, '\0');
    while (taken < bytes.size() || stream.avail_in > 0) {
        if (stream.avail_in == 0) {
            const auto next = std::min<std::size_t>(bytes.size() - taken, std::size_t{1} << 20);
            stream.next_in = reinterpret_cast<Bytef*>(const_cast<char*>(bytes.data() + taken));
            stream.avail_in = static_cast<uInt>(next);
            taken += next;
        }
        stream.next_out = reinterpret_cast<Bytef*>(chunk.data());
        stream.avail_out = static_cast<uInt>(chunk.size());
        got = inflate(&stream, Z_NO_FLUSH);
        out.append(chunk.data(), chunk.size() - stream.avail_out);
        if (out.size() > static_cast<std::size_t>(mostTextBytes) || (got != Z_OK && got != Z_STREAM_END))
            break;
        if (got == Z_STREAM_END) {
            if (taken >= bytes.size() && stream.avail_in == 0) break;
            if (inflateReset(&stream) != Z_OK) break; // packed in parts, one behind the other
            got = Z_OK;
        }
    }
    inflateEnd(&stream);
    if (out.size() > static_cast<std::size_t>(mostTextBytes))
        return fail(fmt::format("unpacked it is larger than {} MB: cut it up", mostTextBytes / 1'000'000));
    if (got != Z_STREAM_END) return fail("it is packed, and broken off: pack it again");
    return out;
}

Expected<std::optional<Document>> openDocument(std::string_view bytes) {
    Expected<Document> got = fail("");
    if (bytes.starts_with("PK\x03\x04")) {
        // The first entry of an OpenDocument file is its kind, uncompressed.
        const bool open = bytes.substr(0, 200).find("opendocument.spreadsheet") != std::string_view::npos;
        got = open ? readOds(bytes) : readXlsx(bytes);
    } else if (bytes.starts_with("\xD0\xCF\x11\xE0\xA1\xB1\x1A\xE1")) {
        got = readXls(bytes);
    } else if (looksLikeHtml(bytes)) {
        got = readHtml(bytes);
    } else {
        return std::nullopt;
    }
    if (!got) return tl::unexpected(got.error());
    std::erase_if(got->sheets,
                  [](const TextSheet& s) { return s.text.find_first_not_of("\t\n ") == std::string::npos; });
    if (got->sheets.empty()) return fail(fmt::format("this {} has no table in it", got->kind));
    return std::move(*got);
}

} // namespace anvil::tables
