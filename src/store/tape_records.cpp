#include "tape_records.h"

#include <QDir>
#include <QFile>
#include <QFileInfo>
#include <QJsonArray>
#include <QJsonDocument>
#include <anvil/domain/bounds.h>
#include <anvil/quantity/unit.h>
#include <cmath>
#include <cstring>
#include <limits>
#include <xxhash.h>

namespace anvil::store {
namespace tape {
namespace {

enum class Kind : std::uint32_t { header = 1, samples = 2 };

struct Head {
    std::uint32_t bytes = 0; ///< of what follows, without the checksum
    Kind kind{};
};
struct SamplesHead {
    std::uint32_t stream = 0, columns = 0;
    std::uint64_t first = 0;
};
constexpr std::size_t fixedColumns = 3; ///< time, force, displacement

template <class T> void put(std::string& to, const T& value) {
    to.append(reinterpret_cast<const char*>(&value), sizeof value);
}
template <class T> T take(const char* from) {
    T value;
    std::memcpy(&value, from, sizeof value);
    return value;
}

/// Appends a record whose body `fill` appends.
template <class Fill> void addRecord(std::string& to, Kind kind, const Fill& fill) {
    const auto at = to.size();
    put(to, Head{0, kind});
    fill();
    const auto bytes = static_cast<std::uint32_t>(to.size() - at - sizeof(Head));
    std::memcpy(to.data() + at, &bytes, sizeof bytes);
    put(to, static_cast<std::uint64_t>(XXH3_64bits(to.data() + at, to.size() - at)));
}

QJsonArray named(const std::vector<rig::ChannelName>& names) {
    QJsonArray out;
    for (const auto& n : names)
        out.append(
            QJsonObject{{"name", QString::fromStdString(n.name)}, {"unit", QString::fromStdString(n.unit)}});
    return out;
}

std::vector<rig::ChannelName> named(const QJsonArray& names) {
    std::vector<rig::ChannelName> out;
    for (const auto& value : names) {
        const auto n = value.toObject();
        out.push_back({n["name"].toString().toStdString(), n["unit"].toString().toStdString()});
    }
    return out;
}

QString symbol(quantity::Dimension d) {
    return QString::fromStdString(std::string(quantity::siUnit(d).symbol));
}

quantity::Dimension dimension(const QJsonValue& symbol, quantity::Dimension usual) {
    const auto known = quantity::findUnit(symbol.toString().toStdString());
    return known ? (*known)->dimension : usual;
}

TapeHeader headerFrom(const QJsonObject& json) {
    TapeHeader h{json["pull"].toObject(), {}, {}};
    h.channels.others = named(json["others"].toArray());
    for (const auto& side : json["sides"].toArray())
        h.channels.sides.push_back(named(side.toArray()));
    h.channels.load = dimension(json["load"], h.channels.load);
    h.channels.travel = dimension(json["travel"], h.channels.travel);
    for (const auto& id : json["curves"].toArray())
        h.curves.push_back(id.toInteger());
    h.curves.resize(h.channels.streams());
    return h;
}

/// What was read so far of a tape; `samples` wait until the header says how many channels each stream has.
struct SideRead {
    TapeHeader header;
    int headers = 0; ///< number of the header that holds
    struct Rows {
        SamplesHead head;
        std::vector<double> values;
    };
    std::vector<Rows> samples;

