// The page of the manual, from the same descriptions as --help.
#pragma once

#include <CLI/CLI.hpp>
#include <string>

namespace anvil::cli {

/// The program with all its commands and options as a page for man(1), section 1.
std::string manPage(const CLI::App& app, const std::string& name, const std::string& version);

/// Adds the flag --man: parsing throws a CLI::Success, and app.exit() of that prints the page.
void addMan(CLI::App& app, const std::string& name);

} // namespace anvil::cli
