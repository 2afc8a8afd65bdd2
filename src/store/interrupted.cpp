// Recordings that a crash or a power cut broke off: brought to an end when the project is opened.
#include "packing.h"
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
    bool hasTravel = false;
    double travel = 0; ///< the last one
};

/// Error: the project cannot be read. Empty: it does not hold the curve.
Expected<std::optional<Held>> held(const QSqlDatabase& db, Id curve) {
    const auto id = static_cast<qlonglong>(curve);
    Query q(
        db,
        "SELECT samples, (SELECT coalesce(max(sequence) + 1, 0) FROM chunk WHERE curve = c.id) FROM curve c "
        "WHERE id = ?",
        {id});
    const bool there = q.next();
    if (auto ok = q.done(); !ok) return tl::unexpected(ok.error());
    if (!there) return std::optional<Held>();
    Held h{static_cast<std::size_t>(q.id(0)), q.integer(1)};
    const auto read =
        each(db,
             "SELECT k.data, k.samples, k.packing FROM channel c JOIN chunk k ON k.curve = c.curve AND "
             "k.channel = "
             "c.number WHERE c.curve = ? AND c.kind = 'displacement' ORDER BY k.sequence DESC LIMIT 1",
             {id}, [&](const Query& last) {
                 h.hasTravel = true;
                 std::vector<double> values;
                 if (last.id(1) > 0 && unpacked(static_cast<Packing>(last.integer(2)), last.bytes(0),
                                                static_cast<std::size_t>(last.id(1)), values))
                     h.travel = values.back();
             });
    if (!read) return tl::unexpected(read.error());
    return std::optional(h);
}

/// What the project holds of the recording on a tape.
struct Known {
    Id pull = 0;         ///< 0: nothing, it died before the first commit
    bool running = true; ///< false: somebody has said what it was, without the tape
    std::vector<std::optional<Held>> streams;
};

Expected<Known> known(const QSqlDatabase& db, const TapeContent& tape) {
    Known k;
    k.streams.resize(tape.streams.size());
    const auto& curves = tape.header.curves;
    // The tape names a curve before its first commit: it may never have come to be, or the number be
    // another's.
    Query pull(db, "SELECT id, recording FROM pull WHERE curve = ? AND specimen = ?",
               {static_cast<qlonglong>(curves[0]), tape.header.pull["specimen"].toInteger()});
    const bool there = pull.next();
    if (auto ok = pull.done(); !ok) return tl::unexpected(ok.error());
    if (!there) { // what is no longer on the tape was committed, so that the pull was taken away since
        k.running = tape.streams[0].empty() || tape.streams[0].front().first == 0;
        return k;
    }
    k.pull = pull.id(0);
    k.running = !pull.string(1).isEmpty(); // running, or cut short where the tape could not be brought in
    for (std::size_t i = 0; i < curves.size(); ++i) {
        Query mine(db, "SELECT 1 FROM curve WHERE id = ? AND beside IS ?",
                   {static_cast<qlonglong>(curves[i]),
                    i == 0 ? QVariant() : QVariant(static_cast<qlonglong>(curves[0]))});
        const bool is = mine.next();
        if (auto ok = mine.done(); !ok) return tl::unexpected(ok.error());
        if (!is) continue;
        auto stream = held(db, curves[i]);
        if (!stream) return tl::unexpected(stream.error());
        k.streams[i] = *stream;
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
            if (!curve) now.hasTravel = rest.front().travel.has_value();
            const auto part = recordedCurve(rest, channels, i, now.hasTravel, now.travel);
            if (!curve) curve = w.beginCurve(part, main);
            if (i == 0) main = curve;
            w.appendSamples(curve, now.nextSequence++, part);
        }
    }
    if (k.pull) {
        w.update("pull", k.pull, {{"recording", "running"}}); // ended with the others
    } else {
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
            const auto k = known(d->reader(), *tape);
            // Without the main device's samples there is no pull. What ended without its tape stays as it is.
            const bool nothing = k && (!hasMore(*tape, *k) || (!k->pull && tape->streams[0].empty()));
            done =
                nothing || (k && k->running && write(interrupted, [&](Writer& w) { bringIn(*tape, *k, w); }));
        }
        if (done)
            for (const auto& side : sides)
                QFile::remove(side);
        else
            d->leftTapes.push_back(sides);
    }
    std::vector<std::pair<Id, Id>> running; // what cannot be read is said by whoever loads the project
    (void)each(d->reader(), "SELECT id, curve FROM pull WHERE recording = 'running'", {},
               [&](const Query& q) { running.emplace_back(q.id(0), q.id(1)); });
    d->brokenOff = static_cast<int>(running.size());
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
