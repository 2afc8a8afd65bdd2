// What a method draws of itself on: a method knows what its piece looks like, a chart how lines become ink.
#pragma once

#include <optional>
#include <string_view>
#include <utility>
#include <vector>

namespace anvil::methods {

/// What a line or an area is of.
enum class Tone {
    piece,  ///< what is tested
    second, ///< another part, or what presses
    ground, ///< what holds still
    band,   ///< what only surrounds
    load,
    failed,
    words
};
enum class Stroke { solid, dashed, dotted };
enum class Dot { disc, ring, cross };
enum class Beside { middle, left, right }; ///< where a text stands to its place

struct At {
    double x = 0, y = 0;
};

/// Draws on a box of `width` × `height` px, (0, 0) its upper left corner. What was typed of the piece is
/// known to it, so that symbols become "L 400 mm" and dimensions of another section are left out.
class Easel {
public:
    virtual ~Easel() = default;
    /// Corner, width and height.
    virtual void box(double x, double y, double w, double h, Tone tone = Tone::piece) = 0;
    virtual void area(const std::vector<At>& corners, Tone tone) = 0;
    virtual void line(At a, At b, Tone tone = Tone::ground, double width = 1.2,
                      Stroke stroke = Stroke::solid) = 0;
    virtual void curve(std::vector<At> points, Tone tone, double width) = 0;
    virtual void dot(At at, Dot shape, double size, Tone tone) = 0;
    virtual void arrow(At from, At to, Tone tone = Tone::load) = 0;
    virtual void words(At at, std::string_view text, Beside beside = Beside::middle,
                       Tone tone = Tone::ground) = 0;
    /// The symbol of an input and, where it was typed, its value.
    virtual void label(At at, std::string_view symbol, std::string_view key,
                       Beside beside = Beside::middle) = 0;
    /// Whether something was typed under this key.
    virtual bool said(std::string_view key) const = 0;
    /// A count that was typed; nothing where none was.
    virtual std::optional<double> count(std::string_view key) const = 0;

    /// An arrow with the symbol of its load at its head.
    void force(At from, At to, std::string_view symbol, std::string_view key, Beside beside = Beside::right);
    /// A measure between two places, with ticks at its ends and its name at the middle, on the other side
    /// where `turned`.
    void measure(At a, At b, std::string_view symbol, std::string_view key, bool turned = false);
    void ring(At at, double radius, Tone tone = Tone::piece);
    /// The section, in the upper right corner of a sketch: round where a diameter was typed or nothing but
    /// one is asked for.
    void section(bool mayBeFlat, bool mayBeRound, std::string_view second = "depth",
                 std::string_view secondSymbol = "d");
};

/// A drawing of a method: on a box of 300 × 170 its piece with the symbols of its formulas, on one of
/// 150 × 90 what is done to it.
using Draws = void (*)(Easel&);

} // namespace anvil::methods
