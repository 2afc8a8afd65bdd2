#include <anvil/words/beside.h>

#include <algorithm>
#include <anvil/quantity/print.h>
#include <cmath>
#include <fmt/format.h>

namespace anvil::words {

void addBeside(Table& table, std::span<const curve::Channel> channels, std::size_t peak,
               const quantity::Units& units) {
    for (const auto& channel : channels) {
        const auto unit = quantity::findUnit(channel.unit);
        const auto shown = [&](double v) {
            if (!unit) return quantity::significant(v);
            const bool warmth = (*unit)->dimension == quantity::Dimension::temperature; // nobody reads kelvin
            return quantity::withUnit(v, warmth ? quantity::unit("°C") : units.of((*unit)->dimension));
        };
        double low = 0, high = 0;
        bool any = false;
        for (const double v : channel.values) {
            if (std::isnan(v)) continue;
            low = any ? std::min(low, v) : v;
            high = any ? std::max(high, v) : v;
            any = true;
        }
        if (!any) continue;
        const bool there = peak < channel.values.size() && !std::isnan(channel.values[peak]);
        table.rows.push_back(
            {{channel.name + " at the peak", there ? shown(channel.values[peak]) : "–", "",
              low == high ? "the same all along"
                          : fmt::format("from {} to {} over the log", shown(low), shown(high))},
             0});
    }
}

} // namespace anvil::words
