// Labels for new pieces, many at a time.
#pragma once

#include <anvil/domain/model.h>
#include <string>
#include <unordered_set>

namespace anvil::domain {

/// The labels of a study's pieces, and new ones that none of them carries (see freshLabel). For one label
/// alone freshLabel does; of many, this looks through the study once.
class Labels {
public:
    explicit Labels(const StudyData& data);
    /// A label for a new piece of that square, taken from now on. `data` names option, condition and scheme.
    std::string fresh(const StudyData& data, Id option, Id condition, int replicate);

private:
    std::unordered_set<std::string> m_taken;
};

} // namespace anvil::domain
