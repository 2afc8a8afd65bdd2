// Studies of the worked example whose results were read off a display and typed in.
#include "typed_studies.h"

#include <anvil/quantity/print.h>
#include <anvil/sim/specimen.h>
#include <cmath>
#include <map>

namespace anvil::demo {
namespace {

/// One option: its name, its true values by condition, the spread as a share.
struct Kind {
    const char* name;
    std::vector<double> means;
    double cv;
    double price = 0, weight = 0; ///< each, in EUR and kg; 0: not said
};

struct Setting {
    const char* name;
    std::optional<double> value{}; ///< on the axis, SI
};

/// How its values come about and are shown.
struct Made {
    std::uint64_t seed = 1;
    int day = 0;
    const char* metric = "peak";
    double step = 1; ///< of the display, SI
    const char* unit = "N";
    double perUnit = 1; ///< SI of one
};

/// A study as far as all of them are alike.
domain::Study studyOf(int position, const char* title, const char* question, const char* note,
                      const char* method, int replicates, double minutesEach, const char* metric) {
    domain::Study s;
    s.position = position;
    s.title = title;
    s.question = question;
    s.note = note;
    s.plan.method = method;
    s.plan.replicates = replicates;
    s.plan.minutesEach = minutesEach;
    domain::decideBy(s.goal, domain::metric(metric));
    return s;
}

std::string dayText(int day, int minute) {
    return QDateTime(QDate(2026, 4, 13).addDays(day), QTime(9, 0))
        .addSecs(60 * minute)
        .toString(Qt::ISODate)
        .toStdString();
}

/// Adds the study with a value for each planned pull; `mend` may change a pull before it is kept.
domain::Id addTyped(store::Writer& w, domain::Study s, const std::vector<Kind>& kinds,
                    const std::vector<Setting>& settings, const Made& how,
                    const std::function<void(domain::Pull&, int option, int condition, int replicate)>& mend,
                    const std::function<void(domain::Specimen&, int option)>& shape = {}) {
    sim::Random random(how.seed);
    const auto id = s.id = w.add(s);
    std::vector<domain::Id> conditions;
    for (std::size_t c = 0; c < settings.size(); ++c) {
        domain::Condition condition;
        condition.study = id;
        condition.position = static_cast<int>(c);
        condition.name = settings[c].name;
        condition.value = settings[c].value;
        conditions.push_back(w.add(condition));
    }
    int minute = 0;
    for (std::size_t k = 0; k < kinds.size(); ++k) {
        domain::Option o;
        o.study = id;
        o.position = static_cast<int>(k);
        o.name = kinds[k].name;
        if (kinds[k].price > 0) {
            o.unitCost = kinds[k].price;
            o.currency = "EUR";
        }
        if (kinds[k].weight > 0) o.weight = kinds[k].weight;
        const auto option = w.add(o);
        for (std::size_t c = 0; c < settings.size(); ++c)
            for (int r = 1; r <= s.plan.replicates; ++r) {
                domain::Specimen piece;
                piece.study = id;
                piece.option = option;
                piece.condition = conditions[c];
                piece.replicate = r;
                piece.label = std::string(1, static_cast<char>('A' + k)) + std::to_string(c + 1) + "-" +
                              std::to_string(r);
                if (shape) shape(piece, static_cast<int>(k));
                domain::Pull p;
                p.specimen = w.add(piece);
                p.performedAt = dayText(how.day, minute += 4);
                const double value =
                    std::round(kinds[k].means[c] * (1 + kinds[k].cv * random.normal()) / how.step) * how.step;
                p.typed = domain::TypedValue{domain::metric(how.metric), value, value, {}};
                if (mend) mend(p, static_cast<int>(k), static_cast<int>(c), r);
                p.typed->asTyped = quantity::shortest(p.typed->value / how.perUnit) + " " + how.unit;
                w.add(p);
            }
    }
    return id;
}

/// Wet and dry over all makers, and a card on which strength, price and weight pull three ways. The strongest
/// slat is the thickest one: by stress another maker's plastic stands first.
void slats(store::Writer& w, int position) {
    auto s =
        studyOf(position, "Recycled-plastic slats",
                "Which maker's slat is the best buy, and what does a wet winter cost?",
                "Fallow Lane Growers, orchard nets. Slats on two rollers 0.5 m apart, pressed in the middle.",
                "three-point-bend", 5, 5, "peak");
    Made how;
    how.seed = 61;
    how.day = 9;
    how.step = 5;
    s.plan.inputs = {{"span", "500 mm"}};
    constexpr double depth[4] = {24.2, 22.1, 21.0, 20.4}, modulus[4] = {1.45e9, 1.70e9, 1.82e9, 1.38e9};
    sim::Random sizes(62);
    std::map<std::string, double> deep; // by label; m
    const auto sized = [&](domain::Specimen& piece, int option) {
        const auto measured = [&](double mm) { return std::round(10 * (mm + 0.15 * sizes.normal())) / 1e4; };
        piece.measured = {{"Breadth", {}, {}, {measured(60)}},
                          {"Depth", {}, {}, {measured(depth[option]), measured(depth[option])}}};
        deep[piece.label] = *piece.measured[1].mean();
    };
    const auto bent = [&](domain::Pull& p, int option, int condition, int replicate) {
        const auto label = std::string(1, static_cast<char>('A' + option)) + std::to_string(condition + 1) +
                           "-" + std::to_string(replicate);
        const double stiff = modulus[option] * (condition == 0 ? 1 : 0.88) * (1 + 0.03 * sizes.normal()) * 4 *
                             0.060 * std::pow(deep[label], 3) / std::pow(0.5, 3); // k = 4 E b d³ / L³
        const double tenth = std::round(stiff / 100) / 10;                        // N/mm
        p.outcome.entered.fields = {
            {"stiffness", quantity::shortest(tenth) + " N/mm"},
            {"deflection_at_peak",
             quantity::shortest(std::round(1.18 * p.typed->value / stiff * 1e3)) + " mm"}};
    };
    const auto id = addTyped(w, s,
                             {{"Millbrook", {1840, 1660}, 0.05, 4.20, 1.32},
                              {"Three Elms", {1620, 1455}, 0.06, 2.60, 1.21},
                              {"Oxbow", {1700, 1500}, 0.05, 3.10, 0.98},
                              {"Stonecrop", {1390, 1265}, 0.07, 2.35, 1.15}},
                             {{"Dry"}, {"Wet"}}, how, bent, sized);
    s.id = id;
    auto weighed = s;
    weighed.card.title = "Which slat to buy";
    const auto criterion = [&](const char* name, domain::Judged judged, domain::Sense sense, double weight) {
        domain::Criterion c;
        c.name = name;
        c.judged = judged;
        c.study = judged == domain::Judged::byResults ? id : 0;
        c.metric = s.goal.metric;
        c.sense = sense;
        c.weight = weight;
        return c;
    };
    weighed.card.criteria = {criterion("Peak force", domain::Judged::byResults, domain::Sense::more, 10),
                             criterion("Price", domain::Judged::byCost, domain::Sense::less, 8),
                             criterion("Weight", domain::Judged::byWeight, domain::Sense::less, 6),
                             criterion("Ease of sawing", domain::Judged::byEye, domain::Sense::more, 4)};
    weighed.card.criteria.back().ratings = {{"Millbrook", 4}, {"Three Elms", 3}, {"Oxbow", 5}};
    w.change(s, weighed);
}

/// Two ways of locking that cannot be told apart.
void clampScrews(store::Writer& w, int position) {
    auto s = studyOf(
        position, "Hose-clamp screws",
        "Which way of locking keeps a hose-clamp screw tight when the pump shakes?",
        "Fallow Lane Growers. Loosening torque after two hours on the shaker, read off a torque wrench.",
        "torque", 5, 4, "breakaway");
    Made how;
    how.seed = 72;
    how.day = 11;
    how.metric = "breakaway";
    how.step = 0.05;
    how.unit = "N·m";
    addTyped(w, s, {{"Thread glue", {3.10}, 0.09}, {"Second nut", {3.05}, 0.10}, {"Plain", {1.60}, 0.12}},
             {{"After shaking"}}, how, {});
}

/// Four shapes at two angles; in one the winner hangs on a peg that met a root.
void pegs(store::Writer& w, int position) {
    auto s = studyOf(position, "Ground pegs",
                     "Which peg holds the cover line best, driven straight and driven slanting?",
                     "Fallow Lane Growers, meadow by the barn. Crane scale, read as it first moved and at "
                     "the greatest load.",
                     "axial-pull", 4, 6, "peak");
    s.telling.references = {{"Gust on one line", 380, {}}};
    Made how;
    how.seed = 83;
    how.day = 13;
    how.step = 5;
    addTyped(w, s,
             {{"Round bar", {410, 545}, 0.05},
              {"Angle iron", {640, 730}, 0.05},
              {"Spiral", {600, 640}, 0.05},
              {"Half pipe", {560, 735}, 0.05}},
             {{"Straight"}, {"Slanting"}}, how,
             [](domain::Pull& p, int option, int condition, int replicate) {
                 p.outcome.part = "the ground";
                 constexpr double moves[4] = {0.78, 0.55, 0.49, 0.71}; // of the peak
                 const double first =
                     std::round(p.typed->value * moves[option] * (0.97 + 0.015 * replicate) / 5) * 5;
                 p.outcome.phases = {{"first movement",
                                      condition == 0 ? "straight up" : "along the line",
                                      "moved, then held",
                                      {{first, {}, {}, 0, 0, &quantity::unit("N"), 0}},
                                      {}}};
                 if (option != 2 || condition != 0 || replicate != 3) return;
                 p.typed->value = p.typed->upper = 930;
                 p.note = "Came up with a root around it.";
             });
}

/// Strength over the days of curing: a trend for two glues, flat for the tape.
void curing(store::Writer& w, int position) {
    constexpr double day = 86400;
    auto s = studyOf(
        position, "Days of curing", "How many days must a hook on glazing cure before the net goes on?",
        "Fallow Lane Growers, polytunnels. Hooks on offcuts of glazing, pulled straight off after so "
        "many days.",
        "axial-pull", 4, 5, "peak");
    s.plan.axis = "cure time";
    s.plan.axisUnit = "d";
    Made how;
    how.seed = 94;
    how.day = 15;
    how.step = 2;
    addTyped(w, s,
             {{"Two-part epoxy", {420, 470, 545, 610}, 0.04},
              {"Silicone sealant", {95, 120, 150, 172}, 0.05},
              {"Foam tape", {246, 240, 244, 242}, 0.04}},
             {{"1 day", day}, {"2 days", 2 * day}, {"4 days", 4 * day}, {"6 days", 6 * day}}, how, {});
}

} // namespace

Expected<void> addTypedStudies(project::OpenProject& project) {
    const auto done = project.run("Results off a display", [&](store::Writer& w) {
        int position = static_cast<int>(project.studies().size());
        slats(w, position++);
        clampScrews(w, position++);
        pegs(w, position++);
        curing(w, position);
    });
    return done ? Expected<void>{} : tl::unexpected(done.error());
}

} // namespace anvil::demo
