// What the names of files say of what was pulled.
#pragma once

#include <optional>
#include <string>
#include <vector>

namespace anvil::tables {

/// What a file name says: option, condition and replicate, by the place of its words.
struct NameParts {
    std::string option, condition;
    int replicate = 0; ///< 0: not told
};

/// Which words of a file name (counted from 0, see wordsOf) make option and condition.
struct NamePattern {
    std::vector<std::size_t> option{0};
    std::vector<std::size_t> condition{1};
    bool operator==(const NamePattern&) const = default;
};

/// The words of a file name, without its ending, dates, "copy of" and the number at its end. The folders of a
/// relative path are words of their own, in front. Underscores part words if there are any, else blanks, else
/// hyphens, so that the others may stay inside a name.
std::vector<std::string> wordsOf(const std::string& fileName);

/// Splits "crimp-sleeve_salt_03.csv" by a pattern; a number at the end ("03", "run 3", "r2", "n°2", "(2)") is
/// the replicate.
NameParts partsOf(const std::string& fileName, const NamePattern& pattern);

/// The pattern of files that came together: words that are the same in all say nothing; of those that vary
/// the last is the condition and the others the option; one alone is the condition if it is a word for one
/// (dry, wet, salt …), and then what they share is the option, else it is the option itself.
NamePattern patternOf(const std::vector<std::string>& fileNames);

/// Whether a word is one for a condition: "wet", "salt-soaked", "24h".
bool soundsLikeCondition(const std::string& word);

/// The places of the words in this name that read as corrected, or nothing if no run of words does.
std::optional<std::vector<std::size_t>> learn(const std::string& fileName, const std::string& corrected);

} // namespace anvil::tables
