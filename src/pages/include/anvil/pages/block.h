// A page as a value: blocks in order. The window, HTML, paper and the command line walk the same blocks, so
// they cannot disagree.
#pragma once

#include <anvil/chart/picture.h>
#include <anvil/words/table.h>
#include <functional>
#include <string>
#include <string_view>
#include <utility>
#include <variant>
#include <vector>

namespace anvil::pages {

struct Heading {
    int level = 1; ///< 1 title, 2 section, 3 subsection
    std::string text;
};
struct Paragraph {
    enum class Style { plain, lead, small, caution } style = Style::plain;
    std::string text;
};
/// Sentences one below the other; `key`: by which a window finds them.
struct Bullets {
    std::vector<std::string> items;
    std::string_view key{};
    bool few = false; ///< are read as a text; else a window may let them scroll
};
/// A picture that is drawn to a width in px; on paper that is `Figure::paperWidth`. `height`: the room there
/// is, which it may fill; 0: as high as is usual.
struct Figure {
    static constexpr double paperWidth = 690;
    std::string_view key;
    std::function<chart::Picture(double width, double height)> draw;
    std::string caption;
};
/// Something the reader chooses, one of several; on paper it says what was chosen.
struct Choice {
    std::string_view key;
    std::string title;                                        ///< "Ranked by"
    std::vector<std::pair<std::string, std::string>> options; ///< key and title
    std::string chosen;                                       ///< a key
    bool inPage = false; ///< stands among the blocks, not with the page's tools
};
/// What could be done, each a sentence and the actions a window offers for all of them; on paper the
/// sentences.
struct Offers {
    std::string_view key;
    std::vector<std::string> sentences;
    std::vector<std::pair<std::string_view, std::string>> actions; ///< key and title
    std::string none;                                              ///< said where there are no sentences
    bool first = true;  ///< its first action is what most would do next
    bool tells = false; ///< its sentences tell of results, not only of what could be done
};
/// Things weighed against each other, each by a slider in a window; on paper their shares.
struct Weights {
    struct Row {
        std::string title;
        double weight = 0; ///< 0 to 100
        std::string share; ///< "30 %"
    };
    std::string_view key;
    std::vector<Row> rows;
    std::vector<std::string> lines() const {
        std::vector<std::string> out;
        out.reserve(rows.size());
        for (const auto& row : rows)
            out.push_back(row.title + ": " + row.share);
        return out;
    }
};
using Block = std::variant<Heading, Paragraph, Bullets, words::Table, Figure, Choice, Offers, Weights>;

struct Page {
    std::string_view key;
    std::string title;
    std::vector<Block> blocks;
    std::vector<std::size_t> beside{}; ///< places of blocks that stand beside the figure where there is room

    template <class B> void add(B block) { blocks.emplace_back(std::move(block)); }
    template <class B> void addBeside(B block) {
        beside.push_back(blocks.size());
        add(std::move(block));
    }
};

} // namespace anvil::pages
