// Whatever a spreadsheet, web page or packed file holds: sheets of text or a sentence, never a crash.
#include "../src/tables/documents.h"
#include <cstdlib>

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    using namespace anvil::tables;
    const std::string_view bytes(reinterpret_cast<const char*>(data), size);
    if (bytes.starts_with("\xD0\xCF")) return 0; // read in a process of its own, whose end is an answer too
    if (const auto loose = unpacked(bytes); !loose && loose.error().message.empty()) std::abort();
    const auto doc = openDocument(bytes);
    if (!doc && doc.error().message.empty()) std::abort();
    if (doc && *doc && (*doc)->sheets.empty()) std::abort();
    return 0;
}
