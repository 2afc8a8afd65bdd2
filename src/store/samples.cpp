#include "samples.h"

#include <QCryptographicHash>
#include <anvil/store/project.h>
#include <bit>
#include <cstring>
#include <zlib.h>

namespace anvil::store {

static_assert(std::endian::native == std::endian::little, "samples are stored as they lie in memory");

std::vector<ChannelView> channelsOf(const curve::Curve& curve) {
    std::vector<ChannelView> out;
    if (!curve.time.empty())
        out.push_back({"time", "s", &curve.time});
    out.push_back({"force", "N", &curve.force});
    if (!curve.displacement.empty())
        out.push_back({"displacement", "m", &curve.displacement});
    return out;
}

QByteArray pack(std::span<const double> values) {
    return QByteArray(reinterpret_cast<const char*>(values.data()), static_cast<qsizetype>(values.size_bytes()));
}

bool unpack(const QByteArray& data, std::vector<double>& to) {
    if (data.size() % 8)
        return false;
    const std::size_t at = to.size();
    to.resize(at + static_cast<std::size_t>(data.size()) / 8);
    if (!data.isEmpty())
        std::memcpy(to.data() + at, data.constData(), static_cast<std::size_t>(data.size()));
    return true;
}

quint32 crc(const QByteArray& data) {
    return static_cast<quint32>(crc32(0, reinterpret_cast<const Bytef*>(data.constData()), static_cast<uInt>(data.size())));
}

QString digest(const curve::Curve& curve) {
    QCryptographicHash hash(QCryptographicHash::Sha256);
    for (const auto& [kind, unit, values] : channelsOf(curve)) {
        hash.addData(QByteArrayView(kind));
        const auto* bytes = reinterpret_cast<const char*>(values->data());
        hash.addData(QByteArrayView(bytes, static_cast<qsizetype>(values->size() * sizeof(double))));
    }
    return QString::fromLatin1(hash.result().toHex());
}

} // namespace anvil::store
