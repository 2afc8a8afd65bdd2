// Twenty broken logs: the exact sentence for what cannot be read, and the good rows beside it still read.
#include <algorithm>
#include <anvil/tables/log.h>
#include <cstdio>
#include <filesystem>
#include <fmt/format.h>
#include <fstream>
#include <gtest/gtest.h>

namespace fs = std::filesystem;
using namespace anvil::tables;

namespace {

std::string slurp(const fs::path& path) {
    std::ifstream in(path, std::ios::binary);
    return {std::istreambuf_iterator<char>(in), {}};
}

/// What a reader of the file is told, a line a fact.
std::string told(const std::string& bytes) {
    const auto log = readLog(bytes);
    if (!log) return "not read: " + log.error().message + "\n";
    std::string out;
    for (const auto& p : log->problems)
        out += "line " + std::to_string(p.line) + " " + p.reason + "\n";
    for (const auto& n : log->notes)
        out += n + "\n";
    std::size_t rows = 0;
    for (const auto& r : log->runs)
        rows += r.curve.load.size();
    out += std::to_string(log->runs.size()) + (log->runs.size() == 1 ? " run, " : " runs, ") +
           std::to_string(rows) + " rows read";
    if (!log->forceUnitKnown) out += ", no force unit";
    return out + "\n";
}

class Broken : public testing::TestWithParam<int> {};

TEST_P(Broken, SaysExactlyWhatIsWrongAndKeepsTheRest) {
    const fs::path folder = fs::path(TEST_DATA) / "broken" / fmt::format("{:02}", GetParam());
    ASSERT_TRUE(fs::exists(folder / "expected.txt"));
    int logs = 0;
    for (const auto& entry : fs::directory_iterator(folder)) {
        if (entry.path().filename() == "expected.txt") continue;
        ++logs;
        EXPECT_EQ(told(slurp(entry.path())), slurp(folder / "expected.txt")) << entry.path();
    }
    EXPECT_EQ(logs, 1);
}

INSTANTIATE_TEST_SUITE_P(All, Broken, testing::Range(1, 21));

} // namespace
