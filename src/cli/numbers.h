// Options that take a number: with a point or a comma, whatever the locale says.
#pragma once

#include <CLI/App.hpp>
#include <CLI/Config.hpp>
#include <CLI/Formatter.hpp>
#include <string>
#include <vector>

namespace anvil::cli {

/// An option that takes a number as people type it ("12.5", "12,5"). What is none, or can be read both ways,
/// ends the program as any wrong use does; so does one outside of `least` to `most`.
CLI::Option* addNumber(CLI::App& app, const std::string& name, double& target, const std::string& about,
                       double least = -1e300, double most = 1e300);

/// The same for an option that takes several.
CLI::Option* addNumbers(CLI::App& app, const std::string& name, std::vector<double>& target,
                        const std::string& about, double least, double most);

} // namespace anvil::cli
