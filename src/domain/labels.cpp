#include <anvil/domain/labels.h>

#include <cctype>
#include <set>

namespace anvil::domain {

Labels::Labels(const StudyData& data) {
    for (const auto& s : data.specimens)
        m_taken.insert(s.label);
}

std::string Labels::fresh(const StudyData& data, Id option, Id condition, int replicate) {
    const auto place = [](const auto& all, Id id) {
        std::size_t i = 0;
        while (i < all.size() && all[i].id != id)
            ++i;
        return i;
    };
    std::string letters;
    for (std::size_t m = place(data.options, option) + 1; m > 0; m = (m - 1) / 26)
        letters.insert(letters.begin(), static_cast<char>('A' + (m - 1) % 26));
    auto base = data.study.plan.labelScheme.empty() ? std::string("{A}{1}-{n}") : data.study.plan.labelScheme;
    const auto put = [&](const std::string& token, const std::string& text) {
        for (auto at = base.find(token); at != std::string::npos; at = base.find(token, at + text.size()))
            base.replace(at, token.size(), text);
    };
    auto small = letters;
    for (auto& c : small)
        c = static_cast<char>(std::tolower(static_cast<unsigned char>(c)));
    put("{A}", letters);
    put("{a}", small);
    put("{1}", std::to_string(place(data.conditions, condition) + 1));
    put("{n}", std::to_string(replicate));
    if (const auto* o = data.option(option)) put("{option}", o->name);
    if (const auto* c = data.condition(condition)) put("{condition}", c->name);
    const auto letter = [](int k) { return std::string(1, static_cast<char>('a' + k)); };
    auto text = base;
    for (int more = 0; !m_taken.insert(text).second; ++more) // a … z, aa … zz, then numbers
        text = base + (more < 26        ? letter(more)
                       : more < 27 * 26 ? letter(more / 26 - 1) + letter(more % 26)
                                        : "-" + std::to_string(more));
    return text;
}

std::string freshLabel(const StudyData& data, Id option, Id condition, int replicate) {
    return Labels(data).fresh(data, option, condition, replicate);
}

std::vector<Specimen> missingPieces(const StudyData& data) {
    std::vector<Specimen> made;
    Labels labels(data);
    for (const auto& o : data.options)
        for (const auto& c : data.conditions) {
            std::set<int> taken;
            for (const auto& s : data.specimens)
                if (s.option == o.id && s.condition == c.id) taken.insert(s.replicate);
            int missing = data.study.plan.replicatesOf(o.id, c.id) - static_cast<int>(taken.size());
            for (int replicate = 1; missing > 0; ++replicate) {
                if (taken.contains(replicate)) continue;
                Specimen s;
                s.study = data.study.id;
                s.option = o.id;
                s.condition = c.id;
                s.replicate = replicate;
                s.label = labels.fresh(data, o.id, c.id, replicate);
                made.push_back(s);
                --missing;
            }
        }
    return made;
}

} // namespace anvil::domain
