// Tie letters: sets of groups that nothing tells apart.
#include <anvil/stats/compare.h>

#include <algorithm>
#include <bit>
#include <cstdint>
#include <string_view>

namespace anvil::stats {
namespace {

/// One sign a set, so that a row of them can be read.
constexpr std::string_view signs = "abcdefghijklmnopqrstuvwxyzABCDEFGHIJKLMNOPQRSTUVWXYZ0123456789";
constexpr char noSignLeft = '*';
/// Steps of the search after which the sets are taken to be too many to list; a step costs n² / 64.
constexpr int mostSteps = 20000;

/// A set of groups, a bit each.
class Bits {
public:
    explicit Bits(std::size_t n) : m_words((n + 63) / 64) {}
    void add(std::size_t i) { m_words[i / 64] |= std::uint64_t{1} << (i % 64); }
    void drop(std::size_t i) { m_words[i / 64] &= ~(std::uint64_t{1} << (i % 64)); }
    bool has(std::size_t i) const { return m_words[i / 64] >> (i % 64) & 1; }
    bool empty() const {
        return std::all_of(m_words.begin(), m_words.end(), [](auto w) { return w == 0; });
    }
    int countWith(const Bits& other) const {
        int n = 0;
        for (std::size_t k = 0; k < m_words.size(); ++k)
            n += ones(m_words[k] & other.m_words[k]);
        return n;
    }
    Bits with(const Bits& other) const {
        return combined(other, [](auto a, auto b) { return a & b; });
    }
    Bits without(const Bits& other) const {
        return combined(other, [](auto a, auto b) { return a & ~b; });
    }
    std::vector<std::size_t> members() const {
        std::vector<std::size_t> out;
        for (std::size_t k = 0; k < m_words.size(); ++k)
            for (auto w = m_words[k]; w != 0; w &= w - 1)
                out.push_back(64 * k + static_cast<std::size_t>(std::countr_zero(w)));
        return out;
    }

private:
    /// By halves, quarters … as every processor does it; std::popcount is a call where none is asked for by
    /// name (Warren 2013, §5-1).
    static int ones(std::uint64_t w) {
        w -= w >> 1 & 0x5555555555555555U;
        w = (w & 0x3333333333333333U) + (w >> 2 & 0x3333333333333333U);
        w = (w + (w >> 4)) & 0x0f0f0f0f0f0f0f0fU;
        return static_cast<int>(w * 0x0101010101010101U >> 56);
    }
    template <class Op> Bits combined(const Bits& other, Op op) const {
        Bits out = *this;
        for (std::size_t k = 0; k < m_words.size(); ++k)
            out.m_words[k] = op(m_words[k], other.m_words[k]);
        return out;
    }
    std::vector<std::uint64_t> m_words;
};

using Sets = std::vector<std::vector<std::size_t>>;

/// Lists all maximal sets, or gives up where there are too many.
class Search {
public:
    explicit Search(const std::vector<Bits>& ties) : m_ties(ties) {}

    /// `in`: the set so far; `may`: what ties with all of it; `done`: what does too, and was tried before.
    bool extend(const Bits& in, Bits may, Bits done) {
        if (++m_steps > mostSteps) return false;
        if (may.empty()) {
            if (done.empty()) sets.push_back(in.members());
            return sets.size() <= signs.size();
        }
        for (const auto v : may.without(m_ties[pivot(may, done)]).members()) {
            auto larger = in;
            larger.add(v);
            if (!extend(larger, may.with(m_ties[v]), done.with(m_ties[v]))) return false;
            may.drop(v);
            done.add(v);
        }
        return true;
    }
    Sets sets;

private:
    /// Whoever leaves the fewest to be tried.
    std::size_t pivot(const Bits& may, const Bits& done) const {
        std::size_t best = 0;
        int most = -1;
        for (const auto& from : {may, done})
            for (const auto v : from.members())
                if (const int n = may.countWith(m_ties[v]); n > most) {
                    most = n;
                    best = v;
                }
        return best;
    }
    const std::vector<Bits>& m_ties;
    int m_steps = 0;
};

/// Maximal sets until every tied pair is in one, or the signs are used up; each is grown by whoever brings
/// the most pairs that are in none yet. `open`: the ties of each group; what is left of them is in no set.
Sets cover(const std::vector<Bits>& ties, std::vector<Bits>& open) {
    const auto n = ties.size();
    Sets sets;
    for (std::size_t i = 0; i < n; ++i)
        while (!open[i].empty() && sets.size() < signs.size()) {
            Bits set(n);
            set.add(i);
            auto may = ties[i];
            for (auto next = open[i].members().front();;) {
                set.add(next);
                may = may.with(ties[next]);
                if (may.empty()) break;
                int most = -1;
                for (const auto k : may.members())
                    if (const int fresh = open[k].countWith(set); fresh > most) {
                        most = fresh;
                        next = k;
                    }
            }
            for (const auto k : set.members())
                open[k] = open[k].without(set);
            sets.push_back(set.members());
        }
    for (std::size_t i = 0; i < n; ++i) // who ties with nobody is a set of its own
        if (ties[i].empty() && sets.size() < signs.size()) sets.push_back({i});
    return sets;
}

} // namespace

std::vector<std::string> tieLetters(std::size_t groups,
                                    const std::vector<std::vector<PairVerdict>>& verdict) {
    std::vector<Bits> ties(groups, Bits(groups));
    Bits all(groups);
    for (std::size_t i = 0; i < groups; ++i) {
        all.add(i);
        for (std::size_t j = i + 1; j < groups; ++j)
            if (const auto v = verdict[i][j]; v == PairVerdict::same || v == PairVerdict::tooClose) {
                ties[i].add(j);
                ties[j].add(i);
            }
    }
    Search search(ties);
    std::vector<Bits> left(groups, Bits(groups));
    const bool few = groups == 0 || search.extend(Bits(groups), all, Bits(groups));
    if (!few) left = ties;
    auto sets = few ? std::move(search.sets) : cover(ties, left);
    for (auto& set : sets)
        std::sort(set.begin(), set.end());
    std::sort(sets.begin(), sets.end());
    std::vector<std::string> letters(groups);
    for (std::size_t k = 0; k < sets.size(); ++k)
        for (const auto i : sets[k])
            letters[i] += signs[k];
    for (std::size_t i = 0; i < groups; ++i)
        if (!left[i].empty()) letters[i] += noSignLeft;
    return letters;
}

std::string sharedLetters(const std::vector<std::string>& letters, std::size_t group) {
    std::string out;
    for (const char letter : letters[group])
        for (std::size_t i = 0; i < letters.size(); ++i)
            if (letter != noSignLeft && i != group && letters[i].find(letter) != std::string::npos) {
                out += letter;
                break;
            }
    return out;
}

} // namespace anvil::stats
