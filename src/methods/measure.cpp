// Looking at what was entered before a method's formulas do.
#include <anvil/methods/method.h>

#include <anvil/quantity/print.h>
#include <cmath>
#include <fmt/format.h>

namespace anvil::methods {

using quantity::Bound;

namespace {

/// Whether an entry may stand under this input; the sentence that says why not, or nothing.
std::string wrongWith(const Input& input, const quantity::Entry& e) {
    const bool other = input.orElse && e.unit && e.unit->dimension == *input.orElse;
    if (e.unit && e.unit->dimension != input.dimension && !other)
        return fmt::format("\"{}\" is {}: {} is needed.", input.title, quantity::name(e.unit->dimension),
                           quantity::name(input.dimension));
    if (e.bound != Bound::exact && !input.mayBeBound)
        return fmt::format("\"{}\" is needed as one number, not as a bound.", input.title);
    if (!input.mayBeZero && !(e.si > 0)) return fmt::format("\"{}\" must be more than zero.", input.title);
    return {};
}

} // namespace

Expected<Numbers> measure(const Method& method, const Evidence& evidence) {
    for (const auto& [key, entry] : evidence.inputs) {
        const auto* input = method.input(key);
        if (!input) return fail(fmt::format("{} has no input \"{}\".", method.title, key));
        if (const auto wrong = wrongWith(*input, entry); !wrong.empty()) return fail(wrong);
    }
    for (const auto& [key, entries] : evidence.legs) {
        const auto* input = method.input(key);
        if (!input) return fail(fmt::format("{} has no input \"{}\".", method.title, key));
        for (const auto& e : entries)
            if (std::isnan(e.si))
                continue; // a leg of which nobody said it
            else if (const auto wrong = wrongWith(*input, e); !wrong.empty())
                return fail(wrong);
    }
    auto measured = method.formulas(method, evidence);
    if (!measured) return measured;
    for (auto& n : measured->numbers)
        if (!n.value && n.whyNot.empty()) n.whyNot = "nothing that was entered tells it";
    return measured;
}

} // namespace anvil::methods
