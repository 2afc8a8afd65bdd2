#include "documents.h"

#include "xml_parts.h"
#include <anvil/quantity/digits.h>
#include <anvil/tables/text.h>
#include <charconv>
#include <cmath>
#include <fmt/format.h>
#include <map>

namespace anvil::tables {

using namespace columns;

namespace {

/// The text of a string: its runs together, without the readings beside Asian characters.
std::string stringOf(const pugi::xml_node& node) {
    std::string out;
    for (const auto& c : node.children()) {
        if (local(c) == "t")
            out += c.text().get();
        else if (local(c) == "r")
            out += child(c, "t").text().get();
    }
    return out;
}

enum class Looks { number, date, time };

/// Whether a number format shows a date or a time of day.
Looks looksOf(int id, const std::string& code) {
    if ((id >= 14 && id <= 17) || id == 22 || (id >= 27 && id <= 31) || id == 36 || (id >= 50 && id <= 58))
        return Looks::date;
    if ((id >= 18 && id <= 21) || (id >= 32 && id <= 35) || (id >= 45 && id <= 47)) return Looks::time;
    bool quoted = false, date = false, time = false, numbers = false;
    for (std::size_t i = 0; i < code.size(); ++i) {
        const char c = static_cast<char>(std::tolower(static_cast<unsigned char>(code[i])));
        if (c == '"') {
            quoted = !quoted;
        } else if (c == '\\' || c == '_' || c == '*') {
            ++i;
        } else if (!quoted) {
            if (c == '[') { // [h]:mm is a time, [Red] and [$-409] are not
                const auto end = code.find(']', i);
                const char in = i + 1 < code.size()
                                    ? static_cast<char>(std::tolower(static_cast<unsigned char>(code[i + 1])))
                                    : '\0';
                const bool elapsed = end != std::string::npos && (in == 'h' || in == 'm' || in == 's') &&
                                     code.find_first_not_of("hHmMsS", i + 1) == end;
                time = time || elapsed;
                if (end == std::string::npos) break;
                i = end;
                continue;
            }
            if (c == ';') break;                // what negative numbers look like
            if (c == 'g' || c == 'e') continue; // General, 0.00E+00
            date = date || c == 'y' || c == 'd';
            time = time || c == 'h' || c == 's';
            numbers = numbers || c == '#' || c == '?' || c == '%';
        }
    }
    if (numbers) return Looks::number;
    return date ? Looks::date : time ? Looks::time : Looks::number;
}

std::vector<Looks> stylesOf(ZipParts& parts) {
    std::vector<Looks> looks;
    if (!parts.has("xl/styles.xml")) return looks;
    const auto doc = parsed(parts, "xl/styles.xml");
    if (!doc) return looks;
    std::map<int, std::string> codes;
    const auto root = doc->document_element();
    for (const auto& f : child(root, "numFmts").children())
        codes[f.attribute("numFmtId").as_int()] = f.attribute("formatCode").value();
    for (const auto& x : child(root, "cellXfs").children()) {
        const int id = x.attribute("numFmtId").as_int();
        looks.push_back(looksOf(id, codes.contains(id) ? codes[id] : ""));
    }
    return looks;
}

/// "BC12" → row 11, column 54; nothing where it is none.
std::optional<std::pair<std::size_t, std::size_t>> placeOf(std::string_view ref) {
    std::size_t i = 0, column = 0, row = 0;
    for (; i < ref.size() && std::isalpha(static_cast<unsigned char>(ref[i])) && i < 4; ++i)
        column = column * 26 +
                 static_cast<std::size_t>(std::toupper(static_cast<unsigned char>(ref[i])) - 'A' + 1);
    const auto got = std::from_chars(ref.data() + i, ref.data() + ref.size(), row);
    if (i == 0 || got.ec != std::errc{} || row == 0) return {};
    return std::pair(row - 1, column - 1);
}

struct Book {
    std::vector<std::string> strings;
    std::vector<Looks> looks;
    bool since1904 = false;
};

void setCell(Cells& cells, std::size_t row, std::size_t column, const pugi::xml_node& c, const Book& book) {
    const std::string_view type = c.attribute("t").value();
    const char* value = child(c, "v").text().get();
    if (type == "inlineStr") {
        cells.set(row, column, stringOf(child(c, "is")));
    } else if (type == "s") {
        const auto k = quantity::wholeNumber(value);
        if (k && *k >= 0 && static_cast<std::size_t>(*k) < book.strings.size())
            cells.set(row, column, book.strings[static_cast<std::size_t>(*k)]);
    } else if (type == "str" || type == "e" || type == "d") {
        cells.set(row, column, std::string(value));
    } else if (type == "b") {
        cells.set(row, column, std::string(*value == '1' ? "TRUE" : *value ? "FALSE" : ""));
    } else if (*value) {
        const auto style = c.attribute("s").as_uint();
        const auto looks = style < book.looks.size() ? book.looks[style] : Looks::number;
        double number = 0;
        const auto end = value + std::char_traits<char>::length(value);
        const bool whole = std::from_chars(value, end, number).ptr == end;
        if (whole && looks != Looks::number && std::isfinite(number))
            cells.set(row, column, dateText(number, looks == Looks::time, book.since1904));
        else
            cells.set(row, column, std::string(value)); // with all the digits that are stored
    }
}

std::string folderOf(const std::string& path) {
    const auto slash = path.find_last_of('/');
    return slash == std::string::npos ? "" : path.substr(0, slash + 1);
}

/// Where the parts lie that a workbook names by their ids.
Expected<std::map<std::string, std::string>> targetsOf(ZipParts& parts, const std::string& bookPath) {
    const auto relations = parsed(parts, "xl/_rels/workbook.xml.rels");
    if (!relations) return tl::unexpected(relations.error());
    std::map<std::string, std::string> targets;
    for (const auto& r : relations->document_element().children()) {
        const std::string target = r.attribute("Target").value();
        targets[r.attribute("Id").value()] =
            target.starts_with('/') ? target.substr(1) : folderOf(bookPath) + target;
    }
    return targets;
}

/// Styles, dates and texts that all sheets share.
Expected<Book> bookOf(ZipParts& parts, const pugi::xml_node& workbook) {
    Book book;
    book.looks = stylesOf(parts);
    book.since1904 = child(workbook, "workbookPr").attribute("date1904").as_bool();
    if (!parts.has("xl/sharedStrings.xml")) return book;
    const auto strings = parsed(parts, "xl/sharedStrings.xml");
    if (!strings) return tl::unexpected(strings.error());
    for (const auto& s : strings->document_element().children())
        if (local(s) == "si") book.strings.push_back(stringOf(s));
    return book;
}

Cells cellsOf(const pugi::xml_node& sheet, const Book& book) {
    Cells cells;
    std::size_t row = 0;
    for (const auto& r : child(sheet, "sheetData").children()) {
        if (local(r) != "row") continue;
        if (const auto n = r.attribute("r").as_ullong(); n > 0) row = n - 1;
        std::size_t column = 0;
        for (const auto& c : r.children()) {
            if (local(c) != "c") continue;
            if (const auto place = placeOf(c.attribute("r").value())) std::tie(row, column) = *place;
            setCell(cells, row, column++, c, book);
        }
        ++row;
    }
    for (const auto& m : child(sheet, "mergeCells").children()) {
        const std::string_view ref = m.attribute("ref").value();
        const auto colon = ref.find(':');
        const auto from = placeOf(ref.substr(0, colon)),
                   to = placeOf(colon == std::string_view::npos ? ref : ref.substr(colon + 1));
        if (from && to && to->first > from->first) // a name that stands for all the rows it is merged over
            cells.fillDown(from->first, from->second, to->first - from->first);
    }
    return cells;
}

} // namespace

Expected<Document> readXlsx(std::string_view bytes) {
    auto opened = ZipParts::open(bytes);
    if (!opened) return tl::unexpected(opened.error());
    auto& parts = *opened;
    const std::string bookPath = "xl/workbook.xml";
    if (!parts.has(bookPath))
        return fail("it is a packed file, but no workbook: unpack it first, or save the table as CSV");
    const auto workbook = parsed(parts, bookPath);
    if (!workbook) return tl::unexpected(workbook.error());
    const auto targets = targetsOf(parts, bookPath);
    if (!targets) return tl::unexpected(targets.error());
    const auto book = bookOf(parts, workbook->document_element());
    if (!book) return tl::unexpected(book.error());
    Document doc{"Excel workbook (xlsx)", {}};
    for (const auto& s : child(workbook->document_element(), "sheets").children()) {
        std::string id;
        for (const auto& a : s.attributes())
            if (std::string_view(a.name()).ends_with(":id")) id = a.value();
        const auto target = targets->find(id);
        if (target == targets->end() || !parts.has(target->second)) continue; // a chart has no cells
        const auto sheet = parsed(parts, target->second);
        if (!sheet) return tl::unexpected(sheet.error());
        const auto cells = cellsOf(sheet->document_element(), *book);
        if (cells.tooLarge()) return fail("a sheet of this workbook is larger than any table of results");
        const bool hidden = std::string_view(s.attribute("state").value()).ends_with("idden");
        doc.sheets.push_back({s.attribute("name").value(), cells.text(), hidden});
    }
    return doc;
}

} // namespace anvil::tables
