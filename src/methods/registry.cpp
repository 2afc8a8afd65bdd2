#include <anvil/methods/method.h>

#include <algorithm>

namespace anvil::methods {
namespace {

constexpr Method registry[] = {
    {"axial-pull", "Axial pull",
     "Peak, first slip, stiffness, energy and what is still held, along the line of pull.",
     "A pulling rig and a load cell; a displacement sensor for stiffness and energy.", Action::pull},
    {"tension-coupon", "Tension of a coupon",
     "Stress and strain at yield and break of a bar, sheet or strand.",
     "The cross-section and gauge length of every piece.", Action::pull},
    {"compression", "Compression of a block", "Stress at crushing.",
     "Breadth, depth and height; a press with flat, parallel plates.", Action::press},
    {"lap-shear", "Shear of a joint", "Shear stress of a bond or pin at failure.",
     "Overlap and width, or the number of shear planes.", Action::shear},
    {"three-point-bend", "Three-point bend", "Bending strength and stiffness of a beam.",
     "Span, breadth and depth (or diameter); the deflection at mid-span.", Action::bend},
    {"lever-bend", "Weight on a lever arm", "The bending moment at which a tube or bar gives way.",
     "Arm length, weights, and the arm's own moment.", Action::bend},
    {"sag", "Sag under a dead weight", "Stiffness without breaking anything.",
     "Heights unloaded and loaded, span and weight.", Action::hang},
    {"torsion", "Torsion of a bar", "Torque at an angle and the greatest angle.",
     "Diameter, a torque sensor or arm, and an angle.", Action::twist},
    {"torque", "Breakaway and running torque", "What it takes to start and keep a thread turning.",
     "A torque wrench or a force on an arm of known length.", Action::twist},
    {"hammer", "Swinging hammer", "Energy swallowed in breaking.",
     "Hammer mass, drop and rise heights or angles, the free swing.", Action::swing},
    {"drop", "Drop", "Peak deceleration and severity of the shock.",
     "Drop height, and a fast sensor or a peak reading.", Action::drop},
    {"creep", "Creep", "How a held load moves on over days.", "Gauge readings at noted times.", Action::hang},
    {"attempts", "Attempts", "How often it works out of so many tries.", "A count of tries and successes.",
     Action::look},
    {"load-share", "Load share", "How legs share a load, and what one lost leg does to the rest.",
     "A reading on each leg at the same instant.", Action::share},
    {"advantage", "Mechanical advantage", "Output over input of a hauling system, and its worst device.",
     "Readings at both ends at the same steady moment.", Action::share},
    {"holding", "Holding and drag", "The load that is held for a while at a creep that is slow enough.",
     "A steady pull and a way to see movement.", Action::hold},
    {"step-ladder", "Step ladder", "The strength lies between the last load held and the first that failed.",
     "Weights in steps of a tenth or less.", Action::step},
    {"by-eye", "Rating by eye", "A judgement on a scale with words for its steps.",
     "The same eyes for all pieces.", Action::look},
};

void add(std::vector<std::string>& all, std::string text) {
    if (std::find(all.begin(), all.end(), text) == all.end()) all.push_back(std::move(text));
}

} // namespace

std::span<const Method> all() { return registry; }

const Method* find(std::string_view key) {
    const auto* found =
        std::find_if(std::begin(registry), std::end(registry), [&](const Method& m) { return m.key == key; });
    return found == std::end(registry) ? nullptr : found;
}

std::vector<std::string> cautions(const Method* method, std::string_view kind) {
    std::vector<std::string> out;
    const auto action = method ? method->action : Action::pull;
    const auto has = [&](std::string_view word) { return kind.find(word) != std::string_view::npos; };
    add(out, "Eye protection and gloves on, for everybody in the room.");
    if (action == Action::pull || action == Action::hold || action == Action::step ||
        action == Action::share || has("rope") || has("wire"))
        add(out, "Stretched ropes, wires and rods store energy: nobody stands in the line of pull; a tail "
                 "line or a weighted cover catches the ends.");
    if (action == Action::press || action == Action::bend || action == Action::swing ||
        action == Action::shear || has("plastic") || has("bolt") || has("screw") || has("rivet"))
        add(out,
            "Brittle and hardened parts fly in pieces: shield the piece and keep faces and cameras back.");
    if (action == Action::hang || action == Action::drop || action == Action::step || action == Action::bend)
        add(out, "What hangs can fall: feet and hands out from under it, and something below to catch it.");
    if (action == Action::swing || action == Action::twist)
        add(out, "Moving arms trap hands: nobody reaches in until it is still.");
    if (has("adhesive") || has("bond") || has("glue"))
        add(out,
            "Adhesives, primers and solvents: open the doors, gloves on, no flame, and read their sheets.");
    add(out, "Check every part of the load path before each pull, and stop and look when something sounds or "
             "looks wrong.");
    add(out, "A result compares; it certifies nothing. For lifting, life support, structures and vehicles "
             "follow local codes and ask a licensed or competent person.");
    return out;
}

} // namespace anvil::methods
