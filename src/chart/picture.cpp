#include <anvil/chart/picture.h>

#include <anvil/quantity/print.h>
#include <cmath>
#include <fmt/format.h>
#include <numbers>

namespace anvil::chart {
namespace {

std::string escaped(const std::string& text) {
    std::string out;
    for (const char c : text) {
        switch (c) {
        case '&':
            out += "&amp;";
            break;
        case '<':
            out += "&lt;";
            break;
        case '>':
            out += "&gt;";
            break;
        case '"':
            out += "&quot;";
            break;
        default:
            out += c;
        }
    }
    return out;
}

std::string points(const std::vector<Point>& all) {
    std::string out;
    for (const auto& p : all)
        out += fmt::format("{:.1f},{:.1f} ", p.x, p.y);
    return out;
}

std::string dashArray(Dash dash) {
    switch (dash) {
    case Dash::solid:
        return "";
    case Dash::dashed:
        return " stroke-dasharray=\"7 4\"";
    case Dash::dotted:
        return " stroke-dasharray=\"2 3\"";
    case Dash::dashDot:
        return " stroke-dasharray=\"8 3 2 3\"";
    }
    return "";
}

} // namespace

Ink seriesInk(std::size_t n) {
    return static_cast<Ink>(static_cast<int>(Ink::series0) + static_cast<int>(n % 8));
}

Dash seriesDash(std::size_t n) { return static_cast<Dash>(n % 4); }

std::vector<std::string> Picture::labels() const {
    std::vector<std::string> out;
    for (const auto& s : shapes)
        if (const auto* label = std::get_if<Label>(&s)) out.push_back(label->text);
    return out;
}

const Palette& lightPalette() {
    static constexpr Palette palette{{0xfbfaf6, 0x23282c, 0x6a6f73, 0xd9d5cb, 0xa83b16, 0x9a5b00, 0xe7dccb,
                                      0x1f5f8b, 0xa83b16, 0x3c7a3f, 0x7a4b94, 0x8a6a00, 0x14807c, 0xa0355f,
                                      0x4d5560}};
    return palette;
}

const Palette& darkPalette() {
    static constexpr Palette palette{{0x272c30, 0xe9e6de, 0xa5a9aa, 0x444a4f, 0xf2925a, 0xf0bf62, 0x454037,
                                      0x7fb8e2, 0xf2925a, 0x8fc98a, 0xc8a2de, 0xe2c35a, 0x6fd0c8, 0xea8fb2,
                                      0xb9c0c8}};
    return palette;
}

namespace {

/// Writes shape by shape.
struct SvgWriter {
    const Palette& palette;
    std::string& out;

