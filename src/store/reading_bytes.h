// A reading and the settings it was made by, as bytes to be kept beside the samples.
#pragma once

#include <QByteArray>
#include <anvil/curve/reading.h>
#include <optional>

namespace anvil::store {

/// Every field in order, numbers as they lie in memory on a little-endian machine.
QByteArray toBytes(const curve::ReadingSettings& settings, const curve::Reading& reading);

struct ReadingAndSettings {
    curve::ReadingSettings settings;
    curve::Reading reading;
};
/// The same back; nothing where the bytes are not all of them, or more.
std::optional<ReadingAndSettings> readingFrom(const QByteArray& bytes);

} // namespace anvil::store
