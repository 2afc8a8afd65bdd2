// Ordinary awkward curves: seeded, and honest about what they were made from.
#pragma once

#include <anvil/curve/curve.h>
#include <cstdint>
#include <optional>

namespace anvil::sim {

/// What is awkward about a curve.
enum class Trouble {
    fastBreak,         ///< four to twelve samples up, and gone
    cycles,            ///< loaded and let down two to four times, then broken
    cyclesAgainstTime, ///< the same, without displacement
    hold,              ///< stopped on the way up, where the load relaxes
    holdAgainstTime,   ///< the same, without displacement
    proofLoad,         ///< loaded and let down; it never breaks
    setToZeroAgain,    ///< the scale is set to zero between two quiet stretches before the load
    jumpUnderLoad,     ///< the scale is set to zero in mid-pull
    hum,               ///< mains hum at a rate that hides it between neighbouring samples
    clipped,           ///< the amplifier ends below the strength
    clippedUnderNoise, ///< the same, and noise comes after it
    coarseScale,       ///< steps of 1 N, 10 N or 1 kgf, at a top that is round
    wholeSeconds,      ///< ten readings a second under stamps of whole seconds
    startsLoaded,      ///< recording began in mid-pull
    plateau,           ///< it yields at a level, far below the rig's limit, at a coarse step
    softToe            ///< beds in over much of its rise
};
inline constexpr Trouble allTroubles[] = {Trouble::fastBreak,
                                          Trouble::cycles,
                                          Trouble::cyclesAgainstTime,
                                          Trouble::hold,
                                          Trouble::holdAgainstTime,
                                          Trouble::proofLoad,
                                          Trouble::setToZeroAgain,
                                          Trouble::jumpUnderLoad,
                                          Trouble::hum,
                                          Trouble::clipped,
                                          Trouble::clippedUnderNoise,
                                          Trouble::coarseScale,
                                          Trouble::wholeSeconds,
                                          Trouble::startsLoaded,
                                          Trouble::plateau,
                                          Trouble::softToe};

/// "fast-break", "cycles" …
const char* name(Trouble trouble);

/// A curve and what it was made from; SI units.
struct AwkwardRun {
    curve::Curve curve;
    std::optional<double> rigLimit; ///< N, where the tester would have told it
    double peak = 0;      ///< N: greatest noise-free force that reached the log, above the true zero
    double stiffness = 0; ///< N/m of the straight part
    double noise = 0;     ///< N, as added
    bool clipped = false, startsLoaded = false, breaks = true;
};

/// One such curve. The same arguments give the same curve on every machine.
AwkwardRun awkward(Trouble trouble, std::uint64_t seed);

} // namespace anvil::sim
