// What is no plain text: spreadsheets, web pages, packed files. Each becomes sheets of text.
#pragma once

#include <anvil/quantity/error.h>
#include <cstdint>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace anvil::tables {

/// A sheet as text: a line a row, tabs between the cells, numbers with a decimal point, dates as ISO.
struct TextSheet {
    std::string name, text;
    bool hidden = false; ///< its writer put it out of sight
};

struct Document {
    std::string kind; ///< "Excel (xlsx)", "web page" …
    std::vector<TextSheet> sheets;
};

/// The sheets of a spreadsheet or web page, by what its first bytes say; nothing where it is neither. Empty
/// sheets are left out. Error: a sentence when it is broken, locked, or larger than any table of results.
Expected<std::optional<Document>> openDocument(std::string_view bytes);

/// What a gzip-packed file holds; nothing where it is not packed. Error: broken or larger than mostTextBytes.
Expected<std::optional<std::string>> unpacked(std::string_view bytes);

/// Each reads one kind; used by openDocument.
Expected<Document> readXlsx(std::string_view bytes);
Expected<Document> readOds(std::string_view bytes);
Expected<Document> readXls(std::string_view bytes);
Expected<Document> readHtml(std::string_view bytes);

/// Cells as they come, in any order, and the text they make. Empty ones between them take no room here.
class Cells {
public:
    static constexpr std::size_t mostRows = 2'000'000, mostColumns = 2000;

    /// Cells outside the bounds are counted, not kept.
    void set(std::size_t row, std::size_t column, std::string_view text);
    void set(std::size_t row, std::size_t column, double value);
    /// Repeats a cell in the rows below it.
    void fillDown(std::size_t row, std::size_t column, std::size_t rows);
    bool empty() const { return m_rows.empty(); }
    bool tooLarge() const { return m_outside > 0; }
    std::string text() const;

private:
    /// A cell that has something in it; its text is in m_text.
    struct Cell {
        std::uint32_t column, at, size;
    };
    std::string_view textOf(const Cell& cell) const;
    std::vector<std::vector<Cell>> m_rows; ///< by column in each
    std::string m_text;
    std::size_t m_outside = 0, m_bytes = 0; ///< of the text that they make
};

/// A day count of a spreadsheet as ISO text: "2026-03-02 14:05:33.050", a time of day alone as
/// "14:05:33.050". `since1904`: days count from then, not from 1899-12-30.
std::string dateText(double days, bool timeOnly, bool since1904);
/// The same from its parts.
std::string dateText(int year, int month, int day, int hour, int minute, double second);

} // namespace anvil::tables
