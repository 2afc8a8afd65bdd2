#include <anvil/domain/joints.h>

#include <algorithm>

namespace anvil::domain {

Id otherEndOf(const StudyData& data, const Specimen& piece) {
    const auto& plan = data.study.plan;
    const auto* square = plan.joints > 1 ? plan.square(piece.option, piece.condition) : nullptr;
    if (!square || square->otherEnd == piece.option || !data.option(square->otherEnd)) return 0;
    return square->otherEnd;
}

std::vector<std::string> endNames(const StudyData& data, const Specimen* piece) {
    std::vector<std::string> out;
    const auto other = piece ? otherEndOf(data, *piece) : 0;
    for (int n = 1; n <= data.study.plan.joints; ++n) {
        auto name = "end " + std::to_string(n);
        if (other && n <= 2) name += ": " + data.optionAt(n == 1 ? piece->option : other).name;
        out.push_back(std::move(name));
    }
    return out;
}

} // namespace anvil::domain
