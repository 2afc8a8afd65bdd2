// What a command gives back: one JSON object for scripts, the same in words for people.
#pragma once

#include <CLI/App.hpp>
#include <CLI/Config.hpp>
#include <CLI/Formatter.hpp>
#include <anvil/quantity/error.h>
#include <nlohmann/json.hpp>
#include <optional>
#include <string>

namespace anvil::cli {

using Json = nlohmann::ordered_json;

struct Output {
    Json json;
    std::string text;
};

/// A command added to the command line; the chosen one is run after parsing.
using Command = std::function<Expected<Output>()>;

void addCoreCommands(CLI::App& app, std::vector<std::pair<CLI::App*, Command>>& commands);
void addMethodCommands(CLI::App& app, std::vector<std::pair<CLI::App*, Command>>& commands);
void addStatsCommands(CLI::App& app, std::vector<std::pair<CLI::App*, Command>>& commands);
void addPlanCommands(CLI::App& app, std::vector<std::pair<CLI::App*, Command>>& commands);
void addVerdictCommand(CLI::App& app, std::vector<std::pair<CLI::App*, Command>>& commands);
void addProjectCommands(CLI::App& app, std::vector<std::pair<CLI::App*, Command>>& commands);

/// A number or null; numbers are tidied to 15 significant digits.
Json number(const std::optional<double>& value);

/// The bytes of a file. Error: it cannot be read.
Expected<std::string> readFile(const std::string& path);
/// Writes a file whole or not at all. Error: it cannot be written; what was there before still is.
Expected<void> writeFile(const std::string& path, const std::string& bytes);

/// Lines of a table with columns padded to equal width.
std::string table(const std::vector<std::vector<std::string>>& rows);

} // namespace anvil::cli