    void take(Kind kind, const char* body, std::size_t bytes) {
        if (kind == Kind::header) {
            const auto json =
                QJsonDocument::fromJson(QByteArray(body, static_cast<qsizetype>(bytes))).object();
            if (const int number = json["number"].toInt(); number > headers) {
                headers = number;
                header = headerFrom(json);
            }
        } else if (kind == Kind::samples && bytes >= sizeof(SamplesHead)) {
            Rows rows{tape::take<SamplesHead>(body), {}};
            if (bytes < sizeof(SamplesHead) + sizeof(double) ||
                rows.head.first > static_cast<std::uint64_t>(domain::bounds::samples))
                return;
            rows.values.resize((bytes - sizeof(SamplesHead)) / sizeof(double));
            std::memcpy(rows.values.data(), body + sizeof(SamplesHead), rows.values.size() * sizeof(double));
            samples.push_back(std::move(rows));
        }
    }
};

/// Reads records up to the end, or to where one is torn off or damaged.
void readSide(const QByteArray& data, SideRead& to) {
    const char* at = data.constData();
    auto left = static_cast<std::size_t>(data.size());
    while (left >= sizeof(Head) + sizeof(std::uint64_t)) {
        const auto head = take<Head>(at);
        const std::size_t record = sizeof(Head) + head.bytes;
        if (record + sizeof(std::uint64_t) > left ||
            XXH3_64bits(at, record) != take<std::uint64_t>(at + record))
            return;
        to.take(head.kind, at + sizeof(Head), head.bytes);
        at += record + sizeof(std::uint64_t);
        left -= record + sizeof(std::uint64_t);
    }
}

/// Adds to a stream what it does not hold yet.
void addRows(std::vector<Stretch>& stream, const SideRead::Rows& rows, std::size_t others) {
    const auto columns = fixedColumns + others;
    std::size_t index = rows.head.first;
    for (std::size_t at = 0; at + columns <= rows.values.size(); at += columns, ++index) {
        const double* v = rows.values.data() + at;
        const auto held = stream.empty() ? 0 : stream.back().first + stream.back().samples.size();
        if (!stream.empty() && index < held) continue;
        if (stream.empty() || index > held) stream.push_back({index, {}});
        rig::Sample s{v[0], v[1], std::isnan(v[2]) ? std::nullopt : std::optional(v[2]), true, {}};
        std::copy_n(v + fixedColumns, others, s.others.begin());
        stream.back().samples.push_back(s);
    }
}

} // namespace

void addHeader(std::string& to, const TapeHeader& header, int number) {
    QJsonArray sides, curves;
    for (const auto& side : header.channels.sides)
        sides.append(named(side));
    for (const auto id : header.curves)
        curves.append(static_cast<qint64>(id));
    const QJsonObject json{{"number", number},
                           {"pull", header.pull},
                           {"others", named(header.channels.others)},
                           {"sides", sides},
                           {"load", symbol(header.channels.load)},
                           {"travel", symbol(header.channels.travel)},
                           {"curves", curves}};
    addRecord(to, Kind::header,
              [&] { to += QJsonDocument(json).toJson(QJsonDocument::Compact).toStdString(); });
}

void addSamples(std::string& to, std::size_t stream, std::size_t first, std::size_t others,
                std::span<const rig::Sample> samples) {
    addRecord(to, Kind::samples, [&] {
        put(to, SamplesHead{static_cast<std::uint32_t>(stream),
                            static_cast<std::uint32_t>(fixedColumns + others), first});
        for (const auto& s : samples) {
            put(to, s.time);
            put(to, s.load);
            put(to, s.travel.value_or(std::numeric_limits<double>::quiet_NaN()));
            to.append(reinterpret_cast<const char*>(s.others.data()), others * sizeof(double));
        }
    });
}

} // namespace tape

std::vector<QStringList> tapesOf(const QString& project) {
    const QFileInfo info(project);
    const QDir dir(info.absolutePath());
    std::map<QString, QStringList> tapes; // by name without the side
    const auto start = info.fileName() + tape::suffix;
    for (const auto& name : dir.entryList(QDir::Files, QDir::Name))
        if (name.startsWith(start)) tapes[name.chopped(1)] << dir.filePath(name);
    std::vector<QStringList> out;
    out.reserve(tapes.size());
    for (const auto& [name, sides] : tapes)
        out.push_back(sides);
    return out;
}

Expected<TapeContent> readTape(const QStringList& sides) {
    tape::SideRead reading;
    for (const auto& path : sides) {
        QFile file(path);
        if (!file.open(QIODevice::ReadOnly))
            return fail(path.toStdString() + " cannot be read: " + file.errorString().toStdString() + ".");
        tape::readSide(file.readAll(), reading);
    }
    if (reading.headers == 0)
        return fail(sides.join(", ").toStdString() + " holds nothing that could be read.");
    TapeContent out{reading.header, {}};
    const auto& channels = out.header.channels;
    out.streams.resize(channels.streams());
    std::stable_sort(reading.samples.begin(), reading.samples.end(),
                     [](const auto& a, const auto& b) { return a.head.first < b.head.first; });
    for (const auto& rows : reading.samples) {
        if (rows.head.stream >= out.streams.size()) continue;
        const auto others = channels.names(rows.head.stream).size();
        if (others <= rig::mostOthers && rows.head.columns == tape::fixedColumns + others)
            tape::addRows(out.streams[rows.head.stream], rows, others);
    }
    return out;
}

} // namespace anvil::store
