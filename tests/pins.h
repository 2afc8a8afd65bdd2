// Pins: what a room says of many made-up cases, kept in a file and compared line by line. They notice any
// change; whether what is kept is right is the business of the other tests.
#pragma once

#include <cmath>
#include <cstdlib>
#include <fmt/format.h>
#include <fstream>
#include <gtest/gtest.h>
#include <optional>
#include <string>
#include <utility>
#include <vector>

namespace anvil::pins {

/// Lines, put together piece by piece.
class Pin {
public:
    void line(std::string text) {
        for (auto& c : text)
            if (c == '\n') c = ' ';
        m_lines.push_back(std::move(text));
    }
    template <class... T> void say(fmt::format_string<T...> what, T&&... with) {
        line(fmt::format(what, std::forward<T>(with)...));
    }
    /// Compares with tests/data/pins/NAME.txt, and names the first lines that differ. With ANVIL_PIN in the
    /// environment the file is written instead: look at its difference before it is kept.
    void check(const std::string& name) const {
        const auto path = std::string(TEST_DATA) + "/pins/" + name + ".txt";
        if (std::getenv("ANVIL_PIN")) {
            std::ofstream out(path);
            for (const auto& l : m_lines)
                out << l << '\n';
            FAIL() << path << " was written anew; run again without ANVIL_PIN";
        }
        std::ifstream in(path);
        ASSERT_TRUE(in) << path;
        std::vector<std::string> kept;
        for (std::string l; std::getline(in, l);)
            kept.push_back(l);
        int shown = 0;
        for (std::size_t i = 0; i < std::max(kept.size(), m_lines.size()) && shown < 5; ++i) {
            const std::string was = i < kept.size() ? kept[i] : "(nothing)";
            const std::string is = i < m_lines.size() ? m_lines[i] : "(nothing)";
            if (was == is) continue;
            ++shown;
            ADD_FAILURE() << path << ":" << i + 1 << "\nkept: " << was << "\n now: " << is;
        }
    }

private:
    std::vector<std::string> m_lines;
};

/// Seven digits: what a compiler may turn lies behind them.
inline std::string num(double v) {
    if (!std::isfinite(v)) return std::isnan(v) ? "nan" : v > 0 ? "inf" : "-inf";
    return fmt::format("{:.7g}", std::abs(v) < 1e-12 ? 0.0 : v);
}
inline std::string num(const std::optional<double>& v) { return v ? num(*v) : "-"; }
inline std::string num(const std::pair<double, double>& v) { return num(v.first) + ".." + num(v.second); }
inline std::string num(const std::optional<std::pair<double, double>>& v) { return v ? num(*v) : "-"; }
template <class T> std::string nums(const std::vector<T>& all) {
    std::string out;
    for (const auto& v : all)
        out += (out.empty() ? "" : " ") + num(v);
    return out;
}

} // namespace anvil::pins
