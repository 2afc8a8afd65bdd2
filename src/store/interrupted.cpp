// Recordings that a crash or a power cut broke off: brought to an end when the project is opened.
#include "project_private.h"
#include "recorded_curve.h"
#include "samples.h"
#include <anvil/store/tape.h>

namespace anvil::store {
namespace {

const auto interrupted = QStringLiteral("A recording was interrupted");

/// A curve that is being recorded, as the project holds it.
struct Held {
    std::size_t samples = 0;
    int nextSequence = 0;
    bool hasDisplacement = false;
    double displacement = 0; ///< the last one
};

std::optional<Held> held(QSqlDatabase& db, Id curve) {
    QSqlQuery q(db);
    q.exec(QStringLiteral(
               "SELECT samples, (SELECT coalesce(max(sequence) + 1, 0) FROM chunk WHERE curve = c.id) "
               "FROM curve c WHERE id = %1")
               .arg(curve));
    if (!q.next()) return std::nullopt;
    Held h{q.value(0).toULongLong(), q.value(1).toInt()};
    q.exec(
        QStringLiteral("SELECT (SELECT data FROM chunk WHERE curve = c.curve AND channel = c.number ORDER BY "
                       "sequence DESC LIMIT 1) FROM channel c WHERE curve = %1 AND kind = 'displacement'")
            .arg(curve));
    if (q.next()) {
        h.hasDisplacement = true;
        std::vector<double> last;
        if (unpack(q.value(0).toByteArray(), last) && !last.empty()) h.displacement = last.back();
    }
    return h;
}

/// What the project holds of the recording on a tape.
struct Known {
    Id pull = 0;         ///< 0: nothing, it died before the first commit
    bool running = true; ///< false: it was ended without the tape
    std::vector<std::optional<Held>> streams;
};

Known known(QSqlDatabase& db, const TapeContent& tape) {
    Known k;
    k.streams.resize(tape.streams.size());
    const auto& curves = tape.header.curves;
    QSqlQuery q(db);
    // The tape names a curve before its first commit: it may never have come to be, or the number be
    // another's.
    q.exec(QStringLiteral("SELECT id, recording FROM pull WHERE curve = %1 AND specimen = %2")
               .arg(curves[0])
               .arg(tape.header.pull["specimen"].toInteger()));
    if (!q.next()) { // what is no longer on the tape was committed, so that the pull was taken away since
        k.running = tape.streams[0].empty() || tape.streams[0].front().first == 0;
        return k;
    }
    k.pull = q.value(0).toLongLong();
    k.running = q.value(1).toString() == QLatin1String("running");
    k.streams[0] = held(db, curves[0]);
    for (std::size_t i = 1; i < curves.size(); ++i) {
        q.exec(QStringLiteral("SELECT 1 FROM curve WHERE id = %1 AND beside = %2")
                   .arg(curves[i])
                   .arg(curves[0]));
        if (q.next()) k.streams[i] = held(db, curves[i]);
    }
    return k;
}

/// Whether there is a sample on the tape that the project does not hold.
bool hasMore(const TapeContent& tape, const Known& k) {
    for (std::size_t i = 0; i < tape.streams.size(); ++i)
        for (const auto& stretch : tape.streams[i])
            if (stretch.first + stretch.samples.size() > (k.streams[i] ? k.streams[i]->samples : 0))
                return true;
    return false;
}

/// Adds to the project what only the tape holds.
void bringIn(const TapeContent& tape, const Known& k, Writer& w) {
    const auto& channels = tape.header.channels;
    Id main = k.pull ? tape.header.curves[0] : 0;
    for (std::size_t i = 0; i < tape.streams.size(); ++i) {
        auto now = k.streams[i].value_or(Held{});
        Id curve = k.streams[i] ? tape.header.curves[i] : 0;
        for (const auto& stretch : tape.streams[i]) {
            const auto skip =
                std::min(stretch.samples.size(), now.samples - std::min(now.samples, stretch.first));
            const auto rest = std::span(stretch.samples).subspan(skip);
            if (rest.empty()) continue;
            if (!curve) now.hasDisplacement = rest.front().displacement.has_value();
            const auto part = recordedCurve(rest, channels, i, now.hasDisplacement, now.displacement);
            if (!curve) curve = w.beginCurve(part, main);
            if (i == 0) main = curve;
            w.appendSamples(curve, now.nextSequence++, part);
        }
    }
    if (!k.pull) {
        auto row = tape.header.pull;
        row["curve"] = static_cast<qint64>(main);
        row["recording"] = "running"; // ended with the others
        w.insert("pull", row);
    }
}

} // namespace

void Project::endInterruptedRecordings() {
    for (const auto& sides : tapesOf(d->path)) {
        const auto tape = readTape(sides);
        bool done = false;
        if (tape) {
            auto db = d->reader();
            const auto k = known(db, *tape);
            // Without the main device's samples there is no pull. What ended without its tape stays as it is.
            const bool nothing = !hasMore(*tape, k) || (!k.pull && tape->streams[0].empty());
            done = nothing || (k.running && write(interrupted, [&](Writer& w) { bringIn(*tape, k, w); }));
        }
        if (done)
            for (const auto& side : sides)
                QFile::remove(side);
        else
            d->leftTapes.push_back(sides);
    }
    std::vector<std::pair<Id, Id>> running;
    {
        auto db = d->reader();
        QSqlQuery q(db);
        q.exec("SELECT id, curve FROM pull WHERE recording = 'running'");
        while (q.next())
            running.emplace_back(q.value(0).toLongLong(), q.value(1).toLongLong());
    }
    for (const auto& [pull, curve] : running) {
        const auto end = [&](const std::vector<CurveSummary>& curves) {
            return write(interrupted, [&](Writer& w) {
                for (const auto& c : curves)
                    w.finishCurve(c);
                w.update("pull", pull, {{"recording", "interrupted"}});
            });
        };
        // Damaged samples, or a disk without room to lay them together, must not keep the project shut.
        const auto curves = summarize(curve);
        if (!curves || !end(*curves)) (void)end({});
    }
}

} // namespace anvil::store
