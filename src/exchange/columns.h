// The tables of a package and their columns: what is read, what is written, what docs/exchange.md describes.
#pragma once

#include "plain_columns.h"
#include <array>

namespace anvil::exchange {

inline constexpr PackageColumn studyColumn{"study", "title of its study; may be empty where there is one",
                                           "studies.study"};

inline constexpr PackageColumn studyColumns[] = {
    {"study", "its title"},
    {"question", "what is asked"},
    {"method", "key of the method, such as axial-pull"},
    {"metric", "key of the metric that decides"},
    {"sense", "more, less or inside"},
    {"window", "the wanted range where it is inside, such as 3…5 N·m"},
    {"need", "the value to be met"},
    {"ceiling", "better than that nobody needs"},
    {"margin", "the smallest difference that matters, in %"},
    {"control", "the option everything is compared with", "options.option"},
    {"part", "whose strength is asked for"},
    {"intent", "controlled, exploratory or as used"},
    {"axis", "what the conditions vary"},
    {"axis_unit", "its unit, such as °C"},
    {"rig_limit", "what the rig can show, such as 5 kN"},
    {"replicates", "planned in every square"},
    {"note", ""},
    {"plan", "what else is planned, as in docs/file-format.md"},
};
inline constexpr Plain<domain::Option> plainOfOption[] = {
    words<&domain::Option::kind>("kind", "what it is, such as wire rope"),
    amount<&domain::Option::unitCost, quantity::Dimension::money>("cost", "of one, a number"),
    words<&domain::Option::currency>("currency", "of the cost"),
    amount<&domain::Option::weight, quantity::Dimension::mass>("weight", "of one, such as 120 g"),
    amount<&domain::Option::rating, quantity::Dimension::force>("rating",
                                                                "the maker's promise, such as 4 kN"),
    words<&domain::Option::ratingBasis>("rating_basis", "what that promises: breaking load, working load"),
    words<&domain::Option::grade>("grade", "of its material"),
    words<&domain::Option::geometry>("geometry", "what it looks like"),
    words<&domain::Option::supply>("supply", "where it is got"),
    words<&domain::Option::note>("note", ""),
};
inline constexpr auto optionColumns = joined({studyColumn, {"option", "its name"}}, plainOfOption);
inline constexpr Plain<domain::Condition> plainOfCondition[] = {
    words<&domain::Condition::note>("note", ""),
};
inline constexpr auto conditionColumns = joined({studyColumn,
                                                 {"condition", "its name"},
                                                 {"value", "on the axis, such as 20 °C"},
                                                 {"levels", "what it sets, parted by semicolons"}},
                                                plainOfCondition);
inline constexpr Plain<domain::Specimen> plainOfSpecimen[] = {
    words<&domain::Specimen::batch>("batch", "the lot it comes from"),
    words<&domain::Specimen::block>("block", "the sheet or piece it was made in"),
    words<&domain::Specimen::history>("history", "prior loads, heat, ageing"),
    amount<&domain::Specimen::x, quantity::Dimension::length>("x", "from the left edge of its block"),
    amount<&domain::Specimen::y, quantity::Dimension::length>("y", "from the lower edge of its block"),
    words<&domain::Specimen::note>("note", ""),
};
inline constexpr auto specimenColumns =
    joined({studyColumn,
            {"specimen", "its label"},
            {"option", "what it is of", "options.option"},
            {"condition", "in which condition", "conditions.condition"},
            {"replicate", "its number in its square, from 1"},
            {"other_end", "the option at its other end", "options.option"},
            {"measured", "measures with what was wanted, as in docs/file-format.md"}},
           plainOfSpecimen);
inline constexpr Plain<domain::Pull> plainOfPull[] = {
    words<&domain::Pull::operatorName>("by", "who"),
    yes<&domain::Pull::practice>("practice", "yes: on a virtual bench"),
    yes<&domain::Pull::looked>("looked", "yes: somebody has looked at its curve"),
    words<&domain::Pull::sourceName>("source", "where it comes from"),
    words<&domain::Pull::note>("note", ""),
};
inline constexpr auto pullColumns = joined(
    {
        studyColumn,
        {"pull", "a name for it; other tables mean it by that"},
        {"specimen", "what was pulled", "specimens.specimen"},
        {"at", "when, as in 2026-05-04T09:30:00"},
        {"standing", "counts, at least, at most, between, aside, void, not read; empty: by what is known"},
        {"reason", "why it stands so"},
        {"broke", "the part that broke; empty: nothing, or nobody said"},
        {"mode", "how it failed"},
        {"end", "which end failed, from 1"},
        {"limited_by", "what ended it: broke, topped out, stopped, link lost …"},
        {"afterwards", "bent, stuck, still works"},
        {"curve", "its curve, a file of the package such as curves/A1-1.csv"},
        {"beside", "curves of devices read at the same time, parted by semicolons"},
        {"metric", "of a result that was typed as one number"},
        {"value", "that result, such as >9 kN"},
        {"upper", "its upper end where it is between two"},
        {"as_typed", "as it was typed"},
        {"recording", "running or interrupted where it was not ended"},
        {"rig", "the rig it was pulled on", "setups.rig"},
        {"rig_version", "which version of its set-up"},
        {"reading", "how its curve is read, as in docs/file-format.md"},
        {"outcome", "what else happened, as in docs/file-format.md"},
    },
    plainOfPull);
inline constexpr PackageColumn inputColumns[] = {
    studyColumn,
    {"of", "a specimen's or a pull's name; empty: the study"},
    {"input", "key of an input of the method; of legs with its number, such as leg.1"},
    {"value", "a quantity as people type it, such as 12.2 mm"},
    {"at", "of a series the time; of a step its distance"},
    {"step", "of a step: held or failed"},
};
inline constexpr PackageColumn forecastColumns[] = {
    studyColumn,
    {"option", "of what", "options.option"},
    {"condition", "in which condition", "conditions.condition"},
    {"by", "who expects it"},
    {"value", "of the metric that decides"},
    {"spread", "a coefficient of variation, in %"},
    {"part", "which part goes first"},
    {"source", "an earlier study, a rating, a feeling"},
    {"travel", "how far the rig has to move"},
};
inline constexpr PackageColumn referenceColumns[] = {
    studyColumn,
    {"name", "what it is"},
    {"value", "of the metric that decides"},
    {"upper", "the end of a band"},
};
inline constexpr PackageColumn criterionColumns[] = {
    {"card", "title of the score card"},
    {"owner", "the study it belongs to; empty: the first that it names", "studies.study"},
    {"criterion", "its name"},
    {"study", "whose results it goes by", "studies.study"},
    {"metric", "key of the metric; cost, weight, or eye for ratings"},
    {"condition", "in which condition; empty: the first with results", "conditions.condition"},
    {"sense", "more or less"},
    {"weight", "against the others"},
    {"none", "the value of no marks"},
    {"full", "the value of all marks"},
    {"option", "of a judgement by eye: of which option"},
    {"rating", "the judgement"},
};
inline constexpr PackageColumn setupColumns[] = {{"rig", "its name"},
                                                 {"version", "from 1"},
                                                 {"at", "when it was set up so"},
                                                 {"setup", "as in docs/file-format.md"}};
inline constexpr PackageColumn attachmentColumns[] = {
    studyColumn,
    {"pull", "of which pull", "pulls.pull"},
    {"name", "what it is called"},
    {"at", "when on its curve, such as 12.4 s"},
    {"file", "a file of the package such as files/1-break.jpg"},
    {"marks", "what was measured on it, as in docs/file-format.md"},
};
inline constexpr PackageColumn fileColumns[] = {{"file", "a file of the package"},
                                                {"name", "what it was called"}};

inline constexpr TableKind studiesTable{"studies.csv", studyColumns},
    optionsTable{"options.csv", optionColumns}, conditionsTable{"conditions.csv", conditionColumns},
    specimensTable{"specimens.csv", specimenColumns}, pullsTable{"pulls.csv", pullColumns},
    inputsTable{"inputs.csv", inputColumns}, forecastsTable{"forecasts.csv", forecastColumns},
    referencesTable{"references.csv", referenceColumns}, criteriaTable{"criteria.csv", criterionColumns},
    setupsTable{"setups.csv", setupColumns}, attachmentsTable{"attachments.csv", attachmentColumns},
    filesTable{"files.csv", fileColumns};

/// All of them, in the order they are written and described.
inline constexpr std::array allTables{&studiesTable,  &optionsTable, &conditionsTable,  &specimensTable,
                                      &pullsTable,    &inputsTable,  &forecastsTable,   &referencesTable,
                                      &criteriaTable, &setupsTable,  &attachmentsTable, &filesTable};

} // namespace anvil::exchange
