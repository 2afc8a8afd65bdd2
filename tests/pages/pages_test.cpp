#include <QFile>
#include <QProcess>
#include <QRegularExpression>
#include <QTemporaryDir>
#include <anvil/chart/painter.h>
#include <anvil/pages/page.h>
#include <anvil/pages/paper.h>
#include <anvil/pages/sheets.h>
#include <anvil/pages/write.h>
#include <anvil/quantity/entry.h>
#include <anvil/results/values.h>
#include <anvil/results/verdict.h>
#include <anvil/sim/specimen.h>
#include <anvil/words/verdict.h>
#include <gtest/gtest.h>
#include <set>

using namespace anvil;
using namespace anvil::pages;
using quantity::Units;
using quantity::unitsFrom;

namespace {

struct Study {
    domain::StudyData data;
    results::Readings readings;
    std::map<domain::Id, std::shared_ptr<const curve::ReadCurve>> curves;
    std::map<domain::Metric, results::Verdict> verdicts;

    explicit Study(int options = 2, int replicates = 3) {
        data.study.title = "Pegs & <cords>";
        data.study.question = "Which holds?";
        data.conditions.push_back({});
        data.conditions.back().id = 11;
        data.conditions.back().name = "Dry";
        for (int o = 1; o <= options; ++o) {
            domain::Option option;
            option.id = o;
            option.name = "Option " + std::to_string(o);
            if (o == 1) {
                option.unitCost = 1.5;
                option.currency = "EUR";
            }
            data.options.push_back(option);
            for (int r = 1; r <= replicates; ++r) {
                domain::Specimen s;
                s.id = 100 * o + r;
                s.option = o;
                s.condition = 11;
                s.label = "P" + std::to_string(s.id);
                data.specimens.push_back(s);
                domain::Pull p;
                p.id = 1000 + s.id;
                p.specimen = s.id;
                p.curve = p.id;
                p.outcome.part = "the cord";
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
                [this](domain::Metric m) -> const results::Verdict& {
                    return verdicts[m] =
                               results::evaluate(data, readings, domain::goalFor(data.study.goal, m));
                },
                [this](domain::Id id) { return curves[id]; },
                "pegs",
                "as of 2026-05-04"};
    }
};

Page compose(const Source& source, const Units& units) { return report(source, {units}); }

QString html(const Page& page) { return QString::fromStdString(toHtml(page)); }

QStringList texts(const std::vector<std::string>& all) {
    QStringList out;
    for (const auto& one : all)
        out << QString::fromStdString(one);
    return out;
}

/// A table as it is read.
struct Seen {
    QStringList header;
    std::vector<QStringList> rows;
};

Seen tableWith(const Page& page, const QString& head) {
    for (const auto& b : page.blocks)
        if (const auto* t = std::get_if<words::Table>(&b)) {
            Seen seen;
            for (const auto& c : t->columns)
                seen.header << QString::fromStdString(c.title);
            for (const auto& row : t->rows)
                seen.rows.push_back(texts(row.cells));
            if (seen.header.contains(head)) return seen;
        }
    return {};
}

QStringList sectionOf(const Page& page, const QString& title) {
    for (std::size_t i = 0; i + 1 < page.blocks.size(); ++i)
        if (const auto* h = std::get_if<Heading>(&page.blocks[i]); h && h->text == title.toStdString())
            if (const auto* bullets = std::get_if<Bullets>(&page.blocks[i + 1])) return texts(bullets->items);
    return {};
}

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
    const auto written = html(document);
    EXPECT_TRUE(written.contains("Pegs &amp; &lt;cords&gt;"));
    EXPECT_FALSE(written.contains("<cords>"));
    EXPECT_FALSE(written.contains("http://") && !written.contains("http://www.w3.org"))
        << "needs nothing from elsewhere";
    EXPECT_TRUE(written.contains("<svg"));
    QTemporaryDir dir;
    ASSERT_TRUE(writePdf(document, dir.filePath("r.pdf")));
    const auto pdf = run("pdftotext", {"-layout", dir.filePath("r.pdf"), "-"}).simplified();
    for (const auto& block : document.blocks)
        if (const auto* table = std::get_if<words::Table>(&block))
            for (const auto& row : table->rows)
                for (const auto& cell : texts(row.cells))
                    if (cell.contains(QRegularExpression("\\d")) && !cell.contains(' ')) {
                        EXPECT_TRUE(pdf.contains(cell)) << cell.toStdString();
                        EXPECT_TRUE(written.contains(cell.toHtmlEscaped())) << cell.toStdString();
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
            EXPECT_LE(item.rect.right(), sheetWidth + 0.5);
            EXPECT_LE(item.rect.bottom(), sheetHeight) << item.text.toStdString();
        }
}

/// Whatever is taller than a page flows on: every word of it arrives, within the page.
TEST(Report, LongTextsFlowOnOverPages) {
    chart::loadFonts();
    QStringList words;
    for (int i = 0; i < 3000; ++i)
        words << QStringLiteral("word%1").arg(i);
    const auto note = words.join(' ');
    const QString unbroken(4000, 'x');
    const auto all3000 = note.toStdString(), letters = unbroken.toStdString();
    const Page d{"long",
                 "Long",
                 {Heading{1, note.left(3000).toStdString()}, Paragraph{Paragraph::Style::plain, all3000},
                  Paragraph{Paragraph::Style::caution, letters}, Bullets{{all3000, "short"}},
                  words::Table{"pieces",
                               {{"piece", "Piece"}, {"note", "Note"}},
                               {{{"A1-1", "held"}, 1}, {{"A1-2", all3000}, 2}, {{"A1-3", letters}, 3}}},
                  Paragraph{Paragraph::Style::plain, "line\nline\n\nline"}}};
    const auto pages = paginate(d);
    QString all;
    for (const auto& page : pages)
        for (const auto& item : page.items) {
            EXPECT_LE(item.rect.right(), sheetWidth + 0.5);
            EXPECT_LE(item.rect.bottom(), sheetHeight - 20) << item.text.left(40).toStdString();
            if (!item.rule) all += " " + item.text;
        }
    for (const auto& w : words)
        EXPECT_GE(all.count(QRegularExpression("\\b" + w + "\\b")), 3) << w.toStdString();
    EXPECT_EQ(all.count('x'), 2 * 4000);
    QTemporaryDir dir;
    ASSERT_TRUE(writePdf(d, dir.filePath("r.pdf")));
    const auto text = run("pdftotext", {"-layout", dir.filePath("r.pdf"), "-"});
    for (const auto& w : words)
        EXPECT_GE(text.count(QRegularExpression("\\b" + w + "\\b")), 3) << w.toStdString();
    EXPECT_EQ(text.count('x'), 2 * 4000);
}

/// A curve that is damaged does not count, and that is said wherever it would have.
TEST(Report, ADamagedCurveIsSaidAndDoesNotCount) {
    chart::loadFonts();
    Study s(2, 4);
    const auto pull = s.data.pulls[1].id;
    s.data.pulls[1].looked = true;
    s.readings.byPull.erase(pull);
    s.readings.unreadable[pull] = "The samples of curve 5 are damaged (checksum of a stretch of force).";
    const auto verdict = results::evaluate(s.data, s.readings, {});
    const auto found = std::find_if(verdict.groups.begin(), verdict.groups.end(),
                                    [](const auto& g) { return g.option == 1; });
    EXPECT_EQ(found->summary.n, 3U);
    const auto said = words::headlines(s.data, verdict).at(0);
    EXPECT_NE(said.find("One pull is not counted, for its curve cannot be read: see P102."),
              std::string::npos)
        << said;
    const auto written = html(compose(s.source(), unitsFrom("N", "mm")));
    EXPECT_TRUE(written.contains("One pull is not counted"));
    EXPECT_TRUE(written.contains("The samples of curve 5 are damaged"));
    EXPECT_TRUE(written.contains("not read"));
    EXPECT_FALSE(results::needsLook(s.data.pulls[1], s.readings).empty()) << "looking does not mend it";
    for (const auto& p : s.data.pulls) { // and where nothing is left at all
        s.readings.byPull.erase(p.id);
        s.readings.unreadable[p.id] = "damaged";
    }
    EXPECT_TRUE(html(compose(s.source(), unitsFrom("N", "mm"))).contains("8 pulls are not counted"));
}

TEST(Report, AnEmptyStudyIsAReportToo) {
    chart::loadFonts();
    Study s(0, 0);
    s.data.conditions.clear();
    const auto written = html(compose(s.source(), unitsFrom("N", "mm")));
    EXPECT_TRUE(written.contains("nothing to rank"));
}

TEST(Report, CautionsAreAlwaysThere) {
    Study s;
    const auto written = html(compose(s.source(), unitsFrom("N", "mm")));
    for (const auto& c : texts(cautions()))
        EXPECT_TRUE(written.contains(c.toHtmlEscaped())) << c.toStdString();
    EXPECT_TRUE(texts(cautions()).join(' ').contains("licensed or competent person"));
}

TEST(Report, AFileThatCannotBeWrittenIsASentence) {
    chart::loadFonts();
    Study s(1, 1);
    const auto result = writePdf(compose(s.source(), unitsFrom("N", "mm")), "/no/such/folder/r.pdf");
    ASSERT_FALSE(result);
    EXPECT_NE(result.error().message.find("cannot be written"), std::string::npos);
}

TEST(Report, ATorqueStudyNeverSpeaksOfNewtonsAlone) {
    Study s(2, 3);
    s.data.study.plan.method = "torque";
    s.data.study.goal.metric = domain::metric("breakaway");
    for (auto& [id, reading] : s.readings.byPull) {
        reading.loadKind = quantity::Dimension::torque;
        reading.travelKind = quantity::Dimension::angle;
        reading.breakaway = reading.peak.load / 100;
    }
    for (auto& [id, curve] : s.curves) {
        auto copy = *curve;
        copy.reading = s.readings.byPull.at(id);
        curve = std::make_shared<const curve::ReadCurve>(std::move(copy));
    }
    const auto chart = overlayOf(s.source(), 1, 11, unitsFrom("N", "mm"), 200);
    EXPECT_EQ(chart.yTitle, "Torque (N·m)");
    EXPECT_EQ(chart.xTitle, "Angle from the toe (°)");
    const auto written = html(compose(s.source(), unitsFrom("N", "mm")));
    EXPECT_TRUE(written.contains("Breakaway torque"));
    EXPECT_TRUE(written.contains("N·m"));
    EXPECT_FALSE(written.contains("Peak force")) << "nothing is listed that the method does not tell";
}

TEST(Report, EveryPullShowsWhatItsMethodTells) {
    Study s(1, 2);
    s.data.study.plan.method = "torque";
    s.data.study.goal.metric = domain::metric("breakaway");
    s.readings = {};
    s.curves = {};
    for (auto& p : s.data.pulls) {
        p.curve = 0;
        p.outcome.entered.fields = {{"breakaway", "4.2 N·m"}, {"running", "1.5 N·m"}};
    }
    s.data.pulls[1].standing = domain::Standing::voided;
    s.data.pulls[1].reason = "wrong socket";
    auto t = tableWith(compose(s.source(), unitsFrom("N", "mm")), "Specimen");
    EXPECT_EQ(t.header, (QStringList{"Specimen", "Option", "Condition", "Breakaway torque", "Running torque",
                                     "Standing", "What broke, why, remarks"}));
    ASSERT_EQ(t.rows.size(), 2U);
    EXPECT_EQ(t.rows[0].mid(3, 3), (QStringList{"4.200 N·m", "1.500 N·m", "counts"}));
    EXPECT_EQ(t.rows[1].mid(3, 2), (QStringList{"4.200 N·m", "1.500 N·m"}))
        << "what a void pull showed is still told";
    EXPECT_EQ(t.rows[1].last(), "the cord; wrong socket");
    Study curves(1, 1);
    auto& outcome = curves.data.pulls[0].outcome;
    outcome.end = 2;
    outcome.afterwards = "bent";
    outcome.phases = {{"set", "down", "held", {*quantity::parseEntry("1.5 kN")}, {}}};
    curves.data.study.plan.joints = 2;
    t = tableWith(compose(curves.source(), unitsFrom("lbf", "in")), "Specimen");
    EXPECT_EQ(t.header.mid(3, 3), (QStringList{"Peak", "First slip", "Stiffness"}));
    EXPECT_EQ(t.rows[0].last(), "the cord; end 2; bent afterwards; its other end held at least that; "
                                "set: down, 337.2 lbf, held");
    EXPECT_TRUE(t.rows[0][3].endsWith(" lbf"));
}

TEST(Report, MarksGuessesAndTheEndThatFailed) {
    Study s(2, 2);
    const auto text = [&] { return html(compose(s.source(), unitsFrom("kN", "mm"))); };
    EXPECT_FALSE(text().contains("~"));
    for (auto& p : s.data.pulls)
        p.settings.calibratedTo = 1; // N, so that everything lies beyond it
    auto t = tableWith(compose(s.source(), unitsFrom("kN", "mm")), "Specimen");
    ASSERT_EQ(t.rows.size(), 4U);
    for (const auto& row : t.rows) {
        EXPECT_TRUE(row[3].startsWith("~") && row[3].endsWith(" kN")) << row[3].toStdString();
        EXPECT_FALSE(row[5].contains("~")) << "the stiffness was read lower down";
    }
    EXPECT_TRUE(text().contains("4 values were read beyond the end of the calibration table"));
    s.data.study.plan.joints = 2;
    s.data.study.plan.squareFor(1, 11).otherEnd = 2;
    s.data.pulls[0].outcome.end = 1;
    s.data.pulls[1].outcome.end = 2;
    t = tableWith(compose(s.source(), unitsFrom("kN", "mm")), "Specimen");
    EXPECT_EQ(t.rows[0][6], "counts");
    EXPECT_EQ(t.rows[1][6], "at least") << "the other end failed";
    EXPECT_TRUE(t.rows[1][3].startsWith("at least ~")) << t.rows[1][3].toStdString();
    EXPECT_EQ(t.rows[1][5], "–") << "how stiff this end is was not seen";
}

TEST(Report, TellsHowItWasTestedAndOnWhat) {
    Study s(1, 1);
    EXPECT_TRUE(sectionOf(compose(s.source(), unitsFrom("N", "mm")), "How it was tested").isEmpty());
    auto& plan = s.data.study.plan;
    plan.method = "axial-pull";
    plan.speed = 0.005;
    plan.connector = "8 mm shackle";
    s.data.study.goal.part = "the peg";
    plan.ratingWords = {{0, "loose"}, {5, "firm"}};
    s.data.pulls[0].setup = 3;
    auto source = s.source();
    rig::Setup winch;
    winch.name = "Shed winch";
    winch.path = {{rig::RatioPart::Kind::plain, 2, 1, 0, 0, 0}};
    winch.cellLimit = 1000;
    winch.calibration = {
        {{0, 0}, {500, 505}}, "2026-03-01", "2027-03-01", {{"2026-05-04", 98.1, 98.6, 0.01}}};
    source.setups = {{3, winch}, {4, {}}};
    const auto how = sectionOf(compose(source, unitsFrom("kN", "mm")), "How it was tested");
    ASSERT_EQ(how.size(), 6) << how.join("\n").toStdString();
    EXPECT_TRUE(how[0].endsWith('.'));
    EXPECT_EQ(how[1], "The strength asked for is that of the peg.");
    EXPECT_EQ(how[2], "Pulled at 5.000 mm/s.");
    EXPECT_EQ(how[4], "The steps of the scale: 0 = loose; 5 = firm.");
    EXPECT_TRUE(how[5].startsWith("On Shed winch. Reads 1, the specimen feels 2")) << how[5].toStdString();
    EXPECT_TRUE(how[5].contains(
        "It can show 2.000 kN. Calibrated at 2 points on 2026-03-01, good until "
        "2027-03-01. Last look at a known weight: Shown 0.09860 kN for 0.09810 kN: 0.5 % off"))
        << how[5].toStdString();
}

TEST(Report, ShowsEveryChannelAtTheMarks) {
    Study s(1, 1);
    auto source = s.source();
    source.steady = [](domain::Id) {
        return std::vector<curve::Steady>{{1,
                                           2,
                                           100,
                                           {{"force", "N", 1000, 5, 0},
                                            {"west", "N", 600, 3, 0},
                                            {"east", "N", 400, 2, 0},
                                            {"air", "K", 290, 0.1, 0},
                                            {"count", "", 7, 0, 0}},
                                           false}};
    };
    EXPECT_TRUE(tableWith(compose(source, unitsFrom("N", "mm")), "Channel").rows.empty())
        << "nothing was marked";
    s.data.pulls[0].outcome.marks = {{2, "mark 1"}};
    const auto t = tableWith(compose(source, unitsFrom("kN", "mm")), "Channel");
    ASSERT_EQ(t.rows.size(), 5U);
    EXPECT_EQ(t.rows[1].mid(2),
              (QStringList{"west", "0.6000 kN", "0.003000 kN", "60 %", "not standing still"}));
    EXPECT_EQ(t.rows[0][5], "") << "the whole has no share of itself";
    EXPECT_EQ(t.rows[3][3], "290.0 K");
    EXPECT_EQ(t.rows[4][3], "7.000");
}

/// The pages of the verdict and the report tell of the same values by the same blocks.
TEST(Pages, TheReportHoldsTheBlocksOfTheVerdict) {
    chart::loadFonts();
    Study s(3, 3);
    const View view{unitsFrom("kN", "mm")};
    s.data.study.goal.need = 1000;
    const auto whole = html(report(s.source(), view));
    for (const auto& entry : registry()) {
        const auto page = entry.make(s.source(), view);
        EXPECT_EQ(entry.offered(s.source(), view), page.has_value()) << entry.key;
        const std::set<std::string_view> silent{"treatment", "trend",       "parts", "worth",
                                                "score",     "forecasts",   "last",  "devices",
                                                "legs",      "arrangement", "creep", "hits"};
        if (silent.contains(entry.key)) {
            EXPECT_FALSE(page) << "one condition, one price, and nobody said what broke";
            continue;
        }
        ASSERT_TRUE(page) << entry.key;
        EXPECT_EQ(find(entry.key)->make, entry.make);
        if (entry.key == "use" || entry.key == "metrics") continue; // of what decides alone
        EXPECT_EQ(std::get<Choice>(page->blocks.at(0)).chosen, "peak");
        EXPECT_TRUE(html(*page).contains("Ranked by: Peak force."));
    }
    const auto told = [&](const char* key, auto&& block) {
        const auto page = find(key)->make(s.source(), view);
        for (const auto& b : page->blocks)
            if (const auto* found = std::get_if<std::decay_t<decltype(block)>>(&b)) return *found;
        ADD_FAILURE() << key;
        return std::decay_t<decltype(block)>{};
    };
    for (const auto& sentence : told("pairs", Bullets{}).items)
        EXPECT_TRUE(whole.contains(QString::fromStdString(sentence).toHtmlEscaped())) << sentence;
    EXPECT_EQ(told("pairs", Bullets{}).items.size(), 3U);
    const auto source = s.source();
    const auto& verdict = source.verdict(domain::Metric());
    const auto leader = s.data.optionAt(verdict.groups.front().option).name;
    for (std::size_t k = 0; k < 2; ++k) // the pairs of the leader come first
        EXPECT_NE(told("pairs", Bullets{}).items[k].find(leader), std::string::npos) << leader;
    const auto table = told("table", words::Table{});
    ASSERT_EQ(table.rows.size(), 3U);
    for (const auto& row : table.rows)
        EXPECT_TRUE(whole.contains(QString::fromStdString(row.cells[table.at("mean")]).toHtmlEscaped()));
    EXPECT_EQ(table.at("condition"), table.columns.size()) << "there is only one";
    EXPECT_FALSE(find("guesses"));
}

/// A page with nothing to say is not offered.
TEST(Pages, NothingIsOfferedForAStudyWithoutPulls) {
    Study s(2, 0);
    for (const auto& entry : registry())
        EXPECT_FALSE(entry.make(s.source(), {unitsFrom("N", "mm")})) << entry.key;
    Study one(1, 3);
    EXPECT_TRUE(answer(one.source(), {unitsFrom("N", "mm")}));
    EXPECT_FALSE(pairs(one.source(), {unitsFrom("N", "mm")})) << "one option has none to stand against";
}

TEST(Pages, RankByAnotherMetricAllTheWay) {
    Study s(2, 3);
    View view{unitsFrom("N", "mm")};
    view.metric = domain::metric("stiffness");
    const auto page = rankedTable(s.source(), view);
    ASSERT_TRUE(page);
    const auto& table = std::get<words::Table>(page->blocks.at(1));
    EXPECT_TRUE(table.rows[0].cells[table.at("mean")].ends_with(" N/mm"));
    EXPECT_EQ(std::get<Choice>(page->blocks[0]).chosen, "stiffness");
    EXPECT_NE(toText(*page).find("Ranked by: Stiffness."), std::string::npos);
}

/// Plain text keeps columns under their heads, whatever letters are in them.
TEST(Pages, TextKeepsItsColumns) {
    const Page page{"p",
                    "P",
                    {Heading{2, "Überblick"},
                     words::Table{"t",
                                  {{"a", "Größe"}, {"b", "Wert", true}},
                                  {{{"é", "1 N"}, 0}, {{"länger als das", "12 N"}, 0}}},
                     Bullets{{"eins", "zwei"}}, Offers{"o", {}, "Nothing to do."},
                     Paragraph{Paragraph::Style::caution, "Stand clear."}}};
    EXPECT_EQ(toText(page), "Überblick\n---------\n\n"
                            "Größe           Wert\n"
                            "é                1 N\n"
                            "länger als das  12 N\n\n"
                            "- eins\n- zwei\n\nNothing to do.\n\n! Stand clear.\n");
}

TEST(Pages, SheetsOfThePlan) {
    Study s(2, 2);
    s.data.study.plan.runOrder = {"P202", "P101", "P999"};
    const auto list = tableWith(runList(s.data), "Piece");
    ASSERT_EQ(list.rows.size(), 2U) << "a label nobody made is no row";
    EXPECT_EQ(list.rows[0].mid(0, 4), (QStringList{"1", "P202", "Option 2", "Dry"}));
    EXPECT_TRUE(html(stock(s.data)).contains("Shopping and cutting: Pegs &amp; &lt;cords&gt;"));
}

} // namespace
