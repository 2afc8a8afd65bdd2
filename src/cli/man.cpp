#include "man.h"

#include <algorithm>

namespace anvil::cli {
namespace {

/// Text that roff takes to the letter: no line of it begins a request, no backslash escapes.
std::string plain(const std::string& text) {
    std::string out;
    for (const char c : text) {
        if (c == '\\')
            out += "\\e";
        else if (c == '-')
            out += "\\-";
        else
            out += c == '\n' ? ' ' : c;
    }
    if (!out.empty() && (out.front() == '.' || out.front() == '\'')) out.insert(0, "\\&");
    return out;
}

void optionsOf(const CLI::App& app, std::string& out) {
    for (const auto* option : app.get_options()) {
        out += ".TP\n.B " + plain(option->get_name(option->get_positional(), !option->get_positional())) +
               "\n" +
               (option->get_description().empty() ? std::string("\\&") : plain(option->get_description())) +
               "\n";
    }
}

/// The first sentence, without its stop: what lists of pages show.
std::string headOf(const std::string& description) {
    const auto end = std::min(description.find(". "), description.find_last_not_of('.') + 1);
    return description.substr(0, end);
}

} // namespace

std::string manPage(const CLI::App& app, const std::string& name, const std::string& version) {
    const auto commands = app.get_subcommands([](const CLI::App*) { return true; });
    std::string out = ".TH " + name + " 1 \"\" \"Jaunty Anvil " + version + "\"\n.SH NAME\n" + name +
                      " \\- " + plain(headOf(app.get_description())) + "\n.SH SYNOPSIS\n.B " + name +
                      (commands.empty() ? "\n" : "\n.I command\n") + "[options]\n.SH DESCRIPTION\n" +
                      plain(app.get_description()) + "\n.SH OPTIONS\n";
    optionsOf(app, out);
    if (!commands.empty()) out += ".SH COMMANDS\n";
    for (const auto* command : commands) {
        out += ".SS " + plain(command->get_name()) + "\n" + plain(command->get_description()) + "\n";
        optionsOf(*command, out);
    }
    out += ".SH EXIT STATUS\n0 done, 2 wrong use, 3 bad input with one line on standard error.\n";
    return out;
}

void addMan(CLI::App& app, const std::string& name) {
    app.add_flag_callback(
        "--man", [&app, name] { throw CLI::CallForVersion(manPage(app, name, ANVIL_VERSION), 0); },
        "print all of this as a page for man(1)");
}

} // namespace anvil::cli
