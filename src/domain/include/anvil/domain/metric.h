// The number a study is decided by, found by key in the rows of the methods.
#pragma once

#include <anvil/methods/method.h>
#include <compare>
#include <optional>
#include <string_view>
#include <vector>

namespace anvil::domain {

using methods::key;
using methods::Sense;
using methods::senseFromKey;

/// A metric: a row of a method. Two of one key are one metric, whatever method words them.
class Metric {
public:
    Metric(); ///< the peak force
    Metric(const methods::Metric& row) : m_row(&row) {}
    const methods::Metric* operator->() const { return m_row; }
    const methods::Metric& operator*() const { return *m_row; }
    friend bool operator==(const Metric& a, const Metric& b) { return a->key == b->key; }
    friend auto operator<=>(const Metric& a, const Metric& b) { return a->key <=> b->key; }

private:
    const methods::Metric* m_row;
};

/// By key, in the words of `method` where it has it. Empty: no method offers it.
std::optional<Metric> metricFromKey(std::string_view key, std::string_view method = {});
/// By a key that is known to be one; throws std::logic_error for any other.
Metric metric(std::string_view key);

/// The metrics a method offers to the verdict, the usual one first; of an axial pull where it is unknown.
std::vector<Metric> metricsOf(std::string_view method);

} // namespace anvil::domain
