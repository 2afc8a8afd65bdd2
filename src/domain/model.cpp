#include <anvil/domain/model.h>

#include <algorithm>
#include <cctype>
#include <cmath>
#include <iterator>
#include <set>

namespace anvil::domain {
namespace {

template <class T> const T* byId(const std::vector<T>& all, Id id) {
    const auto found = std::find_if(all.begin(), all.end(), [&](const T& x) { return x.id == id; });
    return found == all.end() ? nullptr : &*found;
}

constexpr const char* standingKeys[] = {"counts", "at_least", "at_most", "between",
                                        "aside",  "void",     "not_read"};
static_assert(std::size(standingKeys) == std::size(standings));

/// Where it stands among all; a bound that does not count stands as what does not count.
std::size_t placeOf(Standing standing) {
    if (standing.taken != Taken::counts) standing.bound = quantity::Bound::exact;
    return static_cast<std::size_t>(std::find(std::begin(standings), std::end(standings), standing) -
                                    std::begin(standings));
}

} // namespace

const char* word(Standing standing) {
    static constexpr const char* words[] = {"counts",    "at least", "at most", "between",
                                            "set aside", "void",     "not read"};
    static_assert(std::size(words) == std::size(standings));
    return words[placeOf(standing)];
}

const char* key(Standing standing) { return standingKeys[placeOf(standing)]; }

std::optional<Standing> standingFromKey(const std::string& key) {
    for (std::size_t i = 0; i < std::size(standingKeys); ++i)
        if (key == standingKeys[i]) return standings[i];
    return std::nullopt;
}

const char* word(Intent intent) {
    static constexpr const char* words[] = {"controlled", "exploratory", "as used"};
    static_assert(std::size(words) == static_cast<std::size_t>(Intent::asUsed) + 1);
    return words[static_cast<int>(intent)];
}

namespace {
constexpr const char* intentKeys[] = {"controlled", "exploratory", "as_used"};
static_assert(std::size(intentKeys) == static_cast<std::size_t>(Intent::asUsed) + 1);
constexpr const char* recordingKeys[] = {"", "running", "interrupted"};
static_assert(std::size(recordingKeys) == static_cast<std::size_t>(Recording::interrupted) + 1);

template <class Enum, std::size_t n>
std::optional<Enum> fromKey(const char* const (&keys)[n], const std::string& key) {
    for (std::size_t i = 0; i < n; ++i)
        if (key == keys[i]) return static_cast<Enum>(i);
    return std::nullopt;
}
} // namespace

namespace {
constexpr const char* limitWords[] = {
    "broke",       "rig topped out", "stopped on purpose", "rig fell silent", "set up wrongly",
    "number lost", "out of travel",  "it slipped",         "it tipped",       "power gone"};
constexpr const char* limitKeys[] = {"broke", "topped_out",    "stopped", "link_lost", "wrong_setup",
                                     "lost",  "out_of_travel", "slipped", "tipped",    "power_gone"};
constexpr auto limits = static_cast<std::size_t>(Limit::powerGone) + 1;
static_assert(std::size(limitWords) == limits && std::size(limitKeys) == limits);
} // namespace

const char* word(Limit limit) { return limitWords[static_cast<std::size_t>(limit)]; }
const char* key(Limit limit) { return limitKeys[static_cast<std::size_t>(limit)]; }
std::optional<Limit> limitFromKey(const std::string& key) { return fromKey<Limit>(limitKeys, key); }

const char* key(Intent intent) { return intentKeys[static_cast<int>(intent)]; }
std::optional<Intent> intentFromKey(const std::string& key) { return fromKey<Intent>(intentKeys, key); }
const char* key(Recording recording) { return recordingKeys[static_cast<int>(recording)]; }
std::optional<Recording> recordingFromKey(const std::string& key) {
    return fromKey<Recording>(recordingKeys, key);
}

std::optional<double> Measured::mean() const {
    if (readings.empty()) return std::nullopt;
    double sum = 0;
    for (const double r : readings)
        sum += r;
    return sum / static_cast<double>(readings.size());
}

Fit Measured::fit() const {
    const auto m = mean();
    if (!m || !nominal || !tolerance || std::abs(*m - *nominal) <= *tolerance * (1 + 1e-9)) return Fit::fits;
    return *m > *nominal ? Fit::tooLarge : Fit::tooSmall;
}

const Option* StudyData::option(Id id) const { return byId(options, id); }
const Condition* StudyData::condition(Id id) const { return byId(conditions, id); }
const Specimen* StudyData::specimen(Id id) const { return m_specimens.find(specimens, id); }
const Pull* StudyData::pull(Id id) const { return m_pulls.find(pulls, id); }

namespace {
constexpr const char* notHere = "(not in this study)";
}

const Option& StudyData::optionAt(Id id) const {
    static const Option none{0, 0, 0, notHere, {}, {}, {}, {}, {}};
    const auto* found = option(id);
    return found ? *found : none;
}

const Condition& StudyData::conditionAt(Id id) const {
    static const Condition none{0, 0, 0, notHere, {}};
    const auto* found = condition(id);
    return found ? *found : none;
}

std::size_t StudyData::pulledPieces() const {
    std::set<Id> pieces;
    for (const auto& p : pulls)
        pieces.insert(p.specimen);
    return pieces.size();
}

const Specimen& StudyData::specimenAt(Id id) const {
    static const Specimen none{0, 0, 0, 0, 0, notHere, {}};
    const auto* found = specimen(id);
    return found ? *found : none;
}

std::vector<std::string> levelsIn(const std::string& name) {
    std::vector<std::string> out;
    std::string part;
    for (const char c : name + ',') {
        if (c != ',' && c != '+' && c != '/' && c != ';') {
            part += c;
            continue;
        }
        const auto a = part.find_first_not_of(' '), b = part.find_last_not_of(' ');
        if (a != std::string::npos) out.push_back(part.substr(a, b - a + 1));
        part.clear();
    }
    if (out.size() < 2) out.clear();
    return out;
}

} // namespace anvil::domain
