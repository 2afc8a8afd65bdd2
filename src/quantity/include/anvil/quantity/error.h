// Errors as values: a sentence a tester can read and act on.
#pragma once

#include <string>
#include <tl/expected.hpp>
#include <utility>

namespace anvil {

/// What an answer would have to tell for it to go on. Whoever shows the sentence says how to give it.
enum class Wants {
    nothing, ///< no answer helps
    number,  ///< the text does not begin with one
    sheet,   ///< which of a workbook's sheets is meant
    columns, ///< which of a table's columns is the load
    timeUnit ///< what a clock that names no unit counts
};

/// What went wrong, as one sentence for the person at the bench.
struct Error {
    std::string message;
    Wants wants = Wants::nothing;
};

/// A value, or the sentence that says why there is none.
template <class T> using Expected = tl::expected<T, Error>;

/// Shorthand for returning an error.
inline tl::unexpected<Error> fail(std::string message, Wants wants = Wants::nothing) {
    return tl::unexpected<Error>(Error{std::move(message), wants});
}

} // namespace anvil
