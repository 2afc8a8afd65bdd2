#include "reading_bytes.h"

#include <bit>
#include <cstring>
#include <type_traits>

namespace anvil::store {
namespace {

static_assert(std::endian::native == std::endian::little);
constexpr std::size_t mostTexts = 1000; // more is no reading

/// Puts fields at the end of the bytes.
struct Out {
    QByteArray bytes;

    template <class T>
    requires std::is_arithmetic_v<T> || std::is_enum_v<T>
    void operator()(const T& value) { bytes.append(reinterpret_cast<const char*>(&value), sizeof value); }
    void operator()(const std::string& text) {
        (*this)(static_cast<std::uint32_t>(text.size()));
        bytes.append(text.data(), static_cast<qsizetype>(text.size()));
    }
};

/// Takes them from the front; after the first that is not there nothing more is taken.
struct In {
    const char* at;
    std::size_t left;
    bool ok = true;

    bool take(void* to, std::size_t size) {
        ok = ok && size <= left;
        if (!ok) return false;
        std::memcpy(to, at, size);
        at += size;
        left -= size;
        return true;
    }
    template <class T>
    requires std::is_arithmetic_v<T> || std::is_enum_v<T>
    void operator()(T& value) {
        if constexpr (std::is_same_v<T, bool>) { // any other byte would be no bool
            unsigned char byte = 0;
            take(&byte, 1);
            value = byte == 1;
            ok = ok && byte <= 1;
        } else {
            take(&value, sizeof value);
        }
    }
    void operator()(std::string& text) {
        std::uint32_t size = 0;
        (*this)(size);
        if (!ok || size > left) {
            ok = false;
            return;
        }
        text.assign(at, size);
        at += size;
        left -= size;
    }
};

/// One list of fields for both ways.
template <class IO, class T, class Fields> void maybe(IO& io, T& optional, Fields fields) {
    bool there = optional.has_value();
    io(there);
    if (!there) {
        if constexpr (!std::is_const_v<T>) optional.reset();
        return;
    }
    if constexpr (!std::is_const_v<T>)
        if (!optional) optional = typename T::value_type{};
    fields(*optional);
}
template <class IO, class T> void number(IO& io, T& optional) {
    maybe(io, optional, [&](auto& v) { io(v); });
}
template <class IO, class T> void texts(IO& io, T& all) {
    auto size = static_cast<std::uint32_t>(all.size());
    io(size);
    if constexpr (!std::is_const_v<T>) {
        if (size > mostTexts) io.ok = false;
        all.resize(io.ok ? size : 0);
    }
    for (auto& text : all)
        io(text);
}
template <class IO, class T> void landmark(IO& io, T& m) {
    io(m.index);
    io(m.time);
    io(m.load);
    number(io, m.travel);
    io(m.byHand);
}
template <class IO, class T> void byHand(IO& io, T& optional) {
    maybe(io, optional, [&](auto& o) {
        io(o.time);
        io(o.none);
    });
}
template <class IO, class T> void settingsFields(IO& io, T& s) {
    number(io, s.rigLimit);
    number(io, s.calibratedTo);
    number(io, s.crossheadSpeed);
    io(s.preload);
    io(s.breakShare);
    for (auto* o : {&s.peak, &s.firstSlip, &s.breakPoint, &s.fitFrom, &s.fitTo})
        byHand(io, *o);
    io(s.stiffnessBy);
    io(s.chordFrom);
    io(s.chordTo);
    io(s.rigCompliance);
    number(io, s.yieldOffset);
    for (auto* o : {&s.holdFrom, &s.holdTo})
        byHand(io, *o);
    number(io, s.atTravel);
    number(io, s.atLoad);
    for (auto* v : {&s.sustainedFor, &s.sustainedSpeed, &s.burst.lowPass, &s.burst.longestWindow,
                    &s.breakawayWithin, &s.runningUntil})
        io(*v);
}
template <class IO, class T> void burstFields(IO& io, T& b) {
    for (auto* v : {&b.peak, &b.peakTime, &b.width, &b.velocityChange, &b.severity, &b.severityFrom,
                    &b.severityTo, &b.lowPass})
        io(*v);
}
template <class IO, class T> void heldFields(IO& io, T& h) {
    for (auto* v : {&h.from, &h.to, &h.mean, &h.sd, &h.relaxation})
        io(*v);
    maybe(io, h.law, [&](auto& law) {
        for (auto* v : {&law.a, &law.b, &law.tau, &law.r2})
            io(*v);
    });
}
template <class IO, class T> void togetherFields(IO& io, T& t) {
    for (auto* v : {&t.from, &t.to, &t.load})
        io(*v);
    auto size = static_cast<std::uint32_t>(t.others.size());
    io(size);
    if constexpr (!std::is_const_v<T>) {
        if (size > mostTexts) io.ok = false;
        t.others.resize(io.ok ? size : 0);
    }
    for (auto& [name, mean] : t.others) {
        io(name);
        io(mean);
    }
}
template <class IO, class T> void readingFields(IO& io, T& r) {
    io(r.samples);
    io(r.dropped);
    io(r.spikes);
    io(r.baseline);
    io(r.noise);
    io(r.resolution);
    io(r.flipped);
    io(r.offScale);
    io(r.guessed);
    io(r.loadKind);
    io(r.travelKind);
    number(io, r.breakaway);
    number(io, r.running);
    io(r.againstTime);
    io(r.departure);
    landmark(io, r.peak);
    for (auto* m : {&r.firstSlip, &r.breakPoint})
        maybe(io, *m, [&](auto& x) { landmark(io, x); });
    maybe(io, r.stiffness, [&](auto& k) {
        io(k.value);
        io(k.standardError);
        io(k.r2);
        io(k.from);
        io(k.to);
        io(k.fromIndex);
        io(k.toIndex);
        io(k.samples);
        io(k.includesRigStretch);
        io(k.byHand);
    });
    for (auto* v : {&r.toe, &r.slack, &r.energyToFirstSlip, &r.energyToPeak, &r.energyToBreak})
        number(io, *v);
    maybe(io, r.residual, [&](auto& x) {
        io(x.load);
        io(x.share);
    });
    maybe(io, r.fall, [&](auto& x) {
        io(x.ratio);
        io(x.word);
    });
    number(io, r.loadRate);
    number(io, r.travelRate);
    maybe(io, r.yield, [&](auto& x) { landmark(io, x); });
    maybe(io, r.hold, [&](auto& x) { heldFields(io, x); });
    for (auto* a : {&r.loadAtTravel, &r.travelAtLoad})
        maybe(io, *a, [&](auto& x) {
            io(x.at);
            number(io, x.value);
        });
    number(io, r.sustained);
    number(io, r.permanent);
    maybe(io, r.burst, [&](auto& x) { burstFields(io, x); });
    maybe(io, r.together, [&](auto& x) { togetherFields(io, x); });
    texts(io, r.warnings);
    texts(io, r.notes);
}

} // namespace

QByteArray toBytes(const curve::ReadingSettings& settings, const curve::Reading& reading) {
    Out out;
    settingsFields(out, settings);
    readingFields(out, reading);
    return out.bytes;
}

std::optional<ReadingAndSettings> readingFrom(const QByteArray& bytes) {
    ReadingAndSettings got;
    In in{bytes.constData(), static_cast<std::size_t>(bytes.size())};
    settingsFields(in, got.settings);
    readingFields(in, got.reading);
    if (!in.ok || in.left != 0) return {};
    return got;
}

} // namespace anvil::store
