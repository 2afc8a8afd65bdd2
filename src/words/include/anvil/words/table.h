// Tables of words: what a window, a page on paper and a script show in columns.
#pragma once

#include <algorithm>
#include <initializer_list>
#include <string>
#include <string_view>
#include <vector>

namespace anvil::words {

struct TableColumn {
    std::string_view key; ///< by which it is found; titles are for reading
    std::string title;
    bool number = false; ///< stands at the right
};

struct Row {
    std::vector<std::string> cells; ///< one a column
    long long of = 0;               ///< what it tells of; each maker of tables says which
};

struct Table {
    std::string_view key;
    std::vector<TableColumn> columns;
    std::vector<Row> rows;

    /// Where a column stands; the number of columns where there is none of this key.
    std::size_t at(std::string_view column) const {
        return static_cast<std::size_t>(std::find_if(columns.begin(), columns.end(),
                                                     [&](const TableColumn& c) { return c.key == column; }) -
                                        columns.begin());
    }
    /// The same without some columns; those it does not have are not missed.
    Table without(std::initializer_list<std::string_view> keys) const {
        Table out = *this;
        for (const auto key : keys)
            if (const auto k = static_cast<std::ptrdiff_t>(out.at(key));
                k < static_cast<std::ptrdiff_t>(out.columns.size())) {
                out.columns.erase(out.columns.begin() + k);
                for (auto& row : out.rows)
                    row.cells.erase(row.cells.begin() + k);
            }
        return out;
    }
};

} // namespace anvil::words
