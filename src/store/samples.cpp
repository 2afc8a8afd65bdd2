#include "samples.h"

#include <anvil/domain/bounds.h>
#include <anvil/store/project.h>
#include <bit>
#include <memory>
#include <xxhash.h>
#include <zstd.h>

namespace anvil::store {

static_assert(std::endian::native == std::endian::little, "samples are stored as they lie in memory");

std::vector<ChannelView> channelsOf(const curve::Curve& curve) {
    std::vector<ChannelView> out;
    const auto unit = [](quantity::Dimension d) { return std::string(quantity::siUnit(d).symbol); };
    if (!curve.time.empty()) out.push_back({"time", "s", {}, &curve.time});
    if (!curve.load.empty() || curve.others.empty())
        out.push_back({"force", unit(curve.loadKind), {}, &curve.load});
    if (!curve.travel.empty()) out.push_back({"displacement", unit(curve.travelKind), {}, &curve.travel});
    for (const auto& o : curve.others)
        out.push_back({"other", o.unit, o.name, &o.values});
    return out;
}

void putChunk(curve::Curve& curve, const QString& kind, const QString& name, const QString& unit,
              std::span<const double> values) {
    const auto append = [&](std::vector<double>& to) { to.insert(to.end(), values.begin(), values.end()); };
    if (kind == QLatin1String("time")) return append(curve.time);
    const auto dimension = [&](quantity::Dimension usual) {
        const auto known = quantity::findUnit(unit.toStdString());
        return known ? (*known)->dimension : usual;
    };
    if (kind == QLatin1String("force")) {
        curve.loadKind = dimension(quantity::Dimension::force);
        return append(curve.load);
    }
    if (kind == QLatin1String("displacement")) {
        curve.travelKind = dimension(quantity::Dimension::length);
        return append(curve.travel);
    }
    // Chunks come channel by channel, and names are unique within a curve.
    const auto wanted = name.toStdString();
    if (curve.others.empty() || curve.others.back().name != wanted)
        curve.others.push_back({wanted, unit.toStdString(), {}});
    append(curve.others.back().values);
}

std::size_t samplesIn(const curve::Curve& curve) {
    return !curve.load.empty() || curve.others.empty() ? curve.load.size()
                                                       : curve.others.front().values.size();
}

QByteArray bytesOf(std::span<const double> values) {
    return QByteArray::fromRawData(reinterpret_cast<const char*>(values.data()),
                                   static_cast<qsizetype>(values.size_bytes()));
}

qint64 checksum(const QByteArray& data) {
    return static_cast<qint64>(XXH3_64bits(data.constData(), static_cast<std::size_t>(data.size())));
}

namespace {

QString hex(XXH128_hash_t hash) {
    return QStringLiteral("%1%2")
        .arg(hash.high64, 16, 16, QLatin1Char('0'))
        .arg(hash.low64, 16, 16, QLatin1Char('0'));
}

} // namespace

SamplesDigest::SamplesDigest() : m_state(XXH3_createState()) { XXH3_128bits_reset(m_state.get()); }

void SamplesDigest::Free::operator()(XXH3_state_s* state) const { XXH3_freeState(state); }

void SamplesDigest::channel(std::string_view kind, std::string_view name) {
    XXH3_128bits_update(m_state.get(), kind.data(), kind.size());
    XXH3_128bits_update(m_state.get(), name.data(), name.size());
}

void SamplesDigest::values(const void* data, std::size_t bytes) {
    XXH3_128bits_update(m_state.get(), data, bytes);
}

QString SamplesDigest::done() const { return hex(XXH3_128bits_digest(m_state.get())); }

QString digest(const curve::Curve& curve) {
    SamplesDigest d;
    for (const auto& [kind, unit, name, values] : channelsOf(curve)) {
        // As it will be read back: the database keeps UTF-16, which has no place for a mark of byte order or
        // for bytes that are no letter.
        d.channel(kind, QString::fromStdString(name).toStdString());
        d.values(values->data(), values->size() * sizeof(double));
    }
    return d.done();
}

ImportedFile ImportedFile::pack(const QString& name, const QByteArray& bytes) {
    const auto size = static_cast<std::size_t>(bytes.size());
    ImportedFile file{name, hex(XXH3_128bits(bytes.constData(), size)), bytes.size(), {}};
    const std::unique_ptr<ZSTD_CCtx, decltype(&ZSTD_freeCCtx)> context(ZSTD_createCCtx(), ZSTD_freeCCtx);
    ZSTD_CCtx_setParameter(context.get(), ZSTD_c_compressionLevel, -3);
    ZSTD_CCtx_setParameter(context.get(), ZSTD_c_checksumFlag, 1);
    file.packed.resize(static_cast<qsizetype>(ZSTD_compressBound(size)));
    const auto packed = ZSTD_compress2(context.get(), file.packed.data(),
                                       static_cast<std::size_t>(file.packed.size()), bytes.constData(), size);
    file.packed.resize(static_cast<qsizetype>(packed)); // cannot fail: the room is the bound
    return file;
}

Expected<QByteArray> ImportedFile::unpack() const {
    const auto damaged = fail("The kept file " + name.toStdString() + " is damaged (checksum).");
    // What the row says is not trusted: the frame carries its own length, and there is a most.
    const auto length = ZSTD_getFrameContentSize(packed.constData(), static_cast<std::size_t>(packed.size()));
    if (length == ZSTD_CONTENTSIZE_UNKNOWN || length == ZSTD_CONTENTSIZE_ERROR ||
        length > static_cast<unsigned long long>(domain::bounds::fileBytes) ||
        length != static_cast<unsigned long long>(bytes))
        return damaged;
    QByteArray out(bytes, Qt::Uninitialized);
    const auto got = ZSTD_decompress(out.data(), static_cast<std::size_t>(out.size()), packed.constData(),
                                     static_cast<std::size_t>(packed.size()));
    if (ZSTD_isError(got) || static_cast<qint64>(got) != bytes ||
        hex(XXH3_128bits(out.constData(), static_cast<std::size_t>(out.size()))) != digest)
        return damaged;
    return out;
}

} // namespace anvil::store
