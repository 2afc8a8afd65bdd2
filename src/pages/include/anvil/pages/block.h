// A page as a value: blocks in order. The window, HTML, paper and the command line walk the same blocks, so
// they cannot disagree.
#pragma once

#include <anvil/chart/picture.h>
#include <anvil/pages/action.h>
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
    struct Option {
        std::string key, title;
        std::optional<Action> action{}; ///< nothing: choosing it does nothing
    };
    std::string_view key;
    std::string title; ///< "Ranked by"
    std::vector<Option> options;
    std::string chosen;  ///< the key of one
    bool inPage = false; ///< stands among the blocks, not with the page's tools

    /// The title of what is chosen; null: nothing is.
    const std::string* chosenTitle() const {
        for (const auto& o : options)
            if (o.key == chosen) return &o.title;
        return nullptr;
    }
};
/// Something that could be done: a sentence, and what a window does for it.
struct Offer {
    struct Button {
        std::string_view key; ///< by which a window finds it
        std::string title;
        Action action;
    };
    std::string sentence;
    std::vector<Button> buttons;
};
/// What could be done; on paper the sentences.
struct Offers {
    std::string_view key;
    std::vector<Offer> offers;
    std::string none;   ///< said where there are none
    bool first = true;  ///< the first button is what most would do next
    bool tells = false; ///< its sentences tell of results, not only of what could be done

    std::vector<std::string> sentences() const {
        std::vector<std::string> out;
        out.reserve(offers.size());
        for (const auto& o : offers)
            out.push_back(o.sentence);
        return out;
    }
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
