// Whatever stands in a cell: a clock, a number, or neither, never a crash and never an endless value.
#include <anvil/columns/number.h>
#include <anvil/tables/names.h>
#include <cmath>
#include <cstdlib>
#include <string>

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    using namespace anvil::columns;
    using namespace anvil::tables;
    const std::string_view cell(reinterpret_cast<const char*>(data), size);
    if (const auto t = clockSeconds(cell); t && !std::isfinite(*t)) std::abort();
    for (const char decimal : {'.', ','}) {
        (void)readNumber(cell, decimal);
        if (const auto v = readGrouped(cell, decimal); v && std::isnan(*v)) std::abort();
    }
    if (size < 200) {
        const std::string name(cell);
        (void)partsOf(name, patternOf({name, "gorse_dry_1.csv"}));
    }
    return 0;
}
