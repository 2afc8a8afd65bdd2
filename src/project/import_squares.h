// The squares a study has or gets while something is taken into it.
#pragma once

#include "import_names.h"
#include <QString>
#include <anvil/domain/bounds.h>
#include <anvil/domain/labels.h>
#include <anvil/domain/model.h>
#include <anvil/project/placement.h>
#include <anvil/store/project.h>
#include <map>
#include <set>
#include <vector>

namespace anvil::project {

using domain::Id;

/// Finds or makes the options, conditions and specimens of one study while writing.
class Squares {
public:
    Squares(store::Writer& writer, const domain::StudyData& study)
        : m_writer(writer), m_study(study), m_labels(study) {
        if (!m_study.study.id) m_study.study.id = writer.add(study.study);
        for (const auto& s : m_study.specimens)
            m_taken[{s.option, s.condition}].replicates.insert(s.replicate);
    }
    Id specimen(const QString& optionName, const QString& conditionName, int replicate) {
        domain::Specimen s;
        s.option = named(m_study.options, m_options, optionName);
        const bool only = conditionName.isEmpty() && m_study.conditions.size() == 1;
        s.condition = only ? m_study.conditions.front().id
                           : named(m_study.conditions, m_conditions,
                                   conditionName.isEmpty() ? QStringLiteral("As tested") : conditionName);
        auto& taken = m_taken[{s.option, s.condition}];
        if (replicate <= 0 || replicate > domain::bounds::replicate || taken.replicates.contains(replicate))
            replicate = taken.firstFree();
        taken.replicates.insert(replicate);
        s.study = m_study.study.id;
        s.replicate = replicate;
        s.label = m_labels.fresh(m_study, s.option, s.condition, replicate);
        s.id = m_writer.add(s);
        return s.id;
    }

private:
    /// The replicates of a square; the first that is free is found from where it was last.
    struct Taken {
        std::set<int> replicates;
        int lookFrom = 1;
        int firstFree() {
            while (replicates.contains(lookFrom))
                ++lookFrom;
            return lookFrom;
        }
    };
    using Names = std::map<QString, Id>; ///< as they were met
    template <class T> Id named(std::vector<T>& all, Names& known, const QString& name) {
        const auto [at, isNew] = known.try_emplace(name, Id{});
        if (!isNew) return at->second;
        for (const auto& x : all)
            if (sameThing(QString::fromStdString(x.name), name)) return at->second = x.id;
        T made;
        made.study = m_study.study.id;
        made.position = static_cast<int>(all.size());
        domain::giveName(made, sentenceCase(name.simplified()).toStdString());
        at->second = made.id = m_writer.add(made);
        all.push_back(made);
        return made.id;
    }
    store::Writer& m_writer;
    domain::StudyData m_study;
    domain::Labels m_labels;
    std::map<std::pair<Id, Id>, Taken> m_taken; ///< by option and condition
    Names m_options, m_conditions;
};

} // namespace anvil::project
