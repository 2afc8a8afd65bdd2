#include <anvil/methods/evidence.h>
#include <anvil/methods/method.h>

namespace anvil::methods {

std::optional<double> Evidence::value(std::string_view key) const {
    const auto at = inputs.find(key);
    return at == inputs.end() ? std::nullopt : std::optional(at->second.si);
}

std::optional<stats::Value> Evidence::doubted(std::string_view key) const {
    using quantity::Doubt;
    const auto at = inputs.find(key);
    if (at == inputs.end()) return std::nullopt;
    const auto& e = at->second;
    if (state == stats::State::aside) return stats::Value{e.si, state, e.upperSi};
    switch (e.doubt) {
    case Doubt::above:
        return stats::Value{e.si, stats::State::above, e.si};
    case Doubt::below:
        return stats::Value{e.si, stats::State::below, e.si};
    case Doubt::between:
        return stats::Value{e.si, stats::State::between, e.upperSi};
    case Doubt::exact:
    case Doubt::about:
    case Doubt::plusMinus:
        break;
    }
    return stats::Value{e.si, state, e.si};
}

const Number* Measured::find(std::string_view metric) const {
    for (const auto& n : numbers)
        if (n.metric->key == metric) return &n;
    return nullptr;
}

} // namespace anvil::methods
