// The same number is the same text everywhere: window, HTML, PDF and command line.
#include "harness.h"

#include <QJsonArray>
#include <QJsonDocument>
#include <QJsonObject>
#include <QRegularExpression>
#include <QTableWidget>
#include <anvil/quantity/print.h>
#include <anvil/words/verdict.h>

using namespace anvil;
using namespace anvil::app;

namespace {

using Agreement = Window;

QString plain(QString text) { return text.replace(QChar(0xa0), ' ').simplified(); }

/// The rows of a ranked option in an HTML file, one a condition: cells by the head of their column.
std::vector<std::map<QString, QString>> rankedInHtml(const QString& path, const QString& option) {
    QFile f(path);
    EXPECT_TRUE(f.open(QIODevice::ReadOnly));
    const auto html = QString::fromUtf8(f.readAll());
    const auto everything = QRegularExpression::DotMatchesEverythingOption;
    const QRegularExpression row("<tr[^>]*>(.*?)</tr>", everything),
        cell("<t[dh][^>]*>(.*?)</t[dh]>", everything), tag("<[^>]*>");
    QStringList heads;
    std::vector<std::map<QString, QString>> found;
    for (auto rows = row.globalMatch(html); rows.hasNext();) {
        const auto inside = rows.next().captured(1);
        QStringList cells;
        for (auto at = cell.globalMatch(inside); at.hasNext();)
            cells << plain(at.next().captured(1).remove(tag).replace("&quot;", "\"").replace("&amp;", "&"));
        if (inside.contains("<th")) heads = cells;
        if (heads.value(0) != "Rank" || cells.value(1) != option) continue;
        auto& out = found.emplace_back();
        for (qsizetype k = 0; k < cells.size(); ++k)
            out[heads.value(k)] = cells[k];
    }
    return found;
}

/// The words of an HTML file, tags and scripts left out.
QString wordsOfHtml(const QString& path) {
    QFile f(path);
    EXPECT_TRUE(f.open(QIODevice::ReadOnly));
    auto html = QString::fromUtf8(f.readAll());
    html.remove(
        QRegularExpression("<(style|svg)[^>]*>.*?</\\1>", QRegularExpression::DotMatchesEverythingOption));
    html.replace(QRegularExpression("<[^>]*>"), " ");
    for (const auto& [from, to] : {std::pair{"&lt;", "<"}, {"&gt;", ">"}, {"&quot;", "\""}, {"&amp;", "&"}})
        html.replace(from, to);
    return plain(html);
}

TEST_F(Agreement, EveryNumberOfTheVerdictIsTheSameTextInWindowHtmlAndPdf) {
    openDemo();
    for (const auto& s : session().project()->studies()) {
        if (s.pulls.empty()) continue; // still in preparation
        session().showStudy(s.study.id);
        for (const auto& [force, length] : {std::pair{"N", "mm"}, {"kN", "mm"}, {"lbf", "in"}}) {
            session().setUnits(force, length);
            window->goTo(Stage::verdict);
            settle();
            ASSERT_TRUE(window->reportStage()->writeHtml(dir.filePath("r.html")));
            ASSERT_TRUE(window->reportStage()->writePdf(dir.filePath("r.pdf")));
            const auto html = wordsOfHtml(dir.filePath("r.html"));
            const auto pdf = plain(runProgram("pdftotext", {"-raw", dir.filePath("r.pdf"), "-"}));
            // Table cells may wrap in a PDF, so its text is compared without blanks.
            const auto tight = QString(pdf).remove(' ');
            auto* table = ranking();
            ASSERT_GT(table->rowCount(), 0);
            int compared = 0;
            for (int row = 0; row < table->rowCount(); ++row) {
                auto inHtml = rankedInHtml(dir.filePath("r.html"), plain(cell(table, row, "option")));
                for (const auto& [key, head] : {std::pair{"option", "Option"},
                                                {"n", "n"},
                                                {"mean", "Mean"},
                                                {"interval", "95 % interval"},
                                                {"sd", "s"},
                                                {"cv", "CV"},
                                                {"lowest", "Lowest"}}) {
                    const auto text = plain(cell(table, row, key));
                    std::erase_if(inHtml, [&](auto& r) { return r[head] != text; });
                    EXPECT_FALSE(inHtml.empty()) << key << " " << text.toStdString()
                                                 << " stands with its neighbours in no row of the HTML";
                    EXPECT_TRUE(tight.contains(QString(text).remove(' ')))
                        << text.toStdString() << " is not in the PDF";
                    ++compared;
                }
            }
            EXPECT_GE(compared, 7 * 3);
            // The ladder draws the same means and counts.
            QStringList drawn;
            QStringList means;
            for (int row = 0; row < table->rowCount(); ++row)
                means << plain(cell(table, row, "mean"));
            for (const auto& l : ladder()->picture().labels())
                drawn << plain(qs(l));
            for (const auto& mean : means)
                EXPECT_TRUE(drawn.contains(mean)) << mean.toStdString();
            const auto& verdict = session().verdict(session().study()->study.goal.metric);
            for (const auto& p : verdict.pairs) {
                const auto said = words::sentence(*session().study(), verdict, p);
                EXPECT_TRUE(html.contains(plain(qs(said)))) << said;
                EXPECT_TRUE(tight.contains(plain(qs(said)).remove(' '))) << said;
            }
        }
    }
}

// Numbers of the curve stage, one pull at a time, against `anvil read` on the same samples.
TEST_F(Agreement, CurveNumbersAreThoseOfTheCommandLine) {
    openDemo();
    session().setUnits("N", "mm");
    window->goTo(Stage::curves);
    auto* numbers = shown<QTableWidget>("What was read from the curve");
    const auto& data = study();
    int compared = 0;
    for (const auto& p : data.pulls) {
        const auto raw = session().project()->file().curve(p.curve);
        ASSERT_TRUE(raw);
        QFile log(dir.filePath("one.csv"));
        ASSERT_TRUE(log.open(QIODevice::WriteOnly));
        log.write("Time (s),Force (N),Travel (m)\n");
        for (std::size_t i = 0; i < raw->load.size(); ++i)
            log.write(QByteArray::number(raw->time[i], 'g', 17) + "," +
                      QByteArray::number(raw->load[i], 'g', 17) + "," +
                      QByteArray::number(raw->travel[i], 'g', 17) + "\n");
        log.close();
        const auto o =
            QJsonDocument::fromJson(
                runProgram(ANVIL_CLI, {"read", log.fileName(), "--rig-limit", "5000 N", "--json"}).toUtf8())
                .object();
        session().selectPull(p.id);
        settle();
        std::map<QString, QString> shown;
        for (int r = 0; r < numbers->rowCount(); ++r)
            shown[numbers->item(r, 0)->text()] = plain(numbers->item(r, 1)->text());
        const auto number = [](const QJsonValue& v) {
            return plain(qs(quantity::significant(v.toDouble())));
        };
        const bool bound = o["off_scale"].toBool() || p.standing == domain::Standing::atLeast;
        EXPECT_EQ(
            shown["Peak"].toStdString(),
            ((bound ? "at least " : "") + number(o["peak"].toObject()["force_N"]) + " N").toStdString());
        if (!o["stiffness"].isNull()) {
            EXPECT_EQ(shown["Stiffness"].toStdString(),
                      (number(o["stiffness"].toObject()["value_N_per_mm"]) + " N/mm").toStdString());
        }
        if (!o["first_slip"].isNull()) {
            EXPECT_EQ(shown["First slip"].toStdString(),
                      (number(o["first_slip"].toObject()["force_N"]) + " N").toStdString());
        }
        if (!o["energy_to_peak_J"].isNull()) {
            EXPECT_EQ(shown["Energy to peak"].toStdString(),
                      (number(o["energy_to_peak_J"]) + " J").toStdString());
        }
        if (!o["residual"].isNull() && !bound) {
            EXPECT_EQ(shown["Residual grip"].toStdString(),
                      (number(o["residual"].toObject()["force_N"]) + " N").toStdString());
        }
        ++compared;
    }
    EXPECT_EQ(compared, 40);
}

// Means, spreads and verdicts of the window against `anvil stats` on the values it shows in its report.
TEST_F(Agreement, GroupNumbersAreThoseOfTheCommandLine) {
    openDemo();
    session().setUnits("N", "mm");
    window->goTo(Stage::verdict);
    settle();
    const auto& v = session().verdict(domain::metric("peak"));
    QFile csv(dir.filePath("values.csv"));
    ASSERT_TRUE(csv.open(QIODevice::WriteOnly));
    csv.write("option,condition,value,state,unit\n");
    for (const auto& option : study().options) // in board order, as the window compares
        for (const auto& condition : study().conditions)
            for (const auto& g : v.groups)
                if (g.option == option.id && g.condition == condition.id)
                    for (const auto& value : g.values)
                        csv.write(QByteArray::fromStdString(option.name) + "," +
                                  QByteArray::fromStdString(condition.name) + "," +
                                  QByteArray::number(value.value.value, 'g', 17) + "," + value.value.word() +
                                  ",N\n");
    csv.close();
    const auto o =
        QJsonDocument::fromJson(runProgram(ANVIL_CLI, {"stats", csv.fileName(), "--json"}).toUtf8()).object();
    const auto ranked = plain(runProgram(ANVIL_CLI, {"rank", csv.fileName()})).simplified();
    auto* table = ranking();
    int compared = 0;
    for (const auto& entry : o["groups"].toArray()) {
        const auto g = entry.toObject();
        for (int r = 0; r < table->rowCount(); ++r) {
            if (cell(table, r, "option") != g["option"].toString() ||
                cell(table, r, "condition") != g["condition"].toString())
                continue;
            const auto text = [](const QJsonValue& value) {
                return value.isNull() ? QStringLiteral("–")
                                      : plain(qs(quantity::significant(value.toDouble())) + " N");
            };
            const auto row = g["option"].toString() + " " + g["condition"].toString() + " " +
                             plain(cell(table, r, "mean")) + " ";
            EXPECT_TRUE(ranked.contains(row)) << row.toStdString() << " in " << ranked.toStdString();
            EXPECT_EQ(plain(cell(table, r, "sd")).toStdString(), text(g["sd"]).toStdString());
            EXPECT_EQ(plain(cell(table, r, "lowest")).toStdString(),
                      text(g["floors"].toObject()["lowest"]).toStdString());
            ++compared;
        }
    }
    EXPECT_EQ(compared, 8);
    std::map<std::string, std::string> words;
    for (const auto& p : v.pairs)
        if (!p.acrossConditions)
            words[study().option(v.groups[p.a].option)->name + study().option(v.groups[p.b].option)->name +
                  study().condition(v.groups[p.a].condition)->name] = stats::word(p.comparison.verdict);
    int pairs = 0;
    for (const auto& entry : o["comparisons"].toArray()) {
        const auto c = entry.toObject();
        if (c["condition"].isNull()) continue;
        EXPECT_EQ(words[(c["a"].toString() + c["b"].toString() + c["condition"].toString()).toStdString()],
                  c["verdict"].toString().toStdString());
        ++pairs;
    }
    EXPECT_EQ(pairs, 12);
}

} // namespace
