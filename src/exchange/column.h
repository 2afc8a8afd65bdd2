// What a column of a package's table is.
#pragma once

#include <span>
#include <string_view>

namespace anvil::exchange {

/// A column; `refersTo`: "file.column" of what its cells name.
struct PackageColumn {
    std::string_view name, holds, refersTo = {};
};

struct TableKind {
    std::string_view file;
    std::span<const PackageColumn> columns;
};

} // namespace anvil::exchange
