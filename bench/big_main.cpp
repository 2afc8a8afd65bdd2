// A large project for looking at how long it takes to open one: many pulls of a few options with curves of
// their own. Prints what each step of opening it took.
#include <CLI/App.hpp>
#include <CLI/Config.hpp>
#include <CLI/Formatter.hpp>
#include <QCoreApplication>
#include <QElapsedTimer>
#include <QFile>
#include <anvil/project/open_project.h>
#include <anvil/quantity/digits.h>
#include <anvil/sim/specimen.h>
#include <iostream>

using namespace anvil;

namespace {

constexpr int options = 10, conditions = 4;

/// A pull-out curve of so many samples, every one a little different.
curve::Curve drawn(std::uint64_t seed, int samples) {
    static const auto bench = sim::typicalBench(sim::Model::pullOut, 1);
    static const auto model = sim::pull(bench.specimen, bench.logger, 1).curve;
    curve::Curve c = model;
    sim::Random random(seed);
    const double scale = random.uniform(0.9, 1.1);
    const auto n = static_cast<std::size_t>(samples);
    const auto stretched = [&](const std::vector<double>& v) {
        std::vector<double> out(v.empty() ? 0 : n);
        for (std::size_t i = 0; i < out.size(); ++i) {
            const double at =
                static_cast<double>(i) * static_cast<double>(v.size() - 1) / static_cast<double>(n - 1);
            const auto k = std::min(v.size() - 2, static_cast<std::size_t>(at));
            const double share = at - static_cast<double>(k);
            out[i] = v[k] * (1 - share) + v[k + 1] * share;
        }
        return out;
    };
    c.time = stretched(model.time);
    c.travel = stretched(model.travel);
    c.load = stretched(model.load);
    for (auto& f : c.load)
        f = f * scale + random.normal() * 0.4;
    return c;
}

Expected<void> make(const QString& path, int pulls, int samples) {
    auto file = store::Project::create(path);
    if (!file) return tl::unexpected(file.error());
    domain::Study study;
    study.title = "Many pegs";
    study.plan.method = "axial-pull";
    std::vector<domain::Id> all, dry;
    auto begun = (*file)->write("made", [&](store::Writer& w) {
        study.id = w.add(study);
        for (int k = 0; k < options; ++k) {
            domain::Option o;
            o.study = study.id;
            o.position = k;
            o.name = "Peg " + std::to_string(k + 1);
            all.push_back(w.add(o));
        }
        for (int k = 0; k < conditions; ++k) {
            domain::Condition c;
            c.study = study.id;
            c.position = k;
            c.name = "Bed " + std::to_string(k + 1);
            dry.push_back(w.add(c));
        }
    });
    if (!begun) return tl::unexpected(begun.error());
    begun = (*file)->write("pulled", [&](store::Writer& w) {
        for (int k = 0; k < pulls; ++k) {
            domain::Specimen s;
            s.study = study.id;
            s.option = all[static_cast<std::size_t>(k % options)];
            s.condition = dry[static_cast<std::size_t>(k / options % conditions)];
            s.replicate = k / (options * conditions) + 1;
            s.label = "P" + std::to_string(k + 1);
            s.id = w.add(s);
            domain::Pull p;
            p.specimen = s.id;
            p.curve = w.addCurve(drawn(static_cast<std::uint64_t>(k) + 1, samples));
            p.sourceName = s.label + ".csv";
            (void)w.add(p);
        }
    });
    if (!begun) return tl::unexpected(begun.error());
    return {};
}

} // namespace

int main(int argc, char** argv) {
    QCoreApplication application(argc, argv);
    anvil::quantity::usePoints();
    CLI::App app{"Makes a large project, or opens one and says what took how long"};
    std::string path;
    int pulls = 10000, samples = 5000;
    app.add_option("FILE", path)->required();
    app.add_option("--pulls", pulls);
    app.add_option("--samples", samples);
    CLI11_PARSE(app, argc, argv);
    const auto file = QString::fromStdString(path);
    QElapsedTimer clock;
    clock.start();
    const auto lap = [&](const char* what) { std::cout << what << ": " << clock.restart() << " ms\n"; };
    if (!QFile::exists(file)) {
        if (const auto made = make(file, pulls, samples); !made) {
            std::cerr << made.error().message << "\n";
            return 1;
        }
        lap("made");
    }
    auto project = project::OpenProject::open(file);
    if (!project) {
        std::cerr << project.error().message << "\n";
        return 1;
    }
    lap("opened");
    (*project)->useKeptReadings();
    lap("kept readings");
    for (const auto& s : (*project)->studies()) {
        (void)(*project)->readings(s.study.id);
        lap("curves read");
        (void)(*project)->verdict(s.study.id, s.study.goal.metric);
        lap("verdict");
    }
    return 0;
}
