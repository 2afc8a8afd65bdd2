// Inputs of a method as a reader types them: of a study, a piece or a pull; several legs in one line.
#pragma once

#include <anvil/domain/model.h>
#include <anvil/methods/method.h>
#include <anvil/quantity/units.h>
#include <functional>
#include <map>

namespace anvil::results {

using domain::FieldText;

/// What stands under an input: "160 mm", of legs "0°; 120°; 240°" ("–" for one of which nothing is said);
/// empty: nothing.
std::string textOf(const std::vector<FieldText>& fields, const methods::Input& input);

/// The fields with another text under an input; an empty text takes it away. Numbers without a unit get
/// `unitOf` their dimension; null: the unit has to be typed. Error: a sentence why it is no such quantity.
Expected<std::vector<FieldText>>
withText(std::vector<FieldText> fields, const methods::Input& input, const std::string& text,
         const std::function<const quantity::Unit*(quantity::Dimension)>& unitOf);

/// What is known of a piece before it is pulled, by key of the input: of the study, as measured, as typed of
/// it.
std::map<std::string, std::string, std::less<>>
knownOf(const domain::StudyData& data, const domain::Specimen& piece, const quantity::Units& units);

/// How many legs a piece has, by what was said of their directions or lengths; three where nobody said.
int legCount(const domain::StudyData& data, const domain::Specimen& piece);

} // namespace anvil::results
