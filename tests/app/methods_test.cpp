// Every method from its plan to the ladder: its inputs told of study and pieces, its results entered as the
// window asks for them, what follows and its note in the ledger, its place in the answer.
#include "harness.h"

#include "shell/ledger.h"
#include "stages/pull/entry_panel.h"
#include "stages/pull/gauge_panel.h"
#include "stages/pull/ladder_panel.h"
#include <QComboBox>
#include <QLineEdit>
#include <QPushButton>
#include <anvil/methods/method.h>
#include <anvil/project/input_commands.h>
#include <anvil/project/plan_commands.h>
#include <anvil/results/evidence.h>
#include <anvil/results/values.h>

namespace anvil::app {
namespace {

/// One study of a method: two options, one piece each.
struct Case {
    const char* method;
    std::vector<std::pair<const char*, const char*>> ofStudy; ///< inputs that hold for all pieces
    /// What is entered for the piece of each option, in the order of the form; of the others the one number,
    /// the steps ("100 N held") or the readings of a gauge.
    std::vector<std::vector<std::pair<const char*, const char*>>> pulls;
    const char* metric;  ///< looked at
    double values[2];    ///< SI, worked out by hand beside each
    const char* follows; ///< in the ledger of the first pull
    const char* note;    ///< likewise; empty: none
    int first;           ///< the option that the answer puts first by it
};

constexpr double g0 = 9.80665, pi = 3.14159265358979323846;

const std::vector<Case>& cases() {
    static const std::vector<Case> all{
        {"axial-pull",
         {{"engagement", "40 mm"}},
         {{{"", "1200 N"}}, {{"", "1.5 kN"}}},
         "peak_per_length",
         {1200 / 0.04, 1500 / 0.04},
         "30.00 N/mm",
         "",
         1},
        {"tension-coupon",
         {{"breadth", "12.5 mm"}, {"thickness", "2 mm"}},
         {{{"entry-peak", "1.5 kN"}}, {{"entry-peak", "250 lb"}}},
         "strength",
         {1500 / 25e-6, 250 * 4.4482216152605 / 25e-6},
         "60.00 MPa",
         "",
         0},
        {"compression",
         {{"diameter", "20 mm"}, {"height", "60 mm"}},
         {{{"", "3 kN"}}, {{"", "4 kN"}}},
         "strength",
         {3000 / (pi * 1e-4), 4000 / (pi * 1e-4)},
         "9.549 MPa",
         "more than twice as high as wide",
         1},
        {"pin-shear",
         {{"diameter", "4 mm"}, {"planes", "2"}},
         {{{"", "8 kN"}}, {{"", "9 kN"}}},
         "shear_strength",
         {8000 / (2 * pi * 4e-6), 9000 / (2 * pi * 4e-6)},
         "318.3 MPa",
         "",
         1},
        {"lap-shear",
         {{"width", "25 mm"}, {"overlap", "1/2 in"}},
         {{{"", "4 kN"}}, {{"", "3 kN"}}},
         "shear_strength",
         {4000 / (0.025 * 0.0127), 3000 / (0.025 * 0.0127)},
         "12.60 MPa",
         "",
         0},
        {"three-point-bend",
         {{"span", "160 mm"}, {"breadth", "20 mm"}, {"depth", "20 mm"}},
         {{{"entry-peak", "1 kN"}, {"entry-deflection_at_peak", "20 mm"}}, {{"entry-peak", "1.2 kN"}}},
         "bending_strength",
         {3 * 1000 * 0.16 / (2 * 0.02 * 4e-4), 3 * 1200 * 0.16 / (2 * 0.02 * 4e-4)},
         "30.00 MPa",
         "less than 16 times the depth",
         1},
        {"lever-bend",
         {{"diameter", "20 mm"}},
         {{{"500 mm", "100 N held, 150 N let go"}}, {{"500 mm", "100 N held, 150 N held"}}},
         "moment",
         {50, 75},
         "",
         "",
         1},
        {"sag",
         {{"span", "1 m"}, {"weight", "10 kg"}},
         {{{"entry-unloaded", "412 mm"}, {"entry-loaded", "402 mm"}},
          {{"entry-unloaded", "412 mm"}, {"entry-loaded", "404 mm"}}},
         "bending_stiffness",
         {10 * g0 / (48 * 0.010), 10 * g0 / (48 * 0.008)},
         "204.3 N·m²",
         "",
         1},
        {"torsion",
         {{"diameter", "8 mm"}},
         {{{"entry-peak", "10 N·m"}}, {{"entry-peak", "7 lb·ft"}}},
         "shear_stress",
         {16 * 10 / (pi * 512e-9), 16 * 7 * 1.3558179483314004 / (pi * 512e-9)},
         "99.47 MPa",
         "",
         0},
        {"torque",
         {{"from", "3 N·m"}, {"to", "5 N·m"}},
         {{{"entry-breakaway", "4 N·m"}}, {{"entry-breakaway", "6 N·m"}}},
         "breakaway",
         {4, 6},
         "4.000 N·m",
         "inside the published range",
         1},
        {"hammer",
         {{"breadth", "10 mm"}, {"depth", "8 mm"}, {"mass", "2 kg"}, {"from", "600 mm"}},
         {{{"entry-to", "210 mm"}}, {{"entry-to", "0.4 m"}}},
         "energy_per_area",
         {2 * g0 * 0.39 / 80e-6, 2 * g0 * 0.2 / 80e-6},
         "95.61 kJ/m²",
         "11.77 J",
         0},
        {"drop",
         {{"mass", "3 kg"}, {"height", "1 m"}},
         {{{"entry-peak", "85 g0"}, {"entry-hit", "2"}}, {{"entry-peak", "60 g0"}}},
         "peak_deceleration",
         {85 * g0, 60 * g0},
         "85.00 g₀",
         "Hit number 2",
         1},
        {"creep",
         {{"limit", "3 mm"}},
         {{{"", "10 mm"}, {"", "11 mm"}}, {{"", "10 mm"}, {"", "10.4 mm"}}},
         "creep",
         {0.001, 0.0004},
         "1.000 mm",
         "days",
         1},
        {"attempts",
         {},
         {{{"entry-successes", "7"}, {"entry-tries", "10"}},
          {{"entry-successes", "9"}, {"entry-tries", "10"}}},
         "success_rate",
         {0.7, 0.9},
         "70",
         "",
         1},
        {"load-share",
         {},
         {{{"entry-leg.1", "50 N"}, {"entry-leg.2", "30 N"}, {"entry-leg.3", "20 N"}},
          {{"entry-leg.1", "4 kgf"}, {"entry-leg.2", "4 kgf"}, {"entry-leg.3", "4 kgf"}}},
         "unevenness",
         {1.5, 1},
         "1.5",
         "",
         1},
        {"advantage",
         {{"ideal", "3"}},
         {{{"entry-input", "400 N"}, {"entry-output", "980 N"}},
          {{"entry-input", "90 lb"}, {"entry-output", "1 kN"}}},
         "efficiency",
         {980.0 / 1200, 1000 / (3 * 90 * 4.4482216152605)},
         "81.67 %",
         "",
         1},
        {"holding",
         {{"weight", "12 kg"}},
         {{{"entry-moves", "1.8 kN"}}, {{"entry-moves", ">2 kN"}}},
         "holding_per_weight",
         {1800 / (12 * g0), 2000 / (12 * g0)},
         "15.3",
         "",
         1},
        {"step-ladder",
         {},
         {{{"", "100 N held, 150 N let go"}}, {{"", "100 N held, 150 N held"}}},
         "holding",
         {100, 150},
         "",
         "step",
         1},
        {"by-eye",
         {},
         {{{"entry-rating", "3.5"}}, {{"entry-rating", "8"}}},
         "rating",
         {3.5, 8},
         "3.5",
         "",
         1},
    };
    return all;
}

struct EveryMethod : Window, testing::WithParamInterface<std::size_t> {
    const Case& one() const { return cases()[GetParam()]; }

