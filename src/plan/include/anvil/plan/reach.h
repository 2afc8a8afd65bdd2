// Whether the rig can pull, move and resolve what is expected of a square.
#pragma once

#include <anvil/results/verdict.h>

namespace anvil::plan {

using namespace domain;
using namespace results;

/// Whether a square's pulls will fit the rig.
enum class Reach {
    unknown, ///< nothing is expected of the square, or the rig has no limit
    fine,
    tight,   ///< the strongest expected pull uses more than 80 % of the rig
    topsOut, ///< more than the rig can pull
    tooSmall ///< the expected pull is less than 5 % of the cell: its resolution will show
};
const char* word(Reach reach);

/// The predicted range of a square against what the rig can do; N at the specimen.
struct HeadRoom {
    Reach reach = Reach::unknown;
    double expected = 0, upper = 0; ///< mean, and upper 95 % prediction of the next pull
    double limit = 0;               ///< the lesser of rig limit and cell limit × ratio; 0: none
    std::string from;               ///< what the prediction stands on
    std::string sentence;           ///< with a remedy where one is needed; free of units
};

/// Head-room of a square from its own results (mean + t·s·√(1 + 1/n)), else its forecasts or the option's
/// rating (value · (1 + 1.645 CV)). For metrics that are forces.
HeadRoom headRoom(const domain::StudyData& data, const results::Verdict& verdict, domain::Id option,
                  domain::Id condition);

/// The same for travel, in m: how far the rig has to move until the piece breaks, against what it can. From
/// what the square's own pulls needed (first displacement to the break, else to the peak), else its
/// forecasts.
HeadRoom travelRoom(const domain::StudyData& data, const results::Readings& readings, domain::Id option,
                    domain::Id condition);
/// The worse of two, as a square shows it: topping out before too small before tight before fine.
Reach worse(Reach a, Reach b);

/// Both for one square: the worse of the two, in a word and a sentence. The word says when it is the travel
/// that is short; empty when nothing is known.
struct SquareRoom {
    HeadRoom load, travel;
    Reach reach = Reach::unknown;
    std::string word, sentence;
};
SquareRoom squareRoom(const domain::StudyData& data, const results::Readings& readings,
                      const results::Verdict& verdict, domain::Id option, domain::Id condition);

} // namespace anvil::plan
