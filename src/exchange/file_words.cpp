#include "file_words.h"

#include <QString>
#include <algorithm>
#include <string_view>
#include <utility>

namespace anvil::exchange {
namespace {

std::string spoken(std::string key) {
    std::replace(key.begin(), key.end(), '_', ' ');
    return key;
}

/// "At least" and "at_least" are at_least.
std::string keyOf(const std::string& text) {
    auto key = QString::fromStdString(text).simplified().toLower().toStdString();
    std::replace(key.begin(), key.end(), ' ', '_');
    return key;
}

/// As earlier packages called them.
constexpr std::pair<std::string_view, std::string_view> earlier[] = {{"set_aside", "aside"},
                                                                     {"rig_topped_out", "topped_out"},
                                                                     {"stopped_on_purpose", "stopped"},
                                                                     {"rig_fell_silent", "link_lost"},
                                                                     {"set_up_wrongly", "wrong_setup"},
                                                                     {"number_lost", "lost"},
                                                                     {"it_slipped", "slipped"},
                                                                     {"it_tipped", "tipped"}};

std::string keyNow(const std::string& text) {
    const auto key = keyOf(text);
    for (const auto& [before, now] : earlier)
        if (key == before) return std::string(now);
    return key;
}

} // namespace

std::string fileWord(domain::Standing standing) { return spoken(domain::key(standing)); }
std::string fileWord(domain::Limit limit) { return spoken(domain::key(limit)); }
std::string fileWord(domain::Intent intent) { return spoken(domain::key(intent)); }

std::optional<domain::Standing> standingFrom(const std::string& text) {
    return domain::standingFromKey(keyNow(text));
}
std::optional<domain::Limit> limitFrom(const std::string& text) { return domain::limitFromKey(keyNow(text)); }
std::optional<domain::Intent> intentFrom(const std::string& text) {
    return domain::intentFromKey(keyOf(text));
}

} // namespace anvil::exchange
