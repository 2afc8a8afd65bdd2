// The test methods: what each measures, what it needs, and what can hurt. Adding one is an entry in the
// registry.
#pragma once

#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace anvil::methods {

/// What is done to the piece; picks the drawing and the cautions.
enum class Action { pull, press, shear, bend, twist, swing, drop, hang, hold, share, step, look };

struct Method {
    std::string_view key;      ///< for files and scripts
    std::string_view title;    ///< "Axial pull"
    std::string_view measures; ///< what it tells
    std::string_view needs;    ///< what has to be there
    Action action = Action::pull;
};

/// Every method known, in the order they are offered.
std::span<const Method> all();

/// By key; nullptr when unknown or empty.
const Method* find(std::string_view key);

/// The cautions of a method, most pressing first, and those of a kind of piece ("rope", "adhesive", "plastic"
/// …); each once.
std::vector<std::string> cautions(const Method* method, std::string_view kind);

} // namespace anvil::methods
