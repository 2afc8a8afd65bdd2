#include <anvil/domain/score_card.h>

#include <array>

namespace anvil::domain {
namespace {

constexpr std::array judgedKeys{"results", "eye", "cost", "weight"};
static_assert(judgedKeys.size() == static_cast<std::size_t>(Judged::byWeight) + 1);

} // namespace

const char* key(Judged judged) { return judgedKeys[static_cast<std::size_t>(judged)]; }

std::optional<Judged> judgedFromKey(std::string_view key) {
    for (std::size_t i = 0; i < judgedKeys.size(); ++i)
        if (key == judgedKeys[i]) return static_cast<Judged>(i);
    return {};
}

} // namespace anvil::domain
