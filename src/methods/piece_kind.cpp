#include <anvil/methods/piece_kind.h>

#include <algorithm>
#include <array>
#include <cctype>
#include <optional>
#include <string>

namespace anvil::methods {
namespace {

enum class Family { none, rope, adhesive, fastener, section };

struct Word {
    std::string_view word;
    Family family;
    std::optional<double> cv{}; ///< empty: says nothing of the spread
};

/// Usual spreads, from the first word that tells one: docs/calculations.md.
constexpr Word words[] = {
    {"rope", Family::rope, 0.08},       {"knot", Family::rope, 0.08},
    {"splice", Family::rope, 0.08},     {"sling", Family::rope, 0.08},
    {"bond", Family::adhesive, 0.20},   {"adhesive", Family::adhesive, 0.20},
    {"glue", Family::adhesive, 0.20},   {"screw", Family::fastener, 0.15},
    {"nail", Family::fastener, 0.15},   {"peg", Family::fastener, 0.15},
    {"anchor", Family::fastener, 0.15}, {"rivet", Family::fastener, 0.07},
    {"bolt", Family::fastener, 0.07},   {"fitting", Family::none, 0.07},
    {"clamp", Family::none, 0.07},      {"plastic", Family::section, 0.10},
    {"slat", Family::section, 0.10},    {"metal", Family::none, 0.04},
    {"steel", Family::none, 0.04},      {"aluminium", Family::none, 0.04},
    {"tape", Family::adhesive, {}},     {"epoxy", Family::adhesive, {}},
    {"wire", Family::rope, {}},         {"cable", Family::rope, {}},
    {"line", Family::rope, {}},         {"cord", Family::rope, {}},
    {"strap", Family::rope, {}},        {"webbing", Family::rope, {}},
    {"pin", Family::fastener, {}},      {"fastener", Family::fastener, {}},
    {"fasten", Family::fastener, {}},   {"sheet", Family::section, {}},
    {"tube", Family::section, {}},      {"bar", Family::section, {}},
    {"beam", Family::section, {}},
};

constexpr FailureMode ofAdhesives[] = {{"let go from the base", Failure::leftBase},
                                       {"let go from the piece", Failure::leftPiece},
                                       {"tore within the glue", Failure::withinGlue},
                                       {"base tore or cracked", Failure::baseBroke},
                                       {"slid off slowly", Failure::slid}};
constexpr FailureMode ofRopes[] = {{"pulled out", Failure::pulledOut},
                                   {"slipped", Failure::slid},
                                   {"broke at the end", Failure::brokeAtEnd},
                                   {"broke in the free length", Failure::snapped},
                                   {"strand by strand", Failure::strandByStrand}};
constexpr FailureMode ofFasteners[] = {{"pulled out", Failure::pulledOut},
                                       {"sheared off", Failure::sheared},
                                       {"snapped in tension", Failure::snapped},
                                       {"thread stripped", Failure::threadStripped},
                                       {"head pulled through", Failure::headThrough},
                                       {"bent", Failure::bent},
                                       {"base split", Failure::baseBroke}};
constexpr FailureMode ofSections[] = {{"snapped", Failure::snapped},
                                      {"cracked", Failure::cracked},
                                      {"bent and stayed bent", Failure::bentForGood},
                                      {"tore", Failure::tore},
                                      {"buckled", Failure::buckled},
                                      {"broke at the grip", Failure::brokeAtEnd},
                                      {"sheared along", Failure::sheared},
                                      {"crushed", Failure::crushed}};
constexpr FailureMode ofOthers[] = {{"pulled out", Failure::pulledOut}, {"snapped", Failure::snapped},
                                    {"sheared", Failure::sheared},      {"tore", Failure::tore},
                                    {"cracked", Failure::cracked},      {"bent", Failure::bent},
                                    {"slipped", Failure::slid},         {"let go", Failure::withinGlue}};

/// "ropes", "glued" and "bonded" are a rope, a glue and a bond.
bool isForm(std::string_view token, std::string_view word) {
    if (!token.starts_with(word)) return false;
    const auto rest = token.substr(word.size());
    return rest.empty() || rest == "s" || rest == "d" || rest == "ed";
}

/// Words that say how something failed, wherever they stand.
constexpr FailureMode failureWords[] = {
    {"sheared", Failure::sheared}, {"crushed", Failure::crushed},  {"compression", Failure::crushed},
    {"grip", Failure::brokeAtEnd}, {"grips", Failure::brokeAtEnd}, {"outside", Failure::outsideGauge}};

/// Calls `take` with each word, in small letters.
template <class Take> void eachWord(std::string_view text, Take take) {
    std::string word;
    for (std::size_t i = 0; i <= text.size(); ++i) {
        const auto c = i < text.size() ? static_cast<unsigned char>(text[i]) : ' ';
        if (std::isalnum(c) || c >= 0x80) {
            word += static_cast<char>(std::tolower(c));
            continue;
        }
        if (!word.empty()) take(std::string_view(word));
        word.clear();
    }
}

} // namespace

PieceKind pieceKind(std::string_view text) {
    std::array<bool, std::size(words)> said{};
    eachWord(text, [&](std::string_view token) {
        for (std::size_t k = 0; k < std::size(words); ++k)
            said[k] = said[k] || isForm(token, words[k].word);
    });
    PieceKind kind;
    bool spread = false;
    for (std::size_t k = 0; k < std::size(words); ++k) {
        if (!said[k]) continue;
        kind.rope = kind.rope || words[k].family == Family::rope;
        kind.adhesive = kind.adhesive || words[k].family == Family::adhesive;
        kind.fastener = kind.fastener || words[k].family == Family::fastener;
        kind.section = kind.section || words[k].family == Family::section;
        if (words[k].cv && !spread) kind.cv = *words[k].cv;
        spread = spread || words[k].cv;
    }
    return kind;
}

std::span<const FailureMode> failureModes(const PieceKind& kind) {
    if (kind.adhesive) return ofAdhesives;
    if (kind.rope) return ofRopes;
    if (kind.fastener) return ofFasteners;
    if (kind.section) return ofSections;
    return ofOthers;
}

std::optional<Failure> failureOf(std::string_view mode) {
    for (const std::span<const FailureMode> all :
         {std::span<const FailureMode>(ofAdhesives), std::span<const FailureMode>(ofRopes),
          std::span<const FailureMode>(ofFasteners), std::span<const FailureMode>(ofSections),
          std::span<const FailureMode>(ofOthers)})
        for (const auto& m : all)
            if (m.words == mode) return m.failure;
    std::optional<Failure> named;
    bool denied = false;
    eachWord(mode, [&](std::string_view word) {
        denied = denied || word == "not" || word == "no" || word == "without";
        for (const auto& w : failureWords)
            if (w.words == word && !named) named = w.failure;
    });
    return denied ? std::nullopt : named;
}

} // namespace anvil::methods
