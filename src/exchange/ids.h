// Ids of a study exchanged for others.
#pragma once

#include <anvil/domain/model.h>
#include <anvil/store/project.h>
#include <map>
#include <vector>

namespace anvil::exchange {

using domain::Id;

/// What each id becomes, by table; one that is not there becomes 0.
struct IdMaps {
    std::map<Id, Id> study, option, condition, specimen, pull, curve, setup, file, attachment;
};

/// A study with its ids exchanged everywhere: in rows, plan, goal, score card and what was told.
void renumber(domain::StudyData& data, const IdMaps& maps);
void renumber(domain::Study& study, const IdMaps& maps);

/// Studies as a package counts them: ids from 1 in the order of its tables, with what became of each.
std::vector<domain::StudyData> numbered(std::vector<domain::StudyData> studies, IdMaps& maps,
                                        const std::vector<store::SetupRow>& setups);

} // namespace anvil::exchange
