#include "forms.h"

#include <charconv>
#include <map>
#include <nlohmann/json.hpp>
#include <vector>

namespace anvil::tables {
namespace {

using Json = nlohmann::ordered_json;
constexpr std::size_t mostColumns = 200;

/// Rows of named cells; columns in the order in which they are met.
class Named {
public:
    void begin() { m_cells.assign(m_names.size(), ""); }
    void set(const std::string& name, std::string value) {
        auto at = m_places.find(name);
        if (at == m_places.end()) {
            if (m_names.size() >= mostColumns) return;
            at = m_places.emplace(name, m_names.size()).first;
            m_names.push_back(name);
            m_cells.emplace_back();
        }
        m_cells[at->second] = std::move(value);
    }
    void end(std::size_t line = 0) { m_rows.push_back({line, m_cells}); }
    void unreadable(std::size_t line) { m_rows.push_back({line, {"(a line that is no JSON)"}}); }
    std::size_t rows() const { return m_rows.size(); }
    Rows all() && {
        for (auto& row : m_rows) // columns that came later are blank in the rows before
            if (row.cells.size() > 1 || m_names.size() < 2) row.cells.resize(m_names.size());
        m_rows.insert(m_rows.begin(), {0, m_names});
        return std::move(m_rows);
    }

private:
    std::vector<std::string> m_names, m_cells;
    std::map<std::string, std::size_t> m_places;
    Rows m_rows;
};

std::string cellOf(const Json& v) {
    if (v.is_string()) return v.get<std::string>();
    if (v.is_number_float()) {
        char buffer[40];
        return {buffer, std::to_chars(buffer, buffer + sizeof buffer, v.get<double>()).ptr};
    }
    return v.is_number() || v.is_boolean() ? v.dump() : "";
}

void addObject(Named& rows, const Json& object, const std::string& prefix = "", int depth = 0) {
    for (const auto& [key, v] : object.items()) {
        auto name = prefix;
        if (!name.empty()) name += '.';
        name += key;
        if (v.is_object() && depth < 3)
            addObject(rows, v, name, depth + 1);
        else if (v.is_primitive())
            rows.set(name, cellOf(v));
    }
}

bool isColumn(const Json& v) { return (v.is_array() || v.is_object()) && v.size() >= 3; }

/// {"time": [0, 0.1], "force": [1, 2]}, or each with row numbers for keys.
bool addColumns(Named& rows, const Json& object) {
    std::size_t length = 0;
    std::vector<std::pair<std::string, std::vector<const Json*>>> columns;
    for (const auto& [key, v] : object.items()) {
        if (!isColumn(v)) continue;
        std::vector<const Json*> values;
        for (const auto& cell : v)
            values.push_back(&cell);
        if (length == 0) length = values.size();
        if (values.size() != length || !values.front()->is_primitive()) return false;
        columns.emplace_back(key, std::move(values));
    }
    for (std::size_t i = 0; i < length && !columns.empty(); ++i) {
        rows.begin();
        for (const auto& [name, values] : columns)
            rows.set(name, cellOf(*values[i]));
        rows.end();
    }
    return !columns.empty();
}

void addList(Named& rows, const Json& list, const Json* names) {
    for (const auto& row : list) {
        if (!row.is_object() && !row.is_array()) continue;
        rows.begin();
        if (row.is_object()) {
            addObject(rows, row);
        } else {
            for (std::size_t i = 0; i < row.size(); ++i)
                rows.set(names && i < names->size() && (*names)[i].is_string()
                             ? (*names)[i].get<std::string>()
                             : "column " + std::to_string(i + 1),
                         cellOf(row[i]));
        }
        rows.end();
    }
}

void addWhole(Named& rows, const Json& doc, int depth = 0) {
    if (doc.is_array()) return addList(rows, doc, nullptr);
    if (!doc.is_object() || depth > 2) return;
    if (const auto data = doc.find("data"); data != doc.end() && data->is_array()) {
        const auto names = doc.find("columns");
        return addList(rows, *data, names != doc.end() && names->is_array() ? &*names : nullptr);
    }
    if (addColumns(rows, doc)) return;
    for (const auto& v : doc)
        if (v.is_object() || v.is_array()) return addWhole(rows, v, depth + 1);
}

} // namespace

std::optional<Rows> fromJson(std::string_view text) {
    const auto first = text.find_first_not_of(" \t\r\n");
    if (first == std::string_view::npos || (text[first] != '{' && text[first] != '[')) return {};
    Named rows;
    std::size_t wrong = 0;
    const auto lines = splitLines(text);
    if (text[first] == '{' && lines.size() > 1 &&
        Json::accept(columns::trimmed(lines[0]))) { // an object a line
        for (std::size_t i = 0; i < lines.size(); ++i) {
            if (columns::trimmed(lines[i]).empty()) continue;
            const auto object = Json::parse(lines[i], nullptr, false);
            if (!object.is_object()) {
                ++wrong;
                rows.unreadable(i + 1);
                continue;
            }
            rows.begin();
            addObject(rows, object);
            rows.end(i + 1);
        }
        if (wrong > lines.size() / 2) return {};
    } else {
        const auto doc = Json::parse(text, nullptr, false);
        if (doc.is_discarded()) return {};
        addWhole(rows, doc);
    }
    if (rows.rows() < wrong + 3) return {};
    return std::move(rows).all();
}

} // namespace anvil::tables
