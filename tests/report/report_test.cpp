#include <QFile>
#include <QProcess>
#include <QRegularExpression>
#include <QTemporaryDir>
#include <anvil/chart/painter.h>
#include <anvil/report/pages.h>
#include <anvil/sim/specimen.h>
#include <gtest/gtest.h>

using namespace anvil;
using namespace anvil::report;

namespace {

struct Study {
    study::StudyData data;
    study::Readings readings;
    std::map<study::Id, std::shared_ptr<const curve::ReadCurve>> curves;
    std::map<study::Metric, study::Verdict> verdicts;

    explicit Study(int options = 2, int replicates = 3) {
        data.study.title = "Pegs & <cords>";
        data.study.question = "Which holds?";
        data.conditions.push_back({});
        data.conditions.back().id = 11;
        data.conditions.back().name = "Dry";
        for (int o = 1; o <= options; ++o) {
            study::Option option;
            option.id = o;
            option.name = "Option " + std::to_string(o);
            if (o == 1) {
                option.unitCost = 1.5;
                option.currency = "EUR";
            }
            data.options.push_back(option);
            for (int r = 1; r <= replicates; ++r) {
                study::Specimen s;
                s.id = 100 * o + r;
                s.option = o;
                s.condition = 11;
                s.label = "P" + std::to_string(s.id);
                data.specimens.push_back(s);
                study::Pull p;
                p.id = 1000 + s.id;
                p.specimen = s.id;
                p.curve = p.id;
                p.whatBroke = "the cord";
                const auto seed = static_cast<std::uint64_t>(s.id);
                const auto bench = sim::typicalBench(sim::Model::pullOut, seed);
                auto read = curve::readAndKeep(sim::pull(bench.specimen, bench.logger, seed).curve);
                readings.byPull[p.id] = read->reading;
                curves[p.id] = std::make_shared<const curve::ReadCurve>(std::move(*read));
                data.pulls.push_back(p);
            }
        }
    }
    Source source() {
        return {&data,
                &readings,
                [this](study::Metric m) -> const study::Verdict& {
                    return verdicts[m] = study::evaluate(data, readings, m, 0.1);
                },
                [this](study::Id id) { return curves[id]; },
                "pegs",
                "as of 2026-05-04"};
    }
};

QString run(const QString& program, const QStringList& arguments) {
    QProcess p;
    p.start(program, arguments);
    EXPECT_TRUE(p.waitForFinished(30000)) << program.toStdString();
    return QString::fromUtf8(p.readAllStandardOutput());
}

TEST(Report, HtmlHoldsTheSameWordsAsThePdf) {
    chart::loadFonts();
    Study s;
    const auto document = compose(s.source(), unitsFrom("kN", "mm"));
    const auto html = toHtml(document);
    EXPECT_TRUE(html.contains("Pegs &amp; &lt;cords&gt;"));
    EXPECT_FALSE(html.contains("<cords>"));
    EXPECT_FALSE(html.contains("http://") && !html.contains("http://www.w3.org"))
        << "needs nothing from elsewhere";
    EXPECT_TRUE(html.contains("<svg"));
    QTemporaryDir dir;
    ASSERT_TRUE(writePdf(document, dir.filePath("r.pdf")));
    const auto pdf = run("pdftotext", {"-layout", dir.filePath("r.pdf"), "-"}).simplified();
    for (const auto& block : document.blocks)
        if (const auto* table = std::get_if<Table>(&block))
            for (const auto& row : table->rows)
                for (const auto& cell : row)
                    if (cell.contains(QRegularExpression("\\d")) && !cell.contains(' ')) {
                        EXPECT_TRUE(pdf.contains(cell)) << cell.toStdString();
                        EXPECT_TRUE(html.contains(cell.toHtmlEscaped())) << cell.toStdString();
                    }
}

TEST(Report, PdfHoldsNoRasterImage) {
    chart::loadFonts();
    Study s;
    QTemporaryDir dir;
    ASSERT_TRUE(writePdf(compose(s.source(), unitsFrom("N", "mm")), dir.filePath("r.pdf")));
    EXPECT_EQ(run("pdfimages", {"-list", dir.filePath("r.pdf")}).split('\n', Qt::SkipEmptyParts).size(), 2)
        << "only the two lines of its heading";
    const auto text = run("pdftotext", {"-layout", dir.filePath("r.pdf"), "-"});
    EXPECT_TRUE(text.contains("Force (N)")) << "labels of charts are text";
}

TEST(Report, ManyOptionsRunOverPagesAndNothingIsCut) {
    chart::loadFonts();
    Study s(9, 7);
    const auto pages = paginate(compose(s.source(), unitsFrom("lbf", "in")));
    EXPECT_GT(pages.size(), 5U);
    for (const auto& page : pages)
        for (const auto& item : page.items) {
            EXPECT_GE(item.rect.left(), 0);
            EXPECT_LE(item.rect.right(), pageWidth + 0.5);
            EXPECT_LE(item.rect.bottom(), pageHeight) << item.text.toStdString();
        }
}

TEST(Report, AnEmptyStudyIsAReportToo) {
    chart::loadFonts();
    Study s(0, 0);
    s.data.conditions.clear();
    const auto html = toHtml(compose(s.source(), unitsFrom("N", "mm")));
    EXPECT_TRUE(html.contains("nothing to rank"));
}

TEST(Report, CautionsAreAlwaysThere) {
    Study s;
    const auto html = toHtml(compose(s.source(), unitsFrom("N", "mm")));
    for (const auto& c : cautions())
        EXPECT_TRUE(html.contains(c.toHtmlEscaped())) << c.toStdString();
    EXPECT_TRUE(cautions().join(' ').contains("licensed or competent person"));
}

TEST(Report, AFileThatCannotBeWrittenIsASentence) {
    chart::loadFonts();
    Study s(1, 1);
    const auto result = writePdf(compose(s.source(), unitsFrom("N", "mm")), "/no/such/folder/r.pdf");
    ASSERT_FALSE(result);
    EXPECT_NE(result.error().message.find("cannot be written"), std::string::npos);
}

TEST(Units, FollowTheChoice) {
    using quantity::Dimension;
    for (const char* force : {"N", "kN", "kgf", "lbf"})
        for (const char* length : {"mm", "in"}) {
            const auto u = unitsFrom(force, length);
            EXPECT_EQ(u.of(Dimension::force).symbol, force);
            EXPECT_EQ(std::string(u.of(Dimension::stiffness).symbol), std::string(force) + "/" + length);
            EXPECT_NEAR(u.of(Dimension::stiffness).factor, u.force->factor / u.length->factor,
                        1e-9 * u.of(Dimension::stiffness).factor);
        }
    EXPECT_EQ(unitsFrom("stone", "cubit").force->symbol, "N");
}

TEST(Report, ATorqueStudyNeverSpeaksOfNewtonsAlone) {
    Study s(2, 3);
    s.data.study.plan.method = "torque";
    s.data.study.metric = study::Metric::breakaway;
    for (auto& [id, reading] : s.readings.byPull) {
        reading.load = quantity::Dimension::torque;
        reading.travel = quantity::Dimension::angle;
        reading.breakaway = reading.peak.force / 100;
    }
    for (auto& [id, curve] : s.curves) {
        auto copy = *curve;
        copy.reading = s.readings.byPull.at(id);
        curve = std::make_shared<const curve::ReadCurve>(std::move(copy));
    }
    const auto chart = overlayOf(s.source(), 1, 11, unitsFrom("N", "mm"), 200);
    EXPECT_EQ(chart.yTitle, "Torque (N·m)");
    EXPECT_EQ(chart.xTitle, "Angle from the toe (°)");
    const auto html = toHtml(compose(s.source(), unitsFrom("N", "mm")));
    EXPECT_TRUE(html.contains("Breakaway torque"));
    EXPECT_TRUE(html.contains("N·m"));
    EXPECT_FALSE(html.contains("Peak force")) << "nothing is listed that the method does not tell";
}

} // namespace
