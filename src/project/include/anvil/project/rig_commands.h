// Commands of rigs.
#pragma once

#include <anvil/project/open_project.h>
#include <anvil/rig/setup.h>

namespace anvil::project {

/// Keeps a set-up as a new version of its rig, unless it is the newest one already; returns its id. What
/// was pulled on older versions stays as it is. Error: no name.
Expected<Id> saveRig(OpenProject& project, const rig::Setup& setup);

/// What a rig can do, as far as a plan asks: its limits, its ratio, its travel.
domain::RigReach reachOf(const rig::Setup& setup);

/// The rig a study is to be pulled on, by name; empty: not said. Error: no such rig.
Expected<void> planRig(OpenProject& project, Id study, const std::string& rig);
/// What the planned rig can do, where it was told and not set up with its connection: a new version of it,
/// made where the plan names none. Error: a rig that has a connection, which is set up with it.
Expected<void> tellReach(OpenProject& project, Id study, const domain::RigReach& reach);

/// The limit of the rig that imported curves of a study came from, which are read again against it; empty:
/// not known. What was recorded here keeps the limit of its own set-up.
Expected<void> setImportedLimit(OpenProject& project, Id study, std::optional<double> limit);
/// A limit that proved wrong, for all pulls of a study on one set-up; the set-up stays as it was recorded.
/// Error: none was made on it.
Expected<void> correctLimit(OpenProject& project, Id study, Id setup, std::optional<double> limit);
/// Whether a set-up has no connection and only says what a plan, or imported logs, need to know of a rig.
bool onlyTold(const OpenProject& project, const rig::Setup& setup);
/// Whether a pull's curve was recorded here, on a rig with a connection, and not imported.
bool recordedHere(const OpenProject& project, const domain::Pull& pull);

} // namespace anvil::project
