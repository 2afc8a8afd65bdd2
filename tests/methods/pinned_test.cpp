// What every method makes of many entries, as kept.
#include "pins.h"

#include <anvil/methods/method.h>
#include <anvil/methods/piece_kind.h>

namespace anvil::methods {
namespace {

using pins::num;
using pins::Pin;
using quantity::Dimension;

/// A likely entry for an input: `k` turns its size, and makes it a bound where that is taken.
std::string entryFor(const Input& input, int k) {
    const double size = 1 + 0.3 * (k % 4) + (input.key.size() % 3) * 0.2;
    const char* sign = input.mayBeBound && k % 5 == 3 ? ">" : input.mayBeBound && k % 5 == 4 ? "<" : "";
    const auto in = [&](double v, const char* unit) {
        return fmt::format("{}{:.4g} {}", sign, v * size, unit);
    };
    switch (input.dimension) {
    case Dimension::force:
        return in(800, "N");
    case Dimension::length:
        return in(input.key == "engagement" || input.key == "deflection" ? 8 : 40, "mm");
    case Dimension::torque:
        return in(9, "N·m");
    case Dimension::angle:
        return in(40, "°");
    case Dimension::mass:
        return in(2, "kg");
    case Dimension::time:
        return in(12, "s");
    case Dimension::area:
        return in(80, "mm²");
    case Dimension::acceleration:
        return in(600, "m/s²");
    case Dimension::speed:
        return in(0.2, "m/s");
    case Dimension::energy:
        return in(30, "J");
    default:
        return input.key == "tries"    ? std::to_string(10 + k)
               : input.key == "planes" ? std::to_string(1 + k % 2)
                                       : std::to_string(2 + k % 7);
    }
}

std::string seriesFor(const Input& input, int k) {
    std::string out;
    for (int i = 0; i < 5; ++i)
        out += fmt::format("{}{} s: {:.3f} mm", i ? "; " : "", i * i * 600,
                           10 + 0.4 * (1 + k % 3) * std::log(1.0 + i * i));
    (void)input;
    return out;
}

TEST(Pinned, NumbersOfEveryMethod) {
    Pin pin;
    for (const auto* m : all())
        for (int k = 0; k < 12; ++k) {
            std::vector<std::pair<std::string, std::string>> typed;
            std::string shown;
            const auto put = [&](const std::string& key, const std::string& text) {
                typed.emplace_back(key, text);
                shown += key + "=" + text + " ";
            };
            int place = 0;
            for (const auto& i : m->inputs) {
                ++place;
                if (!i.needed && (place + k) % 3 == 0) continue; // some are left out, each its turn
                const std::string key(i.key);
                if (i.form == Form::perLeg)
                    for (int leg = 1; leg <= 3; ++leg)
                        put(key + "." + std::to_string(leg), entryFor(i, k + leg));
                else if (i.form == Form::series)
                    put(key, seriesFor(i, k));
                else if (i.form == Form::steps)
                    put(key, k % 2 ? "50 N held; 60 N held; 70 N failed"
                                   : "50 N at 0.4 m held; 65 N at 0.4 m failed");
                else
                    put(key, entryFor(i, k));
            }
            pin.say("== {} {}", m->key, shown);
            const auto evidence = evidenceFrom(*m, typed);
            if (!evidence) {
                pin.line("refused: " + evidence.error().message);
                continue;
            }
            auto e = *evidence;
            if (k % 4 == 1) e.bound = stats::Bound::above;
            if (k % 4 == 2) e.failureTold = true, e.failure = static_cast<Failure>(k % 5);
            if (k % 6 == 5) e.afterwards = "bent", e.grade = 6;
            const auto numbers = measure(*m, e);
            if (!numbers) {
                pin.line("refused: " + numbers.error().message);
                continue;
            }
            for (const auto& n : numbers->numbers)
                pin.say("{} {} {}{}", n.metric->key,
                        n.value ? fmt::format("{} {} {}", n.value->word(), num(n.value->value),
                                              num(n.value->upper))
                                : n.whyNot,
                        static_cast<int>(n.boundBy),
                        n.tally ? fmt::format(" {}/{}", n.tally->successes, n.tally->tries) : "");
            for (const auto& note : numbers->notes)
                pin.line("note: " + note);
        }
    pin.check("methods");
}

TEST(Pinned, SearchCautionsAndKinds) {
    Pin pin;
    for (const char* text :
         {"", "rope", "glue", "bend shelf", "torque bolt", "drop", "friction", "zzz", "AX", "str"}) {
        std::string found;
        for (const auto* m : search(text))
            found += std::string(m->key) + " ";
        pin.say("{}: {}", text, found);
    }
    for (const auto* m : all()) {
        const PieceKind kinds[] = {pieceKind("glued hook"), pieceKind("wire rope")};
        std::string text(m->key);
        for (const auto& c : cautions(std::span(&m, 1), kinds))
            text += " | " + c;
        pin.say("{} form {} ", text, static_cast<int>(entryForm(*m)));
    }
    pin.check("cautions");
}

} // namespace
} // namespace anvil::methods
