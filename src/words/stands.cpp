#include <anvil/words/stands.h>

namespace anvil::words {

std::string whyStands(const domain::Proposal& stands) {
    using enum domain::Because;
    const auto other = [&] { return "Not " + stands.asked + " but " + stands.broke + " failed."; };
    switch (stands.why) {
    case nothing:
        break;
    case said:
        return stands.text;
    case running:
        return "It is being recorded.";
    case interrupted:
        return "Its recording was interrupted: it waits for a decision.";
    case cutShort:
        return "The recording was interrupted before it broke.";
    case cutOff:
        return "The recording was interrupted.";
    case toppedOut:
        return "The rig topped out.";
    case stopped:
        return "Stopped before it broke.";
    case silent:
        return "The rig fell silent before it broke.";
    case outOfTravel:
        return "The rig ran out of travel before it broke.";
    case powerGone:
        return "The power went before it broke.";
    case otherPart:
        return other();
    case otherPartAtOnce:
        return other() + " Nothing had been held.";
    case otherJoint:
        return "The other joint of the piece failed first.";
    case judgedBound:
        return "Judged at the rig to be a bound.";
    case setUpWrongly:
        return "It was set up wrongly.";
    case numberLost:
        return "The number was lost.";
    case readAbove:
        return "Read as at least that.";
    case readBelow:
        return "Read as at most that.";
    case readBetween:
        return "Read as between the two.";
    case heldAndFailed:
        return "Held the lower, failed at the upper.";
    case everyStepHeld:
        return "It held every step.";
    case firstStepFailed:
        return "It failed at the first step.";
    case hammerStopped:
        return "The hammer was stopped: it swallowed all there was.";
    case shearedFirst:
        return "It sheared along before it failed in bending.";
    case oneGaugeReading:
        return "One gauge reading so far.";
    case markedInTable:
        return "Marked so in the table.";
    }
    return {};
}

std::string reasonOf(const domain::StudyData& data, const domain::Pull& pull, const curve::Reading* reading) {
    return whyStands(results::standsAs(data, pull, reading));
}

} // namespace anvil::words
