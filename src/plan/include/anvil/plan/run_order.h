// In which order pieces are pulled.
#pragma once

#include <anvil/domain/model.h>
#include <cstdint>

namespace anvil::plan {

/// Randomised complete blocks: every square appears once in each block while it has replicates left, in an
/// order drawn from the seed. Returns specimen labels of pieces not pulled yet. Same seed, same order on
/// every machine. With `groupConditions` the set-up is changed once a block at most: conditions are drawn
/// first, options within them.
std::vector<std::string> drawRunOrder(const domain::StudyData& data, std::uint64_t seed,
                                      bool groupConditions = false);

} // namespace anvil::plan
