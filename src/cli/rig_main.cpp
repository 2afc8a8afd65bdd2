// The simulated rig: virtual specimens on a loopback port or a pseudo-terminal. See docs/rig-link.md.
#include "man.h"
#include "numbers.h"
#include <CLI/CLI.hpp>
#include <QCoreApplication>
#include <anvil/link/rig_server.h>
#include <anvil/quantity/digits.h>
#include <anvil/quantity/entry.h>
#include <anvil/tables/file.h>
#include <fmt/format.h>
#include <iostream>

namespace {

using namespace anvil;

/// One line of JSON about the specimen pulled last, SI.
std::string truthLine(int number, const sim::Truth& t) {
    return fmt::format(
        R"({{"pull":{},"slack_m":{:.6f},"toe_m":{:.6f},"peak_N":{:.3f},"strength_N":{:.3f},)"
        R"("stiffness_N_per_m":{:.1f},"first_slip_N":{},"energy_to_peak_J":{:.4f},"saturated":{}}})",
        number, t.slack, t.toe, t.peak, t.strength, t.stiffness,
        t.firstSlip ? fmt::format("{:.3f}", *t.firstSlip) : "null", t.energyToPeak, t.saturated);
}

/// What was asked for on the command line.
struct Asked {
    std::string model = "pull-out", strength = "2 kN", limit, protocol = "lines", truth, shows = "force";
    sim::RigOptions options;
    double automatic = 0, speed = 1, rezero = 0;
    int port = -1;
    bool terminal = false;
};

void addOptions(CLI::App& app, Asked& o) {
    app.add_option("--tcp", o.port, "port on this machine, 0: any free one")->check(CLI::Range(0, 65535));
    app.add_flag("--terminal", o.terminal, "a pseudo-terminal instead");
    app.add_option("--model", o.model,
                   "pull-out, brittle-bond, wire-rope, yielding-metal, smooth-friction, plastic, "
                   "cracking-sheet or slipping-grip");
    app.add_option("--strength", o.strength, "mean strength of the specimens, such as 2 kN");
    cli::addNumber(app, "--cv", o.options.cv, "their spread, as a share", 0, 2);
    app.add_option("--seed", o.options.seed, "same seed, same specimens");
    cli::addNumber(app, "--rate", o.options.logger.rate, "samples a second", 0.1, 300000);
    cli::addNumber(app, "--speed", o.speed, "mm/s", 0.001, 1000);
    cli::addNumber(app, "--noise", o.options.logger.noise, "N, standard deviation", 0, 1e6);
    cli::addNumber(app, "--offset", o.options.logger.zeroOffset, "N shown without load", -1e6, 1e6);
    cli::addNumber(app, "--drift", o.options.logger.drift, "N/s while pulling", -1e6, 1e6);
    app.add_option("--spikes", o.options.logger.spikes, "spikes in each pull")->check(CLI::Range(0, 1000));
    app.add_option("--limit", o.limit, "where its readings end, such as 5 kN");
    app.add_option("--protocol", o.protocol, "lines or answers")->check(CLI::IsMember({"lines", "answers"}));
    cli::addNumber(app, "--auto", o.automatic, "pulls by itself so many seconds after the last one", 0, 1e6);
    cli::addNumbers(app, "--legs", o.options.legs,
                    "shares of the load that further cells see, such as 0.5 0.3 0.2", -1, 2)
        ->expected(1, 6);
    cli::addNumber(app, "--rezero", o.rezero,
                   "s into a pull at which the amplifier takes its offset away by itself", 0, 1e6);
    app.add_option("--shows", o.shows, "force, torque or deceleration")
        ->check(CLI::IsMember({"force", "torque", "deceleration"}));
    app.add_option("--truth", o.truth, "file for what each specimen was made from, a line of JSON each");
}

/// The rig that was asked for. Error: one that cannot be.
Expected<sim::RigOptions> optionsOf(Asked o) {
    const auto m = sim::modelFromName(o.model);
    if (!m) return fail("There is no specimen model called \"" + o.model + "\".");
    o.options.model = *m;
    o.options.logger.speed = o.speed / 1000;
    if (o.rezero > 0) o.options.logger.rezeroAt = o.rezero;
    const auto force = quantity::parseEntry(o.strength, quantity::Dimension::force, &quantity::unit("N"));
    if (!force) return fail(force.error().message);
    if (!(force->si >= 1e-3 && force->si <= 1e7))
        return fail("A specimen's strength lies between 0.001 N and 10 MN here.");
    o.options.strength = force->si;
    constexpr double longest = 0.03, mostSamples = 2e7; // m that a pull may take; samples of one pull
    if (longest / o.options.logger.speed * o.options.logger.rate > mostSamples)
        return fail(
            "So many samples of so slow a pull do not fit into memory: pull faster or log less often.");
    if (!o.limit.empty()) {
        const auto at = quantity::parseEntry(o.limit, quantity::Dimension::force, &quantity::unit("N"));
        if (!at) return fail(at.error().message);
        if (!(at->si > 0)) return fail("A limit of zero or less cannot be.");
        o.options.logger.limit = at->si;
    }
    return o.options;
}

} // namespace

int main(int argc, char** argv) {
    QCoreApplication application(argc, argv);
    anvil::quantity::usePoints();
    CLI::App app("A rig that is not there: virtual specimens over TCP on this machine or a pseudo-terminal.");
    Asked o;
    o.options.logger.noise = 2;
    o.options.logger.resolution = 0.5;
    addOptions(app, o);
    cli::addMan(app, "anvil-rig");
    try {
        app.parse(argc, argv);
    } catch (const CLI::Success& told) { // help or the page
        return app.exit(told);
    } catch (const CLI::ParseError& wrong) {
        std::cerr << wrong.what() << "\n";
        return 2;
    }
    const auto fails = [](const std::string& why) {
        std::cerr << why << "\n";
        return 3;
    };
    const auto options = optionsOf(o);
    if (!options) return fails(options.error().message);
    link::RigServer server(*options, o.protocol == "answers");
    server.setAuto(o.automatic);
    if (o.shows == "torque") server.show(quantity::Dimension::torque);
    if (o.shows == "deceleration") server.show(quantity::Dimension::acceleration);
    std::string truth; // written anew after every pull, whole or not at all
    if (!o.truth.empty()) {
        if (const auto ok = tables::writeFile(o.truth, truth); !ok) return fails(ok.error().message);
        QObject::connect(&server, &link::RigServer::pulled, [&] {
            truth += truthLine(server.rig().pulls(), server.rig().truth()) + "\n";
            if (const auto ok = tables::writeFile(o.truth, truth); !ok)
                std::cerr << ok.error().message << "\n";
        });
    }
    const auto address =
        o.terminal ? server.openTerminal() : server.listenTcp(static_cast<quint16>(std::max(0, o.port)));
    if (!address) return fails(address.error().message);
    std::cout << address->toStdString() << std::endl; // whoever started it waits for this line
    return QCoreApplication::exec();
}