    std::string color(Ink ink) const { return fmt::format("#{:06x}", palette[ink]); }
    void line(Point a, Point b, Ink ink, double width, Dash dash) const {
        out += fmt::format("<line x1=\"{:.1f}\" y1=\"{:.1f}\" x2=\"{:.1f}\" y2=\"{:.1f}\" stroke=\"{}\" "
                           "stroke-width=\"{:.1f}\"{}/>\n",
                           a.x, a.y, b.x, b.y, color(ink), width, dashArray(dash));
    }
    void polygon(const std::vector<Point>& all, Ink ink) const {
        out += fmt::format("<polygon points=\"{}\" fill=\"{}\"/>\n", points(all), color(ink));
    }
    void operator()(const Line& l) const { line(l.a, l.b, l.ink, l.width, l.dash); }
    void operator()(const Polyline& l) const {
        out += fmt::format("<polyline points=\"{}\" fill=\"none\" stroke=\"{}\" stroke-width=\"{:.1f}\" "
                           "stroke-linejoin=\"round\" opacity=\"{:.2f}\"{}/>\n",
                           points(l.points), color(l.ink), l.width, l.opacity, dashArray(l.dash));
    }
    void operator()(const Area& a) const {
        out += fmt::format("<polygon points=\"{}\" fill=\"{}\" opacity=\"{:.2f}\"/>\n", points(a.points),
                           color(a.ink), a.opacity);
    }
    void operator()(const Mark& m) const {
        const double r = m.size / 2, x = m.at.x, y = m.at.y;
        switch (m.shape) {
        case MarkShape::disc:
            out += fmt::format("<circle cx=\"{:.1f}\" cy=\"{:.1f}\" r=\"{:.1f}\" fill=\"{}\"/>\n", x, y, r,
                               color(m.ink));
            break;
        case MarkShape::ring:
            out += fmt::format("<circle cx=\"{:.1f}\" cy=\"{:.1f}\" r=\"{:.1f}\" fill=\"none\" "
                               "stroke=\"{}\" stroke-width=\"1.6\"/>\n",
                               x, y, r - 0.8, color(m.ink));
            break;
        case MarkShape::arrowRight:
            polygon({{x - r, y - r}, {x + r, y}, {x - r, y + r}}, m.ink);
            break;
        case MarkShape::arrowLeft:
            polygon({{x + r, y - r}, {x - r, y}, {x + r, y + r}}, m.ink);
            break;
        case MarkShape::triangleUp:
            polygon({{x - r, y + r}, {x, y - r}, {x + r, y + r}}, m.ink);
            break;
        case MarkShape::diamond:
            polygon({{x - r, y}, {x, y - r}, {x + r, y}, {x, y + r}}, m.ink);
            break;
        case MarkShape::square:
            polygon({{x - r, y - r}, {x + r, y - r}, {x + r, y + r}, {x - r, y + r}}, m.ink);
            break;
        case MarkShape::span:
            line({x - r, y}, {x + r, y}, m.ink, 3, Dash::solid);
            break;
        case MarkShape::tick:
            line({x, y - r}, {x, y + r}, m.ink, 2, Dash::solid);
            break;
        case MarkShape::cross:
            line({x - r, y - r}, {x + r, y + r}, m.ink, 1.6, Dash::solid);
            line({x - r, y + r}, {x + r, y - r}, m.ink, 1.6, Dash::solid);
            break;
        }
    }
    void operator()(const Label& t) const {
        static constexpr const char* anchors[] = {"start", "middle", "end"};
        out += fmt::format("<text x=\"{:.1f}\" y=\"{:.1f}\" font-family=\"{}\" font-size=\"{:.1f}\"{} "
                           "text-anchor=\"{}\" fill=\"{}\">{}</text>\n",
                           t.at.x, t.at.y, "Anvil Sans, sans-serif", t.size,
                           t.bold ? " font-weight=\"bold\"" : "", anchors[static_cast<int>(t.align)],
                           color(t.ink), escaped(t.text));
    }
};

} // namespace

std::string toSvg(const Picture& p, const Palette& palette) {
    std::string out = fmt::format("<svg xmlns=\"http://www.w3.org/2000/svg\" viewBox=\"0 0 {0:.0f} {1:.0f}\" "
                                  "width=\"{0:.0f}\" height=\"{1:.0f}\" role=\"img\">\n",
                                  p.width, p.height);
    const SvgWriter writer{palette, out};
    out += fmt::format("<rect width=\"{:.0f}\" height=\"{:.0f}\" fill=\"{}\"/>\n", p.width, p.height,
                       writer.color(Ink::paper));
    for (const auto& shape : p.shapes)
        std::visit(writer, shape);
    return out + "</svg>\n";
}

double niceStep(double low, double high, int wanted) {
    const double raw = (high - low) / std::max(1, wanted);
    if (!(raw > 0) || !std::isfinite(raw)) return 1;
    const double power = std::pow(10, std::floor(std::log10(raw)));
    for (const double m : {1.0, 2.0, 5.0})
        if (raw <= m * power * 1.0001) return m * power;
    return 10 * power;
}

std::vector<double> ticks(double low, double high, double step) {
    std::vector<double> out;
    const double first = std::ceil(low / step), last = std::floor(high / step);
    if (!(last - first < 1000)) return out;
    for (int i = 0; i <= static_cast<int>(last - first); ++i)
        out.push_back((first + i) * step);
    return out;
}

std::string tickText(double value, double step) {
    const int decimals = std::max(0, static_cast<int>(-std::floor(std::log10(step) + 1e-9)));
    return quantity::fixed(std::abs(value) < step * 1e-6 ? 0 : value, decimals);
}

std::string elided(const std::string& text, std::size_t most) {
    std::size_t characters = 0;
    for (std::size_t i = 0; i < text.size(); ++i) {
        if ((static_cast<unsigned char>(text[i]) & 0xC0) == 0x80) continue;
        if (characters + 1 == most) { // room for one more: does anything follow it?
            std::size_t next = i + 1;
            while (next < text.size() && (static_cast<unsigned char>(text[next]) & 0xC0) == 0x80)
                ++next;
            if (next < text.size()) return text.substr(0, i) + "…";
        }
        ++characters;
    }
    return text;
}

} // namespace anvil::chart