    void plan() {
        const auto id = newStudy({"Pin", "Hook"}, {"Dry"});
        auto& project = *session().project();
        ASSERT_TRUE(project::setMethod(project, id, one().method));
        const auto& method = *methods::find(one().method);
        for (const auto& [key, text] : one().ofStudy) {
            const auto* input = methods::inputNamed(method, key);
            ASSERT_TRUE(input) << key;
            const auto ok = project::tellOfStudy(
                project, id, *input, text, [&](quantity::Dimension d) { return &session().units().of(d); });
            ASSERT_TRUE(ok) << ok.error().message;
        }
        ASSERT_TRUE(project::planReplicates(project, id, 1));
        ASSERT_TRUE(project::makePieces(project, id, ""));
        session().setNow(QDateTime(QDate(2026, 5, 4), QTime(9, 0)));
        window->goTo(Stage::pull);
        settle();
    }
    void type(const QString& name, const QString& text) {
        auto* edit = child<QLineEdit>(name.toUtf8().constData());
        ASSERT_TRUE(edit && edit->isVisible()) << name.toStdString();
        edit->setFocus();
        retype(edit, text);
        QTest::keyClick(edit, Qt::Key_Return);
        settle();
    }
    /// Up the ladder by the keys that a glove finds.
    void climb(LadderPanel* panel, const QString& distance, const QString& steps) {
        if (!distance.isEmpty()) type("ladderDistance", distance);
        type("ladderFirst", "100 N");
        type("ladderMore", "50 N");
        const auto press = [&](Qt::Key k) {
            QTest::qWait(static_cast<int>(LadderPanel::guardMs) + 20);
            QTest::keyClick(panel, k);
        };
        const auto parts = steps.split(", ");
        for (const auto& step : parts)
            press(step.endsWith("held") ? Qt::Key_Space : Qt::Key_1);
        if (parts.last().endsWith("held"))
            press(Qt::Key_2); // enough
        else {
            press(Qt::Key_Space); // the piece broke
        }
        settle();
    }
    void enter() {
        if (auto* gauge = window->findChild<GaugePanel*>(); gauge && gauge->isVisible()) {
            type("gaugeEvery", "1 d");
            for (std::size_t reading = 0; reading < 2; ++reading) {
                for (const auto& pull : one().pulls)
                    type("gaugeValue", pull[reading].second);
                session().setNow(QDateTime(QDate(2026, 5, 6), QTime(9, 0)));
            }
            return;
        }
        for (const auto& pull : one().pulls) {
            if (auto* ladder = window->findChild<LadderPanel*>(); ladder && ladder->isVisible()) {
                climb(ladder, pull[0].first, pull[0].second);
                continue;
            }
            if (auto* form = window->findChild<EntryPanel*>(); form && form->isVisible()) {
                const auto before = study().pulls.size();
                for (auto* edit : form->findChildren<QLineEdit*>())
                    if (edit->objectName().startsWith("entry-")) edit->clear();
                for (const auto& [name, text] : pull)
                    retype(child<QLineEdit>(name), text);
                QTest::mouseClick(form->findChild<QPushButton*>("primary"), Qt::LeftButton);
                settle();
                ASSERT_EQ(study().pulls.size(), before + 1) << window->messageText().toStdString();
                continue;
            }
            type("typedValue", pull[0].second);
        }
    }
};

TEST_P(EveryMethod, GoesFromThePlanToTheLadder) {
    plan();
    enter();
    ASSERT_EQ(study().pulls.size(), 2u) << window->messageText().toStdString();
    const auto metric = domain::metric(one().metric);
    for (std::size_t i = 0; i < 2; ++i) {
        const auto& pull = study().pulls[i];
        const auto said = results::valueOf(study(), pull, nullptr, metric);
        ASSERT_TRUE(said.value) << said.whyNot;
        EXPECT_NEAR(said.value->value, one().values[i], 1e-9 * one().values[i]) << "pull " << i + 1;
    }
    session().selectPull(study().pulls[0].id);
    window->goTo(Stage::verdict);
    settle();
    auto* ledger = window->findChild<Ledger*>();
    if (!ledger->isVisible()) key(Qt::Key_L, Qt::ControlModifier);
    settle();
    const auto facts = visibleTexts(ledger).join('\n');
    EXPECT_TRUE(facts.contains(one().follows)) << one().follows << " in\n" << facts.toStdString();
    EXPECT_TRUE(facts.contains(one().note)) << one().note << " in\n" << facts.toStdString();
    key(Qt::Key_L, Qt::ControlModifier);
    showPage("Answer");
    if (auto* box = shown<QComboBox>("Ranked by"); box->findData(QString(one().metric)) >= 0) {
        box->setCurrentIndex(box->findData(QString(one().metric)));
        emit box->activated(box->currentIndex());
        settle();
    }
    const auto& verdict = session().verdict(metric);
    ASSERT_EQ(verdict.groups.size(), 2u);
    EXPECT_EQ(study().optionAt(verdict.groups[0].option).name, one().first == 0 ? "Pin" : "Hook");
    QStringList labels;
    for (const auto& label : child<PictureView>("ladder")->picture().labels())
        labels << QString::fromStdString(label);
    EXPECT_TRUE(labels.contains("Pin") && labels.contains("Hook")) << labels.join(", ").toStdString();
    EXPECT_TRUE(session().project()->file().check().problems.isEmpty());
}

INSTANTIATE_TEST_SUITE_P(All, EveryMethod, testing::Range(std::size_t{0}, std::size_t{19}),
                         [](const auto& p) {
                             auto name = std::string(cases()[p.param].method);
                             std::erase(name, '-');
                             return name;
                         });

TEST(EveryMethodOf, TheRegistryHasItsCase) {
    ASSERT_EQ(methods::all().size(), cases().size());
    for (std::size_t i = 0; i < cases().size(); ++i)
        EXPECT_EQ(methods::all()[i]->key, cases()[i].method);
}

} // namespace
} // namespace anvil::app
