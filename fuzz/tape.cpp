// A tape as a crash or somebody else may have left it. The input is a row of records without their checksums:
// kind (a byte), length (two bytes), body; they are given here, so that the records themselves are reached.
// An input that begins with 255 is a tape as it stands.
#include "tape_records.h"
#include <QFile>
#include <QTemporaryDir>
#include <anvil/store/tape.h>
#include <cstring>
#include <xxhash.h>

namespace {

std::string tapeOf(const std::uint8_t* data, std::size_t size) {
    if (size > 0 && data[0] == 255) return {reinterpret_cast<const char*>(data) + 1, size - 1};
    std::string out;
    for (std::size_t at = 0; at + 3 <= size;) {
        const std::uint32_t kind = data[at];
        const auto bytes = static_cast<std::uint32_t>(
            std::min<std::size_t>(data[at + 1] | data[at + 2] << 8, size - at - 3));
        std::string record(8, '\0');
        std::memcpy(record.data(), &bytes, 4);
        std::memcpy(record.data() + 4, &kind, 4);
        record.append(reinterpret_cast<const char*>(data) + at + 3, bytes);
        const std::uint64_t sum = XXH3_64bits(record.data(), record.size());
        record.append(reinterpret_cast<const char*>(&sum), 8);
        out += record;
        at += 3 + bytes;
    }
    return out;
}

} // namespace

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    using namespace anvil::store;
    static const QTemporaryDir dir(QStringLiteral("/dev/shm/anvil-fuzz-XXXXXX"));
    const auto path = dir.filePath("p.anvil-tape-0a");
    QFile file(path);
    if (!file.open(QIODevice::WriteOnly | QIODevice::Truncate)) __builtin_trap();
    const auto bytes = tapeOf(data, size);
    file.write(bytes.data(), static_cast<qsizetype>(bytes.size()));
    file.close();
    if (const auto tape = readTape({path}))
        if (tape->streams.size() != tape->header.channels.streams()) __builtin_trap();
    return 0;
}
