// The samples of a curve by channels, and what is made of all of them.
#pragma once

#include <QByteArray>
#include <QString>
#include <anvil/curve/curve.h>
#include <memory>
#include <span>
#include <string>
#include <string_view>
#include <vector>

struct XXH3_state_s;

namespace anvil::store {

inline constexpr std::size_t samplesPerChunk = 131072; // 1 MiB a chunk

struct ChannelView {
    const char* kind; ///< "time", "force", "displacement", "other"
    std::string unit, name;
    const std::vector<double>* values;
};
std::vector<ChannelView> channelsOf(const curve::Curve& curve);

/// Puts the samples of one stored chunk into the curve they belong to.
void putChunk(curve::Curve& curve, const QString& kind, const QString& name, const QString& unit,
              std::span<const double> values);
/// Samples of a curve, whichever channels it has.
std::size_t samplesIn(const curve::Curve& curve);

/// Digest of a curve's samples, channel by channel as they are stored; see `digest`.
class SamplesDigest {
public:
    SamplesDigest();
    void channel(std::string_view kind, std::string_view name);
    void values(const void* data, std::size_t bytes); ///< of the channel begun last
    QString done() const;

private:
    struct Free {
        void operator()(XXH3_state_s* state) const;
    };
    std::unique_ptr<XXH3_state_s, Free> m_state;
};

/// The bytes of the values where they lie: not a copy.
QByteArray bytesOf(std::span<const double> values);
qint64 checksum(const QByteArray& data); ///< XXH3, 64 bits

} // namespace anvil::store
