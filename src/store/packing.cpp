#include "packing.h"

#include <anvil/quantity/unit.h>
#include <array>
#include <bit>
#include <cmath>
#include <cstring>
#include <memory>
#include <optional>
#include <zstd.h>

namespace anvil::store {
namespace {

// Data of Packing::decimals, little-endian: factor (float64), first (int64: k of the first sample), decimals
// d (byte), order (byte: 1 or 2, of the differences), width (byte: bytes of a difference), 0 (byte),
// exceptions (uint32); for each exception its index (uint32) and sample (float64); then a zstd frame of
// `width` planes of a byte for each difference, lowest byte first. Differences are folded: 0, −1, 1, −2 …
// become 0, 1, 2, 3 …
constexpr std::size_t headBytes = 24, exceptionBytes = 12;
constexpr int mostDecimals = 9;
constexpr double mostWhole = 9007199254740992.0; // 2^53: whole numbers a double holds exactly
constexpr std::size_t leastSamples = 64;         // fewer are not worth it
/// Samples that are no such decimal, such as −0: no more than one in so many.
constexpr std::size_t exceptionShare = 64;

using Context = std::unique_ptr<ZSTD_CCtx, decltype(&ZSTD_freeCCtx)>;

bool appendFrame(QByteArray& to, const std::vector<char>& bytes, const Compress& compress) {
    std::vector<char> frame;
    if (!compress(frame, bytes)) return false;
    to.append(frame.data(), static_cast<qsizetype>(frame.size()));
    return true;
}

/// The bytes of a frame, if they are just so many.
std::optional<std::vector<char>> frame(const char* data, std::size_t size, std::size_t wanted) {
    if (ZSTD_getFrameContentSize(data, size) != wanted) return {};
    std::vector<char> out(wanted);
    const auto n = ZSTD_decompress(out.data(), wanted, data, size);
    if (ZSTD_isError(n) || n != wanted) return {};
    return out;
}

std::array<double, mostDecimals + 1> powersOfTen() {
    std::array<double, mostDecimals + 1> p{};
    p[0] = 1;
    for (std::size_t i = 1; i < p.size(); ++i)
        p[i] = p[i - 1] * 10;
    return p;
}
const std::array<double, mostDecimals + 1> powers = powersOfTen();

/// How a log's decimals became samples: read, then brought to SI.
struct Rule {
    double factor = 1;
    int decimals = 0;
    double sample(double whole) const { return whole / powers[static_cast<std::size_t>(decimals)] * factor; }
    /// The whole number a sample comes from to its last bit; nothing where there is none. −0 has none.
    std::optional<std::int64_t> whole(double v) const {
        const double k = std::nearbyint(v / factor * powers[static_cast<std::size_t>(decimals)]) + 0.0;
        if (!(std::abs(k) < mostWhole)) return {};
        if (std::bit_cast<std::uint64_t>(sample(k)) != std::bit_cast<std::uint64_t>(v)) return {};
        return static_cast<std::int64_t>(k);
    }
};

const std::vector<double>& factors() {
    static const auto all = [] {
        std::vector<double> out{1, 0.001};
        for (const auto& u : quantity::allUnits())
            if ((u.dimension == quantity::Dimension::force || u.dimension == quantity::Dimension::length ||
                 u.dimension == quantity::Dimension::time) &&
                u.offset == 0 && std::find(out.begin(), out.end(), u.factor) == out.end())
                out.push_back(u.factor);
        return out;
    }();
    return all;
}

/// The rule that a few samples across the chunk follow.
std::optional<Rule> ruleOf(std::span<const double> values) {
    constexpr std::size_t looked = 64;
    std::vector<double> some;
    for (std::size_t i = 0; i < looked; ++i)
        some.push_back(values[i * (values.size() - 1) / (looked - 1)]);
    for (const double factor : factors())
        for (int d = 0; d <= mostDecimals; ++d) {
            const Rule rule{factor, d};
            std::size_t wrong = 0;
            for (std::size_t i = 0; i < some.size() && wrong < 3; ++i)
                wrong += !rule.whole(some[i]);
            if (wrong < 3) return rule;
        }
    return {};
}

std::uint64_t folded(std::int64_t v) {
    return (static_cast<std::uint64_t>(v) << 1) ^ static_cast<std::uint64_t>(v >> 63);
}
std::int64_t unfolded(std::uint64_t v) {
    return static_cast<std::int64_t>(v >> 1) ^ -static_cast<std::int64_t>(v & 1);
}

template <class T> void put(QByteArray& to, T v) {
    to.append(reinterpret_cast<const char*>(&v), static_cast<qsizetype>(sizeof v));
}
template <class T> T get(const char* from) {
    T v;
    std::memcpy(&v, from, sizeof v);
    return v;
}

/// Differences of the whole numbers; of order 2 those of the differences.
std::vector<std::uint64_t> differences(const std::vector<std::int64_t>& whole, int order) {
    std::vector<std::uint64_t> out(whole.size(), 0);
    std::int64_t before = 0;
    for (std::size_t i = 1; i < whole.size(); ++i) {
        const std::int64_t d = whole[i] - whole[i - 1];
        out[i] = folded(order == 2 ? d - before : d);
        before = d;
    }
    return out;
}

std::uint8_t widthOf(const std::vector<std::uint64_t>& values) {
    std::uint64_t any = 0;
    for (const auto v : values)
        any |= v;
    return static_cast<std::uint8_t>(std::max(1, (static_cast<int>(std::bit_width(any)) + 7) / 8));
}

std::optional<QByteArray> asDecimals(std::span<const double> values, const Compress& compress) {
    const auto rule = ruleOf(values);
    if (!rule) return {};
    std::vector<std::int64_t> whole(values.size());
    std::vector<std::uint32_t> odd;
    for (std::size_t i = 0; i < values.size(); ++i) {
        if (const auto k = rule->whole(values[i])) {
            whole[i] = *k;
            continue;
        }
        odd.push_back(static_cast<std::uint32_t>(i));
        if (odd.size() * exceptionShare > values.size()) return {};
        whole[i] = i > 0 ? whole[i - 1] : 0;
    }
    const auto once = differences(whole, 1), twice = differences(whole, 2);
    const bool second =
        widthOf(twice) < widthOf(once) || twice == std::vector<std::uint64_t>(twice.size(), 0);
    const auto& d = second ? twice : once;
    const auto width = widthOf(d);
    QByteArray out;
    put(out, rule->factor);
    put(out, whole[0]);
    for (const int b : {rule->decimals, second ? 2 : 1, static_cast<int>(width), 0})
        put(out, static_cast<std::uint8_t>(b));
    put(out, static_cast<std::uint32_t>(odd.size()));
    for (const auto i : odd) {
        put(out, i);
        put(out, values[i]);
    }
    std::vector<char> planes(d.size() * width);
    for (std::size_t w = 0; w < width; ++w)
        for (std::size_t i = 0; i < d.size(); ++i)
            planes[w * d.size() + i] = static_cast<char>(d[i] >> (8 * w));
    if (!appendFrame(out, planes, compress)) return {};
    return out;
}

bool fromDecimals(const QByteArray& data, std::size_t samples, std::vector<double>& to) {
    const auto size = static_cast<std::size_t>(data.size());
    if (size < headBytes || samples == 0) return false;
    const char* p = data.constData();
    const auto order = static_cast<std::uint8_t>(p[17]), width = static_cast<std::uint8_t>(p[18]);
    const Rule rule{get<double>(p), static_cast<std::uint8_t>(p[16])};
    const std::size_t odd = get<std::uint32_t>(p + 20);
    if (rule.decimals > mostDecimals || (order != 1 && order != 2) || width < 1 || width > 8 ||
        odd > samples || size < headBytes + odd * exceptionBytes)
        return false;
    const auto from = headBytes + odd * exceptionBytes;
    const auto planes = frame(p + from, size - from, samples * width);
    if (!planes) return false;
    const std::size_t at = to.size();
    to.resize(at + samples);
    std::uint64_t whole = get<std::uint64_t>(p + 8), step = 0; // unsigned: damaged ones may go round
    for (std::size_t i = 0; i < samples; ++i) {
        std::uint64_t bits = 0;
        for (std::size_t w = 0; w < width; ++w)
            bits |= static_cast<std::uint64_t>(static_cast<unsigned char>((*planes)[w * samples + i]))
                    << (8 * w);
        const auto d = static_cast<std::uint64_t>(unfolded(bits));
        if (i > 0) {
            step = order == 2 ? step + d : d;
            whole += step;
        }
        to[at + i] = rule.sample(static_cast<double>(static_cast<std::int64_t>(whole)));
    }
    for (std::size_t k = 0; k < odd; ++k) {
        const char* e = p + headBytes + k * exceptionBytes;
        const auto i = get<std::uint32_t>(e);
        if (i >= samples) return false;
        to[at + i] = get<double>(e + 4);
    }
    return true;
}

std::optional<QByteArray> shuffled(std::span<const double> values, const Compress& compress) {
    std::vector<char> planes(values.size() * 8);
    const auto* bytes = reinterpret_cast<const char*>(values.data());
    for (std::size_t b = 0; b < 8; ++b)
        for (std::size_t i = 0; i < values.size(); ++i)
            planes[b * values.size() + i] = bytes[i * 8 + b];
    QByteArray out;
    if (!appendFrame(out, planes, compress)) return {};
    return out;
}

bool fromShuffled(const QByteArray& data, std::size_t samples, std::vector<double>& to) {
    const auto planes = frame(data.constData(), static_cast<std::size_t>(data.size()), samples * 8);
    if (!planes) return false;
    const std::size_t at = to.size();
    to.resize(at + samples);
    auto* bytes = reinterpret_cast<char*>(to.data() + at);
    for (std::size_t b = 0; b < 8; ++b)
        for (std::size_t i = 0; i < samples; ++i)
            bytes[i * 8 + b] = (*planes)[b * samples + i];
    return true;
}

} // namespace

bool zstdFrame(std::vector<char>& frame, std::span<const char> bytes) {
    thread_local const Context context(ZSTD_createCCtx(), ZSTD_freeCCtx);
    if (!context) return false;
    frame.resize(ZSTD_compressBound(bytes.size()));
    const auto n =
        ZSTD_compressCCtx(context.get(), frame.data(), frame.size(), bytes.data(), bytes.size(), 1);
    if (ZSTD_isError(n)) return false;
    frame.resize(n);
    return true;
}

PackedChunk packed(std::span<const double> values, const Compress& compress) {
    const auto plain = QByteArray::fromRawData(reinterpret_cast<const char*>(values.data()),
                                               static_cast<qsizetype>(values.size_bytes()));
    if (values.size() < leastSamples) return {Packing::plain, plain};
    if (auto data = asDecimals(values, compress); data && data->size() < plain.size())
        return {Packing::decimals, *data};
    if (auto data = shuffled(values, compress); data && data->size() < plain.size())
        return {Packing::shuffled, *data};
    return {Packing::plain, plain};
}

bool unpacked(Packing packing, const QByteArray& data, std::size_t samples, std::vector<double>& to) {
    constexpr std::size_t most = std::size_t{1} << 28; // a damaged row may say anything
    if (samples > most) return false;
    switch (packing) {
    case Packing::plain: {
        if (static_cast<std::size_t>(data.size()) != samples * 8) return false;
        const std::size_t at = to.size();
        to.resize(at + samples);
        if (samples > 0) std::memcpy(to.data() + at, data.constData(), samples * 8);
        return true;
    }
    case Packing::shuffled:
        return fromShuffled(data, samples, to);
    case Packing::decimals:
        return fromDecimals(data, samples, to);
    }
    return false;
}

} // namespace anvil::store
