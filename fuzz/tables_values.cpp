// A table of results as somebody may have written it: read or refused with a sentence.
#include <anvil/tables/values.h>

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    auto table = anvil::tables::readValues({reinterpret_cast<const char*>(data), size});
    if (table) (void)anvil::tables::unify(table->rows);
    return 0;
}
