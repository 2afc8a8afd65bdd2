#include <anvil/pages/page.h>

#include <algorithm>
#include <array>

namespace anvil::pages {

std::span<const Entry> registry() {
    static constexpr std::array entries{
        Entry{"answer", "Answer", answer, hasAnswer},
        Entry{"pairs", "Pairs and why", pairs, hasPairs},
        Entry{"floors", "Floors", floors, hasFloors},
        Entry{"metrics", "Side by side", otherMetrics, hasOtherMetrics},
        Entry{"parts", "What broke", parts},
        Entry{"needs", "Needs", needs},
        Entry{"treatment", "Treatment", treatment},
        Entry{"trend", "Trend", trend},
        Entry{"score", "Score card", score, hasScore},
        Entry{"worth", "Value", worth},
        Entry{"forecasts", "Forecasts", forecasts},
        Entry{"last", "Last time", lastTime},
        Entry{"use", "Working limit", workingLimit, hasWorkingLimit},
        Entry{"arrangement", "Arrangement", arrangement, hasArrangement},
        Entry{"creep", "Over time", creep, hasCreep},
        Entry{"hits", "Hit by hit", hits, hasHits},
        Entry{"legs", "Legs", legs, hasLegs},
        Entry{"devices", "Devices", devices, hasDevices},
        Entry{"table", "Table", rankedTable},
    };
    return entries;
}

const Entry* find(std::string_view key) {
    const auto all = registry();
    const auto at = std::find_if(all.begin(), all.end(), [&](const Entry& e) { return e.key == key; });
    return at == all.end() ? nullptr : &*at;
}

} // namespace anvil::pages
