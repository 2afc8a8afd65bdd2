#include <anvil/results/inputs.h>

#include <algorithm>
#include <anvil/quantity/digits.h>
#include <anvil/quantity/print.h>
#include <anvil/results/evidence.h>
#include <fmt/format.h>

namespace anvil::results {
namespace {

constexpr std::string_view nothing = "–";

std::string trimmed(std::string_view text) {
    const auto from = text.find_first_not_of(" \t"), to = text.find_last_not_of(" \t");
    return from == std::string_view::npos ? std::string() : std::string(text.substr(from, to - from + 1));
}

std::string legKey(const methods::Input& input, std::size_t leg) {
    return fmt::format("{}.{}", input.key, leg);
}

bool isOf(const methods::Input& input, const std::string& key) {
    return key == input.key ||
           (input.form == methods::Form::perLeg && key.starts_with(std::string(input.key) + "."));
}

} // namespace

std::string textOf(const std::vector<FieldText>& fields, const methods::Input& input) {
    const auto find = [&](const std::string& key) -> const FieldText* {
        const auto at =
            std::find_if(fields.begin(), fields.end(), [&](const FieldText& f) { return f.key == key; });
        return at == fields.end() ? nullptr : &*at;
    };
    if (input.form != methods::Form::perLeg) {
        const auto* field = find(std::string(input.key));
        return field ? field->text : std::string();
    }
    const auto legs =
        std::count_if(fields.begin(), fields.end(), [&](const FieldText& f) { return isOf(input, f.key); });
    std::string out;
    std::ptrdiff_t found = 0;
    for (std::size_t leg = 1; found < legs && leg <= 64; ++leg) {
        const auto* field = find(legKey(input, leg));
        found += field != nullptr;
        out += (leg > 1 ? "; " : "") + (field ? field->text : std::string(nothing));
    }
    return out;
}

Expected<std::vector<FieldText>>
withText(std::vector<FieldText> fields, const methods::Input& input, const std::string& text,
         const std::function<const quantity::Unit*(quantity::Dimension)>& unitOf) {
    std::erase_if(fields, [&](const FieldText& f) { return isOf(input, f.key); });
    const auto add = [&](const std::string& key, const std::string& part) -> Expected<void> {
        if (part.empty() || part == nothing || part == "-") return {};
        const auto entry = methods::entryOf(input, part, unitOf(input.dimension));
        if (!entry) return tl::unexpected(entry.error());
        fields.push_back({key, quantity::print(*entry)});
        return {};
    };
    if (input.form != methods::Form::perLeg) {
        if (auto ok = add(std::string(input.key), trimmed(text)); !ok) return tl::unexpected(ok.error());
        return fields;
    }
    std::size_t leg = 0, from = 0;
    while (from <= text.size()) {
        const auto to = std::min(text.find(';', from), text.size());
        if (++leg > 64) return fail("More than 64 legs cannot be.");
        if (auto ok = add(legKey(input, leg), trimmed(std::string_view(text).substr(from, to - from))); !ok)
            return tl::unexpected(ok.error());
        from = to + 1;
    }
    return fields;
}

std::map<std::string, std::string, std::less<>>
knownOf(const domain::StudyData& data, const domain::Specimen& piece, const quantity::Units& units) {
    std::map<std::string, std::string, std::less<>> out;
    for (const auto& f : data.study.plan.inputs)
        out[f.key] = f.text;
    for (const auto& m : piece.measured) {
        const auto mean = m.mean();
        if (const auto* input = mean ? methods::inputMeasured(methodOf(data, piece), m.name) : nullptr)
            out[std::string(input->key)] = quantity::withUnit(*mean, *units.length);
    }
    for (const auto& f : piece.inputs)
        out[f.key] = f.text;
    return out;
}

int legCount(const domain::StudyData& data, const domain::Specimen& piece) {
    int most = 0;
    for (const auto* fields : {&data.study.plan.inputs, &piece.inputs})
        for (const auto& f : *fields)
            if (const auto point = f.key.rfind('.'); point != std::string::npos)
                most = std::max(most,
                                quantity::wholeNumber(std::string_view(f.key).substr(point + 1)).value_or(0));
    return most > 0 ? std::min(most, 64) : 3;
}

} // namespace anvil::results
