// A set-up out of a file somebody else may have written.
#include <anvil/rig/setup.h>

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    using namespace anvil::rig;
    if (const auto s = setupFromJson(std::string(reinterpret_cast<const char*>(data), size))) {
        (void)problems(*s, "2026-05-04");
        (void)limitOf(*s);
        if (const auto c = Conversion::make(*s)) (void)c->force(12);
        if (!setupFromJson(toJson(*s))) __builtin_trap();
    }
    return 0;
}
