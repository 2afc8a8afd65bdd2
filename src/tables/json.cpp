#include "forms.h"

#include <anvil/tables/text.h>
#include <charconv>
#include <nlohmann/json.hpp>
#include <vector>

namespace anvil::tables {
namespace {

using Json = nlohmann::ordered_json;
constexpr std::size_t mostColumns = 200;

/// Rows of named cells; columns in the order in which they are met.
class Rows {
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
    void end() {
        for (std::size_t i = 0; i < m_cells.size(); ++i)
            m_body += (i ? "," : "") + m_cells[i];
        m_body += '\n';
        ++m_rows;
    }
    std::size_t rows() const { return m_rows; }
    std::string text() const {
        std::string out;
        for (std::size_t i = 0; i < m_names.size(); ++i)
            out += (i ? "," : "") + csvField(m_names[i]);
        return out + "\n" + m_body;
    }

private:
    std::vector<std::string> m_names, m_cells;
    std::map<std::string, std::size_t> m_places;
    std::string m_body;
    std::size_t m_rows = 0;
};

std::string cellOf(const Json& v) {
    if (v.is_string()) return csvField(v.get_ref<const std::string&>());
    if (v.is_number_float()) {
        char buffer[40];
        return {buffer, std::to_chars(buffer, buffer + sizeof buffer, v.get<double>()).ptr};
    }
    return v.is_number() || v.is_boolean() ? v.dump() : "";
}

void addObject(Rows& rows, const Json& object, const std::string& prefix = "", int depth = 0) {
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
bool addColumns(Rows& rows, const Json& object) {
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

void addList(Rows& rows, const Json& list, const Json* names) {
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

void addWhole(Rows& rows, const Json& doc, int depth = 0) {
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

std::optional<std::string> fromJson(std::string_view text) {
    const auto first = text.find_first_not_of(" \t\r\n");
    if (first == std::string_view::npos || (text[first] != '{' && text[first] != '[')) return {};
    Rows rows;
    std::size_t wrong = 0;
    const auto lines = splitLines(text);
    const auto line = trimmed(lines[0]);
    if (text[first] == '{' && lines.size() > 1 && Json::accept(line)) { // an object a line
        for (const auto& l : lines) {
            if (trimmed(l).empty()) continue;
            const auto object = Json::parse(l, nullptr, false);
            if (!object.is_object()) {
                ++wrong;
                continue;
            }
            rows.begin();
            addObject(rows, object);
            rows.end();
        }
        if (wrong > lines.size() / 2) return {};
    } else {
        const auto doc = Json::parse(text, nullptr, false);
        if (doc.is_discarded()) return {};
        addWhole(rows, doc);
    }
    if (rows.rows() < 3) return {};
    auto out = rows.text();
    for (; wrong > 0; --wrong)
        out += "(a line that is no JSON)\n"; // counted among the rows that are left out
    return out;
}

} // namespace anvil::tables
