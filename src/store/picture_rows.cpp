// What was measured on a picture, as stored: see docs/file-format.md.
#include "json_fields.h"
#include "json_write.h"
#include <anvil/store/texts.h>

#include <QJsonDocument>

namespace anvil::store {
namespace {

using methods::PicturePoint;

QJsonArray pointsToJson(const std::vector<PicturePoint>& points) {
    QJsonArray all;
    for (const auto& p : points)
        all.append(QJsonArray{p.x, p.y});
    return all;
}

std::vector<PicturePoint> pointsFrom(const JsonFields& o) {
    std::vector<PicturePoint> all;
    o.list("points", [&](const QJsonValue& v) {
        const auto xy = jsonList(v, 2, o.trouble());
        if (xy.size() == 2) all.push_back({jsonNumber(xy[0], o.trouble()), jsonNumber(xy[1], o.trouble())});
    });
    return all;
}

} // namespace

QString marksToJson(const methods::PictureMarks& m) {
    QJsonObject o;
    if (!m.scale.points.empty()) {
        QJsonObject scale{{"points", pointsToJson(m.scale.points)}, {"length_m", m.scale.length}};
        putNumber(scale, "height_m", m.scale.height, 0);
        putNumber(scale, "doubt_m", m.scale.doubt, 0);
        o["scale"] = scale;
    }
    putNumber(o, "click_px", m.click, methods::PictureMarks{}.click);
    putList(o, "marks", m.marks, [](const methods::PictureMark& mark) {
        QJsonObject one{{"kind", text(methods::key(mark.kind))}, {"points", pointsToJson(mark.points)}};
        put(one, "name", mark.name);
        return one;
    });
    return QString::fromUtf8(QJsonDocument(o).toJson(QJsonDocument::Compact));
}

Expected<methods::PictureMarks> marksFromJson(const QString& json) {
    JsonTrouble trouble;
    const JsonFields o(json, trouble);
    methods::PictureMarks m;
    if (o.has("scale")) {
        const auto scale = o.object("scale");
        m.scale = {pointsFrom(scale), scale.number("length_m", 0), scale.number("height_m", 0),
                   scale.number("doubt_m", 0)};
    }
    m.click = o.number("click_px", m.click);
    o.list("marks", [&](const QJsonValue& v) {
        const JsonFields mark(v, trouble);
        const auto kind = methods::markKindFromKey(mark.text("kind"));
        if (!kind) return trouble.say(QStringLiteral("there is no mark \"%1\"").arg(text(mark.text("kind"))));
        m.marks.push_back({*kind, mark.text("name"), pointsFrom(mark)});
    });
    if (auto ok = trouble.done("What is marked on a picture"); !ok) return tl::unexpected(ok.error());
    return m;
}

} // namespace anvil::store
