#include "method_studies.h"
#include "typed_studies.h"
#include <anvil/demo/demo.h>
#include <fmt/format.h>

#include <anvil/plan/run_order.h>
#include <anvil/rig/setup.h>
#include <cmath>

namespace anvil::demo {

const char* const fittingNames[4] = {"Pressed sleeve", "Wedge socket", "Saddle clamps", "Tucked splice"};
const char* const fittingConditions[2] = {"Plain", "Salt-soaked"};

namespace {

const char* const fittingShapes[4] = {"12 mm sleeve, 25 mm long", "30 mm cone, 8 degrees",
                                      "three saddles, 6 mm bolts", "five tucks a strand"};

constexpr double rigLimit = 5000; // N
constexpr const char* benchWinch = "Bench winch";
constexpr const char* springStand = "Spring stand";

/// Mean strength in N by fitting, plain and after the salt bath.
constexpr double fittingStrength[4][2] = {{4950, 4460}, {4320, 4210}, {3150, 2380}, {3690, 3560}};

/// A rig of which only what it can show is known.
domain::Id addRig(store::Writer& w, const char* name, double limit, std::optional<double> travel) {
    rig::Setup setup;
    setup.name = name;
    setup.rigLimit = limit;
    setup.travel = travel;
    return w.addSetup({0, QString::fromUtf8(name), 1, QStringLiteral("2026-04-13T08:00:00"),
                       QString::fromStdString(rig::toJson(setup))});
}

QString pulledAt(int day, int minute) {
    return QDateTime(QDate(2026, 4, 13).addDays(day), QTime(8, 30))
        .addSecs(60 * minute)
        .toString(Qt::ISODate);
}

struct PullNotes {
    domain::Standing standing = domain::Standing::counts;
    const char* reason = "";
    const char* part = "";
    const char* mode = "";
    const char* note = "";
};

PullNotes notesFor(int option, int condition, int replicate, bool saturated) {
    using domain::Standing;
    if (saturated) return {}; // its curve says what it is
    if (option == 1 && condition == 0 && (replicate == 2 || replicate == 5))
        return {Standing::atLeast, "The wire broke, not the fitting.", "Net wire",
                "broke outside the fitting", ""};
    if (option == 2 && condition == 0 && replicate == 4)
        return {Standing::aside, "Mislabelled: the piece turned out to be a tucked splice.", "the fitting",
                "splice drew out", "Found when the jaws were opened."};
    if (option == 3 && condition == 1 && replicate == 3)
        return {Standing::voided, "Zeroed under load: the reading means nothing.", "", "",
                "Battery changed afterwards."};
    static constexpr const char* modes[4] = {"wire drew out of the sleeve", "wedge slipped",
                                             "wire slid through the clamps", "splice drew out"};
    return {Standing::counts, "", "the fitting", modes[option], ""};
}

/// The plan of the fittings, but for what names its options.
domain::Study fittingsStudy() {
    domain::Study s;
    s.title = "Wire end fittings";
    s.question = "Which end fitting holds a 3 mm net wire best, new and after a season of salt?";
    s.note = "Fallow Lane Growers, orchard nets. Wire from one coil, fittings from one box each; pulled "
             "at about 0.7 mm/s.";
    s.plan.method = "axial-pull";
    s.goal.part = "the fitting";
    s.plan.connector = "8 mm shackle";
    s.plan.speed = 0.0007;
    s.plan.minutesEach = 6;
    s.goal.need = 3000;
    s.plan.replicates = 5;
    s.plan.rig = benchWinch;
    s.plan.chain = {{"Fitting", 4400, 0.05, true, "forecast"},
                    {"Net wire", 5600, 0.03, false, "coil tag"},
                    {"Shackle", 9000, 0.05, false, "stamped"}};
    s.plan.accepted = {{"day", "the salt bath takes a season; both lots were cut from one coil"}};
    s.plan.cautions = {"A snapping wire whips: shut the mesh screen before winding on."};
    return s;
}

/// One fitting, pulled.
void addFitting(store::Writer& w, domain::Specimen piece, int option, int condition, domain::Id bench) {
    piece.label = std::string(1, static_cast<char>('A' + option)) + std::to_string(condition + 1) + "-" +
                  std::to_string(piece.replicate);
    piece.batch = "coil 7";
    const auto run = fittingRun(option, condition, piece.replicate);
    const auto notes = notesFor(option, condition, piece.replicate, run.truth.saturated);
    domain::Pull p;
    p.specimen = w.add(piece);
    p.curve = w.addCurve(run.curve);
    p.performedAt = pulledAt(condition, 9 * (piece.replicate * 4 + option)).toStdString();
    p.sourceName = "simulated bench";
    p.standing = notes.standing;
    p.reason = notes.reason;
    p.outcome.part = notes.part;
    p.outcome.mode = notes.mode;
    p.note = notes.note;
    p.settings.rigLimit = rigLimit;
    p.setup = bench;
    w.add(p);
}

Expected<void> fittings(project::OpenProject& project) {
    auto done = project.run("Wire end fittings", [&](store::Writer& w) {
        auto s = fittingsStudy();
        const auto bench = addRig(w, benchWinch, rigLimit, 0.06);
        const auto studyId = s.id = w.add(s);
        const auto unplanned = s;
        domain::Id options[4], conditions[2];
        for (int i = 0; i < 4; ++i) {
            domain::Option o;
            o.study = studyId;
            o.position = i;
            o.name = fittingNames[i];
            o.kind = "wire end fitting";
            o.geometry = fittingShapes[i];
            o.supply = fmt::format("store in the barn, drawer {}", i + 1);
            options[i] = w.add(o);
        }
        for (int i = 0; i < 2; ++i) {
            domain::Condition c;
            c.study = studyId;
            c.position = i;
            c.name = fittingConditions[i];
            conditions[i] = w.add(c);
        }
        s.goal.control = options[1];
        static constexpr double expected[4] = {4600, 4800, 3600, 3000};
        for (int i = 0; i < 4; ++i)
            s.plan.squareFor(options[i], conditions[0]).forecasts = {
                {"Ines", expected[i], 0.08, i == 1 ? "net wire" : "the fitting", "gut feeling", {}},
                {"Tobin", expected[3 - i], 0.15, "", "last year's storm", 0.02}};
        w.change(unplanned, s);
        for (int replicate = 1; replicate <= 5; ++replicate)
            for (int condition = 0; condition < 2; ++condition)
                for (int option = 0; option < 4; ++option) {
                    domain::Specimen piece;
                    piece.study = studyId;
                    piece.option = options[option];
                    piece.condition = conditions[condition];
                    piece.replicate = replicate;
                    addFitting(w, piece, option, condition, bench);
                }
    });
    return done ? Expected<void>{} : tl::unexpected(done.error());
}

struct Rivet {
    const char* name;
    double strength, cv, stiffness, price;
    sim::Model model;
};

/// One rivet pulled on the shear frame.
sim::Run rivetRun(const Rivet& kind, int k, int replicate) {
    sim::Random random(static_cast<std::uint64_t>(2000 + 10 * k + replicate));
    sim::Specimen spec;
    spec.model = kind.model;
    spec.strength = kind.strength * (1 + kind.cv * random.normal());
    spec.stiffness = kind.stiffness * (1 + 0.05 * random.normal());
    spec.slack = random.uniform(0.0004, 0.0012);
    spec.bedding = 0.03 * spec.strength / spec.stiffness;
    spec.residual = 0.35;
    sim::Logger logger;
    logger.rate = 80;
    logger.speed = 0.0004;
    logger.before = 1.2;
    logger.after = 9 * spec.strength / spec.stiffness;
    logger.noise = 2.2;
    logger.zeroOffset = random.uniform(-15, 25);
    logger.spikes = replicate == 2 ? 2 : 0;
    logger.limit = rigLimit;
    return sim::pull(spec, logger,
                     3000 + 10 * static_cast<std::uint64_t>(k) + static_cast<std::uint64_t>(replicate));
}

void addRivet(store::Writer& w, const Rivet& kind, int k, domain::Specimen piece, domain::Id frame) {
    const auto run = rivetRun(kind, k, piece.replicate);
    piece.label = std::string(1, static_cast<char>('A' + k)) + "1-" + std::to_string(piece.replicate);
    piece.batch = "box of March";
    domain::Pull p;
    p.specimen = w.add(piece);
    p.curve = w.addCurve(run.curve);
    p.performedAt = pulledAt(7, 7 * (piece.replicate * 5 + k)).toStdString();
    p.sourceName = "simulated bench";
    p.outcome.part = "the rivet";
    p.outcome.mode = k == 3 ? "legs pulled through the hole" : "body sheared";
    p.settings.rigLimit = rigLimit;
    p.setup = frame;
    w.add(p);
}

Expected<void> rivets(project::OpenProject& project) {
    static constexpr Rivet kinds[5] = {
        {"Aluminium dome 4.8", 1490, 0.040, 1.45e6, 0.07, sim::Model::yieldingMetal},
        {"Steel dome 4.8", 2380, 0.035, 1.90e6, 0.11, sim::Model::yieldingMetal},
        {"Stainless dome 4.8", 3120, 0.050, 1.95e6, 0.34, sim::Model::yieldingMetal},
        {"Three-leg aluminium 5.2", 1560, 0.090, 0.95e6, 0.19, sim::Model::pullOut},
        {"Sealed aluminium 4.8", 1460, 0.045, 1.40e6, 0.16, sim::Model::yieldingMetal}};
    auto done = project.run("Blind rivets in hoop tube", [&](store::Writer& w) {
        domain::Study s;
        s.position = 1;
        s.title = "Blind rivets in hoop tube";
        s.question = "Is the dear rivet worth it where two hoop tubes overlap?";
        s.note =
            "Fallow Lane Growers, polytunnels. Lap of two 1.5 mm tube walls, one rivet, pulled in shear.";
        const auto studyId = s.id = w.add(s);
        domain::Condition c;
        c.study = studyId;
        c.name = "Lap shear";
        const auto condition = w.add(c);
        const auto frame = addRig(w, "Shear frame", rigLimit, {});
        for (int k = 0; k < 5; ++k) {
            domain::Option o;
            o.study = studyId;
            o.position = k;
            o.name = kinds[k].name;
            o.kind = "blind rivet";
            o.rating = 0.8 * kinds[k].strength;
            o.ratingBasis = "maker's shear strength";
            o.unitCost = kinds[k].price;
            o.currency = "EUR";
            const auto option = w.add(o);
            if (k == 0) {
                const auto unplanned = s;
                s.plan.method = "lap-shear";
                s.plan.replicates = 6;
                s.goal.control = option;
                s.plan.rig = "Shear frame";
                w.change(unplanned, s);
            }
            for (int replicate = 1; replicate <= 6; ++replicate) {
                domain::Specimen piece;
                piece.study = studyId;
                piece.option = option;
                piece.condition = condition;
                piece.replicate = replicate;
                addRivet(w, kinds[k], k, piece, frame);
            }
        }
    });
    return done ? Expected<void>{} : tl::unexpected(done.error());
}

domain::Study hooksStudy() {
    domain::Study s;
    s.position = 2;
    s.title = "Hooks bonded to glazing";
    s.question = "Which glue keeps a hook on tunnel glazing when the sheet is cold, mild or hot?";
    s.note = "Fallow Lane Growers, polytunnels. Hooks on offcuts of glazing, pulled straight off.";
    s.plan.method = "axial-pull";
    s.goal.part = "the bond";
    s.plan.replicates = 5;
    s.plan.minutesEach = 8;
    s.plan.apart = 0.06;
    s.plan.workFrom = 7 * 60;
    s.plan.workTo = 20 * 60;
    s.plan.axis = "sheet temperature";
    s.plan.axisUnit = "°C";
    s.plan.rig = springStand;
    s.plan.cautions = {"Solvent primer: open both doors, no flame, gloves on."};
    s.plan.recipe = {{"Degrease sheet and hook", 40, 10, 0, 1, 0, "wipe", "2027-01-31"},
                     {"Prime", 15, 20, 120, 1, 0, "primer", "2026-04-30"},
                     {"Apply and clamp", 60, 12 * 60, 0, 1, 0, "glue", "2026-11-30"},
                     {"Rinse with salt water", 10, 0, 0, 3, 24 * 60, "", ""},
                     {"Let dry", 5, 12 * 60, 0, 1, 0, "", ""}};
    s.plan.recipeStarted = "2026-05-01T08:00:00"; // the second rinse was missed, the third is due
    s.plan.stepsDone = {{"0.0", "2026-05-01T08:00:00"},
                        {"1.0", "2026-05-01T08:52:00"},
                        {"2.0", "2026-05-01T09:40:00"},
                        {"3.0", "2026-05-02T08:30:00"}};
    return s;
}

/// The pieces as they were glued: each in its place, measured, one too wide and one too close to its
/// neighbour.
void makeHooks(store::Writer& w, domain::StudyData& data) {
    for (auto& piece : domain::missingPieces(data)) {
        piece.batch = "sheet of April";
        piece.block = "offcut " + std::to_string(piece.replicate);
        const auto n = data.specimens.size();
        const auto place = [&](const auto& all, domain::Id of) {
            return static_cast<double>(
                std::find_if(all.begin(), all.end(), [&](const auto& x) { return x.id == of; }) -
                all.begin());
        };
        piece.x = 0.045 + 0.07 * place(data.options, piece.option);
        piece.y = 0.045 + 0.07 * place(data.conditions, piece.condition);
        if (n == 17) *piece.x -= 0.02; // set too close to its neighbour
        piece.measured = {{"overlap", 0.025, 0.001, {0.0247 + 0.0002 * static_cast<double>((n * 7) % 5)}},
                          {"width", 0.020, 0.0005, {0.0199 + 0.0001 * static_cast<double>((n * 3) % 4)}}};
        piece.id = w.add(piece);
        data.specimens.push_back(piece);
    }
    const auto asMade = data.specimens[3];
    data.specimens[3].measured[0].readings = {0.0262, 0.0264}; // glued on too wide
    w.change(asMade, data.specimens[3]);
}

Expected<void> hooks(project::OpenProject& project) {
    static constexpr const char* adhesives[4] = {"Two-part epoxy", "Toughened acrylic", "Silicone sealant",
                                                 "Foam tape"};
    static constexpr double expected[4] = {620, 540, 180, 240}; // N, somebody's guess
    auto done = project.run("Hooks bonded to glazing", [&](store::Writer& w) {
        auto s = hooksStudy();
        (void)addRig(w, springStand, 1000, {});
        const auto id = s.id = w.add(s);
        domain::StudyData data;
        data.study = s;
        for (int k = 0; k < 4; ++k) {
            domain::Option o;
            o.study = id;
            o.position = k;
            o.name = adhesives[k];
            o.kind = "adhesive bond";
            o.unitCost = 0.12 + 0.06 * k;
            o.currency = "EUR";
            o.id = w.add(o);
            data.options.push_back(o);
        }
        for (int k = 0; k < 3; ++k) {
            static constexpr double celsius[3] = {5, 20, 35};
            domain::Condition c;
            c.study = id;
            c.position = k;
            c.name = std::to_string(static_cast<int>(celsius[k])) + " °C";
            c.value = 273.15 + celsius[k];
            c.id = w.add(c);
            data.conditions.push_back(c);
        }
        auto& plan = data.study.plan;
        data.study.goal.control = data.options[0].id;
        for (std::size_t k = 0; k < 4; ++k)
            plan.squareFor(data.options[k].id, data.conditions[1].id).forecasts = {
                {"Tobin", expected[k], 0.2, "the bond", "gut feeling", {}}};
        plan.squareFor(data.options[3].id, data.conditions[2].id).struck =
            true; // nobody believes in tape in the heat
        makeHooks(w, data);
        plan.seed = 17;
        plan.runOrder = plan::drawRunOrder(data, plan.seed, true);
        w.change(s, data.study);
    });
    return done ? Expected<void>{} : tl::unexpected(done.error());
}

} // namespace

sim::Run fittingRun(int option, int condition, int replicate) {
    const auto seed = 100 * static_cast<std::uint64_t>(option) + 10 * static_cast<std::uint64_t>(condition) +
                      static_cast<std::uint64_t>(replicate);
    sim::Random random(1000 + seed);
    static constexpr double cv[4] = {0.035, 0.03, 0.07, 0.05};
    static constexpr sim::Model models[4] = {sim::Model::pullOut, sim::Model::wireRope, sim::Model::pullOut,
                                             sim::Model::pullOut};
    const bool mislabelled = option == 2 && condition == 0 && replicate == 4;
    const int really = mislabelled ? 3 : option;
    sim::Specimen s;
    s.model = models[really];
    s.strength = fittingStrength[really][condition] * (1 + cv[really] * random.normal());
    s.stiffness = s.strength / random.uniform(0.0085, 0.0105);
    s.slack = random.uniform(0.001, 0.004);
    s.bedding = random.uniform(0.03, 0.05) * s.strength / s.stiffness;
    s.residual = really == 2 ? 0.62 : 0.38;
    sim::Logger g;
    g.rate = 50;
    g.speed = 0.0007 * (1 + 0.06 * random.normal());
    g.before = random.uniform(1.0, 2.2);
    g.after = 2.1 * s.strength / s.stiffness;
    g.noise = 5;
    g.resolution = 1;
    g.zeroOffset = std::round(random.uniform(-30, 40));
    g.drift = random.uniform(-0.4, 0.4);
    g.spikes = (replicate + option) % 4 == 0 ? 1 : 0;
    g.limit = rigLimit;
    if (option == 3 && condition == 1 && replicate == 3) s.strength *= 0.55; // zeroed under load
    return sim::pull(s, g, 5000 + seed);
}

QDateTime now() { return {QDate(2026, 5, 4), QTime(9, 0)}; }

Expected<void> addStudies(project::OpenProject& project) {
    if (auto ok = fittings(project); !ok) return ok;
    if (auto ok = rivets(project); !ok) return ok;
    if (auto ok = hooks(project); !ok) return ok;
    if (auto ok = addTypedStudies(project); !ok) return ok;
    return addMethodStudies(project);
}

} // namespace anvil::demo
