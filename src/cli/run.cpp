#include "run.h"

#include "man.h"
#include "output.h"
#include <iostream>

namespace anvil::cli {

namespace {

/// One line on stderr is promised, whatever a file's name or contents hold.
std::string oneLine(std::string text) {
    for (auto& c : text)
        if (static_cast<unsigned char>(c) < ' ') c = ' ';
    constexpr std::size_t longest = 1200,
                          end = 400; // a name may be of any length; what is wrong stands behind it
    if (text.size() <= longest) return text;
    auto from = longest - end, to = text.size() - end;
    const auto inside = [&](std::size_t at) { return (static_cast<unsigned char>(text[at]) & 0xC0) == 0x80; };
    while (from > 0 && inside(from)) // never in the middle of a letter
        --from;
    while (to < text.size() && inside(to))
        ++to;
    return text.substr(0, from) + " … " + text.substr(to);
}

/// A mistake in the program is said like bad input; it never ends in an abort.
Expected<Output> ran(const Command& command) {
    try {
        return command();
    } catch (const std::bad_alloc&) {
        return fail("There is not enough memory for this.");
    } catch (const std::exception& e) {
        return fail(std::string("This cannot be worked out (") + e.what() + ").");
    }
}

} // namespace

int run(int argc, char** argv) {
    CLI::App app("Finds out which option is strongest by breaking it: Jaunty Anvil on the command line. Exit "
                 "status: 0 done, 2 wrong use, 3 bad input.");
    app.require_subcommand(1);
    app.fallthrough();
    bool json = false;
    app.add_flag("--json", json, "print one JSON object");
    addMan(app, "anvil");
    std::vector<std::pair<CLI::App*, Command>> commands;
    addCoreCommands(app, commands);
    addMethodCommands(app, commands);
    addStatsCommands(app, commands);
    addPlanCommands(app, commands);
    addVerdictCommand(app, commands);
    addProjectCommands(app, commands);
    try {
        app.parse(argc, argv);
    } catch (const CLI::Success& told) { // help or the page
        return app.exit(told);
    } catch (const CLI::ParseError& wrong) {
        std::cerr << oneLine(wrong.what()) << "\n";
        return 2;
    }
    for (const auto& [command, run] : commands) {
        if (!command->parsed()) continue;
        const auto result = ran(run);
        if (!result) {
            std::cerr << oneLine(result.error().message) << "\n";
            return 3;
        }
        // Names may come from anywhere: what is no text is printed as such, never a reason to stop.
        if (json)
            std::cout << result->json.dump(-1, ' ', false, Json::error_handler_t::replace) << "\n";
        else
            std::cout << result->text;
        std::cout.flush();
        if (!std::cout) {
            std::cerr << "The result could not be printed.\n";
            return 3;
        }
    }
    return 0;
}

} // namespace anvil::cli
