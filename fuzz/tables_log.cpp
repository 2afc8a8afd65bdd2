// Whatever a logger wrote: a file must be read or refused with a sentence, never crash.
#include <anvil/tables/log.h>

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    const std::string_view bytes(reinterpret_cast<const char*>(data), size);
    if (const auto log = anvil::tables::readLog(bytes))
        if (log->runs.empty()) __builtin_trap();
    return 0;
}
