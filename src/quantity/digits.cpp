#include <anvil/quantity/digits.h>

#include <charconv>
#include <clocale>

namespace anvil::quantity {
namespace {

template <class T> std::optional<T> whole(std::string_view text) {
    T value{};
    const char* const end = text.data() + text.size();
    const auto [at, error] = std::from_chars(text.data(), end, value);
    return !text.empty() && error == std::errc{} && at == end ? std::optional(value) : std::nullopt;
}

} // namespace

std::optional<double> machineNumber(std::string_view text) { return whole<double>(text); }

std::optional<int> wholeNumber(std::string_view text) { return whole<int>(text); }

void usePoints() { std::setlocale(LC_NUMERIC, "C"); }

} // namespace anvil::quantity
