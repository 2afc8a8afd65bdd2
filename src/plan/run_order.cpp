#include <anvil/plan/run_order.h>

#include <anvil/stats/draws.h>

#include <algorithm>
#include <map>

namespace anvil::plan {

using namespace domain;
namespace {

/// Fisher and Yates' shuffle.
template <class T> void shuffle(std::vector<T>& all, stats::Draws& draws) {
    for (std::size_t i = all.size(); i > 1; --i)
        std::swap(all[i - 1], all[static_cast<std::size_t>(draws.below(i))]);
}

bool pulled(const StudyData& data, Id specimen) {
    return std::any_of(data.pulls.begin(), data.pulls.end(),
                       [&](const Pull& p) { return p.specimen == specimen; });
}

} // namespace

std::vector<std::string> drawRunOrder(const StudyData& data, std::uint64_t seed, bool groupConditions) {
    // Pieces of each square that are still to be pulled, by replicate.
    struct Square {
        Id condition = 0;
        std::vector<std::pair<int, std::string>> pieces;
    };
    std::vector<Square> squares;
    std::size_t blocks = 0;
    for (const auto& c : data.conditions)
        for (const auto& o : data.options) {
            Square square{c.id, {}};
            for (const auto& s : data.specimens)
                if (s.option == o.id && s.condition == c.id && !pulled(data, s.id))
                    square.pieces.emplace_back(s.replicate, s.label);
            std::sort(square.pieces.begin(), square.pieces.end());
            blocks = std::max(blocks, square.pieces.size());
            if (!square.pieces.empty()) squares.push_back(std::move(square));
        }
    std::vector<std::string> order;
    stats::Draws draws(seed);
    for (std::size_t b = 0; b < blocks; ++b) {
        std::vector<const Square*> block;
        for (const auto& s : squares)
            if (b < s.pieces.size()) block.push_back(&s);
        shuffle(block, draws);
        if (groupConditions) {
            std::vector<Id> conditions;
            for (const auto* s : block)
                if (std::find(conditions.begin(), conditions.end(), s->condition) == conditions.end())
                    conditions.push_back(s->condition);
            std::stable_sort(block.begin(), block.end(), [&](const Square* x, const Square* y) {
                return std::find(conditions.begin(), conditions.end(), x->condition) <
                       std::find(conditions.begin(), conditions.end(), y->condition);
            });
        }
        for (const auto* s : block)
            order.push_back(s->pieces[b].second);
    }
    return order;
}

} // namespace anvil::plan
