// After a pull: what may have broken and how, what its number may be used for, and which piece is next.
#pragma once

#include <anvil/domain/model.h>
#include <anvil/quantity/error.h>
#include <set>
#include <span>
#include <string>
#include <vector>

namespace anvil::domain {

/// The parts that may break, the one asked for first, then the rest of the load path; eight at most.
std::vector<std::string> breakableParts(const StudyData& data);
/// What broke and how, in words: "the fitting, pulled out"; empty where neither is said.
std::string brokeText(const Outcome& outcome);
/// What a mark is called: its text, or its number where only the instant was marked.
std::string markName(const std::vector<Mark>& marks, std::size_t index);
/// Whether two names mean one part: "the fitting" and "Fitting" do.
bool samePart(const std::string& a, const std::string& b);
/// The ways a part fails, by the kind of piece ("Rope", "adhesive bond" …), the likeliest first; eight at
/// most.
std::vector<std::string> failureModes(const std::string& kind);

/// What a piece may be like afterwards, as it is offered; a tester may say it in other words.
inline constexpr std::string_view afterwardsOffered[] = {"bent", "stuck", "still works"};

/// What can hurt in this study: by its methods, also where a square has its own, and the kinds of all
/// options.
std::vector<std::string> cautionsOf(const StudyData& data);

/// What may have ended a pull in which nothing broke, the likeliest first.
std::vector<Limit> limitsWithoutBreak();

/// Why a pull stands as it does; the sentences are words'.
enum class Because {
    nothing,         ///< nothing is to be said
    said,            ///< the tester's own words, in `Proposal::text`
    running,         ///< it is being recorded
    interrupted,     ///< its recording was, and nobody has decided yet
    cutShort,        ///< the recording was interrupted before it broke
    cutOff,          ///< it was interrupted, and what there is means nothing
    toppedOut,       ///< the rig showed no more
    stopped,         ///< before it broke
    silent,          ///< the rig fell silent before it broke
    outOfTravel,     ///< the rig could move no further
    powerGone,       ///< before it broke
    otherPart,       ///< another part broke than the one that is asked about
    otherPartAtOnce, ///< the same, before anything had been held
    otherJoint,      ///< the other joint of the piece failed first
    judgedBound,     ///< the tester said so at the rig
    setUpWrongly,
    numberLost,
    readAbove, ///< the number was read as at least that
    readBelow,
    readBetween,
    heldAndFailed, ///< held the lower, failed at the upper
    everyStepHeld,
    firstStepFailed,
    hammerStopped,   ///< it swallowed all there was
    shearedFirst,    ///< before it failed in bending
    oneGaugeReading, ///< so far, and nothing follows from one
    markedInTable
};

/// A standing and why, as proposed; the tester decides.
struct Proposal {
    Standing standing = Standing::counts;
    Because why = Because::nothing;
    std::string text{};           ///< what the tester said (Because::said)
    std::string asked{}, broke{}; ///< parts (Because::otherPart)
    bool derived = false;         ///< follows from the curve or what ended it, so that nothing has to be set
    bool operator==(const Proposal&) const = default;
};

/// How a pull stands by what is known of it, where nobody said: the rig topped out, it was stopped or the
/// power went before it broke, or another part broke than the one that is asked about (where that was said).
/// Derived, and never stored: whatever way the pull came in, the same follows.
Proposal standingFollows(const StudyData& data, const Outcome& outcome);

/// Topped out, stopped, gone silent or another part than the one asked for: at least. Set up wrongly: void.
/// Number lost: not read. Else it counts. `broke` is a part of breakableParts, or empty when nothing broke.
Proposal proposeStanding(const StudyData& data, const curve::Reading* reading, const std::string& broke,
                         Limit limit);

/// Shares of a mixed failure by area as they are typed: how it failed, and how much of it in percent ("60",
/// "60
/// %"). Error: a share that is none, or that they do not come to 100 % together, within one.
Expected<std::vector<ModeShare>> sharesOf(std::span<const std::pair<std::string, std::string>> typed);
/// The same the other way round.
std::string sharesText(const std::vector<ModeShare>& shares);

/// What was noted of an outcome beside what broke, in words: where, what ended it, what the piece is like
/// now.
std::vector<std::string> remarksOf(const Outcome& outcome);

} // namespace anvil::domain
