// What a piece is, by the words a tester calls its kind: how it usually fails, how it hurts, how much it
// scatters. The one table of these things.
#pragma once

#include <optional>
#include <span>
#include <string_view>

namespace anvil::methods {

/// What happened to a piece; picks its drawing.
enum class Failure {
    pulledOut,
    leftBase,
    leftPiece,
    withinGlue,
    baseBroke,
    slid,
    brokeAtEnd,
    snapped,
    strandByStrand,
    sheared,
    threadStripped,
    headThrough,
    bent,
    bentForGood,
    cracked,
    tore,
    buckled,
    crushed,
    outsideGauge ///< of the length that was measured
};

/// A way to fail, in words.
struct FailureMode {
    std::string_view words;
    Failure failure = Failure::snapped;
};

/// What follows from the words of a kind. Several may hold: a "bonded wire rope" is rope and adhesive.
struct PieceKind {
    bool rope = false;     ///< stores energy when stretched
    bool adhesive = false; ///< fumes; lets go at once
    bool fastener = false; ///< hard, may fly
    bool section = false;  ///< a sheet, bar or tube, often brittle
    double cv = 0.12;      ///< the usual spread of its strength, as a share
};

/// The kind of "Rope", "wire rope", "adhesive bond", "M8 bolts" …: whole words in any case, plurals too. What
/// is unknown is none of these.
PieceKind pieceKind(std::string_view words);

/// The ways it fails, the likeliest first; eight at most.
std::span<const FailureMode> failureModes(const PieceKind& kind);

/// The failure a tester's words name: words of the table, or words of one's own with one of its words in
/// them, as "sheared along the grain". Empty where they name none, or say what did not happen.
std::optional<Failure> failureOf(std::string_view mode);

} // namespace anvil::methods
