// What a set-up's parts are, for what reads and checks it.
#pragma once

#include <anvil/rig/setup.h>
#include <span>

namespace anvil::rig {

inline constexpr const char* noQuestion =
    "Say which question the rig answers with its force, such as MEAS:FORC?";

/// Whether what is read is no load yet: a ram or a sensor stands first.
inline bool turnsFirst(const Setup& s) {
    return !s.path.empty() &&
           (s.path[0].kind == RatioPart::Kind::ram || s.path[0].kind == RatioPart::Kind::sensor);
}
/// The parts that make a load of what is read; the others go from the cell on.
inline std::span<const RatioPart> front(const Setup& s) { return {s.path.data(), turnsFirst(s) ? 1U : 0U}; }

} // namespace anvil::rig
