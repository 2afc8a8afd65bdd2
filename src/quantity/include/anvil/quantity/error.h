// Errors as values: a sentence a tester can read and act on.
#pragma once

#include <string>
#include <tl/expected.hpp>
#include <utility>

namespace anvil {

/// What went wrong, as one sentence for the person at the bench.
struct Error {
    std::string message;
};

/// A value, or the sentence that says why there is none.
template <class T> using Expected = tl::expected<T, Error>;

/// Shorthand for returning an error.
inline tl::unexpected<Error> fail(std::string message) {
    return tl::unexpected<Error>(Error{std::move(message)});
}

} // namespace anvil
