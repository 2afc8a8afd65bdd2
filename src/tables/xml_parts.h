// XML of a zip archive's parts, whatever prefixes its writer chose.
#pragma once

#include <anvil/tables/zip_parts.h>
#include <pugixml.hpp>

namespace anvil::tables {

/// A part as a tree. Error: not there, broken, too large.
Expected<pugi::xml_document> parsed(ZipParts& parts, const std::string& name);
/// The name of an element or attribute without its prefix.
std::string_view local(std::string_view name);
inline std::string_view local(const pugi::xml_node& node) { return local(std::string_view(node.name())); }
/// The first child of this name, or none.
pugi::xml_node child(const pugi::xml_node& node, std::string_view name);
/// An attribute's text by its name without prefix; empty where it is not there.
std::string_view attribute(const pugi::xml_node& node, std::string_view name);

} // namespace anvil::tables
