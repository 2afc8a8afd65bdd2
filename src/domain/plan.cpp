#include <anvil/domain/plan.h>

#include <algorithm>

namespace anvil::domain {

const PlannedSquare* Plan::square(Id option, Id condition) const {
    for (const auto& s : squares)
        if (s.option == option && s.condition == condition) return &s;
    return nullptr;
}

PlannedSquare& Plan::squareFor(Id option, Id condition) {
    for (auto& s : squares)
        if (s.option == option && s.condition == condition) return s;
    squares.push_back({option, condition, std::nullopt, false, {}, {}, {}, {}});
    return squares.back();
}

int Plan::replicatesOf(Id option, Id condition) const {
    const auto* s = square(option, condition);
    if (s && s->struck) return 0;
    return s && s->replicates ? *s->replicates : replicates;
}

const Acceptance* Plan::acceptance(const std::string& rule) const {
    for (const auto& a : accepted)
        if (a.rule == rule) return &a;
    return nullptr;
}

} // namespace anvil::domain
