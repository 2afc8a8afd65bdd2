#include "method_studies.h"
#include "pictures.h"

#include <QDateTime>
#include <anvil/quantity/print.h>
#include <anvil/sim/specimen.h>
#include <cmath>
#include <fmt/format.h>
#include <numbers>

namespace anvil::demo {
namespace {

constexpr double g0 = 9.80665; // m/s²
using Fields = std::vector<domain::FieldText>;

/// A study with its options and conditions, to which pieces are added one by one.
class Builder {
public:
    Builder(store::Writer& w, domain::Study s, const std::vector<const char*>& options,
            const std::vector<const char*>& conditions, std::uint64_t seed, QDate day)
        : random(seed), m_writer(w), m_at(day, QTime(9, 0)) {
        m_before = s;
        m_before.id = study = w.add(s);
        after = m_before;
        for (std::size_t i = 0; i < options.size(); ++i) {
            domain::Option o;
            o.study = study;
            o.position = static_cast<int>(i);
            o.name = options[i];
            this->options.push_back(w.add(o));
        }
        for (std::size_t i = 0; i < conditions.size(); ++i) {
            domain::Condition c;
            c.study = study;
            c.position = static_cast<int>(i);
            c.name = conditions[i];
            this->conditions.push_back(w.add(c));
        }
    }
    /// A piece of a square, labelled as usual.
    domain::Specimen piece(std::size_t option, std::size_t condition, int replicate) const {
        domain::Specimen s;
        s.study = study;
        s.option = options[option];
        s.condition = conditions[condition];
        s.replicate = replicate;
        s.label = fmt::format("{}{}-{}", static_cast<char>('A' + option), condition + 1, replicate);
        return s;
    }
    domain::Id pull(const domain::Specimen& piece, domain::Pull p) {
        m_piece = m_writer.add(piece);
        return again(std::move(p));
    }
    /// The same piece once more.
    domain::Id again(domain::Pull p) {
        p.specimen = m_piece;
        p.performedAt = m_at.toString(Qt::ISODate).toStdString();
        m_at = m_at.addSecs(360);
        return m_writer.add(p);
    }
    void picture(domain::Id pull, const char* name, const Painted& painted) {
        domain::Attachment a;
        a.pull = pull;
        a.name = name;
        a.marks = painted.marks;
        a.file = m_writer.addFile(store::ImportedFile::pack(QString::fromUtf8(name), painted.png));
        m_writer.add(a);
    }
    domain::Id curve(const curve::Curve& c) { return m_writer.addCurve(c); }
    /// What of the study needs its options.
    void finish() { m_writer.change(m_before, after); }

