// How many curves are read at once: what of it is chosen, what a choice would change, and carrying it out.
#pragma once

#include <anvil/project/curve_reading.h>
#include <anvil/project/open_project.h>

namespace anvil::project {

/// Whose curves a choice is for.
enum class ReadingScope { pull, square, study };

/// The curves of a pull, of its square or of its study; ids of pulls, in the study's order.
std::vector<Id> curvesIn(const domain::StudyData& data, Id pull, ReadingScope scope);

/// A curve's own settings with what was chosen: what belongs to its rig and what was moved by hand stay its
/// own.
curve::ReadingSettings withChoices(const curve::ReadingSettings& own, const curve::ReadingSettings& chosen);

/// What choices are about, as typed; an empty text takes the usual.
struct ReadingChoices {
    std::string breakShare, chordFrom, chordTo, yieldOffset, atTravel, atLoad, sustainedFor, sustainedSpeed,
        lowPass, severityWindow, breakawayWithin, runningUntil;
    curve::StiffnessBy stiffnessBy = curve::StiffnessBy::straightPart;
};

/// Choices as they stand in settings, in these units of load and travel.
ReadingChoices choicesOf(const curve::ReadingSettings& settings, const quantity::Unit& load,
                         const quantity::Unit& travel);
/// The unit of a number typed without one, by dimension; null: it has to be typed.
using BareUnit = std::function<const quantity::Unit*(quantity::Dimension)>;
/// The other way round, with loads and travels of these dimensions. Error: a text that is no such quantity,
/// or one that cannot be.
Expected<curve::ReadingSettings> chosenFrom(const ReadingChoices& typed, quantity::Dimension load,
                                            quantity::Dimension travel, const BareUnit& bare);

/// What a choice would change, without changing it.
struct ReadingPreview {
    std::size_t curves = 0,
                changed = 0;       ///< changed: the metric that decides comes out otherwise, or not at all
    std::size_t lost = 0, won = 0; ///< curves that would tell it no longer, or would tell it now
    Id most = 0;                   ///< the pull that changes most
    double from = 0, to = 0;       ///< its value, SI
};
/// Reads the curves anew; `go` is told how many are done and ends it by giving false. Error: it was ended.
Expected<ReadingPreview> previewReading(OpenProject& project, Id study, const std::vector<Id>& pulls,
                                        const curve::ReadingSettings& chosen,
                                        const std::function<bool(std::size_t)>& go = {});

/// Carries it out as one command.
Expected<void> applyReading(OpenProject& project, Id study, const std::vector<Id>& pulls,
                            const curve::ReadingSettings& chosen);

} // namespace anvil::project
