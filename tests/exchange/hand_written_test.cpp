// Packages written by hand, one a method: what is told of them agrees with what was worked out elsewhere.
#include "csv.h"
#include "trip.h"

#include <QDir>
#include <QFile>
#include <algorithm>
#include <anvil/quantity/digits.h>
#include <anvil/results/evidence.h>
#include <fmt/format.h>

namespace anvil::exchange {
namespace {

const QString folder = QStringLiteral(TEST_DATA "/packages");

std::vector<std::string> methodsWithPackages() {
    std::vector<std::string> out;
    for (const auto& name : QDir(folder).entryList(QDir::Dirs | QDir::NoDotAndDotDot))
        out.push_back(name.toStdString());
    return out;
}

class HandWritten : public testing::TestWithParam<std::string> {};

TEST_P(HandWritten, TellsWhatWasWorkedOut) {
    QTemporaryDir dir;
    const auto path = folder + '/' + QString::fromStdString(GetParam());
    ASSERT_TRUE(isPackage(path));
    const auto package = readPackage(path);
    ASSERT_TRUE(package) << package.error().message;
    {
        const auto file = fresh(dir.filePath("p.anvil"));
        const auto taken = takeIn(*file, *package);
        ASSERT_TRUE(taken) << taken.error().message;
    }
    auto project = std::move(project::OpenProject::open(dir.filePath("p.anvil")).value());
    ASSERT_EQ(project->studies().size(), 1u);
    const auto& data = project->studies().front();
    EXPECT_EQ(data.study.plan.method, GetParam());
    const auto& readings = project->readings(data.study.id);

    QFile file(path + ".expected.csv");
    ASSERT_TRUE(file.open(QIODevice::ReadOnly));
    const auto expected = readCsv(file.readAll().toStdString());
    ASSERT_TRUE(expected) << expected.error().message;
    int compared = 0;
    for (const auto& row : expected->rows) {
        const auto option = std::find_if(data.options.begin(), data.options.end(),
                                         [&](const auto& o) { return o.name == row.cells[0]; });
        ASSERT_NE(option, data.options.end()) << row.cells[0];
        const auto& metric = row.cells[1];
        if (metric == "best") {
            const auto& verdict = project->verdict(data.study.id, data.study.goal.metric);
            ASSERT_FALSE(verdict.groups.empty());
            EXPECT_EQ(verdict.groups.front().option, option->id) << "the best";
            ++compared;
            continue;
        }
        const auto under = metric.find('_');
        const auto kind = metric.substr(0, under);
        const bool special = kind == "least" || kind == "median";
        std::vector<double> values;
        for (const auto& pull : data.pulls) {
            if (data.specimenAt(pull.specimen).option != option->id) continue;
            const auto all = results::measured(data, pull, readings.find(pull.id));
            ASSERT_TRUE(all) << all.error().message;
            const auto* number = all->find(special ? metric.substr(under + 1) : metric);
            ASSERT_TRUE(number && number->value)
                << metric << ": " << (number ? number->whyNot : "no such metric");
            values.push_back(number->value->value);
        }
        ASSERT_FALSE(values.empty());
        std::sort(values.begin(), values.end());
        double mean = 0;
        for (const double v : values)
            mean += v / static_cast<double>(values.size());
        const double got = kind == "least"    ? values.front()
                           : kind == "median" ? values[values.size() / 2]
                                              : mean;
        const double want = quantity::machineNumber(row.cells[2]).value();
        EXPECT_NEAR(got, want, (GetParam() == "drop" ? 2e-3 : 1e-9) * std::abs(want))
            << row.cells[0] << ", " << metric;
        ++compared;
    }
    EXPECT_GE(compared, 3);
    expectEqualAfterTrip(project->file());
}

INSTANTIATE_TEST_SUITE_P(Methods, HandWritten, testing::ValuesIn(methodsWithPackages()),
                         [](const auto& info) {
                             auto name = info.param;
                             std::replace(name.begin(), name.end(), '-', '_');
                             return name;
                         });

TEST(HandWrittenPackages, ThereIsOneForEveryMethod) {
    const auto written = methodsWithPackages();
    for (const auto* method : methods::all())
        EXPECT_TRUE(std::count(written.begin(), written.end(), method->key)) << method->key;
    EXPECT_EQ(written.size(), methods::all().size());
}

} // namespace
} // namespace anvil::exchange
