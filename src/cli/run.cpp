#include "run.h"

#include "output.h"
#include <iostream>

namespace anvil::cli {

int run(int argc, char** argv) {
    CLI::App app("Jaunty Anvil on the command line. Exit status: 0 done, 2 wrong use, 3 bad input.");
    app.require_subcommand(1);
    app.fallthrough();
    bool json = false;
    app.add_flag("--json", json, "print one JSON object");
    std::vector<std::pair<CLI::App*, Command>> commands;
    addCoreCommands(app, commands);
    addStatsCommands(app, commands);
    addPlanCommands(app, commands);
    addProjectCommands(app, commands);
    try {
        app.parse(argc, argv);
    } catch (const CLI::CallForHelp& help) {
        return app.exit(help);
    } catch (const CLI::CallForAllHelp& help) {
        return app.exit(help);
    } catch (const CLI::ParseError& wrong) {
        std::cerr << wrong.what() << "\n";
        return 2;
    }
    for (const auto& [command, run] : commands) {
        if (!command->parsed()) continue;
        const auto result = run();
        if (!result) {
            std::cerr << result.error().message << "\n";
            return 3;
        }
        if (json)
            std::cout << result->json.dump() << "\n";
        else
            std::cout << result->text;
    }
    return 0;
}

} // namespace anvil::cli