    sim::Random random;
    domain::Id study = 0;
    std::vector<domain::Id> options, conditions;
    domain::Study after;

private:
    store::Writer& m_writer;
    QDateTime m_at;
    domain::Study m_before;
    domain::Id m_piece = 0;
};

domain::Study studyOf(int position, const char* title, const char* question, const char* note,
                      const char* method, const char* metric, int replicates) {
    domain::Study s;
    s.position = position;
    s.title = title;
    s.question = question;
    s.note = note;
    s.plan.method = method;
    s.plan.replicates = replicates;
    s.plan.minutesEach = 6;
    domain::decideBy(s.goal, domain::metric(metric));
    return s;
}

domain::Pull formPull(Fields fields) {
    domain::Pull p;
    p.outcome.entered.fields = std::move(fields);
    return p;
}

std::string text(double value, double step, const char* unit) {
    return quantity::shortest(std::round(std::round(value / step) * step * 1e9) / 1e9) + " " + unit;
}

/// Clips under a load for eleven days; in the shade two of them differ by less than the gauge resolves.
void netClips(store::Writer& w, int position) {
    auto s = studyOf(
        position, "Net clips", "Which clip lets the net sag least, in the sun and in the shade?",
        "Fallow Lane Growers, orchard nets. Clips under 8 kg for eleven days, then unloaded; gauge read to "
        "0.1 mm.",
        "creep", "creep", 4);
    s.plan.inputs = {{"limit", "3 mm"}};
    s.plan.gaugeEvery = 86400;
    Builder b(w, s, {"Moulded clip", "Spring clip", "Tied loop"}, {"Sun", "Shade"}, 105, {2026, 4, 22});
    // Millimetres for every tenfold time, by option and condition.
    constexpr double rate[3][2] = {{1.15, 0.42}, {0.62, 0.415}, {1.60, 1.05}};
    const double start = static_cast<double>(QDateTime(QDate(2026, 4, 22), QTime(9, 0)).toSecsSinceEpoch());
    for (std::size_t o = 0; o < 3; ++o)
        for (std::size_t c = 0; c < 2; ++c)
            for (int r = 1; r <= 4; ++r) {
                const double own = rate[o][c] * (1 + 0.06 * b.random.normal()),
                             from = 40 + 0.8 * b.random.normal();
                domain::Pull p;
                const auto read = [&](double hours, double moved) {
                    const double shown = std::round((from + moved + 0.02 * b.random.normal()) / 0.1) * 0.1;
                    p.outcome.entered.gauge.push_back({start + 3600 * hours, std::round(shown * 10) / 1e4});
                };
                double last = 0;
                for (const double hours : {0.0, 1.0, 6.0, 24.0, 72.0, 144.0, 264.0})
                    read(hours, last = own * std::log10(1 + hours));
                p.outcome.entered.unloadedFrom = start + 3600 * 264.5;
                read(265, 0.7 * last);
                read(288, 0.45 * last);
                b.pull(b.piece(o, c, r), p);
            }
    b.finish();
}

/// Three legs on ground that tilts; once the cell of a leg was zeroed under load.
void hoopFoot(store::Writer& w, int position) {
    auto s = studyOf(position, "Three-leg hoop foot", "Which foot keeps its legs even as the ground tilts?",
                     "Fallow Lane Growers, polytunnels. A cell in each leg and one above them all.",
                     "load-share", "unevenness", 3);
    for (int leg = 0; leg < 3; ++leg) {
        s.plan.inputs.push_back({fmt::format("direction.{}", leg + 1), fmt::format("{}°", 120 * leg)});
        s.plan.inputs.push_back({fmt::format("elevation.{}", leg + 1), "62°"});
    }
    Builder b(w, s, {"Fixed foot", "Ball foot"}, {"Level", "5° tilt", "10° tilt"}, 116, {2026, 4, 27});
    constexpr double uneven[2][3] = {{0.05, 0.22, 0.38}, {0.03, 0.06, 0.11}};
    const double rise = 62 * std::numbers::pi / 180;
    for (std::size_t o = 0; o < 2; ++o)
        for (std::size_t c = 0; c < 3; ++c)
            for (int r = 1; r <= 3; ++r) {
                const double e = uneven[o][c] * (1 + 0.08 * b.random.normal()),
                             all = 1500 + 20 * b.random.normal();
                double legs[3] = {1 + e, 1 - 0.4 * e, 1 - 0.6 * e};
                Fields fields;
                double sum = 0;
                for (int leg = 0; leg < 3; ++leg) {
                    legs[leg] *= all / 3 / std::sin(rise) * (1 + 0.004 * b.random.normal());
                    sum += legs[leg] * std::sin(rise);
                    // Its cell was zeroed with the hoop already on it.
                    const double lost = o == 0 && c == 2 && r == 2 && leg == 1 ? 210 : 0;
                    fields.push_back({fmt::format("leg.{}", leg + 1), text(legs[leg] - lost, 1, "N")});
                }
                fields.push_back({"master", text(sum, 5, "N")});
                auto p = formPull(std::move(fields));
                if (o == 0 && c == 2 && r == 2) {
                    p.standing = domain::Standing::aside;
                    p.reason = "The legs and the cell above them disagree: leg 2 was zeroed under load.";
                }
                const auto made = b.pull(b.piece(o, c, r), p);
                constexpr double turn = 2 * std::numbers::pi / 3;
                if (c == 0 && r == 1)
                    b.picture(made, "foot from above.png", legsFromAbove(0, turn, 2 * turn));
            }
    b.finish();
}

/// Five ways to reeve the tensioning line, of rings and rollers; once the two scales were not read at one
/// moment.
void reeving(store::Writer& w, int position) {
    auto s = studyOf(position, "Reeving the cover line",
                     "Which way of reeving tightens the cover with the least pull?",
                     "Fallow Lane Growers, polytunnels. A scale at the hand and one at the cover.",
                     "advantage", "efficiency", 4);
    Builder b(w, s, {"Two rings", "Ring, then roller", "Roller, then ring", "Two rollers", "Three rollers"},
              {"Dry line"}, 127, {2026, 4, 28});
    const std::vector<std::vector<std::string>> devices{{"ring", "ring"},
                                                        {"ring", "roller"},
                                                        {"roller", "ring"},
                                                        {"roller", "roller"},
                                                        {"roller", "roller", "roller"}};
    for (std::size_t o = 0; o < devices.size(); ++o) {
        b.after.plan.reevings.push_back({b.options[o], {"", devices[o]}});
        std::vector<double> shares{1};
        for (const auto& d : devices[o])
            shares.push_back(d == "ring" ? 0.63 : 0.91);
        const double advantage = methods::advantageOf({"", devices[o]}, shares);
        const double ideal = static_cast<double>(devices[o].size()) + 1;
        for (int r = 1; r <= 4; ++r) {
            const double pulled = 320 + 30 * b.random.uniform();
            double moved = pulled * advantage * (1 + 0.012 * b.random.normal());
            const bool late = o == 3 && r == 3; // the cover had snapped back when its scale was read
            if (late) moved = pulled * ideal * 1.09;
            auto p = formPull({{"ideal", fmt::format("{:.0f}", ideal)},
                               {"input", text(pulled, 1, "N")},
                               {"output", text(moved / g0, 0.1, "kgf")}});
            if (late) {
                p.standing = domain::Standing::aside;
                p.reason = "It gave more than the ideal: the two scales were not read at one moment.";
            }
            b.pull(b.piece(o, 0, r), p);
        }
    }
    b.finish();
}

/// A logged blow: a half sine that rings, above the noise of the sensor, which ends at 150 g₀.
curve::Curve blow(double peak, double width, sim::Random& random) {
    curve::Curve c;
    c.loadKind = quantity::Dimension::acceleration;
    constexpr double rate = 10000, before = 0.04;
    for (int i = 0; i < 2000; ++i) {
        const double t = i / rate, x = t - before;
        double a = 0;
        if (x >= 0 && x <= width) a = peak * std::sin(std::numbers::pi * x / width);
        if (x >= 0) a += 0.06 * peak * std::exp(-x / 0.008) * std::sin(2 * std::numbers::pi * 900 * x);
        a += 0.08 * random.normal();
        c.time.push_back(t);
        c.load.push_back(std::min(a, 150.0) * g0);
    }
    return c;
}

/// Buckets dropped on their edge; the bare rim tops the sensor out from the greater height.
void buckets(store::Writer& w, int position) {
    auto s = studyOf(
        position, "Door-roller buckets", "Which rim softens the blow when a bucket of rollers is dropped?",
        "Fallow Lane Growers, yard. Buckets of 3 kg dropped on their edge, a sensor of 150 g₀ on the handle.",
        "drop", "peak_deceleration", 4);
    Builder b(w, s, {"Bare rim", "Ribbed rim", "Rubber lip"}, {"From 0.5 m", "From 1 m"}, 138, {2026, 4, 29});
    sim::Random hits(139);
    constexpr double peak[3][2] = {{118, 171}, {84, 119}, {46, 67}}, width[3] = {0.0042, 0.0058, 0.0105};
    for (std::size_t o = 0; o < 3; ++o)
        for (std::size_t c = 0; c < 2; ++c)
            for (int r = 1; r <= 4; ++r) {
                auto p = formPull({{"height", c == 0 ? "0.5 m" : "1 m"}});
                if (o == 1 && c == 0 && r == 4) p.outcome.entered.fields.push_back({"hit", "2"});
                p.curve = b.curve(blow(peak[o][c] * (1 + 0.05 * b.random.normal()),
                                       width[o] * (1 + 0.03 * b.random.normal()), b.random));
                p.settings.rigLimit = 150 * g0;
                p.settings.burst.lowPass = 500;
                p.sourceName = fmt::format("drop-{}{}-{}.csv", static_cast<char>('a' + o), c + 1, r);
                auto piece = b.piece(o, c, r);
                piece.inputs = {{"mass", "3 kg"}};
                if (c == 0 && r == 4) p.outcome.where = "rim by the handle";
                b.pull(piece, p);
                for (int hit = 2; c == 0 && r == 4 && o != 1 && hit <= 4; ++hit) { // on the spot once more
                    constexpr double harder[3] = {1.01, 1, 1.22};
                    p.curve =
                        b.curve(blow(peak[o][c] * std::pow(harder[o], hit - 1) * (1 + 0.01 * hits.normal()),
                                     width[o], hits));
                    p.outcome.entered.fields = {{"height", "0.5 m"}, {"hit", std::to_string(hit)}};
                    p.standing = domain::Standing::aside;
                    p.reason = "Not a fresh spot: dropped to see how it changes.";
                    p.sourceName =
                        fmt::format("drop-{}{}-{}-{}.csv", static_cast<char>('a' + o), c + 1, r, hit);
                    b.again(p);
                }
            }
    b.finish();
}

/// Roller plastic under a swinging hammer, cold and warm; once the hammer was stopped.
void rollerPlastic(store::Writer& w, int position) {
    auto s = studyOf(position, "Roller plastic", "Which plastic still swallows a blow when it is cold?",
                     "Fallow Lane Growers. Bars cut from door rollers, a hammer of 2 kg let go at 90°.",
                     "hammer", "energy_per_area", 5);
    s.plan.inputs = {{"mass", "2 kg"}, {"from", "90°"}, {"free", "88.5°"}, {"arm", "600 mm"}};
    Builder b(w, s, {"Nylon", "Recycled"}, {"Warm, 20 °C", "Cold, −10 °C"}, 149, {2026, 4, 30});
    constexpr double rises[2][2] = {{17, 52}, {49, 78}};
    for (std::size_t o = 0; o < 2; ++o)
        for (std::size_t c = 0; c < 2; ++c)
            for (int r = 1; r <= 5; ++r) {
                const bool stopped = o == 0 && c == 0 && r == 4;
                auto piece = b.piece(o, c, r);
                const double breadth = 1e-5 * std::round(1e5 * (0.0102 + 1.5e-4 * b.random.normal())),
                             depth = 1e-5 * std::round(1e5 * (0.0082 + 1.2e-4 * b.random.normal()));
                piece.measured = {{"Breadth", {}, {}, {breadth}}, {"Depth", {}, {}, {depth}}};
                const double rise = stopped ? 0 : rises[o][c] + 1.2 * b.random.normal();
                auto p = formPull({{"to", stopped ? "0°" : text(rise, 1, "°")}});
                std::optional<Painted> seen;
                if (r == 1) { // filmed: the swing of the first of each is read off a picture
                    seen = swing(rise * std::numbers::pi / 180);
                    const auto angle = methods::measureMark(seen->marks, 0);
                    p.outcome.entered.fields = {
                        {"to", quantity::print(methods::asEntry(*angle, quantity::unit("°")))}};
                }
                if (stopped) {
                    p.standing = domain::Standing::atLeast;
                    p.reason = "The hammer was stopped: it swallowed all there was.";
                }
                if (r == 1) {
                    const double smooth = c == 0 ? 0.72 - 0.3 * static_cast<double>(o) : 0.18;
                    const auto face = brokenFace(smooth);
                    p.outcome.mode = "torn smoothly";
                    const auto share = methods::measureMark(face.marks, 0);
                    const double told = std::round(1000 * share->value) / 1000;
                    p.outcome.shares = {{p.outcome.mode, told}, {"otherwise", 1 - told}};
                    const auto made = b.pull(piece, p);
                    b.picture(made, "swing.png", *seen);
                    b.picture(made, "broken face.png", face);
                    continue;
                }
                b.pull(piece, p);
            }
    b.finish();
}

/// What the pegs looked like when they were out, by eye: medians that cannot be told apart.
void pegsByEye(store::Writer& w, int position) {
    auto s = studyOf(
        position, "Pegs after pulling", "Which peg can be driven again?",
        "Fallow Lane Growers, meadow by the barn. Rated by the same two people before the forces were known.",
        "by-eye", "rating", 4);
    s.plan.ratingWords = {
        {0, "scrap"}, {3, "bent, can be hammered straight"}, {6, "a dent or two"}, {10, "as new"}};
    Builder b(w, s, {"Round bar", "Angle iron", "Spiral", "Half pipe"}, {"Straight", "Slanting"}, 150,
              {2026, 4, 27});
    constexpr double usual[4][2] = {{8, 6.5}, {8.5, 7.5}, {5, 3}, {8, 7}};
    for (std::size_t o = 0; o < 4; ++o)
        for (std::size_t c = 0; c < 2; ++c)
            for (int r = 1; r <= 4; ++r) {
                const double step =
                    std::clamp(std::round(2 * (usual[o][c] + 0.8 * b.random.normal())) / 2, 0.0, 10.0);
                b.pull(b.piece(o, c, r), formPull({{"rating", quantity::shortest(step)}}));
            }
    b.finish();
}

} // namespace

Expected<void> addMethodStudies(project::OpenProject& project) {
    const auto done = project.run("Other methods", [&](store::Writer& w) {
        int position = static_cast<int>(project.studies().size());
        netClips(w, position++);
        hoopFoot(w, position++);
        reeving(w, position++);
        buckets(w, position++);
        rollerPlastic(w, position++);
        pegsByEye(w, position);
    });
    return done ? Expected<void>{} : tl::unexpected(done.error());
}

} // namespace anvil::demo
