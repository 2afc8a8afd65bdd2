// Packed samples: what was packed comes back to the last bit; whatever else is unpacked never crashes.
#include "packing.h"
#include <cstdlib>
#include <cstring>

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    using namespace anvil::store;
    std::vector<double> values(size / sizeof(double)), out;
    if (!values.empty()) std::memcpy(values.data(), data, values.size() * sizeof(double));
    const auto chunk = packed(values);
    if (!unpacked(chunk.packing, chunk.data, values.size(), out) || out.size() != values.size()) std::abort();
    if (!values.empty() && std::memcmp(values.data(), out.data(), values.size() * sizeof(double)) != 0)
        std::abort();
    if (size > 2) {
        out.clear();
        const auto bytes = QByteArray::fromRawData(reinterpret_cast<const char*>(data) + 2,
                                                   static_cast<qsizetype>(size - 2));
        (void)unpacked(static_cast<Packing>(data[0] % 4), bytes, data[1] * 16U, out);
    }
    return 0;
}
