#include "documents.h"

#include "xml_parts.h"
#include <charconv>
#include <cmath>
#include <optional>

namespace anvil::tables {

namespace {

constexpr int deepest = 60; ///< groups of rows within each other

std::size_t count(const pugi::xml_node& node, std::string_view name) {
    const auto text = attribute(node, name);
    std::size_t n = 1;
    std::from_chars(text.data(), text.data() + text.size(), n);
    return std::max<std::size_t>(1, n);
}

/// "PT00H00M05.25S" in days.
std::optional<double> duration(std::string_view text) {
    if (!text.starts_with("PT")) return {};
    double seconds = 0;
    for (std::size_t i = 2; i < text.size();) {
        double v = 0;
        const auto got = std::from_chars(text.data() + i, text.data() + text.size(), v);
        if (got.ec != std::errc{} || got.ptr == text.data() + text.size()) return {};
        const char unit = *got.ptr;
        seconds += v * (unit == 'H' ? 3600 : unit == 'M' ? 60 : 1);
        i = static_cast<std::size_t>(got.ptr - text.data()) + 1;
    }
    return seconds / 86400;
}

/// The letters of a paragraph with its spans, blanks and tabs.
void lettersOf(const pugi::xml_node& node, std::string& out, int depth) {
    for (const auto& c : node.children()) {
        if (c.type() == pugi::node_pcdata)
            out += c.value();
        else if (local(c) == "s" || local(c) == "tab" || local(c) == "line-break")
            out += ' ';
        else if (local(c) != "annotation" && depth < deepest)
            lettersOf(c, out, depth + 1);
    }
}

std::string textOf(const pugi::xml_node& cell) {
    std::string out;
    for (const auto& p : cell.children()) {
        if (local(p) != "p") continue;
        if (!out.empty()) out += ' ';
        lettersOf(p, out, 0);
    }
    return out;
}

/// What a cell holds: the stored value, never what is shown of it.
std::string valueOf(const pugi::xml_node& cell) {
    const auto type = attribute(cell, "value-type");
    if (type == "float" || type == "percentage" || type == "currency")
        return std::string(attribute(cell, "value"));
    if (type == "boolean") return attribute(cell, "boolean-value") == "true" ? "TRUE" : "FALSE";
    if (type == "date") {
        std::string date(attribute(cell, "date-value"));
        if (const auto t = date.find('T'); t != std::string::npos) date[t] = ' ';
        return date;
    }
    if (type == "time") {
        const auto days = duration(attribute(cell, "time-value"));
        return days ? dateText(*days, true, false) : textOf(cell);
    }
    const auto text = attribute(cell, "string-value");
    return text.empty() ? textOf(cell) : std::string(text);
}

void rowInto(const pugi::xml_node& node, Cells& cells, std::size_t& row) {
    const auto times = count(node, "number-rows-repeated");
    bool any = false;
    for (const auto& c : node.children())
        any = any || !valueOf(c).empty();
    if (!any) { // the empty rest of a sheet is one row, repeated a million times
        row += std::min(times, Cells::mostRows);
        return;
    }
    for (std::size_t k = 0; k < times && !cells.tooLarge(); ++k, ++row) {
        std::size_t column = 0;
        for (const auto& c : node.children()) {
            const auto wide = count(c, "number-columns-repeated");
            const auto value = valueOf(c);
            if (!value.empty()) {
                for (std::size_t i = 0; i < wide && !cells.tooLarge(); ++i)
                    cells.set(row, column + i, value);
                if (const auto tall = count(c, "number-rows-spanned"); tall > 1)
                    cells.fillDown(row, column, tall - 1); // it stands for all the rows it reaches over
            }
            column += std::min(wide, Cells::mostColumns);
        }
    }
}

void rowsInto(const pugi::xml_node& node, Cells& cells, std::size_t& row, int depth) {
    for (const auto& c : node.children()) {
        const auto name = local(c);
        if (name == "table-row")
            rowInto(c, cells, row);
        else if ((name == "table-header-rows" || name == "table-rows" || name == "table-row-group") &&
                 depth < deepest)
            rowsInto(c, cells, row, depth + 1);
    }
}

} // namespace

Expected<Document> readOds(std::string_view bytes) {
    auto parts = ZipParts::open(bytes);
    if (!parts) return tl::unexpected(parts.error());
    const auto content = parsed(*parts, "content.xml");
    if (!content) return tl::unexpected(content.error());
    Document doc{"spreadsheet (ods)", {}};
    const auto body = child(child(content->document_element(), "body"), "spreadsheet");
    for (const auto& table : body.children()) {
        if (local(table) != "table") continue;
        Cells cells;
        std::size_t row = 0;
        rowsInto(table, cells, row, 0);
        if (cells.tooLarge()) return fail("a sheet of this spreadsheet is larger than any table of results");
        doc.sheets.push_back({std::string(attribute(table, "name")), cells.text()});
    }
    return doc;
}

} // namespace anvil::tables
