#include "rows.h"

#include <QString>
#include <QStringList>
#include <algorithm>
#include <charconv>
#include <cmath>
#include <fmt/format.h>

namespace anvil::exchange {

Table::Table(const Folder& folder, const TableKind& kind, Trouble& trouble)
    : m_kind(&kind), m_trouble(&trouble) {
    load(folder, kind, trouble);
}

void Table::load(const Folder& folder, const TableKind& kind, Trouble& trouble) {
    const std::string file(kind.file);
    if (!folder.has(file) || trouble.any()) return;
    const auto bytes = folder.read(file);
    if (!bytes) return trouble.say(bytes.error().message);
    if (bytes->find_first_not_of(" \t\r\n") == std::string::npos) return; // an empty file says nothing
    auto table = readCsv(*bytes);
    if (!table) return trouble.say(file + ": " + table.error().message);
    m_table = std::move(*table);
    static constexpr std::string_view names[] = {"study", "option", "condition", "specimen", "pull",
                                                 "batch", "block",  "rig",       "card",     "criterion",
                                                 "owner", "name",   "part",      "by"};
    for (std::size_t i = 0; i < m_table.head.size(); ++i) {
        if (std::find(std::begin(names), std::end(names), m_table.head[i]) == std::end(names)) continue;
        for (const auto& row : m_table.rows)
            if (i < row.cells.size() && std::any_of(row.cells[i].begin(), row.cells[i].end(), [](char c) {
                    return (static_cast<unsigned char>(c) < 0x20 && c != '\t' && c != '\n') || c == 0x7f;
                }))
                return trouble.say(fmt::format("{}, line {}, {}: a name holds no control characters", file,
                                               row.line, m_table.head[i]));
    }
    for (std::size_t i = 0; i < m_table.head.size(); ++i) {
        const auto& head = m_table.head[i];
        const auto* known = std::find_if(kind.columns.data(), kind.columns.data() + kind.columns.size(),
                                         [&](const PackageColumn& c) { return c.name == head; });
        if (known == kind.columns.data() + kind.columns.size())
            return trouble.say(fmt::format("{}: nobody knows the column \"{}\"", file, head));
        if (!m_places.emplace(known->name, i).second)
            return trouble.say(fmt::format("{}: the column \"{}\" is there twice", file, head));
    }
}

const std::string& Row::text(std::string_view column) const {
    static const std::string nothing;
    const auto at = m_places->find(column);
    return at == m_places->end() ? nothing : m_row->cells[at->second];
}

void Row::wrong(std::string_view column, const std::string& why) const {
    m_trouble->say(fmt::format("{}, line {}, {}: {}", m_kind->file, m_row->line, column, why));
}

std::optional<quantity::Entry> Row::entry(std::string_view column, quantity::Dimension dimension,
                                          const quantity::Unit* fallback) const {
    if (!has(column)) return std::nullopt;
    const auto entry = quantity::parseEntry(text(column), dimension, fallback);
    if (entry) return *entry;
    wrong(column, entry.error().message);
    return std::nullopt;
}

std::optional<double> Row::quantity(std::string_view column, quantity::Dimension dimension,
                                    const quantity::Unit* fallback) const {
    const auto e = entry(column, dimension, fallback);
    if (!e) return std::nullopt;
    if (e->bound == quantity::Bound::exact) return e->si;
    wrong(column, "one number is needed, no bound");
    return std::nullopt;
}

std::optional<double> Row::number(std::string_view column) const {
    return quantity(column, quantity::Dimension::ratio);
}

std::optional<double> shareFrom(std::string_view percent) {
    long double exact = 0; // more digits than a double holds of a hundred times a share
    const auto* end = percent.data() + percent.size();
    const auto [at, wrong] = std::from_chars(percent.data(), end, exact);
    if (wrong != std::errc() || at != end) return std::nullopt;
    return static_cast<double>(exact / 100);
}

std::optional<double> Row::percent(std::string_view column) const {
    auto plain = text(column);
    const bool sign = plain.ends_with('%');
    if (sign) plain.pop_back();
    if (plain.empty() && !sign) return std::nullopt;
    while (plain.ends_with(' '))
        plain.pop_back();
    if (const auto share = shareFrom(plain)) return share;
    const auto entry = quantity::parseEntry(plain, quantity::Dimension::ratio);
    if (!entry) {
        wrong(column, entry.error().message);
        return std::nullopt;
    }
    return entry->si / 100;
}

std::optional<int> Row::whole(std::string_view column) const {
    const auto v = number(column);
    if (!v) return std::nullopt;
    if (*v == std::floor(*v) && *v >= 0 && *v <= 1e9) return static_cast<int>(*v);
    wrong(column, fmt::format("\"{}\" is no whole number", text(column)));
    return std::nullopt;
}

bool Row::yes(std::string_view column) const {
    if (!has(column)) return false;
    if (text(column) == "yes") return true;
    if (text(column) != "no") wrong(column, fmt::format("\"{}\" is neither yes nor no", text(column)));
    return false;
}

std::vector<std::string> partsOf(const std::string& text) {
    std::vector<std::string> out;
    for (const auto& part : QString::fromStdString(text).split(';', Qt::SkipEmptyParts))
        if (!part.trimmed().isEmpty()) out.push_back(part.trimmed().toStdString());
    return out;
}

} // namespace anvil::exchange
