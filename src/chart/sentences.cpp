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

void lower(Shape& shape, double by) {
    struct Mover {
        double by;
        void operator()(Line& l) const {
            l.a.y += by;
            l.b.y += by;
        }
        void operator()(Polyline& l) const { move(l.points); }
        void operator()(Area& a) const { move(a.points); }
        void operator()(Mark& m) const { m.at.y += by; }
        void operator()(Label& l) const { l.at.y += by; }
        void move(std::vector<Point>& points) const {
            for (auto& p : points)
                p.y += by;
        }
    };
    std::visit(Mover{by}, shape);
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
        lower(shape, by);
    for (auto& hit : picture.hits)
        hit.y += by;
    for (auto& label : labels)
        picture.add(std::move(label));
    picture.height += by;
    return picture;
}

} // namespace anvil::chart
