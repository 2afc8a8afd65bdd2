// Columns that hold a field of a thing as it is: one row says what stands in it, how it is written and how it
// is read.
#pragma once

#include "rows.h"
#include <anvil/domain/model.h>
#include <array>

namespace anvil::exchange {

/// A column of T that needs nothing but the T.
template <class T> struct Plain {
    PackageColumn column;
    std::string (*write)(const T&);
    void (*read)(T&, const Row&, std::string_view column); ///< what cannot be is said by the row
};

template <class M> struct FieldOf;
template <class T, class V> struct FieldOf<V T::*> { using Owner = T; };
template <auto M> using OwnerOf = typename FieldOf<decltype(M)>::Owner;

template <auto M> constexpr Plain<OwnerOf<M>> words(std::string_view name, std::string_view holds) {
    using T = OwnerOf<M>;
    return {{name, holds},
            [](const T& t) { return t.*M; },
            [](T& t, const Row& row, std::string_view column) { t.*M = row.text(column); }};
}
/// A quantity with its unit; empty where there is none.
template <auto M, quantity::Dimension D>
constexpr Plain<OwnerOf<M>> amount(std::string_view name, std::string_view holds) {
    using T = OwnerOf<M>;
    return {{name, holds},
            [](const T& t) { return t.*M ? exactText(*(t.*M), D) : std::string(); },
            [](T& t, const Row& row, std::string_view column) { t.*M = row.quantity(column, D); }};
}
/// "yes" or nothing.
template <auto M> constexpr Plain<OwnerOf<M>> yes(std::string_view name, std::string_view holds) {
    using T = OwnerOf<M>;
    return {{name, holds},
            [](const T& t) { return std::string(t.*M ? "yes" : ""); },
            [](T& t, const Row& row, std::string_view column) { t.*M = row.yes(column); }};
}

/// The columns of a table: those that are found, named or looked up, then the plain ones.
template <class T, std::size_t A, std::size_t B>
constexpr std::array<PackageColumn, A + B> joined(const PackageColumn (&own)[A], const Plain<T> (&plain)[B]) {
    std::array<PackageColumn, A + B> all{};
    for (std::size_t i = 0; i < A; ++i)
        all[i] = own[i];
    for (std::size_t i = 0; i < B; ++i)
        all[A + i] = plain[i].column;
    return all;
}

template <class T, std::size_t N> void readPlain(const Row& row, T& to, const Plain<T> (&plain)[N]) {
    for (const auto& p : plain)
        p.read(to, row, p.column.name);
}
/// Adds the cells of the plain columns, by name.
template <class Cells, class T, std::size_t N>
void addPlain(Cells& cells, const T& of, const Plain<T> (&plain)[N]) {
    for (const auto& p : plain)
        cells.emplace_back(p.column.name, p.write(of));
}

} // namespace anvil::exchange
