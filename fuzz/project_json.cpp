// What a project holds as JSON: taken or refused with a sentence; what was taken survives being written.
#include <anvil/store/project.h>
#include <anvil/store/texts.h>

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    using namespace anvil::store;
    if (size == 0) return 0;
    const auto json =
        QString::fromUtf8(reinterpret_cast<const char*>(data) + 1, static_cast<qsizetype>(size - 1));
    switch (data[0] % 5) {
    case 0:
        if (const auto v = planFromJson(json)) {
            anvil::domain::Study study;
            study.plan = v->plan;
            study.goal = v->goal;
            study.card = v->card;
            study.telling = v->telling;
            if (planFromJson(planToJson(study)) != *v) __builtin_trap();
        }
        break;
    case 1:
        if (const auto v = outcomeFromJson(json); v && !outcomeFromJson(outcomeToJson(*v))) __builtin_trap();
        break;
    case 2:
        if (const auto v = settingsFromJson(json); v && settingsFromJson(settingsToJson(*v)) != *v)
            __builtin_trap();
        break;
    case 3:
        if (const auto v = marksFromJson(json); v && marksFromJson(marksToJson(*v)) != *v) __builtin_trap();
        break;
    default:
        if (const auto v = pieceFromJson(json); v && pieceFromJson(pieceToJson(*v)) != *v) __builtin_trap();
    }
    return 0;
}
