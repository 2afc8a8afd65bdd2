// How the verdict is looked at: what was chosen on its pages, kept while its study is on show.
#pragma once

#include <anvil/pages/page.h>

namespace anvil::app {

struct Looks {
    std::optional<domain::Metric> metric{}; ///< nothing: the one that decides
    std::optional<std::pair<std::size_t, std::size_t>> two{};
    std::string scale{};
    std::optional<std::size_t> plotOf{};
    bool logTime = false;

    /// Takes what is about how it is shown; false: something is to be done to the study.
    bool take(const pages::Action& action);
};

} // namespace anvil::app
