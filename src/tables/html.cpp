#include "documents.h"

#include <anvil/quantity/digits.h>
#include <anvil/tables/text.h>
#include <fmt/format.h>
#include <gumbo.h>
#include <memory>

namespace anvil::tables {

using namespace columns;

namespace {

constexpr int deepest = 400; ///< elements within each other; a page of results has a dozen

struct Freed {
    void operator()(GumboOutput* out) const { gumbo_destroy_output(&kGumboDefaultOptions, out); }
};

void textOf(const GumboNode* node, std::string& out, int depth) {
    if (depth > deepest) return;
    if (node->type == GUMBO_NODE_TEXT || node->type == GUMBO_NODE_WHITESPACE) {
        out += node->v.text.text;
    } else if (node->type == GUMBO_NODE_ELEMENT) {
        const auto tag = node->v.element.tag;
        if (tag == GUMBO_TAG_SCRIPT || tag == GUMBO_TAG_STYLE || tag == GUMBO_TAG_TABLE) return;
        if (tag == GUMBO_TAG_BR) out += ' ';
        for (unsigned i = 0; i < node->v.element.children.length; ++i)
            textOf(static_cast<const GumboNode*>(node->v.element.children.data[i]), out, depth + 1);
    }
}

/// Blanks and line ends as a browser shows them.
std::string collapsed(const std::string& text) {
    std::string out;
    for (std::size_t i = 0; i < text.size(); ++i) {
        if (text.compare(i, 2, "\u00a0") == 0) {
            out += out.empty() || out.back() == ' ' ? "" : " ";
            ++i;
        } else if (text[i] == ' ' || text[i] == '\t' || text[i] == '\n' || text[i] == '\r' ||
                   text[i] == '\f') {
            out += out.empty() || out.back() == ' ' ? "" : " ";
        } else {
            out += text[i];
        }
    }
    return std::string(trimmed(out));
}

std::size_t spanOf(const GumboNode* cell, const char* name) {
    const auto* a = gumbo_get_attribute(&cell->v.element.attributes, name);
    const int n = a ? quantity::wholeNumber(trimmed(a->value)).value_or(1) : 1;
    return static_cast<std::size_t>(std::clamp(n, 1, 1000));
}

struct Table {
    Cells cells;
    std::size_t row = 0;
    std::vector<std::size_t> busyUntil; ///< rows up to which a cell above reaches into a column
};

void rowsOf(const GumboNode* node, Table& table, int depth) {
    if (depth > deepest || node->type != GUMBO_NODE_ELEMENT) return;
    const auto& children = node->v.element.children;
    if (node->v.element.tag == GUMBO_TAG_TR) {
        std::size_t column = 0;
        for (unsigned i = 0; i < children.length; ++i) {
            const auto* cell = static_cast<const GumboNode*>(children.data[i]);
            if (cell->type != GUMBO_NODE_ELEMENT ||
                (cell->v.element.tag != GUMBO_TAG_TD && cell->v.element.tag != GUMBO_TAG_TH))
                continue;
            while (column < table.busyUntil.size() && table.busyUntil[column] > table.row)
                ++column;
            std::string text;
            for (unsigned k = 0; k < cell->v.element.children.length; ++k)
                textOf(static_cast<const GumboNode*>(cell->v.element.children.data[k]), text, depth);
            table.cells.set(table.row, column, collapsed(text));
            const auto wide = spanOf(cell, "colspan"), tall = spanOf(cell, "rowspan");
            table.cells.fillDown(table.row, column, tall - 1); // it stands for all the rows it reaches over
            if (column + wide > table.busyUntil.size()) table.busyUntil.resize(column + wide, 0);
            for (std::size_t k = 0; k < wide; ++k)
                table.busyUntil[column + k] = table.row + tall;
            column += wide;
        }
        ++table.row;
        return;
    }
    for (unsigned i = 0; i < children.length; ++i) {
        const auto* child = static_cast<const GumboNode*>(children.data[i]);
        if (child->type == GUMBO_NODE_ELEMENT && child->v.element.tag != GUMBO_TAG_TABLE)
            rowsOf(child, table, depth + 1);
    }
}

void tablesOf(const GumboNode* node, Document& doc, int depth, bool& tooLarge) {
    if (depth > deepest || node->type != GUMBO_NODE_ELEMENT) return;
    if (node->v.element.tag == GUMBO_TAG_TABLE) {
        Table table;
        rowsOf(node, table, depth);
        tooLarge = tooLarge || table.cells.tooLarge();
        doc.sheets.push_back({fmt::format("table {}", doc.sheets.size() + 1), table.cells.text()});
    }
    for (unsigned i = 0; i < node->v.element.children.length; ++i)
        tablesOf(static_cast<const GumboNode*>(node->v.element.children.data[i]), doc, depth + 1, tooLarge);
}

} // namespace

Expected<Document> readHtml(std::string_view bytes) {
    Text text;
    if (auto ok = decode(bytes, text); !ok) return tl::unexpected(ok.error());
    const std::unique_ptr<GumboOutput, Freed> page(
        gumbo_parse_with_options(&kGumboDefaultOptions, text.view.data(), text.view.size()));
    Document doc{"web page", {}};
    bool tooLarge = false;
    tablesOf(page->root, doc, 0, tooLarge);
    if (tooLarge) return fail("a table of this web page is larger than any table of results");
    return doc;
}

} // namespace anvil::tables
