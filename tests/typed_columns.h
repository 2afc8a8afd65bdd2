// Columns in a line, as tests write them: "time [ms], leg B [kN] = MEAS:FORC2?, -".
#pragma once

#include <algorithm>
#include <anvil/rig/lines.h>
#include <string>
#include <vector>

namespace anvil::rig {

inline Expected<std::vector<LineColumn>> columnsFrom(const std::string& text) {
    const auto trimmed = [](std::string s) {
        while (!s.empty() && s.back() == ' ')
            s.pop_back();
        return s.substr(std::min(s.find_first_not_of(' '), s.size()));
    };
    std::vector<ColumnText> typed;
    for (std::size_t at = 0; at < text.size();) {
        const auto end = std::min(text.find(',', at), text.size());
        const auto part = text.substr(at, end - at);
        at = end + 1;
        const auto sign = part.rfind('='), open = part.find('['), close = part.find(']');
        ColumnText t{trimmed(part.substr(0, std::min(open, sign))), {}, {}};
        if (open != std::string::npos) t.unit = trimmed(part.substr(open + 1, close - open - 1));
        if (sign != std::string::npos) t.question = trimmed(part.substr(sign + 1));
        typed.push_back(std::move(t));
    }
    return columnsOf(typed);
}

} // namespace anvil::rig
