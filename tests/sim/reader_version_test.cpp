// Readings are kept beside their samples by the version of the reader: it has to be raised when curves are
// read otherwise.
#include <anvil/curve/reading.h>
#include <anvil/sim/specimen.h>
#include <cstdint>
#include <fmt/format.h>
#include <gtest/gtest.h>
#include <string>

using namespace anvil;

namespace {

/// Everything a reading tells, to six digits: the last bits may differ from machine to machine.
std::string told(const curve::Reading& r) {
    std::string out = fmt::format("{} {} {} {} {:.6g} {:.6g} {:.6g}\n", r.samples, r.dropped, r.spikes,
                                  r.departure, r.baseline, r.noise, r.resolution);
    const auto landmark = [&](const std::optional<curve::Landmark>& m) {
        out +=
            m ? fmt::format("{} {:.6g} {:.6g} {:.6g}\n", m->index, m->time, m->load, m->travel.value_or(-1))
              : "none\n";
    };
    landmark(r.peak);
    landmark(r.firstSlip);
    landmark(r.breakPoint);
    if (r.stiffness)
        out += fmt::format("{:.6g} {:.6g} {:.6g}\n", r.stiffness->value, r.stiffness->from, r.stiffness->to);
    for (const auto& v : {r.toe, r.slack, r.energyToFirstSlip, r.energyToPeak, r.energyToBreak, r.breakaway,
                          r.running, r.loadRate, r.travelRate})
        out += v ? fmt::format("{:.6g} ", *v) : "none ";
    if (r.residual) out += fmt::format("{:.6g} {:.6g} ", r.residual->load, r.residual->share);
    if (r.fall) out += fmt::format("{:.6g} {}", r.fall->ratio, r.fall->word);
    for (const auto* words : {&r.warnings, &r.notes})
        for (const auto& w : *words)
            out += "\n" + w;
    return out;
}

TEST(ReaderVersion, IsRaisedWhenCurvesAreReadOtherwise) {
    std::uint64_t sum = 14695981039346656037ULL; // FNV-1a, 64 bits
    for (const auto& model : sim::allModels)
        for (std::uint64_t seed = 1; seed <= 20; ++seed) {
            const auto bench = sim::typicalBench(model, seed);
            const auto read = curve::read(sim::pull(bench.specimen, bench.logger, seed).curve, {});
            ASSERT_TRUE(read);
            for (const char c : told(*read)) {
                sum ^= static_cast<unsigned char>(c);
                sum *= 1099511628211ULL;
            }
        }
    EXPECT_EQ(curve::readerVersion, 4);
    EXPECT_EQ(sum, 17117483139679473504ULL)
        << "curves are read otherwise than by this version: raise curve::readerVersion, and put "
           "the new sum here";
}

} // namespace
