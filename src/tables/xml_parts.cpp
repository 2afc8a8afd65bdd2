#include "xml_parts.h"

namespace anvil::tables {

Expected<pugi::xml_document> parsed(ZipParts& parts, const std::string& name) {
    auto xml = parts.read(name);
    if (!xml) return tl::unexpected(xml.error());
    pugi::xml_document doc;
    if (!doc.load_buffer(xml->data(), xml->size(), pugi::parse_default | pugi::parse_ws_pcdata))
        return fail("it is broken: save it again");
    return doc;
}

std::string_view local(std::string_view name) {
    const auto colon = name.find(':');
    return colon == std::string_view::npos ? name : name.substr(colon + 1);
}

pugi::xml_node child(const pugi::xml_node& node, std::string_view name) {
    for (const auto& c : node.children())
        if (local(c) == name) return c;
    return {};
}

std::string_view attribute(const pugi::xml_node& node, std::string_view name) {
    for (const auto& a : node.attributes())
        if (local(std::string_view(a.name())) == name) return a.value();
    return {};
}

} // namespace anvil::tables
