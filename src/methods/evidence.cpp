#include <anvil/methods/evidence.h>
#include <anvil/methods/method.h>

namespace anvil::methods {

using quantity::Bound;

std::optional<double> Evidence::value(std::string_view key) const {
    const auto at = inputs.find(key);
    return at == inputs.end() ? std::nullopt : std::optional(at->second.si);
}

std::optional<stats::Value> Evidence::doubted(std::string_view key) const {
    const auto at = inputs.find(key);
    if (at == inputs.end()) return std::nullopt;
    const auto& e = at->second;
    switch (e.bound) {
    case Bound::above:
    case Bound::below:
        return stats::Value{e.si, e.bound, e.si};
    case Bound::between:
        return stats::Value{e.si, e.bound, e.upperSi};
    case Bound::exact:
        break;
    }
    return stats::Value{e.si, bound, e.si};
}

const Number* Numbers::find(std::string_view metric) const {
    for (const auto& n : numbers)
        if (n.metric->key == metric) return &n;
    return nullptr;
}

} // namespace anvil::methods
