#include "numbers.h"

#include <anvil/quantity/entry.h>
#include <fmt/format.h>

namespace anvil::cli {
namespace {

/// The number a text holds; what is none is thrown, as the library of the command line wants it.
double numberIn(const std::string& name, const std::string& text, double least, double most) {
    const auto value = quantity::parseNumber(text);
    if (!value) throw CLI::ConversionError(name + ": " + value.error().message);
    if (!(*value >= least && *value <= most)) // not "nan" either
        throw CLI::ValidationError(name, fmt::format("{} does not lie between {} and {}", text, least, most));
    return *value;
}

} // namespace

CLI::Option* addNumber(CLI::App& app, const std::string& name, double& target, const std::string& about,
                       double least, double most) {
    auto* option = app.add_option_function<std::string>(
        name,
        [&target, name, least, most](const std::string& text) { target = numberIn(name, text, least, most); },
        about);
    return option->type_name("NUMBER");
}

CLI::Option* addNumbers(CLI::App& app, const std::string& name, std::vector<double>& target,
                        const std::string& about, double least, double most) {
    auto* option = app.add_option_function<std::vector<std::string>>(
        name,
        [&target, name, least, most](const std::vector<std::string>& texts) {
            target.clear();
            for (const auto& text : texts)
                target.push_back(numberIn(name, text, least, most));
        },
        about);
    return option->type_name("NUMBER");
}

} // namespace anvil::cli
