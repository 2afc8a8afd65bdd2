// A rig of which only what it can show was told.
#pragma once

#include <anvil/rig/setup.h>
#include <anvil/store/project.h>
#include <optional>
#include <string>

namespace anvil::project {

/// What the rig of imported logs is called where nobody named it.
inline constexpr const char* rigOfLogs = "Rig of the logs";

/// Keeps a set-up as a new version of its rig among those that are there, unless the newest says the same;
/// returns its id. For use within a transaction.
domain::Id keepSetup(store::Writer& writer, const std::vector<store::SetupRow>& kept,
                     const rig::Setup& setup);

} // namespace anvil::project
