// What a number says of the true value: the one answer to it, from what is typed to the statistics.
#pragma once

namespace anvil::quantity {

/// In statistics: exact, right-, left-, interval-censored. Whether a number is used at all, and how sure
/// somebody was of it, are other questions.
enum class Bound {
    exact,
    above,  ///< at least
    below,  ///< at most
    between ///< from the value to a second one above it
};

/// The word used by scripts: "exact", "above", "below", "between".
constexpr const char* word(Bound bound) {
    constexpr const char* words[] = {"exact", "above", "below", "between"};
    return words[static_cast<int>(bound)];
}

} // namespace anvil::quantity
