// What a command gives back that makes nothing.
#pragma once

#include <anvil/domain/model.h>
#include <anvil/quantity/error.h>

namespace anvil::project {

/// The same result without the id of its journal entry.
inline Expected<void> done(const Expected<domain::Id>& result) {
    if (!result) return tl::unexpected(result.error());
    return {};
}

} // namespace anvil::project
