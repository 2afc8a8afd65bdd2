// Packed chunks: the same to the last bit, whatever the samples, and smaller where a logger wrote decimals.
#include "../../src/store/packing.h"

#include <bit>
#include <cmath>
#include <gtest/gtest.h>
#include <limits>

using namespace anvil::store;

namespace {

/// What comes out is what went in, bit by bit; the share of the size that is left.
double share(const std::vector<double>& values, Packing expected) {
    const auto chunk = packed(values);
    EXPECT_EQ(static_cast<int>(chunk.packing), static_cast<int>(expected));
    std::vector<double> out{1, 2}; // it appends
    EXPECT_TRUE(unpacked(chunk.packing, chunk.data, values.size(), out));
    EXPECT_EQ(out.size(), values.size() + 2);
    for (std::size_t i = 0; i < values.size() && i + 2 < out.size(); ++i)
        EXPECT_EQ(std::bit_cast<std::uint64_t>(out[i + 2]), std::bit_cast<std::uint64_t>(values[i])) << i;
    return values.empty() ? 1
                          : static_cast<double>(chunk.data.size()) / static_cast<double>(values.size() * 8);
}

std::vector<double> made(std::size_t n, const std::function<double(std::size_t)>& f) {
    std::vector<double> v(n);
    for (std::size_t i = 0; i < n; ++i)
        v[i] = f(i);
    return v;
}

TEST(Packing, WhatCannotBePackedIsKeptAsItIs) {
    const auto fails = [](std::vector<char>&, std::span<const char>) { return false; };
    for (const double step : {0.01, 0.01 * 3.14159265358979}) {
        const auto values = made(500, [&](std::size_t i) { return static_cast<double>(i) * step; });
        const auto chunk = packed(values, fails);
        EXPECT_EQ(chunk.packing, Packing::plain);
        std::vector<double> out;
        EXPECT_TRUE(unpacked(chunk.packing, chunk.data, values.size(), out));
        EXPECT_EQ(out, values);
    }
}

TEST(Packing, WhatLoggersWriteBecomesSmall) {
    unsigned state = 1;
    const auto noise = [&] { return static_cast<int>((state = state * 1664525 + 1013904223) >> 24) - 128; };
    EXPECT_LT(share(made(100000, [](std::size_t i) { return static_cast<double>(i * 5) / 10000; }),
                    Packing::decimals),
              0.01)
        << "a clock";
    EXPECT_LT(share(made(100000, [&](std::size_t i) { return (static_cast<double>(i) * 7 + noise()) / 100; }),
                    Packing::decimals),
              0.2)
        << "a force with noise";
    for (const double factor : {0.001, 9.80665, 4.4482216152605, 0.0254, 1000.0}) // mm, kgf, lbf, in, kN
        EXPECT_LT(
            share(made(20000,
                       [&](std::size_t i) { return (static_cast<double>(i) * 3 + noise()) / 1000 * factor; }),
                  Packing::decimals),
            0.3)
            << factor;
    EXPECT_LT(share(made(5000, [](std::size_t i) { return 1772460333.25 + static_cast<double>(i) / 100; }),
                    Packing::decimals),
              0.05)
        << "seconds since 1970";
}

TEST(Packing, MinusNothingAndWhatIsNoNumberStay) {
    auto v = made(20000, [](std::size_t i) { return static_cast<double>(i % 100) / 10; });
    v[0] = -0.0;
    v[77] = -0.0;
    v[500] = std::numeric_limits<double>::quiet_NaN();
    v[501] = std::numeric_limits<double>::infinity();
    v[19999] = 1e300;
    EXPECT_LT(share(v, Packing::decimals), 0.2);
}

TEST(Packing, WhatIsNoDecimalIsShuffledOrPlain) {
    EXPECT_LT(share(made(50000, [](std::size_t i) { return std::sin(static_cast<double>(i) * 1e-4) * 1234; }),
                    Packing::shuffled),
              0.95);
    std::uint64_t state = 9;
    (void)share(made(10000,
                     [&](std::size_t) {
                         state = state * 6364136223846793005ULL + 1442695040888963407ULL;
                         return std::bit_cast<double>((state & 0x000fffffffffffffULL) |
                                                      0x3ff0000000000000ULL);
                     }),
                Packing::shuffled);
    for (const std::size_t n : {0U, 1U, 63U})
        (void)share(made(n, [](std::size_t i) { return static_cast<double>(i); }), Packing::plain);
    (void)share(made(64, [](std::size_t) { return 9007199254740993e5; }), Packing::shuffled);
}

TEST(Packing, DamagedDataAreSeenOrHarmless) {
    const auto values = made(3000, [](std::size_t i) { return static_cast<double>(i * i % 977) / 10; });
    unsigned state = 3;
    for (const auto packing : {Packing::plain, Packing::shuffled, Packing::decimals}) {
        auto chunk = packed(values);
        if (packing != chunk.packing)
            chunk = packed(made(3000, [](std::size_t i) { return std::sqrt(static_cast<double>(i)); }));
        for (int round = 0; round < 3000; ++round) {
            auto data = chunk.data;
            data.detach();
            const auto next = [&state] { return state = state * 1664525 + 1013904223; };
            for (unsigned k = next() % 4 + 1; k > 0; --k) {
                const auto at = static_cast<qsizetype>(next() % static_cast<unsigned>(data.size()));
                data[at] = static_cast<char>(data[at] ^ (1 << (next() >> 29)));
            }
            if (round % 5 == 0) data.truncate(data.size() / 2);
            std::vector<double> out;
            if (unpacked(chunk.packing, data, 3000, out)) {
                EXPECT_EQ(out.size(), 3000U);
            }
        }
    }
    std::vector<double> out;
    EXPECT_FALSE(unpacked(static_cast<Packing>(7), {}, 0, out));
    EXPECT_FALSE(unpacked(Packing::shuffled, {}, std::size_t{1} << 40, out));
}

} // namespace
