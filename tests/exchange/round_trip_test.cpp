// Export then import gives an equal project, number for number.
#include "trip.h"

#include <anvil/demo/demo.h>
#include <cmath>
#include <limits>
#include <random>

namespace anvil::exchange {
namespace {

TEST(RoundTrip, TheDemoComesBackAsItWas) {
    QTemporaryDir dir;
    auto project = std::move(project::OpenProject::create(dir.filePath("demo.anvil")).value());
    ASSERT_TRUE(demo::addStudies(*project));
    expectEqualAfterTrip(project->file());
}

/// Projects made of chance: every field that is kept, with texts and numbers that are hard to write down.
class Chance {
public:
    explicit Chance(unsigned seed) : m_random(seed) {}
    bool maybe(double share = 0.5) { return std::uniform_real_distribution<>(0, 1)(m_random) < share; }
    int upTo(int n) { return std::uniform_int_distribution<>(0, n)(m_random); }
    double number() {
        const double size = std::pow(10, std::uniform_real_distribution<>(-9, 9)(m_random));
        return size * std::uniform_real_distribution<>(0.1, 1)(m_random);
    }
    std::optional<double> perhaps() { return maybe() ? std::optional(number()) : std::nullopt; }
    std::string text() {
        static const char* const texts[] = {
            "",         "plain",        "two words",  "=1+2",       "-5 mm",    "'=x",
            "@home",    "a, b; c",      "say \"no\"", "two\nlines", " blanks ", "Größe · ≥ 9",
            "'quoted'", "\ttab begins", "+1",         "''",         "1.250,5",  "100%"};
        return texts[upTo(static_cast<int>(std::size(texts)) - 1)];
    }
    std::string name(int n) { return text() + " " + std::to_string(n); }
    std::mt19937& engine() { return m_random; }

private:
    std::mt19937 m_random;
};

curve::Curve curveOf(Chance& c) {
    curve::Curve out;
    const int n = 3 + c.upTo(40);
    for (int i = 0; i < n; ++i) {
        out.time.push_back(i * 0.01 + 1e-5 * c.number() * 1e-9);
        out.load.push_back(c.maybe(0.05) ? std::numeric_limits<double>::quiet_NaN()
                                         : c.number() - c.number());
        out.travel.push_back(c.number() * 1e-6);
    }
    if (c.maybe()) out.others.push_back({"leg 1", "N", out.load});
    if (c.maybe(0.3)) out.travel.clear();
    return out;
}

domain::Pull pullOf(Chance& c, Id specimen) {
    using namespace domain;
    Pull p;
    p.specimen = specimen;
    p.performedAt = c.maybe() ? "2026-05-04T09:30:00" : "";
    p.operatorName = c.text();
    p.sourceName = c.text();
    p.note = c.text();
    p.reason = c.text();
    p.standing = domain::standings[c.upTo(6)];
    p.looked = c.maybe();
    p.practice = c.maybe(0.1);
    auto& o = p.outcome;
    o.part = c.text();
    o.mode = c.text();
    o.end = c.upTo(2);
    o.where = c.text();
    o.afterwards = c.text();
    o.whileUnloading = c.maybe(0.2);
    if (c.maybe()) o.limit = static_cast<Limit>(c.upTo(9));
    if (c.maybe(0.3)) o.shares = {{"snapped", 0.25}, {"slid", 0.75}};
    if (c.maybe(0.3)) o.marks = {{c.number(), c.text()}};
    if (c.maybe(0.3))
        o.phases = {{"set", "down", c.text(), {quantity::parseEntry("400 N").value()}, c.perhaps()}};
    if (c.maybe(0.2)) o.elsewhere = c.text();
    if (c.maybe()) p.typed = TypedValue{metric("peak"), c.number(), c.maybe() ? c.number() : 0, c.name(3)};
    if (c.maybe()) p.settings.rigLimit = c.number();
    if (c.maybe(0.3)) p.settings.peak = curve::Override{c.number(), false};
    if (c.maybe(0.3)) p.settings.yieldOffset = c.number();
    if (c.maybe(0.3)) p.settings.burst.lowPass = c.number();
    if (c.maybe(0.3)) p.settings.stiffnessBy = static_cast<curve::StiffnessBy>(c.upTo(3));
    return p;
}

void enterFor(Chance& c, const std::string& method, domain::Entered& e) {
    if (method == "axial-pull" && c.maybe()) e.fields = {{"peak", ">9 kN"}};
    if (method == "creep") {
        for (int i = 0; i < c.upTo(5); ++i)
            e.gauge.push_back({1.7e9 + 3600.0 * i + c.number() * 1e-9, c.number() * 1e-6});
        if (c.maybe()) e.unloadedFrom = 1.7e9 + 7200;
    }
    if (method == "lever-bend")
        for (int i = 0; i < c.upTo(4); ++i)
            e.steps.push_back({c.number(), c.number(), c.maybe()});
    if (method == "load-share") e.fields = {{"leg.1", "410 N"}, {"leg.2", "39 kg"}, {"nobody knows", "x"}};
}

domain::Study studyOf(Chance& c, int n) {
    using namespace domain;
    static const char* const methods[] = {"axial-pull", "creep", "lever-bend", "load-share", ""};
    Study s;
    s.position = n;
    s.title = c.name(n);
    s.question = c.text();
    s.note = c.text();
    s.intent = static_cast<Intent>(c.upTo(2));
    s.plan.method = methods[c.upTo(4)];
    const auto metrics = metricsOf(s.plan.method);
    s.goal.metric = metrics[static_cast<std::size_t>(c.upTo(static_cast<int>(metrics.size()) - 1))];
    s.goal.sense = c.maybe() ? Sense::more : Sense::less;
    if (c.maybe(0.3)) {
        s.goal.sense = Sense::inside;
        const double from = c.number();
        s.goal.window = {from, from + c.number()};
    }
    s.goal.need = c.perhaps();
    s.goal.ceiling = c.perhaps();
    s.goal.margin = std::uniform_real_distribution<>(0.001, 0.5)(c.engine());
    s.goal.part = c.text();
    if (c.maybe(0.3)) s.goal.family = stats::Family::weibull;
    s.plan.replicates = c.upTo(9);
    s.plan.axis = c.text();
    s.plan.axisUnit = c.maybe() ? "°C" : "";
    s.plan.connector = c.text();
    s.plan.chain = {{"rope", c.number(), 0.1, true, c.text()}};
    s.plan.ratingWords = {{2.5, c.text()}};
    s.plan.runOrder = {c.text()};
    s.plan.recipe = {{"glue", 3, 20, 60, 2, 5, "glue", "2026-08-01"}};
    s.telling.references = {{c.text(), c.number(), std::nullopt}};
    s.telling.use.designFactor = c.number();
    s.telling.leftOut = {"pairs"};
    return s;
}

void fill(store::Writer& w, Chance& c, int studies) {
    using namespace domain;
    std::vector<Id> ids;
    for (int n = 0; n < studies; ++n) {
        const auto bare = studyOf(c, n);
        auto s = bare;
        s.id = w.add(bare);
        ids.push_back(s.id);
        std::vector<Id> options, conditions;
        for (int i = 0; i < 1 + c.upTo(3); ++i) {
            Option o;
            o.study = s.id;
            o.position = i;
            o.name = c.name(i);
            o.kind = c.text();
            o.unitCost = c.perhaps();
            o.currency = c.text();
            o.weight = c.perhaps();
            o.rating = c.perhaps();
            o.grade = c.text();
            o.geometry = c.text();
            o.supply = c.text();
            o.note = c.text();
            options.push_back(w.add(o));
        }
        for (int i = 0; i < 1 + c.upTo(2); ++i) {
            Condition k;
            k.study = s.id;
            k.position = i;
            giveName(k, c.name(i));
            if (c.maybe(0.2)) k.levels = {"cold", "wet"};
            if (c.maybe(0.2)) k.levels.clear();
            k.value = c.perhaps();
            k.note = c.text();
            conditions.push_back(w.add(k));
        }
        s.goal.control = c.maybe() ? options.front() : 0;
        for (const auto o : options) {
            auto& q = s.plan.squareFor(o, conditions.front());
            if (c.maybe())
                q.forecasts.push_back({c.text(), c.number(), 0.07, c.text(), c.text(), c.perhaps()});
            if (c.maybe(0.3)) q.otherEnd = options.back();
            if (c.maybe(0.3)) q.replicates = c.upTo(5);
        }
        s.plan.joints = 2;
        if (c.maybe()) s.plan.arrangements = {{options.back(), options.front(), c.number()}};
        if (c.maybe()) s.plan.reevings = {{options.front(), {"ring", {"roller", "ring"}}}};
        if (c.maybe()) {
            Criterion by;
            by.name = "Strength";
            by.metric = s.goal.metric;
            by.study = ids.front() == s.id ? 0 : ids.front();
            by.weight = c.number();
            if (c.maybe()) by.anchors = {c.number(), c.number()};
            Criterion eye;
            eye.name = "Looks";
            eye.judged = Judged::byEye;
            eye.ratings = {{"one", 3.5}, {"other", 2}};
            s.card = {c.text(), {by, eye}};
        }
        for (int i = 0; i < 1 + c.upTo(9); ++i) {
            Specimen piece;
            piece.study = s.id;
            piece.option = options[static_cast<std::size_t>(c.upTo(static_cast<int>(options.size()) - 1))];
            piece.condition =
                conditions[static_cast<std::size_t>(c.upTo(static_cast<int>(conditions.size()) - 1))];
            piece.replicate = i + 1;
            piece.label = c.name(i);
            piece.batch = c.text();
            piece.history = c.text();
            piece.x = c.perhaps();
            if (c.maybe()) piece.measured = {{"Engagement", {}, {}, {c.number(), c.number()}}};
            if (c.maybe(0.3)) piece.measured.push_back({"wall", 0.002, 0.0001, {}});
            piece.note = c.text();
            const auto id = w.add(piece);
            for (int k = 0; k < c.upTo(2); ++k) {
                auto pull = pullOf(c, id);
                enterFor(c, s.plan.method, pull.outcome.entered);
                // What was entered says how it stands, unless the tester does.
                pull.outcome.standingSaid = pull.standing == domain::Standing::counts &&
                                            (c.maybe() || pull.outcome.entered != domain::Entered{});
                if (c.maybe(0.4)) pull.curve = w.addCurve(curveOf(c));
                if (pull.curve && c.maybe(0.3)) w.addCurve(curveOf(c), {}, pull.curve);
                pull.id = w.add(pull);
                if (c.maybe(0.2)) {
                    Attachment a;
                    if (c.maybe())
                        a.marks = {{{{c.number(), 1}, {2, c.number()}}, c.number(), 0, c.number()},
                                   c.number(),
                                   {{methods::MarkKind::angle, c.text(), {{0, c.number()}, {1, 2}, {3, 4}}},
                                    {methods::MarkKind::whole, "", {{0, 0}, {9, 0}, {c.number(), 9}}}}};
                    a.pull = pull.id;
                    a.name = c.text();
                    a.at = c.perhaps();
                    a.file =
                        w.addFile(store::ImportedFile::pack("../odd name.png", QByteArray::number(pull.id)));
                    w.add(a);
                }
                if (c.maybe(0.2))
                    s.telling.publications.push_back({"2026-05-04T10:00:00", "peak", {{pull.id, 1, 1, {}}}});
            }
        }
        w.change(bare.id ? bare : [&] { auto b = bare; b.id = s.id; return b; }(), s);
    }
}

class RoundTripOf : public testing::TestWithParam<unsigned> {};

TEST_P(RoundTripOf, AProjectMadeOfChance) {
    QTemporaryDir dir;
    const auto project = fresh(dir.filePath("chance.anvil"));
    Chance chance(GetParam());
    const auto made = project->write(
        "made", [&](store::Writer& w) { fill(w, chance, 1 + static_cast<int>(GetParam() % 3)); });
    ASSERT_TRUE(made) << made.error().message;
    expectEqualAfterTrip(*project);
}

INSTANTIATE_TEST_SUITE_P(Seeds, RoundTripOf, testing::Range(1u, 41u));

} // namespace
} // namespace anvil::exchange
