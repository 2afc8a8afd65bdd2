#include <anvil/chart/charts.h>

#include <algorithm>

namespace anvil::chart {
namespace {

constexpr double size = 15, lineHeight = 21, letter = 7.6, margin = 12;

/// Broken at spaces, so many letters a line at most.
std::vector<std::string> broken(const std::string& text, std::size_t most) {
    std::vector<std::string> out;
    std::string line;
    std::size_t at = 0;
    while (at < text.size()) {
        const auto end = std::min(text.find(' ', at), text.size());
        const auto word = text.substr(at, end - at);
        if (!line.empty() && line.size() + 1 + word.size() > most) {
            out.push_back(line);
            line.clear();
        }
        line += (line.empty() ? "" : " ") + word;
        at = end + 1;
    }
    if (!line.empty()) out.push_back(line);
    return out;
}

void shift(Shape& shape, double x, double y) {
    struct Mover {
        double x, y;
        void operator()(Line& l) const {
            move(l.a);
            move(l.b);
        }
        void operator()(Polyline& l) const { all(l.points); }
        void operator()(Area& a) const { all(a.points); }
        void operator()(Mark& m) const { move(m.at); }
        void operator()(Label& l) const { move(l.at); }
        void move(Point& p) const {
            p.x += x;
            p.y += y;
        }
        void all(std::vector<Point>& points) const {
            for (auto& p : points)
                move(p);
        }
    };
    std::visit(Mover{x, y}, shape);
}

} // namespace

Picture underSentences(const std::vector<std::string>& sentences, Picture picture) {
    const auto most = static_cast<std::size_t>(std::max(20.0, (picture.width - 2 * margin) / letter));
    std::vector<Label> labels;
    double y = margin + size;
    for (const auto& sentence : sentences) {
        for (auto& line : broken(sentence, most)) {
            labels.push_back({{margin, y}, std::move(line), size});
            y += lineHeight;
        }
        y += lineHeight / 3;
    }
    const double by = y - size + margin / 2;
    for (auto& shape : picture.shapes)
        shift(shape, 0, by);
    for (auto& hit : picture.hits)
        hit.y += by;
    for (auto& label : labels)
        picture.add(std::move(label));
    picture.height += by;
    return picture;
}

Picture ladderColumns(const domain::StudyData& data, const results::Verdict& verdict,
                      const quantity::Unit& unit, double width, domain::Id selected, LadderLook look) {
    constexpr double head = 22, between = 12;
    std::vector<const domain::Condition*> shown;
    for (const auto& c : data.conditions)
        if (!verdict.inCondition(c.id).empty()) shown.push_back(&c);
    if (shown.size() < 2) return ladder(data, verdict, unit, width, selected, look);
    Picture out;
    out.width = width;
    const double each =
        (width - between * static_cast<double>(shown.size() - 1)) / static_cast<double>(shown.size());
    look.height = look.height > 0 ? std::max(1.0, look.height - head) : 0;
    double x = 0;
    auto one = data; // the ladder draws a block for each condition there is
    for (const auto* condition : shown) {
        one.conditions = {*condition};
        auto column = ladder(one, verdict, unit, each, selected, look);
        out.add(Label{{x + 8, 15}, elided(condition->name, 40), 13, Align::left, Ink::faint, true});
        for (auto& shape : column.shapes) {
            shift(shape, x, head);
            out.shapes.push_back(std::move(shape));
        }
        for (auto& hit : column.hits) {
            hit.x += x;
            hit.y += head;
            out.hits.push_back(std::move(hit));
        }
        out.height = std::max(out.height, column.height + head);
        x += each + between;
    }
    return out;
}

} // namespace anvil::chart
