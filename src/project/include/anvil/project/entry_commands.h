// Commands for results that are no curve: numbers read off a display, forms, ladders of steps, gauges.
#pragma once

#include <anvil/project/open_project.h>
#include <anvil/quantity/unit.h>

namespace anvil::project {

/// A result read off a display: with its doubt (">9 kN", "4…5 kN", "~12 N", "12 ± 1 N"); an empty text
/// keeps a pull whose number was lost. Error: not a value of the deciding metric, or nothing to pull.
struct TypedPull {
    Id specimen = 0;
    std::string text;
    const quantity::Unit* fallback = nullptr;    ///< of a number without a unit
    std::string part, performedAt, operatorName; ///< part: what broke; empty: not said
};

/// A form filled in for a piece: makes the pull, or changes `pull` when it is not 0. Error: what is wrong
/// with the form.
struct FilledForm {
    Id specimen = 0, pull = 0;
    std::vector<domain::FieldText> fields; ///< by the keys of the method's inputs
    std::function<const quantity::Unit*(quantity::Dimension)> unitOf;
    std::string part, note, performedAt, operatorName;
};

/// What stands between a display and the piece, and whose.
struct DisplayPath {
    std::string rig;
    domain::ReadThrough through;
    std::string trouble{}; ///< why what it shows cannot become a load; empty: it can
    Id setup = 0;          ///< the version of the rig's set-up
};

/// What stands between the display of the rig that a study is to be pulled on and the piece; empty: nothing.
/// Of a study that names no rig: of the rig that was set up last, as it stands in Rig.
std::optional<DisplayPath> pathOf(const OpenProject& project, const domain::StudyData& data);
/// What a number of the deciding metric, or of an input, is typed in: a load, or what the display shows that
/// it is read off.
quantity::Dimension typedIn(const OpenProject& project, const domain::StudyData& data);
quantity::Dimension typedIn(const OpenProject& project, const domain::StudyData& data,
                            const methods::Input& input);
/// Asks where loads are read, in a sentence.
std::string nobodySaid(const DisplayPath& path);
/// The path that a load goes through which was typed, or stands in a table; empty: it is that at the piece.
/// Error: nobody said yet where it was read.
Expected<std::optional<domain::ReadThrough>> readThrough(const OpenProject& project,
                                                         const domain::StudyData& data);
/// Says where the loads of a study are read that are typed: "display" or "piece". Error: neither.
Expected<void> setReadAt(OpenProject& project, Id study, const std::string& where);

/// Keeps a result read off a display; an empty text keeps a pull whose number was lost. Error: not a value of
/// the deciding metric, or nothing to pull.
Expected<Id> addTypedPull(OpenProject& project, const TypedPull& typed);

/// A form filled in for a piece: makes the pull, or changes `pull` when it is not 0. Error: what is wrong
/// with the form.
Expected<Id> addEntry(OpenProject& project, const FilledForm& entry);

/// One more step of a piece's ladder; the first one makes the pull. Returns the pull. Error: a step that
/// cannot be, or the piece has failed already.
Expected<Id> addLadderStep(OpenProject& project, Id specimen, const domain::LadderStep& step,
                           const std::string& performedAt, const std::string& operatorName);

/// Takes the last step of a ladder back; the pull goes with its first.
Expected<void> takeBackLadderStep(OpenProject& project, Id pull);

/// What let go at the end of a ladder. Another part than the one asked for leaves what was held as a
/// lower bound; where nothing was held it says nothing of the piece and is set aside.
Expected<void> ladderBroke(OpenProject& project, Id pull, const std::string& part);

/// One more reading of a piece's gauge; the first one makes the pull, which counts from the second on.
Expected<Id> addGaugeReading(OpenProject& project, Id specimen, const domain::GaugeReading& reading,
                             bool unloaded, const std::string& operatorName);

} // namespace anvil::project
