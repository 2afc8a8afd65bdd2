// Whatever somebody types: a measurement or a sentence, at once, and what was read survives being printed.
#include <anvil/quantity/entry.h>
#include <cmath>

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    using namespace anvil::quantity;
    const std::string_view text(reinterpret_cast<const char*>(data), size);
    (void)parseNumber(text);
    for (const auto wanted : {std::optional<Dimension>{}, std::optional(Dimension::force),
                              std::optional(Dimension::length), std::optional(Dimension::money)}) {
        const auto entry = parseEntry(text, wanted, &unit("N"));
        if (!entry) {
            if (entry.error().message.empty()) __builtin_trap();
            continue;
        }
        if (!std::isfinite(entry->si) || !entry->unit || (wanted && entry->unit->dimension != *wanted))
            __builtin_trap();
        const auto again = parseEntry(print(*entry), entry->unit->dimension, entry->unit);
        if (!again || again->bound != entry->bound || again->precision != entry->precision) __builtin_trap();
    }
    return 0;
}
