#include <anvil/words/unlikely.h>

#include <anvil/quantity/print.h>
#include <fmt/format.h>

namespace anvil::words {

std::string sentence(const results::Unlikely& odd, const quantity::Entry& typed) {
    const auto others = quantity::withUnit(odd.fellows, *typed.unit, 3);
    auto text = odd.times >= 1
                    ? fmt::format("{} is {} times the others of this square ({}).", quantity::print(typed),
                                  quantity::significant(odd.times, 3), others)
                    : fmt::format("The others of this square ({}) are {} times {}.", others,
                                  quantity::significant(1 / odd.times, 3), quantity::print(typed));
    return text + (odd.meant
                       ? fmt::format(" Was {} {} meant?", quantity::shortest(typed.unit->fromSi(typed.si)),
                                     odd.meant->symbol)
                       : " Is it what was read?");
}

} // namespace anvil::words
