// Values that are all exact, in a few words.
#pragma once

#include <anvil/stats/summary.h>
#include <initializer_list>
#include <vector>

namespace anvil::stats {

inline std::vector<Value> exact(std::initializer_list<double> values) {
    std::vector<Value> out;
    for (const double v : values)
        out.push_back({v, Bound::exact, v});
    return out;
}

} // namespace anvil::stats
