// Whatever a device says: lines, layouts, samples and answers must be taken or refused, never crash.
#include <anvil/columns/line.h>
#include <anvil/rig/lines.h>
#include <cmath>
#include <cstdlib>

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    using namespace anvil::rig;
    const std::string_view bytes(reinterpret_cast<const char*>(data), size);
    LineCutter cutter;
    std::vector<std::string> lines;
    const std::size_t half = size / 2; // in two pieces, as a wire may deliver them
    for (const auto piece : {bytes.substr(0, half), bytes.substr(half)})
        cutter.feed(piece, [&](std::string_view l) {
            if (l.size() > LineCutter::mostBytes + 1) std::abort();
            if (lines.size() < 200) lines.emplace_back(l);
        });
    if (const auto layout = guessLayout(lines)) {
        if (const auto make = SampleMaker::make(*layout))
            for (const auto& l : lines)
                if (const auto s = (*make)(l))
                    if (!std::isfinite(s->load) || (s->time && !std::isfinite(*s->time))) std::abort();
    }
    for (const auto& l : lines) {
        for (const auto& part : anvil::columns::partsOf(l))
            if (part.from > part.to || part.to > l.size()) std::abort();
        (void)anvil::columns::saysOverload(l);
    }
    for (const auto& l : lines)
        if (const auto a = answerOf(l))
            if (!std::isfinite(*a)) std::abort();
    return 0;
}
