// The units of what was typed, for the numbers that come without one.
#pragma once

#include <algorithm>
#include <anvil/methods/method.h>
#include <anvil/project/open_project.h>

namespace anvil::project {

/// Every field that is new says its unit: the next bare number of its dimension is in it too.
inline void hear(OpenProject& project, Id study, const methods::Method& method,
                 const std::vector<domain::FieldText>& fields,
                 const std::vector<domain::FieldText>& known = {}) {
    for (const auto& field : fields) {
        if (std::find(known.begin(), known.end(), field) != known.end()) continue;
        if (const auto* input = methods::inputNamed(method, field.key))
            if (const auto entry = methods::entryOf(*input, field.text); entry && entry->unit)
                project.heard(study, *entry->unit);
    }
}

} // namespace anvil::project
